/** Pictures: decided by their bytes, decoded within bounds, turned upright, stripped, and kept in a few widths as WebP. */
import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { picture, pictureFile } from '../db/schema';
import { invalid } from '../http/problem';

export const MAX_PICTURE_BYTES = 20 * 1024 * 1024;
const MAX_PIXELS = 60_000_000;
const ACCEPTED = new Map([
  ['image/png', 'PNG'],
  ['image/jpeg', 'JPEG'],
  ['image/gif', 'GIF'],
  ['image/webp', 'WebP'],
  ['image/avif', 'AVIF'],
]);
const WIDTHS = [320, 640, 1024, 1600];

// One picture at a time, without a cache: memory stays bounded however many arrive together.
sharp.concurrency(1);
sharp.cache(false);
let turn: Promise<unknown> = Promise.resolve();

interface Prepared {
  width: number;
  height: number;
  files: { width: number; bytes: Buffer }[];
}

/** Throws a Problem at the field `picture` that says what would be right. */
export async function preparePicture(bytes: Buffer): Promise<Prepared> {
  if (!bytes.length) throw invalid('picture', 'The file is empty.');
  if (bytes.length > MAX_PICTURE_BYTES) throw invalid('picture', 'The file is larger than 20 MB; send a smaller one.');
  const type = await fileTypeFromBuffer(bytes);
  if (!type || !ACCEPTED.has(type.mime))
    throw invalid(
      'picture',
      'This is no picture of a kind we take: PNG, JPEG, GIF, WebP or AVIF. Its name does not matter, its contents do.',
    );
  const run = turn.then(
    () => resize(bytes),
    () => resize(bytes),
  );
  turn = run.catch(() => undefined);
  return run;
}

async function resize(bytes: Buffer): Promise<Prepared> {
  try {
    const image = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'truncated' });
    const meta = await image.metadata();
    if (meta.width * meta.height > MAX_PIXELS)
      throw invalid('picture', `The picture is ${meta.width} × ${meta.height}; at most 60 million pixels are taken.`);
    // Decoded once, upright and flat, then scaled from that: metadata, and with it the place it was taken, is gone.
    const upright = await image
      .rotate()
      .resize({ width: 1600, withoutEnlargement: true })
      .webp({ quality: 88 })
      .toBuffer({ resolveWithObject: true });
    const files = [];
    for (const width of WIDTHS.filter((w) => w < upright.info.width)) {
      files.push({ width, bytes: await sharp(upright.data).resize({ width }).webp({ quality: 80 }).toBuffer() });
    }
    files.push({ width: upright.info.width, bytes: upright.data });
    return { width: upright.info.width, height: upright.info.height, files };
  } catch (error) {
    if ((error as Error).name === 'Problem') throw error;
    const large = /pixel limit/i.test((error as Error).message);
    throw invalid(
      'picture',
      large
        ? 'The picture has more than 60 million pixels; send a smaller one.'
        : 'The picture is damaged or cut short; open and save it again, then send that.',
    );
  }
}

/** Keeps a picture; the same bytes are kept once. */
export async function keepPicture(
  db: Db,
  bytes: Buffer,
  words: { alt: string; credit: string },
): Promise<{ id: string; width: number; height: number; alt: string }> {
  const hash = createHash('sha256').update(bytes).digest('hex');
  const [known] = await db.select().from(picture).where(eq(picture.hash, hash));
  if (known) return { id: known.id, width: known.width, height: known.height, alt: known.alt };
  const prepared = await preparePicture(bytes);
  const id = newId();
  const row = {
    id,
    hash,
    alt: words.alt.slice(0, 300),
    credit: words.credit.slice(0, 120),
    width: prepared.width,
    height: prepared.height,
    sizes: { format: 1 as const, widths: prepared.files.map((f) => f.width) },
  };
  return db.transaction(async (tx) => {
    const [made] = await tx.insert(picture).values(row).onConflictDoNothing({ target: picture.hash }).returning({ id: picture.id });
    if (!made) {
      const [other] = await tx.select().from(picture).where(eq(picture.hash, hash));
      if (other) return { id: other.id, width: other.width, height: other.height, alt: other.alt };
    }
    await tx.insert(pictureFile).values(prepared.files.map((f) => ({ pictureId: id, ...f })));
    return { id, width: row.width, height: row.height, alt: row.alt };
  });
}
