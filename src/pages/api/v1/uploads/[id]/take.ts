/** Takes a file in that was sent: a map, or addresses. It is read where it lies, and goes from there whatever came of it. */
import type { APIRoute } from 'astro';
import { explain } from '@/server/explain';
import { answer, readJson } from '@/server/http/endpoint';
import { problemResponse } from '@/server/http/problem';
import { takeSent } from '@/server/uploads/take-sent';
import { refused } from '@/server/problem';

export const POST: APIRoute = async ({ params, request, locals: { rt, actor } }) => {
  try {
    if (!actor) throw refused();
    return answer({ said: await takeSent(rt, params.id ?? '', await readJson(request), actor) });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
