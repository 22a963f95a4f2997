/** Takes pictures in: decided by their bytes, made upright and small enough in the worker, each kept once. */
import { webcrypto } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import { fileTypeFromBuffer } from 'file-type';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { picture, pictureSource } from '../db/schema';
import { invalidIn } from '../problem';
import type { TakenPicture } from '../worker/picture-tasks';
import type { TaskWorker } from '../worker/task-worker';
import { DatabaseFiles, type PictureFiles } from './file-store';
import { type PictureRow, searchOf } from './read';

/** A picture has at most so many bytes. */
export const MAX_PICTURE_BYTES = 20 * 1024 * 1024;
const ACCEPTED = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/avif']);

/** What taking pictures in needs of a site. */
export interface PictureSite {
  db: Db;
  pictureWorker: TaskWorker;
  /** where the files lie that are cut from them; undefined = in the database */
  pictureFiles?: PictureFiles | undefined;
}

/** Where a site's files lie that are cut from pictures. */
export const filesOf = ({ db, pictureFiles }: PictureSite): PictureFiles => pictureFiles ?? new DatabaseFiles(db);

/** A picture that somebody sent. */
export interface SentPicture {
  bytes: Buffer;
  /** the file's name */
  name: string;
  alt: string;
  credit: string;
  ownerId: string | null;
  at: Date;
}

/** Throws a Problem at the field `picture` that says what would be right. */
export async function preparePicture(pictureWorker: TaskWorker, bytes: Buffer): Promise<TakenPicture> {
  if (!bytes.length) throw invalidIn('picture', (w) => w.wrong.pictureEmpty());
  if (bytes.length > MAX_PICTURE_BYTES) throw invalidIn('picture', (w) => w.wrong.pictureLarge());
  const type = await fileTypeFromBuffer(bytes);
  if (!type || !ACCEPTED.has(type.mime)) throw invalidIn('picture', (w) => w.wrong.pictureKind());
  for await (const part of pictureWorker.run({ task: 'take-picture', bytes })) {
    if (part.part === 'picture') return part.picture;
    if (part.part === 'refused') {
      const { reason } = part;
      throw invalidIn('picture', (w) => w.wrong.pictureUnread({ reason }));
    }
  }
  throw new Error('the worker gave no picture back');
}

/** Keeps a picture; the same bytes are kept once, and come back as what they are already. */
export async function keepPicture(site: PictureSite, sent: SentPicture): Promise<{ picture: PictureRow; known: boolean }> {
  const words = { name: sent.name.slice(0, 200), alt: sent.alt.trim().slice(0, 300), credit: sent.credit.trim().slice(0, 120) };
  const source = await keepSource(site, sent.bytes);
  return site.db.transaction(async (tx) => {
    // Two who send the same at the same moment take turns here.
    await tx.select({ hash: pictureSource.hash }).from(pictureSource).where(eq(pictureSource.hash, source.hash)).for('update');
    const [there] = await findByHash(tx, source.hash);
    if (there?.binnedAt) {
      const [restored] = await tx.update(picture).set({ binnedAt: null }).where(eq(picture.id, there.id)).returning();
      if (restored) return { picture: restored, known: true };
    }
    if (there) return { picture: there, known: true };
    const [made] = await tx
      .insert(picture)
      .values({
        id: newId(),
        ...source,
        ...words,
        search: searchOf(words),
        ownerId: sent.ownerId,
        createdAt: sent.at,
      })
      .returning();
    if (!made) throw new Error('the new picture did not come back');
    await tx.update(pictureSource).set({ unusedSince: null }).where(eq(pictureSource.hash, source.hash));
    return { picture: made, known: false };
  });
}

function findByHash(tx: Db, hash: string): Promise<PictureRow[]> {
  return tx.select().from(picture).where(eq(picture.hash, hash)).orderBy(asc(picture.createdAt), asc(picture.id)).limit(1);
}

/** What a picture's files are made from: the hash of its bytes, its size in pixels, how much true detail it has. */
export interface Source {
  hash: string;
  width: number;
  height: number;
  detail: number;
}

/** Keeps the bytes that pictures are made from, once. */
export async function keepSource(site: PictureSite, bytes: Buffer): Promise<Source> {
  const { db, pictureWorker } = site;
  // Beside this thread: of 20 MB it takes a tenth of a second.
  const hash = Buffer.from(await webcrypto.subtle.digest('SHA-256', new Uint8Array(bytes))).toString('hex');
  const { width, height, detail } = pictureSource;
  const [known] = await db
    .select({ hash: pictureSource.hash, width, height, detail })
    .from(pictureSource)
    .where(eq(pictureSource.hash, hash));
  if (known) return known;
  const taken = await preparePicture(pictureWorker, bytes);
  const source = { hash, width: taken.width, height: taken.height, detail: taken.detail };
  // A statement each, so that readers have their turns between them: what a crash leaves out is made when somebody asks for it.
  await db
    .insert(pictureSource)
    .values({ ...source, bytes: taken.source })
    .onConflictDoNothing();
  const files = filesOf(site);
  for (const { bytes: cut, ...file } of taken.files) await files.write({ hash, ...file }, cut);
  return source;
}
