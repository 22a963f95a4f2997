/** How far a job is, for its progress bar. */
import type { APIRoute } from 'astro';
import { answer } from '@/server/http/endpoint';
import { idOf } from '@/server/http/params';
import { explain, problemResponse } from '@/server/http/problem';
import { readJob } from '@/server/jobs/runner';

export const GET: APIRoute = async ({ params, locals: { rt } }) => {
  try {
    const { state, done, total, said } = await readJob(rt.db, idOf(params.id, 'job'));
    return answer({ state, done, total, said });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
