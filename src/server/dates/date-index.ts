/**
 * The date index: one row a date of each listing, in the site's days, up to the horizon. Derived from a content alone,
 * so that it can be made anew with an identical result. Written in the transaction that changes its listing.
 */
import { type SQL, sql } from 'drizzle-orm';
import type { DateTimes } from '@/core/dates/effective-date';
import { type EpochDay, dayOf, daysInMonth, isoDay, yearMonthOf, ymdOf } from '@/core/day/day';
import { isoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import { isoInstant, dateTimeToInstant } from '@/core/day/zone';
import { firstZone, inZone } from '@/core/day/zone-words';
import type { ListingContent } from '@/core/listing/content';
import { NIGHT_ENDS } from '@/core/phrase/format';
import { expand } from '@/core/recurrence/expand';
import type { EventStatus, Occurrence } from '@/core/recurrence/model';
import { changesFromStored, fromStored } from '@/core/recurrence/stored';
import type { Db } from '../db/client';
import type { SiteSettings } from '../site/settings';

/** A row of the date index, in the database's own names. */
export interface IndexRow {
  listing_id: string;
  original: string;
  /** which date of its listing it is, whatever becomes of its start */
  date_id: string;
  slug: string;
  start_day: number;
  start_minute: number | null;
  end_day: number | null;
  end_minute: number | null;
  last_day: number;
  starts_at: string;
  ends_at: string;
  event_status: EventStatus | null;
  note: string;
  /** where this date is, when it is elsewhere than its listing */
  venue_id: string | null;
  moved: boolean;
  public: boolean;
}

interface Clocks {
  /** the listing's own */
  zone: string;
  /** the one that its dates are shown by */
  shown: string;
  siteZone: string;
}

/** The zone by which a listing's dates are shown. */
export function shownZone(content: Pick<ListingContent, 'recurrence' | 'attendance' | 'venueIds'>, siteZone: string): string {
  const { recurrence, attendance, venueIds } = content;
  return recurrence ? firstZone({ zone: recurrence.zone, attendance, hasPlace: venueIds.length > 0 }, siteZone) : siteZone;
}

/** The last day with dates: the end of the month that lies so many months ahead. */
export function horizonOf(today: EpochDay, months: number): EpochDay {
  const { year, month } = ymdOf(today);
  const far = yearMonthOf(year * 12 + month - 1 + months);
  return dayOf(far.year, far.month, daysInMonth(far.year, far.month));
}

/** The last day that a date touches, included. */
export function lastDayOf(start: PlainDateTime, end: PlainDateTime | null): EpochDay {
  if (!end) return start.day;
  if (end.minute === null) return Math.max(start.day, end.day - 1);
  return Math.max(start.day, end.minute <= NIGHT_ENDS ? end.day - 1 : end.day);
}

/** A date as it is shown: by the clock that comes first. */
function rowOf(listingId: string, date: Occurrence, { zone, shown, siteZone }: Clocks, isPublic: boolean): IndexRow {
  const start = inZone(date.start, zone, shown);
  const end = date.end && inZone(date.end, zone, shown);
  // All-day dates are days of the site, so their instants are the site's midnights.
  const instant = (wall: PlainDateTime): string => isoInstant(dateTimeToInstant(wall.minute === null ? siteZone : zone, wall).ms);
  const original = isoDateTime(date.original);
  return {
    listing_id: listingId,
    original,
    date_id: original,
    slug: isoDay(date.original.day),
    start_day: start.day,
    start_minute: start.minute,
    end_day: end?.day ?? null,
    end_minute: end?.minute ?? null,
    last_day: lastDayOf(start, end),
    starts_at: instant(date.start),
    ends_at: instant(date.end ?? date.start),
    event_status: date.eventStatus,
    note: date.note,
    venue_id: date.venueId,
    moved: original !== isoDateTime(date.start),
    public: isPublic,
  };
}

/** Where a day has several dates, the time tells them apart. */
function withTimes(rows: IndexRow[]): IndexRow[] {
  const perDay = new Map<string, number>();
  for (const row of rows) perDay.set(row.slug, (perDay.get(row.slug) ?? 0) + 1);
  return rows.map((row) => ((perDay.get(row.slug) ?? 0) > 1 ? { ...row, slug: row.original.replace(':', '') } : row));
}

/** A listing whose dates are to be worked out. */
export interface IndexInput {
  listingId: string;
  content: ListingContent;
  isPublic: boolean;
  settings: SiteSettings;
  horizon: EpochDay;
}

/** The rows of a listing's content, in order of their original start; their ids are those of dates that never had another one. */
export function indexRows({ listingId, content, isPublic, settings, horizon }: IndexInput): IndexRow[] {
  if (!content.recurrence) return [];
  const recurrence = fromStored(content.recurrence);
  const first = Math.min(...recurrence.parts.map((s) => s.start.day));
  const dates = expand(recurrence, changesFromStored(content.changes), first, horizon);
  const clocks = { zone: recurrence.zone, shown: shownZone(content, settings.zone), siteZone: settings.zone };
  const rows = dates.map((date) => rowOf(listingId, date, clocks, isPublic));
  return withTimes(rows);
}

/** When a row of the index is, as everything above the database names it. */
export function timesOfRow(row: IndexRow): DateTimes {
  const { original, start_day, start_minute, end_day, end_minute, last_day, moved } = row;
  return { original, startDay: start_day, startMinute: start_minute, endDay: end_day, endMinute: end_minute, lastDay: last_day, moved };
}

/** So many rows go in by one statement. */
const AT_ONCE = 2000;

/** One statement with one parameter: many parameters are what makes bulk inserts slow. */
const insertSql = (rows: readonly IndexRow[]): SQL =>
  sql`insert into occurrence select * from json_populate_recordset(null::occurrence, ${JSON.stringify(rows)}::json)`;

/** Adds rows to the date index. */
export async function insertRows(tx: Db, rows: readonly IndexRow[]): Promise<void> {
  for (let at = 0; at < rows.length; at += AT_ONCE) await tx.execute(insertSql(rows.slice(at, at + AT_ONCE)));
}

/** Puts a listing's rows in the place of those that were there. */
export async function replaceRows(tx: Db, listingId: string, rows: readonly IndexRow[]): Promise<void> {
  await tx.execute(sql`delete from occurrence where listing_id = ${listingId}`);
  await insertRows(tx, rows);
}

interface Next {
  next_day: EpochDay | null;
  next_minute: number | null;
  next_last: EpochDay | null;
}

/** The first date that is not over on a day. A whole day comes before the hours of that day. */
export function nextOf(rows: readonly IndexRow[], today: EpochDay): Next {
  const first = rows
    .filter((row) => row.last_day >= today)
    .reduce<IndexRow | undefined>((best, row) => {
      if (!best) return row;
      const order = row.start_day - best.start_day || (row.start_minute ?? -1) - (best.start_minute ?? -1);
      return order < 0 ? row : best;
    }, undefined);
  return { next_day: first?.start_day ?? null, next_minute: first?.start_minute ?? null, next_last: first?.last_day ?? null };
}

/** Finds what is next for the listings whose next date is over, or for some of them. Says how many there were. */
export async function refreshNext(tx: Db, today: EpochDay, ids?: readonly string[]): Promise<number> {
  const which = ids ? (ids.length ? sql`l.id in ${ids}` : sql`false`) : sql`l.next_last < ${today}`;
  const result = (await tx.execute(sql`
    update listing l set next_day = n.start_day, next_minute = n.start_minute, next_last = n.last_day
    from listing o left join lateral (
      select d.start_day, d.start_minute, d.last_day from occurrence d where d.listing_id = o.id and d.last_day >= ${today}
      order by d.start_day, d.start_minute nulls first limit 1) n on true
    where o.id = l.id and ${which}`)) as unknown as { affectedRows?: number; rowCount?: number };
  return result.affectedRows ?? result.rowCount ?? 0;
}
