/** How often something may be done, kept in the database so that a restart does not forget. Real time, not the demo's. */
import { sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { newId } from '../db/ids';
import { Problem } from './problem';

export interface Bound {
  /** what is bounded and for whom: `add:127.0.0.1` */
  key: string;
  most: number;
  seconds: number;
}

/** Counts one more and throws a Problem when that is more than the bound allows in its window. One statement, so two at once cannot both slip by. */
export async function countOne(db: Db, { key, most, seconds }: Bound, nowMs: number): Promise<void> {
  const since = nowMs - seconds * 1000;
  const rows = await queryRows<{ count: number; started: number | string }>(
    db,
    sql`
    insert into rate_limit (id, key, count, last_request) values (${newId(nowMs)}, ${key}, 1, ${nowMs})
    on conflict (key) do update set
      count = case when rate_limit.last_request < ${since} then 1 else rate_limit.count + 1 end,
      last_request = case when rate_limit.last_request < ${since} then ${nowMs} else rate_limit.last_request end
    returning count, last_request as started`,
  );
  const row = rows[0];
  if (!row || row.count <= most) return;
  const minutes = Math.max(1, Math.ceil((Number(row.started) + seconds * 1000 - nowMs) / 60_000));
  throw new Problem(
    429,
    `That was more often than is allowed; try again in ${minutes} minute${minutes === 1 ? '' : 's'}. What you typed is still here.`,
  );
}
