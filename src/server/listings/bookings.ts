/** What else happens in a venue: dates of listings that are published or being prepared, by the site's clock. */
import { sql } from 'drizzle-orm';
import type { Day } from '@/core/day/day';
import type { BookingRow } from '@/core/listing/editor';
import type { Db } from '../db/client';

/** So many at most: a hall with a date each hour for three years. */
const MOST = 30_000;

export interface BookingQuery {
  venueIds: readonly string[];
  /** the listing that asks */
  not: string | null;
  from: Day;
}

/** Dates from a day on in any of these venues; withdrawn and binned listings and cancelled dates take no room. */
export async function readBookings(db: Db, { venueIds, not, from }: BookingQuery): Promise<BookingRow[]> {
  if (!venueIds.length) return [];
  const result = (await db.execute(sql`
    select coalesce(json_agg(json_build_array(l.title, l.id, o.start_day, o.start_minute, o.end_day, o.end_minute)), '[]')::text as list
    from (
      select o.* from occurrence o
      where o.last_day >= ${from} and coalesce(o.standing, '') not in ('cancelled', 'postponed')
        and o.listing_id in (
          select k.listing_id from listing_link k join listing x on x.id = k.listing_id
          where k.venue_id in ${venueIds} and k.copy = case when x.stage = 'published' then 'published' else 'working' end
            and x.stage not in ('withdrawn', 'binned') and x.id is distinct from ${not}::uuid
            and x.working->>'attendance' <> 'online' and x.working->>'standing' <> 'cancelled')
      order by o.start_day limit ${MOST}
    ) o join listing l on l.id = o.listing_id`)) as unknown as { rows: { list: string }[] };
  return JSON.parse(result.rows[0]?.list ?? '[]') as BookingRow[];
}
