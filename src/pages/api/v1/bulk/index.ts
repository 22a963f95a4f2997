/** Does something with many listings, as a job; what belongs to others, or cannot be done, stays and is named. */
import type { APIRoute } from 'astro';
import { bulkInput } from '@/server/bulk/input';
import { checkAction, chosenIds } from '@/server/bulk/chosen';
import { startBulk } from '@/server/bulk/run';
import { answer, readJson } from '@/server/http/endpoint';
import { read, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';

export const POST: APIRoute = async ({ request, locals: { rt, actor, now, settings } }) => {
  try {
    if (!actor) throw refused();
    const input = read(bulkInput, await readJson(request));
    await checkAction(rt, input.action);
    const ids = await chosenIds(rt, actor, input);
    const { run, job } = await rt.db.transaction((tx) => startBulk(tx, ids, input.action, { by: actor, now, settings }));
    rt.jobs.wake();
    // A short one is over before the page is shown again.
    await rt.jobs.wait(job, 1500);
    return answer({ run });
  } catch (error) {
    return problemResponse(explain(error));
  }
};
