/** The listings that somebody chose, by their ids or by what the table shows; and what an action points to, which must be there. */
import type { BulkAction } from '@/core/listing/bulk-actions';
import type { Actor } from '../accounts/roles';
import { invalid } from '../problem';
import { readTableIds, readTableQuery, selectingOf } from '../desk/table';
import { referenceData } from '../reference/read';
import type { Runtime } from '../runtime-type';

/** The ids that are ticked, as they came, or those that a query finds for the actor. Throws a Problem at `ids` when nothing was ticked. */
export async function chosenIds(rt: Runtime, actor: Actor, chosen: { ids?: string[]; query?: string }): Promise<string[]> {
  if (chosen.ids) {
    const ids = [...new Set(chosen.ids)];
    if (!ids.length) throw invalid('ids', 'Choose some listings first.');
    return ids;
  }
  const query = readTableQuery(new URLSearchParams(chosen.query ?? ''));
  return readTableIds(rt.db, actor, query, await selectingOf(rt, query));
}

/** Does what the action names exist? Throws a Problem at its field when it does not. */
export async function checkAction(rt: Runtime, action: BulkAction): Promise<void> {
  const reference = await referenceData(rt);
  const missing =
    (action.kind === 'category' && !reference.category.has(action.id) && 'category') ||
    (action.kind === 'venue' && !reference.venues.some((v) => v.id === action.id) && 'venue') ||
    (action.kind === 'organizer' && !reference.organizers.some((o) => o.id === action.id) && 'organizer');
  if (action.kind === 'tag' && !action.ids.every((id) => reference.tag.has(id))) throw invalid('ids', 'A tag is gone; choose another.');
  if (missing) throw invalid('id', `That ${missing} is gone; choose another.`);
}
