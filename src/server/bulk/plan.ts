/** What an action would do with each of many listings, said before it is done. Reads only. */
import { inArray } from 'drizzle-orm';
import { applied, type BulkAction, type BulkPlan, type Stays, staged } from '@/core/listing/bulk-actions';
import { actionOf, type ListingAction, sayRefusal, whyRefused } from '../accounts/permissions';
import type { Db } from '../db/client';
import { listing, listingCopy } from '../db/schema';
import { type Change, whatStops } from '../listings/write';
import { serverWords } from '@/words/desk';

const w = serverWords.bulkPlan;

type Row = typeof listing.$inferSelect;
/** So many reasons are said, and so many titles for each. */
const MOST_REASONS = 12;
const MOST_NAMED = 3;
/** So many are read at once; the thread is free between them. */
const AT_ONCE = 200;

const STAGES = { withdraw: 'withdrawn', draft: 'draft', bin: 'binned' } as const;

/** What an action is to one listing. */
function doingOf({ kind }: BulkAction, row: Row): ListingAction {
  if (kind === 'publish') return 'publish';
  return kind === 'withdraw' || kind === 'draft' || kind === 'bin' ? actionOf(STAGES[kind], row) : 'save';
}

/** Why an action cannot be done with a listing; undefined when it can. */
export function whyNot(row: Row | undefined, action: BulkAction, change: Change, unlooked: number): string | undefined {
  if (!row) return w.itWasRemovedMeanwhile();
  const doing = doingOf(action, row);
  const why = whyRefused(change.by, doing, row);
  if (why) return lower(sayRefusal(why, doing, row));
  const to = staged(row.stage, row.edited, action.kind);
  if (to && 'reason' in to) return to.reason;
  if (action.kind === 'publish') {
    if (unlooked) return w.itIsACopy();
    return lower(whatStops(row.working, change));
  }
  if (to) return undefined;
  const next = applied(row.working, action);
  return typeof next === 'string' ? next : undefined;
}

const lower = (sentence: string | undefined): string | undefined =>
  sentence === undefined ? undefined : sentence.charAt(0).toLowerCase() + sentence.slice(1).replace(/\.$/, '');

/** What an action would do to each of these listings, without writing anything. */
export async function planBulk(db: Db, ids: readonly string[], action: BulkAction, change: Change): Promise<BulkPlan> {
  const plan: BulkPlan = { can: 0, cannot: [], cannotCount: 0 };
  for (let from = 0; from < ids.length; from += AT_ONCE) {
    const some = ids.slice(from, from + AT_ONCE);
    const rows = new Map((await db.select().from(listing).where(inArray(listing.id, some))).map((row) => [row.id, row]));
    const copies = new Map(
      (await db.select().from(listingCopy).where(inArray(listingCopy.listingId, some))).map((c) => [c.listingId, c.unlooked.length]),
    );
    for (const id of some) {
      const row = rows.get(id);
      const reason = whyNot(row, action, change, copies.get(id) ?? 0);
      if (reason === undefined) plan.can++;
      else {
        plan.cannotCount++;
        addStay(plan.cannot, row?.title || w.withoutATitle(), reason);
      }
    }
    await new Promise((resolve) => setImmediate(resolve));
  }
  return plan;
}

function addStay(all: Stays[], title: string, reason: string): void {
  const known = all.find((stays) => stays.reason === reason);
  if (known) {
    known.count++;
    if (known.titles.length < MOST_NAMED) known.titles.push(title);
  } else if (all.length < MOST_REASONS) all.push({ reason, count: 1, titles: [title] });
}
