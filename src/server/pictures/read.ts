/** Pictures as pages and the Desk ask for them. */
import { eq, inArray } from 'drizzle-orm';
import { type ListingContent, picturesOf } from '@/core/listing/content';
import type { PictureChoice } from '@/core/listing/editor';
import { type Framing, nearestWidth, type PictureUse, sizeAt } from '@/core/picture/crop';
import { pictureAddress } from '@/core/picture/picture-url';
import { fold } from '@/core/text/text';
import type { Db } from '../db/client';
import { picture } from '../db/schema';
import { serverWords } from '@/words/desk';

const w = serverWords.picturesRead;

/** A picture's row. */
export type PictureRow = typeof picture.$inferSelect;

/** What a picture’s crops follow from. */
export function framingOf({ width, height, focusX, focusY, crops }: PictureRow): Framing {
  return { width, height, focus: { x: focusX, y: focusY }, crops };
}

/** One file of a picture, for what takes a single address: a card on another site, a link. */
export function pictureFileOf(picture: PictureRow, use: PictureUse, wanted: number): { src: string; width: number; height: number } {
  const framing = framingOf(picture);
  const width = nearestWidth(use, framing, wanted);
  return { src: pictureAddress(picture, { use, width, format: 'jpeg' }), ...sizeAt(use, framing, width) };
}

/** What a picture is found by. */
export function searchOf({ name, alt, credit }: Pick<PictureRow, 'name' | 'alt' | 'credit'>): string {
  return fold(`${alt} ${credit} ${name.replace(/[-_.]+/g, ' ')}`);
}

/** What the Desk's forms know of a picture. */
export function pictureChoice(row: PictureRow): PictureChoice {
  const { id, version, name, alt, credit, detail } = row;
  return { id, version, name, alt, credit, detail, ...framingOf(row) };
}

/** A picture; undefined when there is none of that id. */
export async function readPicture(db: Db, id: string | null): Promise<PictureRow | undefined> {
  if (!id) return undefined;
  const [row] = await db.select().from(picture).where(eq(picture.id, id));
  return row;
}

/** Pictures by their ids, those that are there. */
export async function readPictures(db: Db, ids: readonly (string | null | undefined)[]): Promise<Map<string, PictureRow>> {
  const wanted = [...new Set(ids.filter((id): id is string => Boolean(id)))];
  if (!wanted.length) return new Map();
  const rows = await db.select().from(picture).where(inArray(picture.id, wanted));
  return new Map(rows.map((row) => [row.id, row]));
}

/** The pictures of one listing, as its page shows them. */
export interface ListingPictures {
  cover: PictureRow | undefined;
  gallery: PictureRow[];
  /** by id, those in the text too */
  all: Map<string, PictureRow>;
}

/** `standIn`: the picture of its category, for a listing that has none of its own. */
export async function readListingPictures(db: Db, content: ListingContent, standIn: string | null | undefined): Promise<ListingPictures> {
  const cover = content.pictureId ?? standIn;
  const all = await readPictures(db, [...picturesOf(content), cover]);
  return { cover: all.get(cover ?? ''), gallery: content.galleryIds.flatMap((id) => all.get(id) ?? []), all };
}

/** What pictures show, by their ids; one without a description is called that. */
export async function readPictureNames(db: Db, ids: readonly string[]): Promise<Map<string, string>> {
  const found = await readPictures(db, ids);
  return new Map([...found].map(([id, { alt }]) => [id, alt || w.aPictureWithoutA()]));
}
