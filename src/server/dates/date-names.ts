/** Ids of dates as they are kept: the index's rows named before they go in, and what does not follow from the ids remembered. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import { addTo } from '@/core/collections/add-to';
import { type DateName, nameDates, type NamedDate } from '@/core/dates/date-ids';
import type { Db } from '../db/client';
import { dateName, occurrence } from '../db/schema';
import type { IndexRow } from './date-index';

const NAME = { dateId: dateName.dateId, original: dateName.original, former: dateName.former };

/** What is kept of the dates of some listings. */
export async function readDateNames(db: Db, listingIds: readonly string[]): Promise<Map<string, DateName[]>> {
  const rows = listingIds.length
    ? await db
        .select({ listingId: dateName.listingId, ...NAME })
        .from(dateName)
        .where(inArray(dateName.listingId, [...listingIds]))
    : [];
  const of = new Map<string, DateName[]>();
  for (const { listingId, ...name } of rows) addTo(of, listingId, name);
  return of;
}

/** The rows of a listing's index with the ids that are kept for them; those that were never renamed have theirs already. */
export function withKeptIds(rows: readonly IndexRow[], names: readonly DateName[]): IndexRow[] {
  const now = new Map(names.filter(({ former }) => !former).map(({ original, dateId }) => [original, dateId]));
  return now.size ? rows.map((row) => ({ ...row, date_id: now.get(row.original) ?? row.original })) : [...rows];
}

/**
 * Names the rows that come in the place of those in the index, so that each date stays the date that it was, and remembers what must be
 * remembered. Tells which dates are no more.
 */
export async function nameRows(tx: Db, listingId: string, rows: readonly IndexRow[]): Promise<{ rows: IndexRow[]; ended: NamedDate[] }> {
  const before = await tx
    .select({ original: occurrence.original, dateId: occurrence.dateId })
    .from(occurrence)
    .where(eq(occurrence.listingId, listingId));
  const kept = (await readDateNames(tx, [listingId])).get(listingId) ?? [];
  const had = new Set(before.map(({ original }) => original));
  // Most changes leave all starts as they are.
  if (rows.length === had.size && rows.every(({ original }) => had.has(original))) return { rows: withKeptIds(rows, kept), ended: [] };

  const { ids, names, ended } = nameDates(
    rows.map(({ original }) => original),
    before,
    kept,
  );
  await replaceNames(tx, listingId, kept, names);
  return { rows: rows.map((row) => ({ ...row, date_id: ids.get(row.original) ?? row.original })), ended };
}

const keyOf = ({ dateId, original, former }: DateName): string => `${dateId} ${original} ${former}`;

async function replaceNames(tx: Db, listingId: string, before: readonly DateName[], after: readonly DateName[]): Promise<void> {
  const [old, now] = [new Set(before.map(keyOf)), new Set(after.map(keyOf))];
  if (old.size === now.size && after.every((name) => old.has(keyOf(name)))) return;
  await tx.delete(dateName).where(eq(dateName.listingId, listingId));
  await insertNames(
    tx,
    after.map((name) => ({ listing_id: listingId, date_id: name.dateId, original: name.original, former: name.former })),
  );
}

/** One parameter for all rows: a series may have thousands. */
async function insertNames(tx: Db, rows: readonly object[]): Promise<void> {
  if (rows.length)
    await tx.execute(sql`insert into date_name select * from json_populate_recordset(null::date_name, ${JSON.stringify(rows)}::json)`);
}

/**
 * Where a date is now that had another address once; undefined where no date of the listing had it.
 *
 * @param slug the original day, `2027-03-07`, with its time where the day had several, `2027-03-07T1900`
 */
export async function findMovedDate(db: Db, listingId: string, slug: string): Promise<string | undefined> {
  const start = sql`replace(${dateName.original}, ':', '')`;
  const [row] = await db
    .select({ slug: occurrence.slug })
    .from(dateName)
    .innerJoin(occurrence, and(eq(occurrence.listingId, dateName.listingId), eq(occurrence.dateId, dateName.dateId)))
    .where(
      and(
        eq(dateName.listingId, listingId),
        eq(dateName.former, true),
        slug.includes('T') ? sql`${start} = ${slug}` : sql`left(${start}, 10) = ${slug}`,
      ),
    )
    .orderBy(occurrence.startDay, occurrence.original)
    .limit(1);
  if (row) return row.slug;
  // A day that had one date has two, or the other way round.
  const own = sql`replace(${occurrence.original}, ':', '')`;
  const [same] = await db
    .select({ slug: occurrence.slug })
    .from(occurrence)
    .where(and(eq(occurrence.listingId, listingId), slug.includes('T') ? sql`${own} = ${slug}` : sql`left(${own}, 10) = ${slug}`))
    .orderBy(occurrence.original)
    .limit(1);
  return same?.slug;
}
