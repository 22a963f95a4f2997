/** How far a job is, for its progress bar. */
import type { APIRoute } from 'astro';
import { editsAll } from '@/server/accounts/roles';
import { answer } from '@/server/http/endpoint';
import { idOf, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { readJob } from '@/server/jobs/runner';

export const GET: APIRoute = async ({ params, locals: { rt, actor } }) => {
  try {
    if (!actor) throw refused();
    const { state, done, total, said, byId } = await readJob(rt.db, idOf(params.id, 'job'));
    // Contributors see how far their own are.
    if (!editsAll(actor) && byId !== actor.id) throw refused();
    return answer({ state, done, total, said });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
