/** What the worker thread does with pictures: decodes them within bounds, turns them upright, strips them, cuts and encodes. */
import sharp, { type Sharp } from 'sharp';
import type { PictureFormat } from '@/core/picture/picture-url';
import { MIDDLE, NO_CROPS, type Pixels, pixelsOf, sizeAt, widthsOf } from '@/core/picture/crop';
import { detailOf } from '@/core/picture/detail';
import { serverWords } from '@/words/desk';

const texts = serverWords.workerPictureTasks;

/** A picture to be taken in. */
export interface TakeTask {
  task: 'take-picture';
  bytes: Uint8Array;
}
/** A part of a picture to be cut out and encoded. */
export interface CutTask {
  task: 'cut-picture';
  /** a source's own bytes */
  source: Uint8Array;
  pixels: Pixels;
  width: number;
  height: number;
  format: PictureFormat;
}

/** A file that was made of a picture. */
export interface MadeFile {
  box: string;
  width: number;
  format: PictureFormat;
  bytes: Uint8Array;
}
/** A picture taken in: upright, bounded, with its files. */
export interface TakenPicture {
  width: number;
  height: number;
  detail: number;
  source: Uint8Array;
  /** the wide ones, which covers need at once */
  files: MadeFile[];
}

/** What the thread hands out of a task. */
export type PicturePart =
  | { part: 'picture'; picture: TakenPicture }
  | { part: 'file'; bytes: Uint8Array }
  /** the bytes are no picture that we take */
  | { part: 'refused'; reason: string };

/** A picture has at most so many pixels. */
export const MAX_PIXELS = 60_000_000;
/** Sources have at most so many pixels a side: more than any use shows. */
const MAX_SIDE = 2400;

// One picture at a time, without a cache: memory stays bounded however many arrive together.
sharp.concurrency(1);
sharp.cache(false);

interface Raw {
  data: Buffer;
  raw: { width: number; height: number; channels: 1 | 2 | 3 | 4 };
}

/** A file is known by what it shows of its source. */
export const boxName = ({ left, top, width, height }: Pixels): string => `${left},${top},${width},${height}`;

export async function* performPicture(task: TakeTask | CutTask): AsyncGenerator<PicturePart> {
  if (task.task === 'take-picture') {
    try {
      yield { part: 'picture', picture: await take(task.bytes) };
    } catch (error) {
      yield { part: 'refused', reason: whyRefused(error) };
    }
    return;
  }
  const { pixels, width, height, format } = task;
  yield { part: 'file', bytes: await encode(sharp(task.source).extract(pixels).resize({ width, height, fit: 'fill' }), format) };
}

function whyRefused(error: unknown): string {
  const message = error instanceof Error ? error.message : '';
  if (error instanceof TooLarge) return message;
  return /pixel limit/i.test(message) ? texts.thePictureHasMore() : texts.thePictureIsDamaged();
}

class TooLarge extends Error {}

async function take(bytes: Uint8Array): Promise<TakenPicture> {
  // Of something that moves the first picture is taken: `pages` stays 1, however many there are.
  const image = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'truncated' });
  const meta = await image.metadata();
  if (meta.width * meta.height > MAX_PIXELS) throw new TooLarge(texts.thePictureIsAt({ width: meta.width, height: meta.height }));
  // Decoded once, upright and flat; what the camera wrote, and with it the place it was taken, is gone.
  const { data, info } = await image
    .rotate()
    .resize({ width: MAX_SIDE, height: MAX_SIDE, fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const flat: Raw = { data, raw: { width: info.width, height: info.height, channels: info.channels } };
  const size = { width: info.width, height: info.height };
  const gray = await open(flat).flatten(WHITE).greyscale().toColourspace('b-w').raw().toBuffer();
  const detail = detailOf({ pixels: gray, ...size });
  const source = await open(flat).webp({ quality: 90, effort: 1 }).toBuffer();
  return { ...size, detail, source, files: await covers(flat) };
}

const WHITE = { background: '#ffffff' };
const open = ({ data, raw }: Raw): Sharp => sharp(data, { raw });

async function covers(flat: Raw): Promise<MadeFile[]> {
  const framing = { width: flat.raw.width, height: flat.raw.height, focus: MIDDLE, crops: NO_CROPS };
  const pixels = pixelsOf('wide', framing);
  const files: MadeFile[] = [];
  for (const width of widthsOf('wide', framing)) {
    const { data, info } = await open(flat)
      .extract(pixels)
      .resize({ ...sizeAt('wide', framing, width), fit: 'fill' })
      .raw()
      .toBuffer({ resolveWithObject: true });
    const scaled: Raw = { data, raw: { width: info.width, height: info.height, channels: info.channels } };
    for (const format of ['avif', 'webp', 'jpeg'] as const)
      files.push({ box: boxName(pixels), width, format, bytes: await encode(open(scaled), format) });
  }
  return files;
}

/** The lowest effort: the files are a tenth larger and made in a fifth of the time. */
function encode(image: Sharp, format: PictureFormat): Promise<Buffer> {
  if (format === 'avif') return image.avif({ quality: 52, effort: 0 }).toBuffer();
  if (format === 'webp') return image.webp({ quality: 78, effort: 1 }).toBuffer();
  return image.flatten(WHITE).jpeg({ quality: 82, progressive: true }).toBuffer();
}
