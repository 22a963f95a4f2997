/** Addresses that listings, venues and organizers had: a copy leads on from them as the site does. */
import { sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';

/** Those of what readers may see, without a language. */
export async function formerAddresses(db: Db): Promise<string[]> {
  const rows = await queryRows<{ address: string }>(
    db,
    sql`select '/what/' || o.slug as address from old_slug o join published p on p.listing_id = o.listing_id
        where not exists (select 1 from job j where j.id = p.job_id and j.hidden)
      union all select case kind when 'venue' then '/at/' else '/by/' end || slug from old_place
      order by 1`,
  );
  return rows.map(({ address }) => address);
}
