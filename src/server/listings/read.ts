/** Listings as the Desk sees them: one listing, its versions, what uses what. */
import type { StoredHappening } from '../history/happening';
import { and, asc, desc, eq, inArray, or, sql } from 'drizzle-orm';
import type { Stage } from '@/core/listing/content';
import { authorize } from '../accounts/permissions';
import { type Actor, editsAll, mayEdit } from '../accounts/roles';
import type { Db } from '../db/client';
import { link, listing, oldSlug, published, submission, user, version } from '../db/schema';
import { notFound } from '../problem';
import { shown } from '../jobs/hidden';

/** A listing's row. */
export type ListingRow = typeof listing.$inferSelect;

/** Is there any listing? */
export async function hasListings(db: Db): Promise<boolean> {
  const [row] = await db.select({ id: listing.id }).from(listing).limit(1);
  return row !== undefined;
}

/** A listing for editing. Contributors see their own only; to them another's does not exist. */
export async function readListing(db: Db, id: string, actor: Actor): Promise<ListingRow> {
  const [row] = await db
    .select()
    .from(listing)
    .where(and(eq(listing.id, id), shown(listing.jobId)));
  if (!row) throw notFound('listing');
  authorize(actor, 'see', row);
  return row;
}

/** Which of these listings somebody may know of: what readers see, and their own; every one for editors. */
export async function knownTo(db: Db, actor: Actor, ids: readonly string[]): Promise<Set<string>> {
  if (editsAll(actor) || !ids.length) return new Set(ids);
  const rows = await db
    .select({ id: listing.id })
    .from(listing)
    .leftJoin(published, eq(published.listingId, listing.id))
    .where(and(inArray(listing.id, [...new Set(ids)]), or(eq(listing.ownerId, actor.id ?? ''), eq(published.visibility, 'public'))));
  return new Set(rows.map((row) => row.id));
}

/** Where whoever asks may edit a listing; undefined for readers and for those whose it is not. */
export async function editLink(db: Db, id: string, actor: Actor | null): Promise<string | undefined> {
  if (!actor) return undefined;
  const [row] = await db.select({ ownerId: listing.ownerId }).from(listing).where(eq(listing.id, id));
  return row && mayEdit(actor, row) ? `/desk/listings/${id}` : undefined;
}

/** The last things that were done to a listing: what, by whom and when, the latest first. */
export async function readHistory(db: Db, id: string): Promise<{ revision: number; what: StoredHappening; byName: string; at: Date }[]> {
  return db
    .select({ revision: version.revision, what: version.what, byName: version.byName, at: version.at })
    .from(version)
    .where(eq(version.listingId, id))
    .orderBy(desc(version.revision))
    .limit(12);
}

/** Addresses that a listing had before. */
export async function readOldAddresses(db: Db, id: string): Promise<string[]> {
  const rows = await db.select({ slug: oldSlug.slug }).from(oldSlug).where(eq(oldSlug.listingId, id)).orderBy(asc(oldSlug.slug));
  return rows.map((r) => r.slug);
}

/** What a listing was sent in with; undefined when an editor made it. */
export async function readSubmissionOf(db: Db, listingId: string): Promise<typeof submission.$inferSelect | undefined> {
  const [row] = await db.select().from(submission).where(eq(submission.listingId, listingId));
  return row;
}

/** What uses a venue, an organizer, a category or a picture: its listings, each once. */
export async function readUses(
  db: Db,
  column: 'categoryId' | 'venueId' | 'organizerId' | 'pictureId' | 'tagId',
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

/** How many listings name each of these, in either copy. */
export async function countUses(db: Db, column: 'categoryId' | 'venueId' | 'organizerId' | 'tagId'): Promise<Map<string, number>> {
  const rows = await db
    .select({ id: link[column], n: sql<number>`count(distinct ${link.listingId})::int` })
    .from(link)
    .where(sql`${link[column]} is not null`)
    .groupBy(link[column]);
  return new Map(rows.map((r) => [r.id as string, r.n]));
}

/** All accounts. */
export async function readPeople(db: Db): Promise<(typeof user.$inferSelect)[]> {
  return db.select().from(user).orderBy(asc(user.name), asc(user.id));
}
