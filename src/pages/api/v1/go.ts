/** What the Desk's "Go to" finds for a few letters. */
import type { APIRoute } from 'astro';
import { findGoals } from '@/server/desk/go';
import { answer } from '@/server/http/endpoint';
import { refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';

export const GET: APIRoute = async ({ url, locals }) => {
  try {
    if (!locals.actor) throw refused();
    return answer(await findGoals(locals.rt, locals.actor, (url.searchParams.get('words') ?? '').slice(0, 100)));
  } catch (error) {
    return problemResponse(explain(error));
  }
};
