import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { picture, pictureFile } from '../db/schema';
import { keepPicture, preparePicture } from './write';

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

  it('is resized, turned to WebP, and loses its position', async () => {
    const original = await jpeg();
    expect((await sharp(original).metadata()).exif?.includes('Ada Fenwright')).toBe(true);
    const { width, height, files } = await preparePicture(original);
    expect([width, height]).toEqual([900, 600]);
    expect(files.map((f) => f.width)).toEqual([320, 640, 900]);
    for (const file of files) {
      const meta = await sharp(file.bytes).metadata();
      expect([meta.format, meta.exif, meta.width]).toEqual(['webp', undefined, file.width]);
    }
  });

  it('is kept once however often it is sent, also at the same moment', async () => {
    const bytes = await jpeg();
    const words = { alt: 'A red sun', credit: 'Shore Wardens' };
    const kept = await Promise.all([keepPicture(db, bytes, words), keepPicture(db, bytes, words), keepPicture(db, bytes, words)]);
    expect(new Set(kept.map((k) => k.id)).size).toBe(1);
    expect(await db.select({ id: picture.id }).from(picture)).toHaveLength(1);
    expect(await db.select({ width: pictureFile.width }).from(pictureFile)).toHaveLength(3);
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
