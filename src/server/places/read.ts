/** Venues and organizers as the Desk's tables show them. */
import { asc, eq, sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { organizer, type PlaceKind, venue } from '../db/schema';
import { notFound } from '../problem';
import { shown } from '../jobs/hidden';
import type { Runtime } from '../runtime-type';
import type { OrganizerRow, VenueRow } from './view';

/** All venues, those in the bin too. */
export async function readVenueRows(db: Db): Promise<VenueRow[]> {
  return db.select().from(venue).orderBy(asc(venue.name), asc(venue.id));
}

/** All organizers, those in the bin too. */
export async function readOrganizerRows(db: Db): Promise<OrganizerRow[]> {
  return db.select().from(organizer).orderBy(asc(organizer.name), asc(organizer.id));
}

/** One venue. Throws a Problem when there is none. */
export async function readVenueRow(db: Db, id: string): Promise<VenueRow> {
  const [row] = await db.select().from(venue).where(eq(venue.id, id));
  if (!row) throw notFound('venue');
  return row;
}

/** One organizer. Throws a Problem when there is none. */
export async function readOrganizerRow(db: Db, id: string): Promise<OrganizerRow> {
  const [row] = await db.select().from(organizer).where(eq(organizer.id, id));
  if (!row) throw notFound('organizer');
  return row;
}

/** How many published dates a place has. */
export interface DateCounts {
  coming: number;
  past: number;
}

/** Published dates of each place, coming and past: counted once for each state of the content and day. */
export function countDates(rt: Runtime, kind: PlaceKind, today: EpochDay): Promise<Map<string, DateCounts>> {
  return rt.cache.now().of(`dates of each ${kind} on ${today}`, () => readCounts(rt.db, kind, today));
}

async function readCounts(db: Db, kind: PlaceKind, today: EpochDay): Promise<Map<string, DateCounts>> {
  const column = sql.raw(kind === 'venue' ? 'k.venue_id' : 'k.organizer_id');
  // A date that is elsewhere counts there, and not where its listing usually is.
  const here =
    kind === 'venue' ? sql`case when d.venue_id is null then p.venue_ids ? k.venue_id::text else d.venue_id = k.venue_id end` : sql`true`;
  const rows = await jsonRows<{ id: string } & DateCounts>(
    db,
    sql`with d as (
        select o.listing_id, o.venue_id, count(*) filter (where o.last_day >= ${today}) as coming, count(*) filter (where o.last_day < ${today}) as past
        from occurrence o where o.public group by o.listing_id, o.venue_id)
      select ${column} as id, sum(d.coming)::int as coming, sum(d.past)::int as past
      from d join listing_link k on k.listing_id = d.listing_id and k.copy = 'published'
      join published p on p.listing_id = d.listing_id
      where ${column} is not null and ${here} and ${shown(sql.raw('p.job_id'))} group by 1`,
  );
  return new Map(rows.map(({ id, coming, past }) => [id, { coming, past }]));
}
