/** The dates that views show, and how many there are of each kind. Asks the date index and published copies, nothing else. */
import { type SQL, sql } from 'drizzle-orm';
import type { EffectiveDate } from '@/core/dates/effective-date';
import type { EpochDay } from '@/core/day/day';
import { allOf, type DateFacts, priceOf } from '@/core/filters/condition';
import { FactsTable } from '@/core/finder/facts-table';
import { type Tally, tallyOf } from '@/core/finder/tally';
import type { Filters } from '@/core/filters/filters';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';
import { atOneOf, conditionSql, describeFilters, type FilterContext, OFF, PARTS } from './filter-conditions';

/** Where a date is: its own venue where it is elsewhere, else all of its listing's. */
const VENUE_IDS = 'case when o.venue_id is null then p.venue_ids else jsonb_build_array(o.venue_id) end';

/** `effectiveStatus` in the database. */
export const EVENT_STATUS =
  "case when p.event_status <> 'going-ahead' then p.event_status else coalesce(o.event_status, 'going-ahead') end";

/** An effective date from the rows of `occurrence o` and `published p`. */
const EFFECTIVE: Record<keyof EffectiveDate, string> = {
  listingId: 'o.listing_id',
  listing: 'p.slug',
  date: 'o.slug',
  original: 'o.original',
  title: 'p.title',
  shortTitle: 'p.short_title',
  summary: 'p.summary',
  startDay: 'o.start_day',
  startMinute: 'o.start_minute',
  endDay: 'o.end_day',
  endMinute: 'o.end_minute',
  lastDay: 'o.last_day',
  eventStatus: EVENT_STATUS,
  note: 'o.note',
  moved: 'o.moved',
  headline: 'p.headline',
  onTopUntil: 'p.on_top_until',
  free: 'p.free',
  cost: 'p.cost',
  categoryId: 'p.category_id',
  venueIds: VENUE_IDS,
  elsewhere: 'o.venue_id is not null',
  zone: 'p.zone',
  attendance: 'p.attendance',
  pictureId: 'p.picture_id',
  translations: 'p.translations',
};

/** The columns of an {@link EffectiveDate}, over {@link TABLES}. */
export const DATE_COLUMNS = sql.raw(
  Object.entries(EFFECTIVE)
    .map(([name, column]) => `${column} as "${name}"`)
    .join(', '),
);

/** Days from one to another, both included. */
export interface Span {
  from: EpochDay;
  /** included */
  to: EpochDay;
}

/** What a job still brings in is not there yet. */
const PUBLIC = sql`o.public and ${shown(sql.raw('p.job_id'))}`;

const touches = ({ from, to }: Span): SQL =>
  sql`${PUBLIC} and (o.start_day between ${from} and ${to} or (o.last_day > o.start_day and o.last_day >= ${from} and o.start_day < ${from}))`;

const conditions = (filters: Filters, context: FilterContext): SQL[] => allOf(describeFilters(filters, context)).map(conditionSql);

/** What readers see and their choices leave. */
export const publicWhere = (filters: Filters, context: FilterContext): SQL =>
  sql.join([PUBLIC, ...conditions(filters, context)], sql` and `);

/** The date index joined with what readers see. */
export const TABLES = sql.raw('from occurrence o join published p on p.listing_id = o.listing_id');
/** The order of readers' dates, the same however a database sorts letters. */
export const ORDER = sql.raw(
  'order by o.start_day, o.start_minute nulls first, p.headline desc, p.title collate "C", o.listing_id, o.original',
);

/** Dates that touch a span, in order of their start. */
export function readDates(db: Db, span: Span, filters: Filters, context: FilterContext): Promise<EffectiveDate[]> {
  const where = sql.join([touches(span), ...conditions(filters, context)], sql` and `);
  return jsonRows(db, sql`select ${DATE_COLUMNS} ${TABLES} where ${where} ${ORDER}`);
}

/** How many dates touch each day of a span, and those that go on after their first day. */
export async function readPerDay(
  db: Db,
  span: Span,
  filters: Filters,
  context: FilterContext,
): Promise<{ counts: Uint32Array; several: EffectiveDate[] }> {
  const where = sql.join([touches(span), ...conditions(filters, context)], sql` and `);
  const alike = await jsonRows<{ first: EpochDay; last: EpochDay; n: number }>(
    db,
    sql`select o.start_day as first, o.last_day as last, count(*)::int as n ${TABLES} where ${where} group by 1, 2`,
  );
  const counts = new Uint32Array(span.to - span.from + 1);
  for (const { first, last, n } of alike)
    for (let day = Math.max(first, span.from); day <= Math.min(last, span.to); day++)
      counts[day - span.from] = (counts[day - span.from] ?? 0) + n;
  const several = await jsonRows<EffectiveDate>(
    db,
    sql`select ${DATE_COLUMNS} ${TABLES} where ${where} and o.last_day > o.start_day ${ORDER}`,
  );
  return { counts, several };
}

/** Whole days of dates, and where the next page begins. */
export interface ListPage {
  dates: EffectiveDate[];
  /** the first day of the page after this; undefined on the last */
  later: EpochDay | undefined;
}

/** Days from one on, to the end of what there is where no last one is given. */
export interface OpenDays {
  from: EpochDay;
  to?: EpochDay;
  /** only what begins in it, not what has begun before and goes on */
  starting?: boolean;
}

/** So many dates of a span, always whole days. */
export async function readListPage(
  db: Db,
  { from, to, starting }: OpenDays,
  count: number,
  filters: Filters,
  context: FilterContext,
): Promise<ListPage> {
  const where = sql.join(
    [
      sql`${PUBLIC} and (o.start_day >= ${from} ${starting ? sql`` : sql`or (o.last_day > o.start_day and o.last_day >= ${from})`})`,
      ...(to === undefined ? [] : [sql`o.start_day <= ${to}`]),
      ...conditions(filters, context),
    ],
    sql` and `,
  );
  const read = (most: number): Promise<EffectiveDate[]> =>
    jsonRows(db, sql`select ${DATE_COLUMNS} ${TABLES} where ${where} ${ORDER} limit ${most}`);
  return pageOf(from, count, await read(count + 1), async (last) => {
    const all = await readDates(db, { from, to: last }, filters, context);
    return starting ? all.filter(({ startDay }) => startDay >= from) : all;
  });
}

/**
 * A page of whole days, from one date more than it may have.
 *
 * @param day all dates from the first day to one: asked for where one day alone fills more than a page, which is shown whole all the same
 */
export async function pageOf(
  from: EpochDay,
  count: number,
  dates: EffectiveDate[],
  upTo: (last: EpochDay) => Promise<EffectiveDate[]>,
): Promise<ListPage> {
  const cut = dates[count];
  if (!cut) return { dates, later: undefined };
  const day = Math.max(cut.startDay, from);
  const whole = dates.filter((date) => date.startDay < day);
  // Where what goes on since before fills the page alone, the first day is shown whole all the same: the next page must begin after it.
  if (whole.length && day > from) return { dates: whole, later: day };
  return { dates: await upTo(day), later: day + 1 };
}

/** So many stand on top at once, the soonest of them. */
export const MOST_ON_TOP = 6;

/** The next date of each listing that is kept on top of lists today. */
export function readOnTop(db: Db, today: EpochDay, filters: Filters, context: FilterContext): Promise<EffectiveDate[]> {
  const where = sql.join(
    [sql`${PUBLIC} and p.on_top_until >= ${today} and o.last_day >= ${today}`, ...conditions(filters, context)],
    sql` and `,
  );
  return jsonRows(
    db,
    sql`select * from (select distinct on (o.listing_id) ${DATE_COLUMNS} ${TABLES} where ${where}
      order by o.listing_id, o.start_day, o.start_minute nulls first, o.original) q
      order by "startDay", "startMinute" nulls first, headline desc, title collate "C", "listingId" limit ${MOST_ON_TOP}`,
  );
}

/** The same of dates that are there already. */
export function onTopOf(dates: readonly EffectiveDate[], today: EpochDay): EffectiveDate[] {
  const first = new Map<string, EffectiveDate>();
  for (const date of dates) if ((date.onTopUntil ?? -1) >= today && !first.has(date.listing)) first.set(date.listing, date);
  return [...first.values()].slice(0, MOST_ON_TOP);
}

/** Where the page before begins: the day from which about `count` dates come before `from`; undefined when there are none. */
export async function earlierDay(
  db: Db,
  from: EpochDay,
  count: number,
  filters: Filters,
  context: FilterContext,
): Promise<EpochDay | undefined> {
  const where = sql.join([sql`${PUBLIC} and o.start_day < ${from}`, ...conditions(filters, context)], sql` and `);
  const days = await jsonRows<{ startDay: EpochDay }>(
    db,
    sql`select o.start_day as "startDay" ${TABLES} where ${where} order by o.start_day desc limit ${count}`,
  );
  return days.at(-1)?.startDay;
}

type AlikeRow = Pick<DateFacts, 'categoryId' | 'attendance' | 'free' | 'parts' | 'off'> & {
  venues: string;
  cost: EffectiveDate['cost'];
  organizers: string | null;
  tags: string | null;
  n: number;
};

/** The dates of a span, counted by what filters ask of them. */
export async function readTally(db: Db, span: Span, filters: Filters, context: FilterContext): Promise<Tally> {
  const groups = describeFilters(filters, context);
  const where = sql.join([touches(span), ...groups.words.map(conditionSql)], sql` and `);
  const linked = (column: 'organizer_id' | 'tag_id') =>
    sql.raw(
      `(select string_agg(k.${column}::text, ' ' order by k.${column}) from listing_link k where k.listing_id = p.listing_id and k.copy = 'published' and k.${column} is not null)`,
    );
  const rows = await jsonRows<AlikeRow>(
    db,
    sql`select p.category_id as "categoryId", coalesce('["' || o.venue_id || '"]', p.venue_ids::text) as venues, p.attendance, p.free, p.cost,
      ${PARTS} as parts, ${OFF} as off, ${linked('organizer_id')} as organizers, ${linked('tag_id')} as tags, count(*)::int as n
      ${TABLES} where ${where} group by 1, 2, 3, 4, 5, 6, 7, 8, 9`,
  );
  const ids = (text: string | null): string[] => text?.split(' ') ?? [];
  const alike = rows.map(({ venues, cost, organizers, tags, n, ...facts }) => ({
    facts: { ...facts, price: priceOf(cost), venueIds: JSON.parse(venues) as string[], organizerIds: ids(organizers), tagIds: ids(tags) },
    n,
  }));
  return tallyOf(alike, new FactsTable(), groups);
}

/** How many dates touch a span and are what is asked for. */
export async function countDates(db: Db, span: Span, filters: Filters, context: FilterContext): Promise<number> {
  const where = sql.join([touches(span), ...conditions(filters, context)], sql` and `);
  const [row] = await jsonRows<{ n: number }>(db, sql`select count(*)::int as n ${TABLES} where ${where}`);
  return row?.n ?? 0;
}

/** Whose coming dates are asked for, from which day. */
export interface ComingQuery {
  from: EpochDay;
  limit: number;
  /** so many are passed over: the pages before */
  offset?: number;
  /** a hall with its rooms, say */
  venueIds?: readonly string[];
  organizerId?: string;
}

/** What a venue or an organizer has from a day on. */
function comingWhere({ from, venueIds, organizerId }: Pick<ComingQuery, 'from' | 'venueIds' | 'organizerId'>): SQL {
  // One date may be elsewhere than its listing, or come here from another place.
  const here = venueIds ? atOneOf(venueIds) : sql`true`;
  const of = venueIds ? sql`l.venue_id in ${venueIds}` : sql`l.organizer_id = ${organizerId ?? null}`;
  return sql`${PUBLIC} and o.last_day >= ${from} and ${here} and o.listing_id in (select l.listing_id from listing_link l where l.copy = 'published' and ${of})`;
}

/** Coming dates of a venue or an organizer. */
export function readComing(db: Db, { limit, offset = 0, ...query }: ComingQuery): Promise<EffectiveDate[]> {
  return jsonRows(db, sql`select ${DATE_COLUMNS} ${TABLES} where ${comingWhere(query)} ${ORDER} limit ${limit} offset ${offset}`);
}

/** How many there are in all. */
export async function countComing(db: Db, query: Omit<ComingQuery, 'limit' | 'offset'>): Promise<number> {
  const [row] = await jsonRows<{ n: number }>(db, sql`select count(*)::int as n ${TABLES} where ${comingWhere(query)}`);
  return row?.n ?? 0;
}

/** The listings that have a date in a span. */
export async function readListingIds(db: Db, span: Span, filters: Filters, context: FilterContext): Promise<string[]> {
  const where = sql.join([touches(span), ...conditions(filters, context)], sql` and `);
  const ids = await jsonRows<{ listing_id: string }>(db, sql`select distinct o.listing_id ${TABLES} where ${where}`);
  return ids.map((row) => row.listing_id);
}
