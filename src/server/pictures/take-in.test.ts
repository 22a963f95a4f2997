import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { picture, pictureFile, pictureSource } from '../db/schema';
import { TaskWorker } from '../worker/task-worker';
import { keepPicture, preparePicture as prepare } from './take-in';

const pictureWorker = new TaskWorker(undefined);
const preparePicture = (bytes: Buffer) => prepare(pictureWorker, bytes);
const sent = { name: 'sun.jpg', alt: 'A red sun', credit: 'Shore Wardens', ownerId: null, at: new Date('2027-03-17T12:00:00Z') };

const jpeg = (): Promise<Buffer> =>
  sharp({ create: { width: 900, height: 600, channels: 3, background: '#7fa6a4' } })
    .composite([{ input: Buffer.from('<svg width="900" height="600"><circle cx="300" cy="200" r="150" fill="#e06848"/></svg>') }])
    .withExif({ IFD0: { Artist: 'Ada Fenwright' }, IFD3: { GPSLatitude: '43/1 10/1 0/1', GPSLatitudeRef: 'N' } })
    .jpeg()
    .toBuffer();

/** A true PNG of a size, one colour, without holding its pixels. */
function hugePng(side: number): Buffer {
  const crcTable = Array.from({ length: 256 }, (_, n) => {
    let c = n;
    for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
    return c >>> 0;
  });
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data]);
    let crc = 0xffffffff;
    for (const byte of body) crc = (crcTable[(crc ^ byte) & 255] as number) ^ (crc >>> 8);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE((crc ^ 0xffffffff) >>> 0, body.length + 4);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  head.set([1, 0, 0, 0, 0], 8);
  const rows = deflateSync(Buffer.alloc(Math.ceil(side / 8 + 1) * side));
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', head),
    chunk('IDAT', rows),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('a picture', () => {
  let db: Db;
  beforeAll(async () => {
    db = await freshDb();
  });

  it('is made into the cover’s sizes in three formats, and loses its position', async () => {
    const original = await jpeg();
    expect((await sharp(original).metadata()).exif?.includes('Ada Fenwright')).toBe(true);
    const { width, height, source, files } = await preparePicture(original);
    expect([width, height]).toEqual([900, 600]);
    expect(files.map((f) => `${f.width} ${f.format}`)).toEqual(
      [320, 640, 900].flatMap((w) => ['avif', 'webp', 'jpeg'].map((format) => `${w} ${format}`)),
    );
    for (const file of [{ ...files[0], width: 900, format: 'webp', bytes: source }, ...files]) {
      const meta = await sharp(file.bytes).metadata();
      expect([meta.format === 'heif' ? 'avif' : meta.format, meta.exif, meta.xmp, meta.width]).toEqual([
        file.format,
        undefined,
        undefined,
        file.width,
      ]);
    }
    // 900 x 600 around its middle, 16 to 9.
    expect(files[0]?.box).toBe('0,47,900,506');
  });

  it('is kept once however often it is sent, also at the same moment', async () => {
    const bytes = await jpeg();
    const site = { db, pictureWorker };
    const keep = () => keepPicture(site, { ...sent, bytes });
    const kept = await Promise.all([keep(), keep(), keep()]);
    expect(new Set(kept.map((k) => k.picture.id)).size).toBe(1);
    expect(kept.filter((k) => !k.known)).toHaveLength(1);
    expect(await db.select({ id: picture.id }).from(picture)).toHaveLength(1);
    expect(await db.select({ hash: pictureSource.hash }).from(pictureSource)).toHaveLength(1);
    expect(await db.select({ width: pictureFile.width }).from(pictureFile)).toHaveLength(9);
    expect(await keep()).toMatchObject({
      known: true,
      picture: { alt: 'A red sun', name: 'sun.jpg', search: 'a red sun shore wardens sun jpg' },
    });
  });

  it('that is larger than any use is made smaller, and one that was enlarged is known', async () => {
    const rings = Array.from(
      { length: 60 },
      (_, i) => `<circle cx="${(i * 137) % 900}" cy="${(i * 211) % 600}" r="${20 + (i % 5) * 9}" fill="${i % 2 ? '#123' : '#fed'}"/>`,
    );
    const svg = `<svg width="900" height="600" xmlns="http://www.w3.org/2000/svg">${rings.join('')}</svg>`;
    const drawn = await sharp(Buffer.from(svg)).flatten().png().toBuffer();
    const large = await sharp(drawn).resize(3600, 2400).jpeg().toBuffer();
    const { width, height, detail } = await preparePicture(large);
    expect([width, height]).toEqual([2400, 1600]);
    expect(detail).toBeLessThan(0.6);
    expect((await preparePicture(drawn)).detail).toBe(1);
  });

  it('keeps what shines through in WebP and AVIF, and stands on white in JPEG', async () => {
    const logo = await sharp({ create: { width: 400, height: 300, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } })
      .png()
      .toBuffer();
    const { files } = await preparePicture(logo);
    const [avif, webp, jpg] = await Promise.all(files.slice(0, 3).map((f) => sharp(f.bytes).stats()));
    expect([avif?.isOpaque, webp?.isOpaque, jpg?.isOpaque]).toEqual([false, false, true]);
    expect(jpg?.channels[0]?.mean).toBeGreaterThan(250);
  });

  it('is turned upright by its orientation', async () => {
    const sideways = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#000' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const { width, height } = await preparePicture(sideways);
    expect([width, height]).toEqual([200, 300]);
  });

  for (const format of ['png', 'gif', 'webp', 'avif'] as const) {
    it(`may be ${format}`, async () => {
      const bytes = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#0c5a63' } })
        .toFormat(format)
        .toBuffer();
      expect((await preparePicture(bytes)).width).toBe(64);
    });
  }
});

describe('what is no picture is refused with what would be right', () => {
  it('a renamed program', async () => {
    await expect(preparePicture(Buffer.from('#!/bin/sh\necho kittiwick\n'))).rejects.toThrow('no picture of a kind we take');
    await expect(preparePicture(Buffer.concat([Buffer.from('MZ'), Buffer.alloc(4000, 1)]))).rejects.toThrow('no picture of a kind we take');
  });
  it('nothing of a GIF of thousands of pictures but its first', async () => {
    const frame = Buffer.alloc(20 * 20 * 3, 0);
    const frames = Buffer.concat(Array.from({ length: 5000 }, (_, i) => frame.map(() => i % 256)));
    const gif = await sharp(frames, { raw: { width: 20, height: 20 * 5000, channels: 3, pageHeight: 20 } })
      .gif({ loop: 0, effort: 1 })
      .toBuffer();
    expect((await sharp(gif, { pages: -1, limitInputPixels: false }).metadata()).pages).toBeGreaterThan(200);
    expect(await preparePicture(gif)).toMatchObject({ width: 20, height: 20 });
  });
  it('an SVG with a script', async () => {
    await expect(preparePicture(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'))).rejects.toThrow(
      'no picture of a kind we take',
    );
  });
  it('a truncated JPEG', async () => {
    const whole = await jpeg();
    await expect(preparePicture(whole.subarray(0, Math.floor(whole.length / 2)))).rejects.toThrow('damaged or cut short');
  });
  it('a PNG of 30,000 x 30,000, without taking its memory', async () => {
    const bytes = hugePng(30_000);
    expect(bytes.length).toBeLessThan(1_000_000);
    const before = process.memoryUsage().rss;
    await expect(preparePicture(bytes)).rejects.toThrow('60 million pixels');
    expect(process.memoryUsage().rss - before).toBeLessThan(300 * 1024 * 1024);
  });
  it('nothing at all, and more than 20 MB', async () => {
    await expect(preparePicture(Buffer.alloc(0))).rejects.toThrow('empty');
    await expect(preparePicture(Buffer.alloc(20 * 1024 * 1024 + 1))).rejects.toThrow('larger than 20 MB');
  });
});
