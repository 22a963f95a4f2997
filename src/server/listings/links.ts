/** What a copy of a listing points to, as rows: categories, places, people, tags and pictures, in their order. */
import { and, eq } from 'drizzle-orm';
import { allTexts, type ListingContent, venuesOf } from '@/core/listing/content';
import { picturesInText } from '@/core/picture/picture-url';
import type { Db } from '../db/client';
import { isId } from '../db/ids';
import { link } from '../db/schema';
import { readPictures } from '../pictures/read';

/** Puts the links of a content in the place of those that its copy had. */
export async function writeLinks(tx: Db, listingId: string, copy: 'working' | 'published', content: ListingContent): Promise<void> {
  await tx.delete(link).where(and(eq(link.listingId, listingId), eq(link.copy, copy)));
  const rows = [...linkRows(listingId, copy, content), ...(await textPictureRows(tx, listingId, copy, content))];
  if (rows.length) await tx.insert(link).values(rows);
}

/** Where a link to a picture says that it stands: the cover, then the gallery in order, then those in the text. */
export const PICTURE_AT = { cover: 0, gallery: 1, text: 100 } as const;

/** What a content points to, in its order, as rows; the pictures in its text are asked for apart. */
export function linkRows(listingId: string, copy: 'working' | 'published', content: ListingContent): (typeof link.$inferInsert)[] {
  const base = { listingId, copy };
  return [
    ...content.categoryIds.map((categoryId, position) => ({ ...base, position, categoryId })),
    ...venuesOf(content).map((venueId, position) => ({ ...base, position, venueId })),
    ...content.organizerIds.map((organizerId, position) => ({ ...base, position, organizerId })),
    ...content.tagIds.map((tagId, position) => ({ ...base, position, tagId })),
    ...(content.pictureId ? [{ ...base, position: PICTURE_AT.cover, pictureId: content.pictureId }] : []),
    ...content.galleryIds.map((pictureId, i) => ({ ...base, position: PICTURE_AT.gallery + i, pictureId })),
  ];
}

/** The pictures in its text, as far as they are there: a text that came from elsewhere may name others'. */
async function textPictureRows(
  tx: Db,
  listingId: string,
  copy: 'working' | 'published',
  content: ListingContent,
): Promise<(typeof link.$inferInsert)[]> {
  const there = await readPictures(tx, picturesInText(allTexts(content)).filter(isId));
  return textPictureLinks(listingId, copy, content, [...there.keys()]);
}

/** Links to pictures that stand in a text and nowhere else of its content. */
export function textPictureLinks(
  listingId: string,
  copy: 'working' | 'published',
  { pictureId, galleryIds }: ListingContent,
  inText: readonly string[],
): (typeof link.$inferInsert)[] {
  const alone = inText.filter((id) => id !== pictureId && !galleryIds.includes(id));
  return alone.map((id, i) => ({ listingId, copy, position: PICTURE_AT.text + i, pictureId: id }));
}
