/** Changes to pictures that are there: their words, what must stay in sight, another file in their place, the bin. */
import { and, eq, isNull, ne, notExists, sql } from 'drizzle-orm';
import { z } from 'zod';
import { CROPPED, type Crops } from '@/core/picture/crop';
import { type Actor, mayEdit } from '../accounts/roles';
import { audited } from '../accounts/audit';
import type { Db } from '../db/client';
import { link, picture, pictureSource } from '../db/schema';
import { invalid, notFound, Problem, refused } from '../problem';
import { validateAgain } from '../validation/due';
import { type PictureRow, searchOf } from './read';
import type { Source } from './take-in';
import { usesOf } from './uses';
import { serverWords } from '@/words/desk';

const texts = serverWords.picturesWrite;

const fraction = z.number().min(0, texts.between0And1()).max(1, texts.between0And1());
const box = z.object({ x: fraction, y: fraction, w: z.number().gt(0).max(1), h: z.number().gt(0).max(1) });

/** What may come in as a picture's words and crops. */
export const pictureInput = z
  .object({
    name: z.string().trim().max(200, texts.atMost200Characters()),
    alt: z.string().trim().max(300, texts.atMost300Characters()),
    credit: z.string().trim().max(120, texts.atMost120Characters()),
    focus: z.object({ x: fraction, y: fraction }),
    crops: z.object({
      format: z.literal(1),
      ...Object.fromEntries(CROPPED.map((use) => [use, box.optional()])),
    }) as unknown as z.ZodType<Crops>,
  })
  .partial();
/** A picture's words and crops, checked. */
export type PictureInput = z.infer<typeof pictureInput>;

/** Whoever sent it, and editors, may change it: to others it is there to be used as it is. */
async function lock(tx: Db, id: string, by: Actor): Promise<PictureRow> {
  const [row] = await tx.select().from(picture).where(eq(picture.id, id)).for('update');
  if (!row) throw notFound('picture');
  if (!mayEdit(by, row)) throw refused(texts.somebodyElseSentThis());
  return row;
}

/** Changes what is given; the rest stays. */
export async function changePicture(tx: Db, id: string, { focus, crops, ...words }: PictureInput, by: Actor): Promise<PictureRow> {
  const row = await lock(tx, id, by);
  const framing = { ...(focus ? { focusX: focus.x, focusY: focus.y } : {}), ...(crops ? { crops } : {}) };
  const seen = Object.keys(framing).length > 0;
  if (!seen && !Object.keys(words).length) return row;
  const [next] = await tx
    .update(picture)
    .set({ ...words, search: searchOf({ ...row, ...words }), ...framing, ...(seen ? { version: row.version + 1 } : {}) })
    .where(eq(picture.id, id))
    .returning();
  if (!next) throw notFound('picture');
  await audited(tx, by, { kind: 'picture', id, what: { code: 'changed' } });
  await validateAgain(tx, 'pictureId', id);
  return next;
}

/** Puts another file in a picture's place: everything that shows it follows, with what is said of it. Gives back what was there. */
export async function replacePicture(
  tx: Db,
  id: string,
  source: Source,
  by: Actor,
  at: Date,
): Promise<{ row: PictureRow; before: string }> {
  const row = await lock(tx, id, by);
  if (row.hash === source.hash) throw invalid('picture', texts.thisIsTheSame());
  const [next] = await tx
    .update(picture)
    // What somebody framed on the old one means nothing on the new.
    .set({ ...source, crops: { format: 1 }, focusX: 0.5, focusY: 0.5, version: row.version + 1 })
    .where(eq(picture.id, id))
    .returning();
  if (!next) throw notFound('picture');
  await tx.update(pictureSource).set({ unusedSince: null }).where(eq(pictureSource.hash, source.hash));
  await noteUnused(tx, row.hash, at);
  await audited(tx, by, { kind: 'picture', id, what: { code: 'pictureReplaced' } });
  await validateAgain(tx, 'pictureId', id);
  return { row: next, before: row.hash };
}

/** Takes a replacement back, while the file before it is still kept. */
export async function putBack(tx: Db, id: string, hash: string, by: Actor, at: Date): Promise<PictureRow> {
  const { width, height, detail } = pictureSource;
  const [source] = await tx
    .select({ hash: pictureSource.hash, width, height, detail })
    .from(pictureSource)
    .where(eq(pictureSource.hash, hash));
  if (!source) throw new Problem('conflict', texts.theFileThatWas());
  return (await replacePicture(tx, id, source, by, at)).row;
}

async function noteUnused(tx: Db, hash: string, at: Date): Promise<void> {
  const used = tx.select({ one: sql`1` }).from(picture).where(eq(picture.hash, hash));
  await tx
    .update(pictureSource)
    .set({ unusedSince: at })
    .where(and(eq(pictureSource.hash, hash), sql`not exists ${used}`));
}

/** Puts a picture into the bin, or takes it out (`at` null). What is shown somewhere stays. */
export async function binPicture(tx: Db, id: string, at: Date | null, by: Actor): Promise<PictureRow> {
  await lock(tx, id, by);
  if (at) {
    const uses = await usesOf(tx, id);
    const [first] = uses;
    if (first)
      throw new Problem(
        'conflict',
        texts.itIsShownBy({ name: first.name, more: uses.length > 1 ? texts.andMore({ n: uses.length - 1 }) : '' }),
      );
  }
  const [next] = await tx.update(picture).set({ binnedAt: at }).where(eq(picture.id, id)).returning();
  if (!next) throw notFound('picture');
  await audited(tx, by, { kind: 'picture', id, what: { code: at ? 'binned' : 'outOfBin' } });
  return next;
}

/** Is the same file somewhere else under another name? Then there are two pictures of it, which people may want to know. */
export async function othersOf(db: Db, { id, hash }: PictureRow): Promise<{ id: string; alt: string; name: string }[]> {
  return db
    .select({ id: picture.id, alt: picture.alt, name: picture.name })
    .from(picture)
    .where(and(eq(picture.hash, hash), ne(picture.id, id)));
}

/** Puts a stranger's picture that nothing names in the bin: it goes with it, unless somebody sends it again. */
export async function binUnused(tx: Db, id: string, at: Date): Promise<void> {
  const named = tx.select({ one: sql`1` }).from(link).where(eq(link.pictureId, picture.id));
  await tx
    .update(picture)
    .set({ binnedAt: at })
    .where(and(eq(picture.id, id), isNull(picture.ownerId), notExists(named)));
}

/** Takes a picture from the bin; `alt` is what it shows, where nobody has said so yet. */
export async function restorePicture(tx: Db, id: string, alt = ''): Promise<void> {
  const [row] = await tx.update(picture).set({ binnedAt: null }).where(eq(picture.id, id)).returning();
  const words = alt.trim().slice(0, 300);
  if (row && words && !row.alt)
    await tx
      .update(picture)
      .set({ alt: words, search: searchOf({ ...row, alt: words }) })
      .where(eq(picture.id, id));
}
