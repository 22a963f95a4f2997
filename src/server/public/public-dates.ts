/** The dates that views show, and how many there are of each kind. Asks the date index and published copies, nothing else. */
import { type SQL, sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import type { Attendance, Cost } from '@/core/listing/content';
import type { EventStatus } from '@/core/recurrence/model';
import { fold } from '@/core/text/text';
import type { Db } from '../db/client';
import { jsonRows, queryRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';
import { type Filters, likePattern, ONLINE, searchWords } from './filters';
import { type ContentSource, type ReferenceData, topOf, withChildren } from '../reference/read';

export interface PublicDate {
  listing_id: string;
  listing: string;
  date: string;
  original: string;
  title: string;
  short_title: string;
  summary: string;
  start_day: EpochDay;
  start_minute: number | null;
  end_day: EpochDay | null;
  end_minute: number | null;
  last_day: EpochDay;
  event_status: EventStatus;
  note: string;
  moved: boolean;
  headline: boolean;
  free: boolean;
  cost: Cost;
  category_id: string;
  /** where it is, in the listing's order; empty = online or nowhere named */
  venue_ids: string[];
  /** this date is in another place than the listing's others */
  elsewhere: boolean;
  /** the zone of its times; empty = the site's */
  zone: string;
  attendance: Attendance;
  picture_id: string | null;
  /** the last day on which its listing stands on top of lists */
  on_top_until: EpochDay | null;
}

/** Where a date is: its own venue where it is elsewhere, else all of its listing's. */
const VENUE_IDS = 'case when o.venue_id is null then p.venue_ids else jsonb_build_array(o.venue_id) end';

export const DATE_COLUMNS = sql.raw(`
  o.listing_id, p.slug as listing, o.slug as date, o.original, p.title, p.short_title, p.summary,
  o.start_day, o.start_minute, o.end_day, o.end_minute, o.last_day,
  case when p.event_status <> 'going-ahead' then p.event_status else coalesce(o.event_status, 'going-ahead') end as event_status,
  o.note, o.moved, p.headline, p.on_top_until, p.free, p.cost, p.category_id, ${VENUE_IDS} as venue_ids, o.venue_id is not null as elsewhere, p.zone, p.attendance, p.picture_id`);

export interface Span {
  from: EpochDay;
  /** included */
  to: EpochDay;
}

/** What a job still brings in is not there yet. */
const PUBLIC = sql`o.public and ${shown(sql.raw('p.job_id'))}`;

const touches = ({ from, to }: Span): SQL =>
  sql`${PUBLIC} and (o.start_day between ${from} and ${to} or (o.last_day > o.start_day and o.last_day >= ${from} and o.start_day < ${from}))`;

/** What a reader typed, and tags: asked of the database in every view. */
function wordConditions(filters: Filters, reference: ReferenceData): SQL[] {
  const tagged = filters.tags.map(
    (slug) =>
      sql`exists (select 1 from listing_link k join tag t on t.id = k.tag_id where k.listing_id = p.listing_id and k.copy = 'published' and t.slug = ${slug})`,
  );
  return [...tagged, ...searchWords(filters).map((word) => wordCondition(word, reference))];
}

/** A word stands in the listing's texts, or in the name or town of one of the places where the date is. */
function wordCondition(word: string, reference: ReferenceData): SQL {
  const pattern = likePattern(word);
  const named = [...reference.venue.values()].filter((v) => fold(`${v.name} ${v.town}`).includes(word)).map((v) => v.id);
  return named.length ? sql`(p.search like ${pattern} or ${atOneOf(named)})` : sql`p.search like ${pattern}`;
}

/** The date is at one of these venues: its own when it is elsewhere, else any of its listing's. */
function atOneOf(venueIds: readonly string[]): SQL {
  if (!venueIds.length) return sql`false`;
  return sql`case when o.venue_id is null then p.venue_ids ?| ${textArray(venueIds)} else o.venue_id = any(${textArray(venueIds)}::uuid[]) end`;
}

const textArray = (list: readonly string[]): SQL =>
  sql`array[${sql.join(
    list.map((text) => sql`${text}`),
    sql`, `,
  )}]::text[]`;

function conditions(filters: Filters, reference: ReferenceData): SQL[] {
  const all = wordConditions(filters, reference);
  if (filters.kinds.length) {
    const ids = filters.kinds.flatMap((slug) => withChildren(reference, slug)).map((c) => c.id);
    all.push(ids.length ? sql`p.category_id in ${ids}` : sql`false`);
  }
  if (filters.places.length) {
    const towns = new Set(filters.places.filter((place) => place !== ONLINE));
    const either: SQL[] = [];
    if (towns.size) either.push(atOneOf([...reference.venue.values()].filter((v) => towns.has(v.town)).map((v) => v.id)));
    if (filters.places.includes(ONLINE)) either.push(sql`p.attendance <> 'in-person'`);
    all.push(sql`(${sql.join(either, sql` or `)})`);
  }
  if (filters.free) all.push(sql`p.free`);
  return all;
}

/** What readers see and their choices leave. */
export const publicWhere = (filters: Filters, reference: ReferenceData): SQL =>
  sql.join([PUBLIC, ...conditions(filters, reference)], sql` and `);

export const TABLES = sql.raw('from occurrence o join published p on p.listing_id = o.listing_id');
const ORDER = sql.raw('order by o.start_day, o.start_minute nulls first, p.headline desc, p.title, o.listing_id');

/** Dates that touch a span, in order of their start. */
export function readDates(db: Db, span: Span, filters: Filters, reference: ReferenceData): Promise<PublicDate[]> {
  const where = sql.join([touches(span), ...conditions(filters, reference)], sql` and `);
  return jsonRows(db, sql`select ${DATE_COLUMNS} ${TABLES} where ${where} ${ORDER} limit 5000`);
}

/** What the month sheet must know of a date, and where it stands: no texts, no pictures. */
const SHORT = {
  listing: 'p.slug',
  date: 'o.slug',
  title: 'p.title',
  short_title: 'p.short_title',
  start_day: 'o.start_day',
  start_minute: 'o.start_minute',
  last_day: 'o.last_day',
  event_status: "case when p.event_status <> 'going-ahead' then p.event_status else coalesce(o.event_status, 'going-ahead') end",
  moved: 'o.moved',
  headline: 'p.headline',
  free: 'p.free',
  category_id: 'p.category_id',
  venue_ids: VENUE_IDS,
  zone: 'p.zone',
  attendance: 'p.attendance',
} as const;

export type ShortDate = Pick<PublicDate, keyof typeof SHORT>;
const SHORT_NAMES = Object.keys(SHORT) as (keyof ShortDate)[];
const SHORT_VALUES = sql.raw(Object.values(SHORT).join(', '));

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
  const kinds = new Set(filters.kinds.flatMap((slug) => withChildren(reference, slug)).map((c) => c.id));
  const facets: Facets = { kinds: new Map(), places: new Map(), free: 0, total: 0 };
  const chosen = dates.filter((date) => {
    const group = {
      category_id: date.category_id,
      towns: townsOf(date.venue_ids, reference),
      online: date.attendance !== 'in-person',
      free: date.free,
      n: 1,
    };
    if (date.start_day <= span.to && date.last_day >= span.from) addGroup(facets, group, filters, kinds, reference);
    return fits(group, filters, kinds);
  });
  return { chosen, facets };
}

export interface ListPage {
  dates: PublicDate[];
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
  const all = await jsonRows<PublicDate>(db, sql`select ${DATE_COLUMNS} ${TABLES} where ${where} ${ORDER} limit ${count + 500}`);
  const cut = all[count];
  if (!cut) return { dates: all, later: undefined };
  const day = Math.max(cut.start_day, from);
  const whole = all.filter((d) => d.start_day < day);
  // One day alone fills more than a page: it is shown whole all the same.
  if (!whole.length) return { dates: all.filter((d) => d.start_day <= day), later: day + 1 };
  return { dates: whole, later: day };
}

/** So many stand on top at once, the soonest of them. */
const MOST_ON_TOP = 6;

/** The next date of each listing that is kept on top of lists today. */
export function readOnTop(db: Db, today: EpochDay, filters: Filters, reference: ReferenceData): Promise<PublicDate[]> {
  const where = sql.join(
    [sql`${PUBLIC} and p.on_top_until >= ${today} and o.last_day >= ${today}`, ...conditions(filters, reference)],
    sql` and `,
  );
  return jsonRows(
    db,
    sql`select * from (select distinct on (o.listing_id) ${DATE_COLUMNS} ${TABLES} where ${where}
      order by o.listing_id, o.start_day, o.start_minute nulls first) q order by start_day, start_minute nulls first, title limit ${MOST_ON_TOP}`,
  );
}

/** The same of dates that are there already. */
export function onTopOf(dates: readonly PublicDate[], today: EpochDay): PublicDate[] {
  const first = new Map<string, PublicDate>();
  for (const date of dates) if ((date.on_top_until ?? -1) >= today && !first.has(date.listing)) first.set(date.listing, date);
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
  const days = await jsonRows<{ start_day: EpochDay }>(
    db,
    sql`select o.start_day ${TABLES} where ${where} order by o.start_day desc limit ${count}`,
  );
  return days.at(-1)?.start_day;
}

export interface Facets {
  /** by category address, parents with their children's dates in them */
  kinds: Map<string, number>;
  places: Map<string, number>;
  free: number;
  total: number;
}

interface FacetGroup {
  category_id: string;
  /** of its venues, each once */
  towns: readonly string[];
  online: boolean;
  free: boolean;
  n: number;
}

function townsOf(venueIds: readonly string[], reference: ReferenceData): string[] {
  const towns = venueIds.flatMap((id) => reference.venue.get(id)?.town || []);
  return towns.length > 1 ? [...new Set(towns)] : towns;
}

/** How many dates each choice would show, given the other choices: a count beside a box says what ticking it adds. */
export async function readFacets(db: Db, span: Span, filters: Filters, reference: ReferenceData): Promise<Facets> {
  const where = sql.join([touches(span), ...wordConditions(filters, reference)], sql` and `);
  const groups = await jsonRows<Omit<FacetGroup, 'towns'> & { venues: string }>(
    db,
    sql`select p.category_id, coalesce('["' || o.venue_id || '"]', p.venue_ids::text) as venues, p.attendance <> 'in-person' as online, p.free, count(*)::int as n ${TABLES} where ${where} group by 1, 2, 3, 4`,
  );
  const chosen = new Set(filters.kinds.flatMap((slug) => withChildren(reference, slug)).map((c) => c.id));
  const facets: Facets = { kinds: new Map(), places: new Map(), free: 0, total: 0 };
  for (const { venues, ...group } of groups)
    addGroup(facets, { ...group, towns: townsOf(JSON.parse(venues) as string[], reference) }, filters, chosen, reference);
  return facets;
}

function choicesFit({ category_id, towns, online, free }: FacetGroup, filters: Filters, kinds: Set<string>) {
  return {
    kindFits: !filters.kinds.length || kinds.has(category_id),
    placeFits: !filters.places.length || towns.some((town) => filters.places.includes(town)) || (online && filters.places.includes(ONLINE)),
    freeFits: !filters.free || free,
  };
}

function fits(group: FacetGroup, filters: Filters, kinds: Set<string>): boolean {
  const { kindFits, placeFits, freeFits } = choicesFit(group, filters, kinds);
  return kindFits && placeFits && freeFits;
}

const addTo = (map: Map<string, number>, key: string | undefined, n: number): void => {
  if (key) map.set(key, (map.get(key) ?? 0) + n);
};

function addGroup(
  facets: Facets,
  { category_id, towns, online, free, n }: FacetGroup,
  filters: Filters,
  chosen: Set<string>,
  reference: ReferenceData,
): void {
  const { kindFits, placeFits, freeFits } = choicesFit({ category_id, towns, online, free, n }, filters, chosen);
  if (placeFits && freeFits) {
    const own = reference.category.get(category_id);
    const top = topOf(reference, category_id);
    addTo(facets.kinds, own?.slug, n);
    if (top !== own) addTo(facets.kinds, top?.slug, n);
  }
  if (kindFits && freeFits) {
    for (const town of towns) addTo(facets.places, town, n);
    if (online) addTo(facets.places, ONLINE, n);
  }
  if (kindFits && placeFits && free) facets.free += n;
  if (kindFits && placeFits && freeFits) facets.total += n;
}

/** How many dates touch a day. */
export async function countOn(db: Db, day: EpochDay): Promise<number> {
  const [row] = await jsonRows<{ n: number }>(db, sql`select count(*)::int as n ${TABLES} where ${touches({ from: day, to: day })}`);
  return row?.n ?? 0;
}

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
export function readComing(db: Db, { limit, offset = 0, ...query }: ComingQuery): Promise<PublicDate[]> {
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
  const ids = await jsonRows<{ listing_id: string }>(db, sql`select distinct o.listing_id ${TABLES} where ${where} limit 20000`);
  return ids.map((row) => row.listing_id);
}

let keptToday: { key: string; count: Promise<number> } | undefined;

/** How many dates touch today, counted once for each state of the content and day. */
export function countToday(rt: ContentSource, today: number): Promise<number> {
  const key = `${rt.contentRevision()} ${today}`;
  if (keptToday?.key !== key) keptToday = { key, count: countOn(rt.db, today) };
  return keptToday.count;
}
