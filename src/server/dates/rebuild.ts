/** Makes the whole date index anew and reports what differed; and, when the month has changed, brings the horizon forward. */
import { asc, eq, gt, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { job, listing, published, setting } from '../db/schema';
import { type JobContext, startJob, type Work } from '../jobs/runner';
import { SITE_ACTOR } from '../accounts/roles';
import type { Now } from '../site/clock';
import type { SiteSettings } from '../site/settings';
import { TaskWorker } from '../worker/task-worker';
import { readDateNames, withKeptIds } from './date-names';
import { horizonOf, type IndexRow, insertRows, refreshNext } from './date-index';

/** How many listings and dates were looked at, and how many differed. */
export interface RebuildReport {
  listings: number;
  dates: number;
  /** listings whose rows were not what their contents say, before they were made anew */
  differed: { slug: string; missing: number; surplus: number }[];
}

const SELECT = sql.raw(
  `select listing_id, original, date_id, slug, start_day, start_minute, end_day, end_minute, last_day,
   to_char(starts_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as starts_at, to_char(ends_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as ends_at,
   event_status, note, venue_id, moved, "public" from occurrence`,
);

/** A row as text, its columns in one order, for comparing. */
const textOf = (row: IndexRow): string =>
  JSON.stringify([
    row.original,
    row.date_id,
    row.slug,
    row.start_day,
    row.start_minute,
    row.end_day,
    row.end_minute,
    row.last_day,
    row.starts_at,
    row.ends_at,
    row.event_status,
    row.note,
    row.venue_id,
    row.moved,
    row.public,
  ]);

/** Which rules of time zones this process has (IANA's release, 2026a); part of what the index was made with. */
export const zoneRules = (): string => process.versions.tz ?? '';

/** Is a row the same date by the wall clock, whatever instants it has? */
const sameByWall = (a: IndexRow, b: IndexRow): boolean => textOf({ ...a, starts_at: b.starts_at, ends_at: b.ends_at }) === textOf(b);

/** What is over keeps the instants at which it was: new rules of a zone say what will be, and are at times corrected backwards. */
function withPastInstants(rows: IndexRow[], kept: readonly IndexRow[], today: number): IndexRow[] {
  const before = new Map(kept.map((row) => [row.original, row]));
  return rows.map((row) => {
    const there = row.last_day < today ? before.get(row.original) : undefined;
    return there && sameByWall(row, there) ? there : row;
  });
}

/** So many listings whose rows differed are named. */
const MOST_NAMED = 500;

/** Makes the index anew, some listings a transaction, so that the site goes on answering. */
export async function rebuildIndex(db: Db, settings: SiteSettings, now: Now): Promise<RebuildReport> {
  const report: RebuildReport = { listings: 0, dates: 0, differed: [] };
  const worker = new TaskWorker(undefined);
  for (let after: string | undefined; ; ) {
    const last = await db.transaction((tx) => rebuildSome(tx, { after, size: CHUNK, keepPast: false, settings, now, worker }, report));
    if (!last) break;
    after = last;
  }
  await rememberHorizon(db, settings, now);
  return report;
}

const CHUNK = 40;

interface SomeInput extends Pick<JobContext, 'settings' | 'now' | 'worker'> {
  /** the last id that was looked at */
  after: string | undefined;
  size: number;
  /** do dates that are over keep the moments at which they were? */
  keepPast: boolean;
}

/** The next listings by their ids; the answer is the last of them, undefined when there are none. */
async function rebuildSome(tx: Db, input: SomeInput, report: RebuildReport): Promise<string | undefined> {
  const { after, size, keepPast, settings, now, worker } = input;
  const chunk = await tx
    .select({ id: listing.id, slug: listing.slug, stage: listing.stage, working: listing.working, copy: published.content })
    .from(listing)
    .leftJoin(published, eq(published.listingId, listing.id))
    .where(after ? gt(listing.id, after) : undefined)
    .orderBy(asc(listing.id))
    .limit(size);
  if (!chunk.length) return undefined;
  const ids = chunk.map((row) => row.id);
  const kept = await queryRows<IndexRow>(tx, sql`${SELECT} where listing_id in ${ids}`);
  const keptOf = new Map<string, IndexRow[]>(ids.map((id) => [id, []]));
  for (const row of kept) keptOf.get(row.listing_id)?.push(row);
  const slugOfId = new Map(chunk.map((row) => [row.id, row.slug]));
  const listings = chunk.map((row) => {
    const content = row.copy ?? row.working;
    return { listingId: row.id, content, isPublic: row.stage === 'published' && content.visibility === 'public' };
  });
  const names = await readDateNames(tx, ids);
  const anew: IndexRow[] = [];
  const gone: string[] = [];
  const parts = worker.run({ task: 'expand', listings, settings, horizon: horizonOf(now.day, settings.horizonMonths) });
  for await (const part of parts) {
    for (const { listingId, rows: unnamed } of part.part === 'rows' ? part.rows : []) {
      const there = keptOf.get(listingId) ?? [];
      const anewRows = withKeptIds(unnamed, names.get(listingId) ?? []);
      const rows = keepPast ? withPastInstants(anewRows, there, now.day) : anewRows;
      const [should, is] = [new Set(rows.map(textOf)), new Set(there.map(textOf))];
      const missing = [...should].filter((text) => !is.has(text)).length;
      const surplus = [...is].filter((text) => !should.has(text)).length;
      report.listings++;
      report.dates += rows.length;
      if (!missing && !surplus) continue;
      report.differed.push({ slug: slugOfId.get(listingId) ?? '', missing, surplus });
      gone.push(listingId);
      anew.push(...rows);
    }
  }
  if (gone.length) await tx.execute(sql`delete from occurrence where listing_id in ${gone}`);
  await insertRows(tx, anew);
  if (gone.length) await refreshNext(tx, now.day, gone);
  return ids.at(-1);
}

/** Up to which day the index was made, and by which rules of time zones (unknown in format 1). */
interface KeptHorizon {
  format: 2;
  day: number;
  zones: string;
}

async function rememberHorizon(tx: Db, settings: SiteSettings, now: Now): Promise<void> {
  const value: KeptHorizon = { format: 2, day: horizonOf(now.day, settings.horizonMonths), zones: zoneRules() };
  await tx.insert(setting).values({ key: 'horizon', value }).onConflictDoUpdate({ target: setting.key, set: { value } });
}

/** The same as a job; bringing the horizon forward is the same work, since every row is compared with what it should be. */
export const rebuilding: Work = {
  step: async (tx, { kind, input }, size, { settings, now, worker }) => {
    const report: RebuildReport = { listings: 0, dates: 0, differed: [] };
    // What the site does by itself leaves the past alone; whoever asks for the index anew gets all of it.
    const last = await rebuildSome(tx, { after: input.after, size, keepPast: kind === 'horizon', settings, now, worker }, report);
    if (!last) {
      await rememberHorizon(tx, settings, now);
      return { did: 0, finished: true };
    }
    const differed = [...(input.differed ?? []), ...report.differed].slice(0, MOST_NAMED);
    const changed = (input.changed ?? 0) + report.differed.length;
    return {
      did: report.listings,
      finished: false,
      changed: report.differed.length > 0,
      input: { ...input, after: last, differed, changed, dates: (input.dates ?? 0) + report.dates },
    };
  },
};

/** Why an index is made anew. */
export interface RebuildReason {
  /** the rules of time zones that it was made with, when these have changed */
  zonesBefore?: string;
}

/** Begins to make the date index anew as a job, or to bring it up to the horizon; the answer is the job’s id. */
export function startRebuild(
  tx: Db,
  kind: 'rebuild' | 'horizon',
  total: number,
  now: Now,
  { zonesBefore }: RebuildReason = {},
): Promise<string> {
  const zones = zonesBefore === undefined ? {} : { zones: { from: zonesBefore, to: zoneRules() } };
  return startJob(tx, { kind, total, input: zones, by: SITE_ACTOR, now });
}

/** How many listings there are, of every stage. */
export async function countListings(db: Db): Promise<number> {
  const [row] = await db.select({ n: sql<number>`count(*)::int` }).from(listing);
  return row?.n ?? 0;
}

/** Is there a reason to make the index anew, and does nobody work on that? Undefined when it is as it should be. */
export async function whyRebuild(db: Db, settings: SiteSettings, now: Now): Promise<RebuildReason | undefined> {
  const [row] = await db.select().from(setting).where(eq(setting.key, 'horizon'));
  const kept = row?.value as Partial<KeptHorizon> | undefined;
  const zonesChanged = kept !== undefined && kept.zones !== zoneRules();
  if (kept?.day === horizonOf(now.day, settings.horizonMonths) && !zonesChanged) return undefined;
  const open = await db
    .select({ id: job.id })
    .from(job)
    .where(sql`${job.kind} in ('horizon', 'rebuild') and ${job.state} = 'running'`)
    .limit(1);
  if (open.length) return undefined;
  return zonesChanged ? { zonesBefore: kept.zones ?? '' } : {};
}
