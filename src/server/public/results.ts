/** What a search finds: each listing once, with its next date and how many follow; and where else there is something. */
import type { EffectiveDate } from '@/core/dates/effective-date';
import { sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { DATE_COLUMNS, ORDER, publicWhere, type Span, TABLES } from './public-dates';
import type { Filters } from '@/core/filters/filters';
import type { ReferenceData } from '../reference/read';

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

/** Listings with a date from a day on, by their next date. */
export async function readResults(
  db: Db,
  { from, page, length }: { from: EpochDay; page: number; length: number },
  filters: Filters,
  reference: ReferenceData,
): Promise<ResultPage> {
  const where = sql.join([publicWhere(filters, reference), sql`o.last_day >= ${from}`], sql` and `);
  const order = sql.raw('order by o.start_day, o.start_minute nulls first, o.original');
  const rows = await jsonRows<Result & { total: number }>(
    db,
    sql`with hit as (
        select o.listing_id, count(*)::int as dates, max(o.last_day) as until,
          (array_agg(o.start_day ${order}))[1:${sql.raw(String(DAYS_NAMED))}] as days, (array_agg(o.original ${order}))[1] as original
        ${TABLES} where ${where} group by o.listing_id)
      select ${DATE_COLUMNS}, h.dates, h.until, h.days, count(*) over ()::int as total
      from hit h join occurrence o on o.listing_id = h.listing_id and o.original = h.original join published p on p.listing_id = o.listing_id
      ${ORDER} limit ${length} offset ${(page - 1) * length}`,
  );
  return { results: rows.map(({ total: _total, ...result }) => result), total: rows[0]?.total ?? 0 };
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
export async function readElsewhere(db: Db, { from, to }: Span, filters: Filters, reference: ReferenceData): Promise<Elsewhere> {
  const [row] = await jsonRows<{ earlier: number; last: EpochDay | null; later: number; next: EpochDay | null }>(
    db,
    sql`select count(*) filter (where o.last_day < ${from})::int as earlier, max(o.start_day) filter (where o.last_day < ${from}) as last,
        count(*) filter (where o.start_day > ${to})::int as later, min(o.start_day) filter (where o.start_day > ${to}) as next
      ${TABLES} where ${publicWhere(filters, reference)}`,
  );
  return { earlier: row?.earlier ?? 0, last: row?.last ?? undefined, later: row?.later ?? 0, next: row?.next ?? undefined };
}
