/** Says what an action would do with the chosen listings. Writes nothing. */
import type { APIRoute } from 'astro';
import { bulkInput } from '@/server/bulk/input';
import { checkAction, chosenIds } from '@/server/bulk/chosen';
import { planBulk } from '@/server/bulk/plan';
import { answer, readJson } from '@/server/http/endpoint';
import { read, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';

export const POST: APIRoute = async ({ request, locals }) => {
  try {
    const { rt, actor, now, settings } = locals;
    locals.unchanged = true;
    if (!actor) throw refused();
    const input = read(bulkInput, await readJson(request));
    await checkAction(rt, input.action);
    const ids = await chosenIds(rt, actor, input);
    return answer(await planBulk(rt.db, ids, input.action, { by: actor, now, settings }));
  } catch (error) {
    return problemResponse(explain(error));
  }
};
