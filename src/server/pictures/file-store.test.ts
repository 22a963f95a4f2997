import { chmodSync, mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import { objectService } from '../../../tests/support/object-service';
import type { Db } from '../db/client';
import { pictureFile } from '../db/schema';
import { ContentCache } from '../site/content-cache';
import { TaskWorker } from '../worker/task-worker';
import { DatabaseFiles, openPictureFiles, type PictureFiles } from './file-store';
import { readFile } from './files';
import { keepPicture } from './take-in';

const KEY = { hash: 'ab12', box: '0,0,900,600', width: 480, format: 'webp' } as const;
const OTHER = { ...KEY, hash: 'cd34' };
const BYTES = Buffer.from([0, 1, 2, 253, 254, 255]);
const S3 = { AWS_ACCESS_KEY_ID: 'isles', AWS_SECRET_ACCESS_KEY: 'a secret of the isles' };

const folders: string[] = [];
const folder = (): string => {
  const made = mkdtempSync(path.join(tmpdir(), 'alm-pictures-'));
  folders.push(made);
  return made;
};
afterAll(() => {
  for (const one of folders) rmSync(one, { recursive: true, force: true });
});

describe('files that are cut from pictures', () => {
  let db: Db;
  let store: Awaited<ReturnType<typeof objectService>>;
  const pictureWorker = new TaskWorker(undefined);
  beforeAll(async () => {
    store = await objectService();
  });
  beforeEach(async () => {
    db = await freshDb();
  });
  afterAll(async () => {
    store.close();
    await pictureWorker.close();
  });
  const stores: [string, () => Promise<PictureFiles>][] = [
    ['a folder', async () => (await openPictureFiles(folder(), {})) as PictureFiles],
    ['a bucket', async () => (await openPictureFiles('s3://isles/pictures/', { ...S3, AWS_ENDPOINT_URL_S3: store.url })) as PictureFiles],
  ];

  for (const [name, open] of stores) {
    it(`come back from ${name} as they went in, and go with what they were cut from`, async () => {
      const files = await open();
      expect(await files.read(KEY)).toBeUndefined();
      await files.write(KEY, BYTES);
      await files.write(OTHER, BYTES);
      expect(Buffer.from((await files.read(KEY)) ?? [])).toEqual(BYTES);
      expect(await files.read({ ...KEY, width: 960 })).toBeUndefined();
      await files.forget([KEY.hash]);
      expect(await files.read(KEY)).toBeUndefined();
      expect(await files.read(OTHER)).toBeDefined();
    });

    it(`lie in ${name} instead of the database, and are made anew when it has lost them`, async () => {
      const site = { db, pictureWorker, pictureFiles: await open(), cache: new ContentCache(() => '1') };
      const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#86748f' } })
        .png()
        .toBuffer();
      const sent = { bytes, name: 'slip.png', alt: '', credit: '', ownerId: null, at: new Date() };
      const { picture } = await keepPicture(site, sent);
      expect(await db.$count(pictureFile)).toBe(0);
      const wanted = { use: 'whole', width: 480, format: 'webp' } as const;
      const first = Buffer.from(await readFile(site, picture, wanted));
      await site.pictureFiles.forget([picture.hash]);
      expect(Buffer.from(await readFile(site, picture, wanted)).equals(first)).toBe(true);
      expect(await db.$count(pictureFile)).toBe(0);
    });
  }

  it('a store that is gone costs readers nothing: what it should have is made each time', async () => {
    const gone = (await openPictureFiles('s3://isles', { ...S3, AWS_ENDPOINT_URL_S3: 'http://127.0.0.1:9' })) as PictureFiles;
    await gone.write(KEY, BYTES);
    expect(await gone.read(KEY)).toBeUndefined();
  });

  it('are for the site’s own account alone in a folder', async () => {
    const at = folder();
    chmodSync(at, 0o700);
    const files = (await openPictureFiles(at, {})) as PictureFiles;
    await files.write(KEY, BYTES);
    expect(readdirSync(path.join(at, 'ab', 'ab12'))).toEqual(['0-0-900-600-480.webp']);
    expect(statSync(at).mode & 0o777).toBe(0o700);
  });

  it('are in the database where nothing is named; what is no folder or bucket is said', async () => {
    expect(await openPictureFiles(undefined, {})).toBeUndefined();
    const files = new DatabaseFiles(db);
    expect(await files.read(KEY)).toBeUndefined();
    await expect(openPictureFiles('ftp://isles', {})).rejects.toThrow('it takes a folder, or s3://bucket');
    await expect(openPictureFiles('s3://isles', {})).rejects.toThrow('AWS_ACCESS_KEY_ID');
  });
});
