/** What is kept for a while and then goes: the bin, what many-at-once needs to be undone, forms that were only open. */
import { and, eq, isNull, lt, notExists, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { bulkRun, edit, finderChange, link, listing, picture, pictureSource } from '../db/schema';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** Binned listings can be taken out for so many days, and actions undone. */
export const KEPT_DAYS = 30;

/** What was removed for good. */
export interface Tidied {
  listings: number;
  runs: number;
  /** hashes of the bytes that pictures were made from: what was cut from them can go too */
  pictures: string[];
}

/** `at`: the site's time for what people see in days, real time for what is open now. */
export async function tidy(tx: Db, at: Date, realTime: Date): Promise<Tidied> {
  const before = new Date(at.getTime() - KEPT_DAYS * DAY_MS);
  const gone = await tx
    .delete(listing)
    .where(and(eq(listing.stage, 'binned'), lt(listing.changedAt, before)))
    .returning({ id: listing.id });
  const runs = await tx.delete(bulkRun).where(lt(bulkRun.at, before)).returning({ id: bulkRun.id });
  const pictures = await tidyPictures(tx, at, before);
  await tx.delete(finderChange).where(lt(finderChange.at, new Date(realTime.getTime() - HOUR_MS)));
  await tx.delete(edit).where(and(isNull(edit.content), lt(edit.seenAt, new Date(realTime.getTime() - DAY_MS))));
  return { listings: gone.length, runs: runs.length, pictures };
}

/** Pictures from the bin, and files that no picture shows any longer. One that a listing in the bin still names waits for that. */
async function tidyPictures(tx: Db, at: Date, before: Date): Promise<string[]> {
  const named = tx.select({ one: sql`1` }).from(link).where(eq(link.pictureId, picture.id));
  await tx.delete(picture).where(and(lt(picture.binnedAt, before), notExists(named)));
  const shown = tx.select({ one: sql`1` }).from(picture).where(eq(picture.hash, pictureSource.hash));
  await tx
    .update(pictureSource)
    // From now, for one that just came in may be without its picture for a moment.
    .set({ unusedSince: at })
    .where(and(isNull(pictureSource.unusedSince), notExists(shown)));
  const gone = await tx
    .delete(pictureSource)
    .where(and(sql`${pictureSource.unusedSince} <= ${before.toISOString()}::timestamptz`, notExists(shown)))
    .returning({ hash: pictureSource.hash });
  return gone.map(({ hash }) => hash);
}
