/** Listings as the Desk sees them: the table with its filters, one listing, its versions. */
import { and, asc, desc, eq, ilike, ne, or, type SQL, sql } from 'drizzle-orm';
import { STAGES, type Stage } from '@/core/listing/content';
import { type Actor, editsAll } from '../accounts/roles';
import type { Db } from '../db/client';
import { link, listing, occurrence, oldAddress, submission, user, version } from '../db/schema';
import { notFound, refused } from '../http/problem';
import { shown } from '../jobs/hidden';
import { likePattern } from '../public/filters';

export type ListingRow = typeof listing.$inferSelect;

export async function hasListings(db: Db): Promise<boolean> {
  const [row] = await db.select({ id: listing.id }).from(listing).limit(1);
  return row !== undefined;
}

export const SORTS = ['title', 'next', 'changed'] as const;
export interface TableQuery {
  words: string;
  stage: Stage | 'edited' | '';
  sort: (typeof SORTS)[number];
  down: boolean;
  page: number;
}
export const PER_PAGE = 50;

/** Reads the table's address; anything unknown has its default. */
export function readTableQuery(query: URLSearchParams): TableQuery {
  const stage = query.get('stage') ?? '';
  const sort = SORTS.find((s) => s === query.get('sort')) ?? 'changed';
  const page = Number(query.get('page'));
  const known = stage === 'edited' || STAGES.some((s) => s === stage);
  return {
    words: (query.get('words') ?? '').trim().slice(0, 80),
    stage: known ? (stage as TableQuery['stage']) : '',
    sort,
    down: query.has('sort') ? query.get('down') === '1' : true,
    page: Number.isInteger(page) && page > 0 && page < 10_000 ? page : 1,
  };
}

export interface TableRow {
  id: string;
  title: string;
  address: string;
  stage: Stage;
  edited: boolean;
  working: ListingRow['working'];
  changedAt: Date;
  nextDay: number | null;
  nextMinute: number | null;
}

/** The listings that a table shows: what somebody may edit and chose. */
export function selectTable(actor: Actor, { words, stage }: TableQuery): SQL | undefined {
  const all: (SQL | undefined)[] = [shown(listing.jobId)];
  if (!editsAll(actor)) all.push(eq(listing.ownerId, actor.id ?? ''));
  if (stage === 'edited') all.push(eq(listing.edited, true));
  else if (stage) all.push(eq(listing.stage, stage));
  else all.push(ne(listing.stage, 'binned'));
  if (words) {
    const pattern = likePattern(words);
    all.push(or(ilike(listing.title, pattern), ilike(listing.address, pattern), sql`${listing.working} ->> 'summary' ilike ${pattern}`));
  }
  return and(...all);
}

/** One page of the table, and how many there are in all. Next dates come from the index, with the same query. */
export async function readTable(
  db: Db,
  actor: Actor,
  query: TableQuery,
  today: number,
): Promise<{ rows: TableRow[]; total: number; stages: Map<string, number> }> {
  const next = db
    .selectDistinctOn([occurrence.listingId], { listingId: occurrence.listingId, day: occurrence.startDay, minute: occurrence.startMinute })
    .from(occurrence)
    .where(sql`${occurrence.lastDay} >= ${today}`)
    .orderBy(occurrence.listingId, occurrence.startDay, sql`${occurrence.startMinute} nulls first`)
    .as('next_date');
  const where = selectTable(actor, query);
  const direction = query.down ? desc : asc;
  const order = {
    title: direction(sql`lower(${listing.title})`),
    changed: direction(listing.changedAt),
    // A whole day comes before the hours of that day.
    next: query.down
      ? sql`${next.day} desc nulls last, coalesce(${next.minute}, -1) desc`
      : sql`${next.day} asc nulls last, coalesce(${next.minute}, -1) asc`,
  }[query.sort];
  const rows = await db
    .select({
      id: listing.id,
      title: listing.title,
      address: listing.address,
      stage: listing.stage,
      edited: listing.edited,
      working: listing.working,
      changedAt: listing.changedAt,
      nextDay: next.day,
      nextMinute: next.minute,
    })
    .from(listing)
    .leftJoin(next, eq(next.listingId, listing.id))
    .where(where)
    .orderBy(order, asc(listing.id))
    .limit(PER_PAGE)
    .offset((query.page - 1) * PER_PAGE);
  const counts = await db
    .select({ stage: listing.stage, edited: listing.edited, n: sql<number>`count(*)::int` })
    .from(listing)
    .where(and(shown(listing.jobId), editsAll(actor) ? undefined : eq(listing.ownerId, actor.id ?? '')))
    .groupBy(listing.stage, listing.edited);
  const [count] = await db.select({ n: sql<number>`count(*)::int` }).from(listing).where(where);
  const stages = new Map<string, number>();
  for (const c of counts) {
    stages.set(c.stage, (stages.get(c.stage) ?? 0) + c.n);
    if (c.edited) stages.set('edited', (stages.get('edited') ?? 0) + c.n);
  }
  return { rows, total: count?.n ?? 0, stages };
}

/** A listing for editing. Contributors see their own only; to them another's does not exist. */
export async function readListing(db: Db, id: string, actor: Actor): Promise<ListingRow> {
  const [row] = await db
    .select()
    .from(listing)
    .where(and(eq(listing.id, id), shown(listing.jobId)));
  if (!row) throw notFound('listing');
  if (!editsAll(actor) && row.ownerId !== actor.id) throw refused('This listing belongs to somebody else; ask an editor.');
  return row;
}

export async function readHistory(db: Db, id: string): Promise<{ revision: number; what: string; byName: string; at: Date }[]> {
  return db
    .select({ revision: version.revision, what: version.what, byName: version.byName, at: version.at })
    .from(version)
    .where(eq(version.listingId, id))
    .orderBy(desc(version.revision))
    .limit(12);
}

export async function readOldAddresses(db: Db, id: string): Promise<string[]> {
  const rows = await db
    .select({ address: oldAddress.address })
    .from(oldAddress)
    .where(eq(oldAddress.listingId, id))
    .orderBy(asc(oldAddress.address));
  return rows.map((r) => r.address);
}

export async function readSubmissionOf(db: Db, listingId: string): Promise<typeof submission.$inferSelect | undefined> {
  const [row] = await db.select().from(submission).where(eq(submission.listingId, listingId));
  return row;
}

/** What uses a venue, an organizer, a category or a picture: its listings, each once. */
export async function readUses(
  db: Db,
  column: 'categoryId' | 'venueId' | 'organizerId' | 'pictureId',
  id: string,
): Promise<{ id: string; title: string; stage: Stage }[]> {
  return db
    .selectDistinct({ id: listing.id, title: listing.title, stage: listing.stage })
    .from(link)
    .innerJoin(listing, eq(listing.id, link.listingId))
    .where(and(eq(link[column], id), shown(listing.jobId)))
    .orderBy(asc(listing.title), asc(listing.id))
    .limit(500);
}

export async function countUses(db: Db, column: 'categoryId' | 'venueId' | 'organizerId'): Promise<Map<string, number>> {
  const rows = await db
    .select({ id: link[column], n: sql<number>`count(distinct ${link.listingId})::int` })
    .from(link)
    .where(sql`${link[column]} is not null`)
    .groupBy(link[column]);
  return new Map(rows.map((r) => [r.id as string, r.n]));
}

export async function readPeople(db: Db): Promise<(typeof user.$inferSelect)[]> {
  return db.select().from(user).orderBy(asc(user.name), asc(user.id));
}
