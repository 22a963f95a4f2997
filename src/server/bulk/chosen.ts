/** The listings that somebody chose, by their ids or by what the table shows; and what an action points to, which must be there. */
import type { BulkAction } from '@/core/listing/bulk-actions';
import { and, eq, inArray } from 'drizzle-orm';
import { type Actor, editsAll } from '../accounts/roles';
import type { Db } from '../db/client';
import { listing } from '../db/schema';
import { invalid, refused } from '../problem';
import { readTableIds, readTableQuery, selectingOf } from '../desk/table';
import { referenceData } from '../reference/read';
import type { Runtime } from '../runtime-type';
import { serverWords } from '@/words/desk';

const w = serverWords.bulkChosen;

/** The ids that are ticked, as they came, or those that a query finds for the actor. Throws a Problem at `ids` when nothing was ticked. */
export async function chosenIds(rt: Runtime, actor: Actor, chosen: { ids?: string[]; query?: string }): Promise<string[]> {
  if (chosen.ids) {
    const ids = [...new Set(chosen.ids)];
    if (!ids.length) throw invalid('ids', w.chooseSomeListingsFirst());
    await refuseOthers(rt.db, actor, ids);
    return ids;
  }
  const query = readTableQuery(new URLSearchParams(chosen.query ?? ''));
  return readTableIds(rt.db, actor, query, await selectingOf(rt, query));
}

/** To contributors, listings of others are not there: neither their titles nor why an action cannot be done with them is said. */
async function refuseOthers(db: Db, actor: Actor, ids: readonly string[]): Promise<void> {
  if (editsAll(actor)) return;
  const own = await db
    .select({ id: listing.id })
    .from(listing)
    .where(and(eq(listing.ownerId, actor.id ?? ''), inArray(listing.id, [...ids])));
  if (own.length < ids.length) throw refused(w.someAreOthers());
}

/** Does what the action names exist? Throws a Problem at its field when it does not. */
export async function checkAction(rt: Runtime, action: BulkAction): Promise<void> {
  const reference = await referenceData(rt);
  const missing =
    (action.kind === 'category' && !reference.category.has(action.id) && 'category') ||
    (action.kind === 'venue' && !reference.venues.some((v) => v.id === action.id) && 'venue') ||
    (action.kind === 'organizer' && !reference.organizers.some((o) => o.id === action.id) && 'organizer');
  if (action.kind === 'tag' && !action.ids.every((id) => reference.tag.has(id))) throw invalid('ids', w.aTagIsGone());
  if (missing) throw invalid('id', w.thatIsGoneChoose({ missing }));
}
