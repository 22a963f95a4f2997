/** Makes the whole date index anew and reports what differed; and, each night, brings the horizon forward. */
import { asc, eq, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { listing, published } from '../db/schema';
import type { Now } from '../site/clock';
import type { SiteSettings } from '../site/settings';
import { horizonOf, type IndexRow, indexRows, insertRows } from './date-index';

export interface RebuildReport {
  listings: number;
  dates: number;
  /** listings whose rows were not what their contents say, before they were made anew */
  differed: { address: string; missing: number; surplus: number }[];
}

const SELECT = sql.raw(
  `select listing_id, original, address, start_day, start_minute, end_day, end_minute, last_day,
   to_char(starts_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as starts_at, to_char(ends_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as ends_at,
   standing, note, moved, "public" from occurrence`,
);

/** A row as text, its columns in one order, for comparing. */
const textOf = (row: IndexRow): string =>
  JSON.stringify([
    row.original,
    row.address,
    row.start_day,
    row.start_minute,
    row.end_day,
    row.end_minute,
    row.last_day,
    row.starts_at,
    row.ends_at,
    row.standing,
    row.note,
    row.moved,
    row.public,
  ]);

export function rebuildIndex(db: Db, settings: SiteSettings, now: Now): Promise<RebuildReport> {
  return db.transaction((tx) => rebuildIn(tx as unknown as Db, settings, now));
}

/** The same inside a transaction that is under way. */
export async function rebuildIn(tx: Db, settings: SiteSettings, now: Now): Promise<RebuildReport> {
  const report: RebuildReport = { listings: 0, dates: 0, differed: [] };
  const horizon = horizonOf(now.day, settings.horizonMonths);
  const all = await tx
    .select({ id: listing.id, address: listing.address, stage: listing.stage, working: listing.working, copy: published.content })
    .from(listing)
    .leftJoin(published, eq(published.listingId, listing.id))
    .orderBy(asc(listing.id));
  for (const row of all) {
    const content: ListingContent = row.copy ?? row.working;
    const isPublic = row.stage === 'published' && content.visibility === 'public';
    const fresh = indexRows({ listingId: row.id, content, isPublic, settings, horizon });
    const kept = ((await tx.execute(sql`${SELECT} where listing_id = ${row.id}`)) as unknown as { rows: IndexRow[] }).rows;
    const [should, is] = [new Set(fresh.map(textOf)), new Set(kept.map(textOf))];
    const missing = [...should].filter((text) => !is.has(text)).length;
    const surplus = [...is].filter((text) => !should.has(text)).length;
    report.listings++;
    report.dates += fresh.length;
    if (!missing && !surplus) continue;
    report.differed.push({ address: row.address, missing, surplus });
    await tx.execute(sql`delete from occurrence where listing_id = ${row.id}`);
    await insertRows(tx, fresh);
  }
  return report;
}
