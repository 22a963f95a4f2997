/** What a coordinator sees of how the site is: mails that wait, jobs that failed, how large it is. */
import { and, desc, gt, inArray, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { job, listing, outbox } from '../db/schema';
import { MAX_TRIES } from '../mail/outbox';

const WEEK_MS = 7 * 86_400_000;

/** How the site does: its mails, its jobs, its database. */
export interface SiteHealth {
  /** mails not sent yet, and those that were given up after too many tries */
  mails: { waiting: number; givenUp: number };
  /** jobs of the last seven days that did not end well, the latest first */
  failedJobs: { id: string; kind: string; said: string; at: Date }[];
  running: number;
  /** listings whose dates to come have moved since the rules of a time zone changed, in the last ninety days; null = none */
  zones: { from: string; to: string; at: Date; listings: { id: string; title: string; slug: string }[] } | null;
  database: { version: string; bytes: number };
}

/** @param now of real time: jobs and mails are stamped by it */
export async function readHealth(db: Db, now: Date): Promise<SiteHealth> {
  const given = sql`${outbox.tries} >= ${MAX_TRIES}`;
  const [mails] = await db
    .select({ all: sql<number>`count(*)::int`, givenUp: sql<number>`count(*) filter (where ${given})::int` })
    .from(outbox)
    .where(isNull(outbox.sentAt));
  const failedJobs = await db
    .select({ id: job.id, kind: job.kind, said: job.said, at: job.changedAt })
    .from(job)
    .where(and(inArray(job.state, ['failed']), gt(job.changedAt, new Date(now.getTime() - WEEK_MS))))
    .orderBy(desc(job.changedAt))
    .limit(20);
  const [running] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(job)
    .where(inArray(job.state, ['running', 'cancelling']));
  const [database] = await queryRows<{ version: string; bytes: number | string }>(
    db,
    sql`select current_setting('server_version') as version, pg_database_size(current_database()) as bytes`,
  );
  const zones = await readZones(db, now);
  return {
    zones,
    mails: { waiting: (mails?.all ?? 0) - (mails?.givenUp ?? 0), givenUp: mails?.givenUp ?? 0 },
    failedJobs,
    running: running?.n ?? 0,
    database: { version: database?.version ?? '', bytes: Number(database?.bytes ?? 0) },
  };
}

const ZONES_TOLD_MS = 90 * 86_400_000;

/** What the last change of the rules of time zones moved. */
async function readZones(db: Db, now: Date): Promise<SiteHealth['zones']> {
  const changed = sql`${job.input} ? 'zones' and jsonb_array_length(coalesce(${job.input} -> 'differed', '[]')) > 0`;
  const [row] = await db
    .select({ input: job.input, at: job.changedAt })
    .from(job)
    .where(and(changed, gt(job.changedAt, new Date(now.getTime() - ZONES_TOLD_MS))))
    .orderBy(desc(job.changedAt))
    .limit(1);
  if (!row?.input.zones) return null;
  const slugs = (row.input.differed ?? []).map((one) => one.slug);
  const listings = await db
    .select({ id: listing.id, title: listing.title, slug: listing.slug })
    .from(listing)
    .where(inArray(listing.slug, slugs))
    .orderBy(listing.title);
  return { ...row.input.zones, at: row.at, listings };
}
