/** One published listing as readers see it, with its dates. */
import { and, asc, eq, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { type DateTimes, effectiveSummary } from '@/core/dates/effective-date';
import { forReaders } from '@/core/listing/fields';
import { contentIn } from '@/core/listing/translation';
import type { Language } from '@/core/phrase/language';
import type { EventStatus } from '@/core/recurrence/model';
import type { EpochDay } from '@/core/day/day';
import type { Db } from '../db/client';
import { shown } from '../jobs/hidden';
import { EVENT_STATUS } from './public-dates';
import { listing, occurrence, oldSlug, published } from '../db/schema';

/** A published listing's row. */
export type PublishedRow = typeof published.$inferSelect;
/** A date of one listing, whose page says the rest. */
export interface ListingDate extends DateTimes {
  slug: string;
  /** its listing's and its own brought together */
  eventStatus: EventStatus;
  note: string;
  /** where it is, when it is elsewhere than its listing */
  venueId: string | null;
}

/** The published listing at an address; where it has moved when the address is an old one. */
export async function findPublished(db: Db, slug: string): Promise<{ row: PublishedRow } | { movedTo: string } | undefined> {
  const [row] = await db
    .select()
    .from(published)
    .where(and(eq(published.slug, slug), shown(published.jobId)));
  if (row) return { row };
  const [old] = await db
    .select({ slug: published.slug })
    .from(oldSlug)
    .innerJoin(published, eq(published.listingId, oldSlug.listingId))
    .where(and(eq(oldSlug.slug, slug), shown(published.jobId)));
  return old ? { movedTo: old.slug } : undefined;
}

/** A published listing as readers of a language have it. */
export function rowIn(row: PublishedRow, language: Language): PublishedRow {
  const content = forReaders(contentIn(row.content, language));
  return { ...row, title: content.title, shortTitle: content.shortTitle, summary: effectiveSummary(content), content };
}

const o = alias(occurrence, 'o');
const p = alias(published, 'p');

const DATE_COLUMNS = {
  original: o.original,
  slug: o.slug,
  startDay: o.startDay,
  startMinute: o.startMinute,
  endDay: o.endDay,
  endMinute: o.endMinute,
  lastDay: o.lastDay,
  eventStatus: sql<EventStatus>`${sql.raw(EVENT_STATUS)}`,
  note: o.note,
  venueId: o.venueId,
  moved: o.moved,
};

/** Dates of a listing whose last day lies in a span, in order. */
export function readListingDates(db: Db, listingId: string, from: EpochDay, to: EpochDay): Promise<ListingDate[]> {
  return db
    .select(DATE_COLUMNS)
    .from(o)
    .innerJoin(p, eq(p.listingId, o.listingId))
    .where(and(eq(o.listingId, listingId), sql`${o.lastDay} >= ${from}`, sql`${o.startDay} <= ${to}`))
    .orderBy(asc(o.startDay), sql`${o.startMinute} nulls first`)
    .limit(2000);
}

/** Another date of the listing, for a link to it. */
export type Neighbour = Pick<ListingDate, 'slug' | 'startDay' | 'startMinute'>;

/** One date by its address, with the one before and the one after. */
export async function readDate(
  db: Db,
  listingId: string,
  slug: string,
): Promise<{ date: ListingDate; before: Neighbour | undefined; after: Neighbour | undefined } | undefined> {
  const [date] = await db
    .select(DATE_COLUMNS)
    .from(o)
    .innerJoin(p, eq(p.listingId, o.listingId))
    .where(and(eq(o.listingId, listingId), eq(o.slug, slug)));
  if (!date) return undefined;
  const at = sql`(${date.startDay}::int, ${date.startMinute ?? -1}::int, ${date.original}::text)`;
  const place = sql`(${occurrence.startDay}, coalesce(${occurrence.startMinute}, -1), ${occurrence.original})`;
  const near = async (compare: 'before' | 'after'): Promise<Neighbour | undefined> => {
    const before = compare === 'before';
    const [row] = await db
      .select({ slug: occurrence.slug, startDay: occurrence.startDay, startMinute: occurrence.startMinute })
      .from(occurrence)
      .where(and(eq(occurrence.listingId, listingId), before ? sql`${place} < ${at}` : sql`${place} > ${at}`))
      .orderBy(before ? sql`${place} desc` : sql`${place}`)
      .limit(1);
    return row;
  };
  return { date, before: await near('before'), after: await near('after') };
}

/** How many dates a listing has in the index, and how many of them began before a day. */
export async function countListingDates(db: Db, listingId: string, today: EpochDay): Promise<{ total: number; begun: number }> {
  const [row] = await db
    .select({ total: sql<number>`count(*)::int`, begun: sql<number>`(count(*) filter (where ${occurrence.startDay} < ${today}))::int` })
    .from(occurrence)
    .where(eq(occurrence.listingId, listingId));
  return row ?? { total: 0, begun: 0 };
}

/** Addresses of all listings that search engines may know, with when they changed. */
export function readSitemap(db: Db): Promise<{ slug: string; changedAt: Date }[]> {
  return db
    .select({ slug: published.slug, changedAt: published.changedAt })
    .from(published)
    .innerJoin(listing, eq(listing.id, published.listingId))
    .where(and(eq(published.visibility, 'public'), shown(published.jobId)))
    .orderBy(asc(published.slug))
    .limit(50_000);
}

/** A listing's title and address as readers have them; undefined where they do not have it. */
export async function readListingSlug(db: Db, listingId: string): Promise<{ title: string; slug: string } | undefined> {
  const [row] = await db
    .select({ title: published.title, slug: published.slug })
    .from(published)
    .where(and(eq(published.listingId, listingId), shown(published.jobId)));
  return row;
}
