/** What a search finds: each listing once, with its next date and how many follow; and where else there is something. */
import type { EffectiveDate } from '@/core/dates/effective-date';
import { sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { bestFirst, titleKey } from '@/core/match/relevance';
import { type Filters, searchWords } from '@/core/filters/filters';
import { DATE_COLUMNS, type OpenDays, ORDER, publicWhere, type Span, TABLES } from './public-dates';
import type { FilterContext } from './filter-conditions';

/** A listing that a search found, with its next date. */
export interface Result extends EffectiveDate {
  /** its dates from the asked day on, this one among them */
  dates: number;
  /** the first days of those, this one's first */
  days: EpochDay[];
  /** the last day of its last date that is known */
  until: EpochDay;
}

/** A page of a search. */
export interface ResultPage {
  results: Result[];
  /** listings on all pages */
  total: number;
}

/** So many days of a listing stand in its line. */
const DAYS_NAMED = 5;

/** Listings with a date in a span: what is called as asked for first, then by their next date. */
export async function readResults(
  db: Db,
  { from, to, page, length }: OpenDays & { page: number; length: number },
  filters: Filters,
  context: FilterContext,
): Promise<ResultPage> {
  const until = to === undefined ? sql`true` : sql`o.start_day <= ${to}`;
  const where = sql.join([publicWhere(filters, context), sql`o.last_day >= ${from}`, until], sql` and `);
  const order = sql.raw('order by o.start_day, o.start_minute nulls first, o.original');
  const rows = await jsonRows<Result>(
    db,
    sql`with hit as (
        select o.listing_id, count(*)::int as dates, max(o.last_day) as until,
          (array_agg(o.start_day ${order}))[1:${sql.raw(String(DAYS_NAMED))}] as days, (array_agg(o.original ${order}))[1] as original
        ${TABLES} where ${where} group by o.listing_id)
      select ${DATE_COLUMNS}, h.dates, h.until, h.days
      from hit h join occurrence o on o.listing_id = h.listing_id and o.original = h.original join published p on p.listing_id = o.listing_id
      ${ORDER}`,
  );
  const best = bestFirst(rows, ({ title }) => titleKey(title), searchWords(filters));
  return { results: best.slice((page - 1) * length, page * length), total: rows.length };
}

/** How many dates match before and after what is shown, and on which days. */
export interface Elsewhere {
  earlier: number;
  /** the first day of the last date before; undefined when there is none */
  last: EpochDay | undefined;
  later: number;
  next: EpochDay | undefined;
}

/** What lies before and after a span that shows nothing. */
export async function readElsewhere(db: Db, { from, to }: Span, filters: Filters, context: FilterContext): Promise<Elsewhere> {
  const [row] = await jsonRows<{ earlier: number; last: EpochDay | null; later: number; next: EpochDay | null }>(
    db,
    sql`select count(*) filter (where o.last_day < ${from})::int as earlier, max(o.start_day) filter (where o.last_day < ${from}) as last,
        count(*) filter (where o.start_day > ${to})::int as later, min(o.start_day) filter (where o.start_day > ${to}) as next
      ${TABLES} where ${publicWhere(filters, context)}`,
  );
  return { earlier: row?.earlier ?? 0, last: row?.last ?? undefined, later: row?.later ?? 0, next: row?.next ?? undefined };
}
