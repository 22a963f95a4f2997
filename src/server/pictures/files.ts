/** Files of pictures: the wide ones are there from the beginning, others are made when somebody first asks. */
import { eq } from 'drizzle-orm';
import type { FileName } from '@/core/picture/picture-url';
import { nearestWidth, pixelsOf, sizeAt } from '@/core/picture/crop';
import { pictureSource } from '../db/schema';
import { notFound } from '../problem';
import { boxName, type CutTask } from '../worker/picture-tasks';
import { framingOf, type PictureRow } from './read';
import type { ContentCache } from '../site/content-cache';
import type { FileKey } from './file-store';
import { filesOf, type PictureSite } from './take-in';

/** What cutting needs of a site: what is being cut is known there. */
interface CuttingSite extends PictureSite {
  cache: ContentCache;
}

/** A file's bytes, in the nearest width that is made. */
export async function readFile(site: CuttingSite, picture: PictureRow, { use, width: wanted, format }: FileName): Promise<Uint8Array> {
  const framing = framingOf(picture);
  const width = nearestWidth(use, framing, wanted);
  const pixels = pixelsOf(use, framing);
  const box = boxName(pixels);
  const key = { hash: picture.hash, box, width, format };
  const kept = await filesOf(site).read(key);
  if (kept) return kept;
  const name = Object.values(key).join(' ');
  // What is being cut right now: whoever asks meanwhile gets the same.
  const underWay = site.cache.keep('cuts under way', () => new Map<string, Promise<Uint8Array>>());
  const known = underWay.get(name);
  if (known) return known;
  const made = make(site, key, { pixels, ...sizeAt(use, framing, width), format }).finally(() => underWay.delete(name));
  underWay.set(name, made);
  return made;
}

async function make(site: PictureSite, key: FileKey, cut: Omit<CutTask, 'task' | 'source'>): Promise<Uint8Array> {
  const { db, pictureWorker } = site;
  const [source] = await db.select({ bytes: pictureSource.bytes }).from(pictureSource).where(eq(pictureSource.hash, key.hash));
  if (!source) throw notFound('picture');
  for await (const part of pictureWorker.run({ task: 'cut-picture', source: source.bytes, ...cut })) {
    if (part.part !== 'file') continue;
    await filesOf(site).write(key, part.bytes);
    return part.bytes;
  }
  throw new Error('the worker gave no file back');
}
