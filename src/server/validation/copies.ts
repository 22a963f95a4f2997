/** Listings begun as copies: what of them nobody looked at yet. */
import { eq, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import { linksOf } from '@/core/validation/links';
import { canonical } from '@/core/text/canonical-json';
import type { Db } from '../db/client';
import { listing, listingCopy, validationState } from '../db/schema';

/** Says that a part of a copy was looked at and is right as it is. */
export async function lookedAt(tx: Db, listingId: string, part: 'title' | 'when'): Promise<void> {
  await tx
    .update(listingCopy)
    .set({ unlooked: sql`array_remove(${listingCopy.unlooked}, ${part})` })
    .where(eq(listingCopy.listingId, listingId));
  await tx.delete(validationState).where(eq(validationState.listingId, listingId));
}

/** Were a copy's parts touched? Then nobody needs to be asked about them. */
export async function noteTouched(
  tx: Db,
  listingId: string,
  before: { title: string; recurrence: unknown },
  after: { title: string; recurrence: unknown },
): Promise<void> {
  const [copy] = await tx.select().from(listingCopy).where(eq(listingCopy.listingId, listingId));
  if (!copy?.unlooked.length) return;
  const untouched = copy.unlooked.filter((part) =>
    part === 'title' ? before.title === after.title : canonical(before.recurrence) === canonical(after.recurrence),
  );
  if (untouched.length !== copy.unlooked.length)
    await tx.update(listingCopy).set({ unlooked: untouched }).where(eq(listingCopy.listingId, listingId));
}

/** What of a copy nobody has looked at yet. */
export type Unlooked = ('title' | 'when')[];

/** What of a copy nobody looked at yet; nothing when it is none. */
export async function readUnlooked(db: Db, listingId: string): Promise<Unlooked> {
  const [copy] = await db.select({ unlooked: listingCopy.unlooked }).from(listingCopy).where(eq(listingCopy.listingId, listingId));
  return copy?.unlooked ?? [];
}

/** A link of a copy, in its text or as its website, that still leads to its original's page; undefined when it is no copy or has none. */
export async function linkToOriginal(
  db: Db,
  listingId: string,
  { text, website }: Pick<ListingContent, 'text' | 'website'>,
): Promise<{ link: string; field: 'text' | 'website'; title: string } | undefined> {
  const [from] = await db
    .select({ title: listing.title, slug: listing.slug })
    .from(listingCopy)
    .innerJoin(listing, eq(listing.id, listingCopy.fromId))
    .where(eq(listingCopy.listingId, listingId));
  if (!from) return undefined;
  const leads = (link: string): boolean => {
    if (!URL.canParse(link, 'http://here')) return false;
    // The site may lie below a path of its host.
    return /\/what\/([^/]+)/.exec(new URL(link, 'http://here').pathname)?.[1] === from.slug;
  };
  const inText = linksOf(text).find(leads);
  if (inText) return { link: inText, field: 'text', title: from.title };
  return website && leads(website) ? { link: website, field: 'website', title: from.title } : undefined;
}
