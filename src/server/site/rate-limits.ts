/** How often something may be done, kept in the database so that a restart does not forget. Real time, not the demo's. */
import { eq, lt, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { rateBound } from '../db/schema';
import { SENDING_WORDS } from '@/words/sending';
import { Problem, type Say } from '../problem';

/** So many tries in so many seconds. */
export interface Bound {
  /** what is bounded and for whom: `add:127.0.0.1` */
  key: string;
  most: number;
  seconds: number;
}

const DAY_MS = 86_400_000;

/**
 * Counts one more. One statement, so two at once cannot both slip by.
 * @param nowMs milliseconds since 1970, of real time
 * @throws Problem 429 when that is more than the bound allows in its window
 */
export async function countOne(db: Db, { key, most, seconds }: Bound, nowMs: number): Promise<void> {
  const ends = nowMs + seconds * 1000;
  const [row] = await db
    .insert(rateBound)
    .values({ key, count: 1, ends })
    .onConflictDoUpdate({
      target: rateBound.key,
      set: {
        count: sql`case when ${rateBound.ends} < ${nowMs} then 1 else ${rateBound.count} + 1 end`,
        ends: sql`case when ${rateBound.ends} < ${nowMs} then ${ends} else ${rateBound.ends} end`,
      },
    })
    .returning();
  if (!row) return;
  if (row.count === 1) await db.delete(rateBound).where(lt(rateBound.ends, nowMs - DAY_MS));
  if (row.count <= most) return;
  const minutes = Math.max(1, Math.ceil((row.ends - nowMs) / 60_000));
  const say: Say = (words) => words.wrong.tooOften({ n: minutes });
  throw new Problem('too-often', say(SENDING_WORDS.en), [], {}, say);
}

/** Begins to count anew: what was tried has worked. */
export async function forget(db: Db, key: string): Promise<void> {
  await db.delete(rateBound).where(eq(rateBound.key, key));
}
