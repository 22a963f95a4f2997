/** The dates that views show, and how many there are of each kind. Asks the date index and published copies, nothing else. */
import { type SQL, sql } from 'drizzle-orm';
import type { EffectiveDate } from '@/core/dates/effective-date';
import type { EpochDay } from '@/core/day/day';
import { allOf, type DateFacts, type FilterGroups, fitsGroup } from '@/core/filters/condition';
import { type Filters, ONLINE } from '@/core/filters/filters';
import type { Db } from '../db/client';
import { jsonRows, queryRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';
import { type ContentSource, type ReferenceData, topOf } from '../reference/read';
import { atOneOf, conditionSql, describeFilters } from './filter-conditions';

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

const conditions = (filters: Filters, reference: ReferenceData): SQL[] => allOf(describeFilters(filters, reference)).map(conditionSql);

/** What a reader typed, and tags: asked of the database in every view. */
const wordConditions = (filters: Filters, reference: ReferenceData): SQL[] => describeFilters(filters, reference).words.map(conditionSql);

/** What readers see and their choices leave. */
export const publicWhere = (filters: Filters, reference: ReferenceData): SQL =>
  sql.join([PUBLIC, ...conditions(filters, reference)], sql` and `);

/** The date index joined with what readers see. */
export const TABLES = sql.raw('from occurrence o join published p on p.listing_id = o.listing_id');
const ORDER = sql.raw('order by o.start_day, o.start_minute nulls first, p.headline desc, p.title, o.listing_id');

/** Dates that touch a span, in order of their start. */
export function readDates(db: Db, span: Span, filters: Filters, reference: ReferenceData): Promise<EffectiveDate[]> {
  const where = sql.join([touches(span), ...conditions(filters, reference)], sql` and `);
  return jsonRows(db, sql`select ${DATE_COLUMNS} ${TABLES} where ${where} ${ORDER} limit 5000`);
}

/** What the month sheet must know of a date, and where it stands: no texts, no pictures. */
const SHORT_NAMES = [
  'listing',
  'date',
  'title',
  'shortTitle',
  'startDay',
  'startMinute',
  'lastDay',
  'eventStatus',
  'moved',
  'headline',
  'free',
  'categoryId',
  'venueIds',
  'zone',
  'attendance',
  'translations',
] as const satisfies readonly (keyof EffectiveDate)[];

/** A date without its texts, for sheets. */
export type ShortDate = Pick<EffectiveDate, (typeof SHORT_NAMES)[number]>;
const SHORT_VALUES = sql.raw(SHORT_NAMES.map((name) => EFFECTIVE[name]).join(', '));

/**
 * All dates that touch a span and hold the reader's words, in no order: kinds, places and cost are chosen among them in
 * memory. They come as arrays, since writing the names of each field again is a third of what the query costs.
 */
export async function readShortDates(db: Db, span: Span, filters: Filters, reference: ReferenceData): Promise<ShortDate[]> {
  const where = sql.join([touches(span), ...wordConditions(filters, reference)], sql` and `);
  const query = sql`select coalesce(json_agg(json_build_array(${SHORT_VALUES})), '[]')::text as list ${TABLES} where ${where}`;
  const rows = await queryRows<{ list: string }>(db, query);
  const values = JSON.parse(rows[0]?.list ?? '[]') as unknown[][];
  return values.map((row) => {
    // Field by field, so that all dates have one shape: the page reads each of them many times.
    const date: Record<string, unknown> = {};
    for (let i = 0; i < SHORT_NAMES.length; i++) date[SHORT_NAMES[i] as string] = row[i];
    return date as unknown as ShortDate;
  });
}

/** The dates that a reader's other choices leave, and what each choice would show, from dates at hand. */
export function chooseDates(
  dates: readonly ShortDate[],
  span: Span,
  filters: Filters,
  reference: ReferenceData,
): { chosen: ShortDate[]; facets: Facets } {
  const groups = describeFilters(filters, reference);
  const facets: Facets = { kinds: new Map(), places: new Map(), free: 0, total: 0 };
  const chosen = dates.filter((date) => {
    const { categoryId, venueIds, free } = date;
    const facts = { categoryId, venueIds, free, online: date.attendance !== 'in-person' };
    const fits = fitsOf(groups, facts);
    if (date.startDay <= span.to && date.lastDay >= span.from) addGroup(facets, { ...facts, n: 1 }, fits, reference);
    return fits.kinds && fits.places && fits.free;
  });
  return { chosen, facets };
}

/** Whole days of dates, and where the next page begins. */
export interface ListPage {
  dates: EffectiveDate[];
  /** the first day of the page after this; undefined on the last */
  later: EpochDay | undefined;
}

/** So many dates from a day on, always whole days. */
export async function readListPage(db: Db, from: EpochDay, count: number, filters: Filters, reference: ReferenceData): Promise<ListPage> {
  const where = sql.join(
    [
      sql`${PUBLIC} and (o.start_day >= ${from} or (o.last_day > o.start_day and o.last_day >= ${from}))`,
      ...conditions(filters, reference),
    ],
    sql` and `,
  );
  // Far more than a page, so that the day on which it ends is whole even when that day is very full.
  const all = await jsonRows<EffectiveDate>(db, sql`select ${DATE_COLUMNS} ${TABLES} where ${where} ${ORDER} limit ${count + 500}`);
  const cut = all[count];
  if (!cut) return { dates: all, later: undefined };
  const day = Math.max(cut.startDay, from);
  const whole = all.filter((d) => d.startDay < day);
  // One day alone fills more than a page: it is shown whole all the same.
  if (!whole.length) return { dates: all.filter((d) => d.startDay <= day), later: day + 1 };
  return { dates: whole, later: day };
}

/** So many stand on top at once, the soonest of them. */
const MOST_ON_TOP = 6;

/** The next date of each listing that is kept on top of lists today. */
export function readOnTop(db: Db, today: EpochDay, filters: Filters, reference: ReferenceData): Promise<EffectiveDate[]> {
  const where = sql.join(
    [sql`${PUBLIC} and p.on_top_until >= ${today} and o.last_day >= ${today}`, ...conditions(filters, reference)],
    sql` and `,
  );
  return jsonRows(
    db,
    sql`select * from (select distinct on (o.listing_id) ${DATE_COLUMNS} ${TABLES} where ${where}
      order by o.listing_id, o.start_day, o.start_minute nulls first) q order by "startDay", "startMinute" nulls first, title limit ${MOST_ON_TOP}`,
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
  reference: ReferenceData,
): Promise<EpochDay | undefined> {
  const where = sql.join([sql`${PUBLIC} and o.start_day < ${from}`, ...conditions(filters, reference)], sql` and `);
  const days = await jsonRows<{ startDay: EpochDay }>(
    db,
    sql`select o.start_day as "startDay" ${TABLES} where ${where} order by o.start_day desc limit ${count}`,
  );
  return days.at(-1)?.startDay;
}

/** How many dates each box would leave, with everything else as it is chosen. */
export interface Facets {
  /** by category address, parents with their children's dates in them */
  kinds: Map<string, number>;
  places: Map<string, number>;
  free: number;
  total: number;
}

interface FacetGroup extends DateFacts {
  n: number;
}

/** The towns of some venues, each once. */
function townsOf(venueIds: readonly string[], reference: ReferenceData): string[] {
  const towns = venueIds.flatMap((id) => reference.venue.get(id)?.town || []);
  return towns.length > 1 ? [...new Set(towns)] : towns;
}

/** How many dates each choice would show, given the other choices: a count beside a box says what ticking it adds. */
export async function readFacets(db: Db, span: Span, filters: Filters, reference: ReferenceData): Promise<Facets> {
  const groups = describeFilters(filters, reference);
  const where = sql.join([touches(span), ...groups.words.map(conditionSql)], sql` and `);
  const rows = await jsonRows<Omit<FacetGroup, 'venueIds'> & { venues: string }>(
    db,
    sql`select p.category_id as "categoryId", coalesce('["' || o.venue_id || '"]', p.venue_ids::text) as venues, p.attendance <> 'in-person' as online, p.free, count(*)::int as n ${TABLES} where ${where} group by 1, 2, 3, 4`,
  );
  const facets: Facets = { kinds: new Map(), places: new Map(), free: 0, total: 0 };
  for (const { venues, ...row } of rows) {
    const group = { ...row, venueIds: JSON.parse(venues) as string[] };
    addGroup(facets, group, fitsOf(groups, group), reference);
  }
  return facets;
}

/** Which groups of choices a date fits. */
interface Fits {
  kinds: boolean;
  places: boolean;
  free: boolean;
}

const fitsOf = ({ kinds, places, free }: FilterGroups, facts: DateFacts): Fits => ({
  kinds: fitsGroup(kinds, facts),
  places: fitsGroup(places, facts),
  free: fitsGroup(free, facts),
});

const countIn = (map: Map<string, number>, key: string | undefined, n: number): void => {
  if (key) map.set(key, (map.get(key) ?? 0) + n);
};

/** Counts dates that are alike beside each choice that they would be shown by, given the choices of the other groups. */
function addGroup(facets: Facets, { n, ...facts }: FacetGroup, { kinds, places, free }: Fits, reference: ReferenceData): void {
  if (places && free) {
    const own = reference.category.get(facts.categoryId);
    const top = topOf(reference, facts.categoryId);
    countIn(facets.kinds, own?.slug, n);
    if (top !== own) countIn(facets.kinds, top?.slug, n);
  }
  if (kinds && free) {
    for (const town of townsOf(facts.venueIds, reference)) countIn(facets.places, town, n);
    if (facts.online) countIn(facets.places, ONLINE, n);
  }
  if (kinds && places && facts.free) facets.free += n;
  if (kinds && places && free) facets.total += n;
}

/** How many dates touch a day. */
export async function countOn(db: Db, day: EpochDay): Promise<number> {
  const [row] = await jsonRows<{ n: number }>(db, sql`select count(*)::int as n ${TABLES} where ${touches({ from: day, to: day })}`);
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
  // One date may be elsewhere than its listing, or come here from another place. What goes online is at none of its venues.
  const here = venueIds ? sql`${atOneOf(venueIds)} and p.attendance <> 'online'` : sql`true`;
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
export async function readListingIds(db: Db, span: Span, filters: Filters, reference: ReferenceData): Promise<string[]> {
  const where = sql.join([touches(span), ...conditions(filters, reference)], sql` and `);
  const ids = await jsonRows<{ listing_id: string }>(db, sql`select distinct o.listing_id ${TABLES} where ${where}`);
  return ids.map((row) => row.listing_id);
}

/** How many dates touch today, counted once for each state of the content and day. */
export function countToday(rt: ContentSource, today: number): Promise<number> {
  return rt.cache.now().of(`dates on ${today}`, () => countOn(rt.db, today));
}
