/** What else happens in some venues: dates of listings that are published or being prepared, by the site's clock. */
import { type SQL, sql } from 'drizzle-orm';
import type { Day } from '@/core/day/day';
import type { BookingRow } from '@/core/listing/editor';
import type { Db } from '../db/client';
import { shown } from '../jobs/hidden';

/** So many at most: a hall with a date each hour for three years. */
const MOST = 30_000;

export interface BookingQuery {
  venueIds: readonly string[];
  /** the listing that asks */
  not: string | null;
  from: Day;
  /** only dates that may touch these days; absent = all from then on */
  days?: readonly Day[] | undefined;
}

/** Dates that begin on one of the days, or beside one, and those that take several days. */
function near(days: readonly Day[] | undefined): SQL {
  if (!days) return sql`true`;
  const all = JSON.stringify([...new Set(days.flatMap((day) => [day - 1, day, day + 1]))]);
  return sql`(o.last_day > o.start_day or o.start_day = any(array(select json_array_elements_text(${all}::json)::int)))`;
}

/**
 * Dates from a day on that take space in any of these venues, once for each: those of a hall take space in its rooms and the
 * other way about. Withdrawn and binned listings and cancelled
 * dates take no room; a date that is elsewhere takes room there and none where its listing usually is.
 */
export async function readBookings(db: Db, { venueIds, not, from, days }: BookingQuery): Promise<BookingRow[]> {
  if (!venueIds.length) return [];
  const asked = sql.join(
    venueIds.map((id) => sql`(${id}::uuid)`),
    sql`, `,
  );
  // A hall and each of its rooms take the same space; two rooms do not (core/venue/rooms.ts).
  const spaces = sql`
    select a.venue as asked, s.id as venue from (values ${asked}) as a(venue)
    join venue v on v.id = a.venue
    join venue s on s.id = v.id or s.parent_id = v.id or s.id = v.parent_id`;
  const result = (await db.execute(sql`
    select coalesce(json_agg(json_build_array(title, listing_id, start_day, start_minute, end_day, end_minute, venue)), '[]')::text as list
    from (
      select h.title, o.listing_id, o.start_day, o.start_minute, o.end_day, o.end_minute, h.asked as venue
      from (
        -- Whether the listing itself is there is found out once for each, not for every date.
        select l.id, l.title, asked.asked, asked.venue, coalesce(p.content, l.working)->'venueIds' @> to_jsonb(array[asked.venue]) as own
        from (${spaces}) as asked
        join listing_link k on k.venue_id = asked.venue
        join listing l on l.id = k.listing_id and k.copy = case when l.stage = 'published' then 'published' else 'working' end
        left join published p on p.listing_id = l.id
        where ${shown(sql.raw('l.job_id'))} and l.stage not in ('withdrawn', 'binned') and l.id is distinct from ${not}::uuid
          and l.working->>'attendance' <> 'online' and l.working->>'standing' <> 'cancelled'
        offset 0
      ) h
      join occurrence o on o.listing_id = h.id
      where o.last_day >= ${from} and ${near(days)} and coalesce(o.standing, '') not in ('cancelled', 'postponed')
        and case when o.venue_id is null then h.own else o.venue_id = h.venue end
      order by o.start_day limit ${MOST}
    ) q`)) as unknown as { rows: { list: string }[] };
  return JSON.parse(result.rows[0]?.list ?? '[]') as BookingRow[];
}

export interface OrganizerQuery extends Omit<BookingQuery, 'venueIds'> {
  organizerIds: readonly string[];
}

/** Dates from a day on at which these people are needed; the organizer stands where a booking has its venue. */
export async function readOrganizerBookings(db: Db, { organizerIds, not, from, days }: OrganizerQuery): Promise<BookingRow[]> {
  if (!organizerIds.length) return [];
  const result = (await db.execute(sql`
    select coalesce(json_agg(json_build_array(title, listing_id, start_day, start_minute, end_day, end_minute, organizer_id)), '[]')::text as list
    from (
      select l.title, o.listing_id, o.start_day, o.start_minute, o.end_day, o.end_minute, k.organizer_id
      from listing_link k
      join listing l on l.id = k.listing_id and k.copy = case when l.stage = 'published' then 'published' else 'working' end
      join occurrence o on o.listing_id = l.id
      where k.organizer_id in ${organizerIds} and o.last_day >= ${from} and ${near(days)} and coalesce(o.standing, '') not in ('cancelled', 'postponed')
        and ${shown(sql.raw('l.job_id'))} and l.stage not in ('withdrawn', 'binned') and l.id is distinct from ${not}::uuid
        and l.working->>'standing' <> 'cancelled'
      order by o.start_day limit ${MOST}
    ) q`)) as unknown as { rows: { list: string }[] };
  return JSON.parse(result.rows[0]?.list ?? '[]') as BookingRow[];
}
