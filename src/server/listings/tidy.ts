/** What is kept for a while and then goes: the bin, what many-at-once needs to be undone, forms that were only open. */
import { and, eq, isNull, lt } from 'drizzle-orm';
import type { Db } from '../db/client';
import { bulkRun, edit, listing } from '../db/schema';

const DAY_MS = 86_400_000;
/** Binned listings can be taken out for so many days, and actions undone. */
export const KEPT_DAYS = 30;

export interface Tidied {
  listings: number;
  runs: number;
}

/** `at`: the site's time for what people see in days, real time for what is open now. */
export async function tidy(tx: Db, at: Date, realTime: Date): Promise<Tidied> {
  const before = new Date(at.getTime() - KEPT_DAYS * DAY_MS);
  const gone = await tx
    .delete(listing)
    .where(and(eq(listing.stage, 'binned'), lt(listing.changedAt, before)))
    .returning({ id: listing.id });
  const runs = await tx.delete(bulkRun).where(lt(bulkRun.at, before)).returning({ id: bulkRun.id });
  await tx.delete(edit).where(and(isNull(edit.content), lt(edit.seenAt, new Date(realTime.getTime() - DAY_MS))));
  return { listings: gone.length, runs: runs.length };
}
