/** What listings name, put in another's place or taken out, in every copy. */
import type { Happening } from '../history/happening';
import { eq } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import { differences } from '@/core/listing/merge';
import { changeDate } from '@/core/dates/single-dates';
import type { Db } from '../db/client';
import type { MergedListing } from '../db/schema';
import { link } from '../db/schema';
import { type Change, readCopy, writeCopy } from '../listings/write';

/** The fields of a content that name something by its id. */
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

/** Which id takes the place of which, in which field. */
export interface Replacing {
  field: NamedField;
  from: string;
  /** null takes it out */
  to: string | null;
  /** for the versions: "“Old Hall” removed" */
  what: Happening;
}

/** Puts one id in another's place in all copies. Says what each copy named before and after. */
export async function replaceInContents(tx: Db, { field, from, to, what }: Replacing, change: Change): Promise<MergedListing[]> {
  const uses = await tx.selectDistinct({ listingId: link.listingId, copy: link.copy }).from(link).where(eq(COLUMN[field], from));
  const done: MergedListing[] = [];
  for (const { listingId, copy } of uses) {
    const content = await readCopy(tx, listingId, copy);
    if (!content) continue;
    const next = withReplaced(content, field, from, to);
    await writeCopy(tx, { listingId, copy, content: next, what }, change);
    const dates = content.changes.filter((one) => one.venueId === from).map((one) => one.original);
    done.push({ listingId, copy, before: content[field], after: next[field], dates });
  }
  return done;
}

/**
 * Puts what one copy named before a replacement back. Where somebody changed that since, only what clearly came from it goes back; false
 * when nothing is left of it. `to` null: it was taken out.
 */
export async function putBack(tx: Db, one: MergedListing, { field, from, to, what }: Replacing, change: Change): Promise<boolean> {
  const { listingId, copy } = one;
  const content = await readCopy(tx, listingId, copy);
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
  await writeCopy(tx, { listingId, copy, content: next, what }, change);
  return true;
}
