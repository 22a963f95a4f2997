/** What listings name, put in another's place or taken out, in every copy. */
import { and, eq, isNotNull, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import { differences } from '@/core/listing/merge';
import { changeDate } from '@/core/dates/single-dates';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import type { MergedListing } from '../db/schema';
import { category, link, listing, occurrence, validationState, published, version } from '../db/schema';
import { linkRows } from '../listings/write';
import { publishedVenues } from '../listings/published-copy';

export type NamedField = 'categoryIds' | 'venueIds' | 'organizerIds' | 'tagIds';
const COLUMN = { categoryIds: link.categoryId, venueIds: link.venueId, organizerIds: link.organizerId, tagIds: link.tagId };

/** A content with one id in another's place; `to` null takes it out. Single dates may be elsewhere: they follow. */
export function withReplaced(content: ListingContent, field: NamedField, from: string, to: string | null): ListingContent {
  const ids = [...new Set(content[field].flatMap((id) => (id === from ? (to ? [to] : []) : [id])))];
  const changes =
    field === 'venueIds'
      ? content.changes.reduce(
          // Without that place they are where the others are.
          (all, change) => (change.venueId === from ? changeDate(all, change.original, { venueId: to ?? '' }) : all),
          content.changes,
        )
      : content.changes;
  return { ...content, [field]: ids, changes };
}

/** One copy of a listing; undefined when it has none such. */
export async function readCopy(tx: Db, listingId: string, copy: 'working' | 'published'): Promise<ListingContent | undefined> {
  if (copy === 'working') {
    const [row] = await tx.select({ content: listing.working }).from(listing).where(eq(listing.id, listingId)).for('update');
    return row?.content;
  }
  const [row] = await tx.select({ content: published.content }).from(published).where(eq(published.listingId, listingId)).for('update');
  return row?.content;
}

/** Who changed what a copy names, and how its versions say so. */
export interface Naming {
  what: string;
  by: Actor;
  at: Date;
}

/** Writes a copy with other names in it: with its version, and for readers with what views ask for and a newer sequence for calendars. */
async function writeCopy(tx: Db, listingId: string, copy: 'working' | 'published', content: ListingContent, naming: Naming): Promise<void> {
  await tx.delete(validationState).where(eq(validationState.listingId, listingId));
  if (copy === 'working') {
    // Somebody who has it open must see that it changed.
    const [row] = await tx
      .update(listing)
      .set({ working: content, revision: sql`${listing.revision} + 1` })
      .where(eq(listing.id, listingId))
      .returning({ revision: listing.revision });
    if (!row) return;
    const { what, by, at } = naming;
    await tx.insert(version).values({ id: newId(), listingId, revision: row.revision, content, what, byName: by.name, at });
    return;
  }
  const [fallback] = content.categoryIds[0] ? [] : await tx.select({ id: category.id }).from(category).where(eq(category.fallback, true));
  const categoryId = content.categoryIds[0] ?? fallback?.id;
  await tx
    .update(published)
    .set({
      ...{ content, ...publishedVenues(content), changedAt: naming.at, sequence: sql`${published.sequence} + 1` },
      ...(categoryId ? { categoryId } : {}),
    })
    .where(eq(published.listingId, listingId));
}

export interface Replacing {
  field: NamedField;
  from: string;
  /** null takes it out */
  to: string | null;
  /** for the versions: "“Net Loft” removed" */
  what: string;
}

/** Puts one id in another's place in all copies, their links and their dates. Says what each copy named before and after. */
export async function replaceInContents(tx: Db, { field, from, to, what }: Replacing, by: Actor, at: Date): Promise<MergedListing[]> {
  const column = COLUMN[field];
  const uses = await tx.selectDistinct({ listingId: link.listingId, copy: link.copy }).from(link).where(eq(column, from));
  const done: MergedListing[] = [];
  for (const { listingId, copy } of uses) {
    const content = await readCopy(tx, listingId, copy);
    if (!content) continue;
    const next = withReplaced(content, field, from, to);
    await writeCopy(tx, listingId, copy, next, { what, by, at });
    const dates = content.changes.filter((change) => change.venueId === from).map((change) => change.original);
    done.push({ listingId, copy, before: content[field], after: next[field], dates });
    const mine = and(eq(link.listingId, listingId), eq(link.copy, copy));
    const [has] = to
      ? await tx
          .select({ id: link.listingId })
          .from(link)
          .where(and(mine, eq(column, to)))
      : [];
    if (to && !has)
      await tx
        .update(link)
        .set({ [field.replace('Ids', 'Id')]: to })
        .where(and(mine, eq(column, from)));
    else await tx.delete(link).where(and(mine, eq(column, from)));
  }
  if (field === 'venueIds') await tx.update(occurrence).set({ venueId: to }).where(eq(occurrence.venueId, from));
  return done;
}

/**
 * Puts what one copy named before a replacement back. Where somebody changed that since, only what clearly came from it goes back; false
 * when nothing is left of it. `to` null: it was taken out.
 */
export async function putBack(
  tx: Db,
  field: NamedField,
  one: MergedListing,
  { from, to, ...naming }: Naming & { from: string; to: string | null },
): Promise<boolean> {
  const content = await readCopy(tx, one.listingId, one.copy);
  if (!content) return false;
  const same = content[field].join() === one.after.join();
  const swapped = to && !one.before.includes(to) ? content[field].map((id) => (id === to ? from : id)) : content[field];
  const changes = one.dates.reduce(
    (all, original) =>
      to === null || all.some((c) => c.original === original && c.venueId === to) ? changeDate(all, original, { venueId: from }) : all,
    content.changes,
  );
  const next: ListingContent = { ...content, [field]: same ? one.before : swapped, changes };
  if (!differences(content, next).length) return false;
  await writeCopy(tx, one.listingId, one.copy, next, naming);
  const column = COLUMN[field];
  const name = field.replace('Ids', 'Id') as 'categoryId' | 'venueId' | 'organizerId' | 'tagId';
  await tx.delete(link).where(and(eq(link.listingId, one.listingId), eq(link.copy, one.copy), isNotNull(column)));
  const rows = linkRows(one.listingId, one.copy, next).filter((row) => row[name]);
  if (rows.length) await tx.insert(link).values(rows);
  return true;
}
