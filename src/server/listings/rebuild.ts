/** Makes the whole date index anew and reports what differed; and, each night, brings the horizon forward. */
import { asc, eq, inArray, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { listing, published, setting } from '../db/schema';
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
   standing, note, venue_id, moved, "public" from occurrence`,
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
    row.venue_id,
    row.moved,
    row.public,
  ]);

export function rebuildIndex(db: Db, settings: SiteSettings, now: Now): Promise<RebuildReport> {
  return db.transaction((tx) => rebuildIn(tx as unknown as Db, settings, now));
}

/** The same inside a transaction that is under way. */
export async function rebuildIn(tx: Db, settings: SiteSettings, now: Now): Promise<RebuildReport> {
  const report: RebuildReport = { listings: 0, dates: 0, differed: [] };
  const ids = await tx.select({ id: listing.id }).from(listing).orderBy(asc(listing.id));
  for (let at = 0; at < ids.length; at += CHUNK) {
    await rebuildChunk(
      tx,
      ids.slice(at, at + CHUNK).map((row) => row.id),
      settings,
      now,
      report,
    );
  }
  await rememberHorizon(tx, settings, now);
  return report;
}

/** So many listings are made anew at once, so that the extension of the horizon never holds the database for long. */
const CHUNK = 40;

async function rebuildChunk(tx: Db, ids: string[], settings: SiteSettings, now: Now, report: RebuildReport): Promise<void> {
  const horizon = horizonOf(now.day, settings.horizonMonths);
  const chunk = await tx
    .select({ id: listing.id, address: listing.address, stage: listing.stage, working: listing.working, copy: published.content })
    .from(listing)
    .leftJoin(published, eq(published.listingId, listing.id))
    .where(inArray(listing.id, ids))
    .orderBy(asc(listing.id));
  const rows = ((await tx.execute(sql`${SELECT} where listing_id in ${ids}`)) as unknown as { rows: IndexRow[] }).rows;
  const keptOf = new Map<string, IndexRow[]>(ids.map((id) => [id, []]));
  for (const row of rows) keptOf.get(row.listing_id)?.push(row);
  for (const row of chunk) {
    const content: ListingContent = row.copy ?? row.working;
    const isPublic = row.stage === 'published' && content.visibility === 'public';
    const fresh = indexRows({ listingId: row.id, content, isPublic, settings, horizon });
    const [should, is] = [new Set(fresh.map(textOf)), new Set((keptOf.get(row.id) ?? []).map(textOf))];
    const missing = [...should].filter((text) => !is.has(text)).length;
    const surplus = [...is].filter((text) => !should.has(text)).length;
    report.listings++;
    report.dates += fresh.length;
    if (!missing && !surplus) continue;
    report.differed.push({ address: row.address, missing, surplus });
    await tx.execute(sql`delete from occurrence where listing_id = ${row.id}`);
    await insertRows(tx, fresh);
  }
}

async function rememberHorizon(tx: Db, settings: SiteSettings, now: Now): Promise<void> {
  const value = { format: 1 as const, day: horizonOf(now.day, settings.horizonMonths) };
  await tx.insert(setting).values({ key: 'horizon', value }).onConflictDoUpdate({ target: setting.key, set: { value } });
}

/**
 * Brings the horizon forward when the month has changed: open-ended listings get their new dates, a chunk a transaction,
 * so that the site goes on answering. Returns how many listings got dates; 0 when there was nothing to do.
 */
export async function extendHorizon(db: Db, settings: SiteSettings, now: Now): Promise<number> {
  const [kept] = await db.select().from(setting).where(eq(setting.key, 'horizon'));
  const day = (kept?.value as { day: number } | undefined)?.day;
  if (day === horizonOf(now.day, settings.horizonMonths)) return 0;
  const report: RebuildReport = { listings: 0, dates: 0, differed: [] };
  const ids = await db.select({ id: listing.id }).from(listing).orderBy(asc(listing.id));
  for (let at = 0; at < ids.length; at += CHUNK) {
    const chunk = ids.slice(at, at + CHUNK).map((row) => row.id);
    await db.transaction((tx) => rebuildChunk(tx as unknown as Db, chunk, settings, now, report));
  }
  await rememberHorizon(db, settings, now);
  return report.differed.length;
}
