/** Readers' listings with their public dates, as the finder takes them; drafts, and what a job still brings in, are not among them. */
import { type SQL, sql } from 'drizzle-orm';
import type { FoundDate, FoundListing } from '@/core/finder/found';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';

/** A date without the names of its fields: with them it would be three times as long. */
type DateRow = [
  original: string,
  timed: boolean,
  startDay: number,
  startMinute: number | null,
  endDay: number | null,
  endMinute: number | null,
  lastDay: number,
  eventStatus: FoundDate['eventStatus'],
  note: string,
  venueId: string | null,
  moved: boolean,
];

/** A listing that readers have, with its public dates. */
export interface FoundListingRow {
  listing: FoundListing;
  dates: FoundDate[];
}

const COLUMNS = sql.raw(`p.listing_id as "listingId", p.slug as listing, p.title, p.short_title as "shortTitle", p.summary, p.headline,
  p.on_top_until as "onTopUntil", p.free, p.cost, p.category_id as "categoryId", p.venue_ids as "venueIds", p.zone, p.attendance,
  p.picture_id as "pictureId", p.translations, p.event_status as "eventStatus", p.search,
  coalesce((select json_agg(k.tag_id) from listing_link k where k.listing_id = p.listing_id and k.copy = 'published' and k.tag_id is not null), '[]') as "tagIds",
  coalesce((select json_agg(k.organizer_id) from listing_link k where k.listing_id = p.listing_id and k.copy = 'published' and k.organizer_id is not null), '[]') as "organizerIds",
  coalesce((select json_agg(json_build_array(o.original, o.slug <> left(o.original, 10), o.start_day, o.start_minute, o.end_day, o.end_minute,
    o.last_day, o.event_status, o.note, o.venue_id, o.moved)) from occurrence o where o.listing_id = p.listing_id and o.public), '[]') as dates`);

const dateOf = (row: DateRow): FoundDate => {
  const [original, timed, startDay, startMinute, endDay, endMinute, lastDay, eventStatus, note, venueId, moved] = row;
  return { original, timed, startDay, startMinute, endDay, endMinute, lastDay, eventStatus, note, venueId, moved };
};

async function read(db: Db, where: SQL): Promise<FoundListingRow[]> {
  const rows = await jsonRows<FoundListing & { dates: DateRow[] }>(
    db,
    sql`select ${COLUMNS} from published p where ${shown(sql.raw('p.job_id'))} and ${where}`,
  );
  return rows.map(({ dates, ...listing }) => ({ listing, dates: dates.map(dateOf) }));
}

/** Some listings, by their ids; those that readers do not have are left out. */
export const readFound = (db: Db, ids: readonly string[]): Promise<FoundListingRow[]> =>
  read(db, sql`p.listing_id in (select value::uuid from json_array_elements_text(${JSON.stringify(ids)}::json))`);

/** So many listings after one, in the order of their ids. */
export const readFoundAfter = (db: Db, id: string, most: number): Promise<FoundListingRow[]> =>
  read(db, sql`p.listing_id > ${id} order by p.listing_id limit ${most}`);
