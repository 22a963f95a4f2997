/** What else happens in some venues: dates of listings that are published or being prepared, by the site's clock. */
import { type SQL, sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import { type Minutes, nearTimes } from '@/core/dates/clashes';
import type { BookingRow } from '@/core/listing/editor';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';

/** So many at most: a hall with a date each hour for three years. */
const MOST = 30_000;

/** Which dates in which venues are asked for. */
export interface BookingQuery {
  venueIds: readonly string[];
  /** the listing that asks */
  not: string | null;
  from: EpochDay;
  /** only dates that may meet one of these; absent = all from then on */
  spans?: readonly Minutes[] | undefined;
  /** so many dates at most */
  most?: number;
}

/**
 * Dates that may meet one of the spans: those on its days between the earliest and the latest hour of all, and those that take a night,
 * a whole day or several. A few too many, so that the database need not compare each with each; who asks compares exactly.
 */
function near(spans: readonly Minutes[] | undefined): SQL {
  if (!spans) return sql`true`;
  const { days, early, late } = nearTimes(spans);
  const all = JSON.stringify([...days]);
  return sql`(o.start_minute is null or o.end_day > o.start_day
    or (o.start_minute < ${late} and coalesce(o.end_minute, o.start_minute + 1) > ${early} and o.start_day = any(array(select json_array_elements_text(${all}::json)::int))))`;
}

/**
 * Dates from a day on that take space in any of these venues, once for each: those of a hall take space in its rooms and the
 * other way about. Withdrawn and binned listings and cancelled
 * dates take no room; a date that is elsewhere takes room there and none where its listing usually is.
 */
export async function readBookings(db: Db, { venueIds, not, from, spans, most = MOST }: BookingQuery): Promise<BookingRow[]> {
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
  const rows = await queryRows<{ list: string }>(
    db,
    sql`
    -- Dates first, contents last: of a listing with no date that could meet, nothing is read.
    with d as materialized (
      select k.asked, k.venue, k.listing_id, o.*
      from (
        select distinct asked.asked, asked.venue, k.listing_id from (${spaces}) as asked
        join listing_link k on k.venue_id = asked.venue and k.listing_id is distinct from ${not}::uuid
      ) k
      -- One listing's dates after the other's: the planner would rather go through all dates there are.
      cross join lateral (
        select o.start_day, o.start_minute, o.end_day, o.end_minute, o.venue_id from occurrence o
        where o.listing_id = k.listing_id and o.last_day >= ${from} and ${near(spans)} and coalesce(o.event_status, '') not in ('cancelled', 'postponed')
        offset 0
      ) o
    ), l as materialized (
      -- The copy that counts says whether it is in the venue itself; once for each listing, not for every date.
      select l.id, l.title, x.venue, coalesce(p.content, l.working)->'venueIds' @> to_jsonb(array[x.venue]) as own
      from (select distinct listing_id, venue from d) x
      join listing l on l.id = x.listing_id
      left join published p on p.listing_id = l.id
      where ${shown(sql.raw('l.job_id'))} and l.stage not in ('withdrawn', 'binned')
        and l.working->>'attendance' <> 'online' and l.working->>'eventStatus' <> 'cancelled'
    )
    select coalesce(json_agg(json_build_array(title, listing_id, start_day, start_minute, end_day, end_minute, venue)), '[]')::text as list
    from (
      select l.title, d.listing_id, d.start_day, d.start_minute, d.end_day, d.end_minute, d.asked as venue
      from d join l on l.id = d.listing_id and l.venue = d.venue
      where case when d.venue_id is null then l.own else d.venue_id = d.venue end
      order by d.start_day limit ${most}
    ) q`,
  );
  return JSON.parse(rows[0]?.list ?? '[]') as BookingRow[];
}

/** Which dates of which organizers are asked for. */
export interface OrganizerQuery extends Omit<BookingQuery, 'venueIds'> {
  organizerIds: readonly string[];
}

/** Dates from a day on at which these people are needed; the organizer stands where a booking has its venue. */
export async function readOrganizerBookings(
  db: Db,
  { organizerIds, not, from, spans, most = MOST }: OrganizerQuery,
): Promise<BookingRow[]> {
  if (!organizerIds.length) return [];
  const rows = await queryRows<{ list: string }>(
    db,
    sql`
    select coalesce(json_agg(json_build_array(title, listing_id, start_day, start_minute, end_day, end_minute, organizer_id)), '[]')::text as list
    from (
      select l.title, o.listing_id, o.start_day, o.start_minute, o.end_day, o.end_minute, k.organizer_id
      from listing_link k
      join listing l on l.id = k.listing_id and k.copy = case when l.stage = 'published' then 'published' else 'working' end
      join occurrence o on o.listing_id = l.id
      where k.organizer_id in ${organizerIds} and o.last_day >= ${from} and ${near(spans)} and coalesce(o.event_status, '') not in ('cancelled', 'postponed')
        and ${shown(sql.raw('l.job_id'))} and l.stage not in ('withdrawn', 'binned') and l.id is distinct from ${not}::uuid
        and l.working->>'eventStatus' <> 'cancelled'
      order by o.start_day limit ${most}
    ) q`,
  );
  return JSON.parse(rows[0]?.list ?? '[]') as BookingRow[];
}
