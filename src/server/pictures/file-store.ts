/**
 * Where the files lie that are cut from pictures, which readers fetch: in the database, unless a folder or a bucket is named. All of them can be
 * made again from their pictures, so one that is lost or cannot be written costs time and nothing else.
 */
import { and, eq } from 'drizzle-orm';
import type { Disk } from 'flydrive';
import type { Db } from '../db/client';
import { pictureFile } from '../db/schema';
import { log } from '../health/log';
import { Problem } from '../problem';
import type { Environment } from '../site/configuration';

/** Which file: of which bytes, which pixels of them, how wide, in which format. */
export type FileKey = Omit<typeof pictureFile.$inferInsert, 'bytes'>;

/** Keeps files that are cut from pictures. */
export interface PictureFiles {
  /** undefined = it is not there, and is to be made */
  read: (key: FileKey) => Promise<Uint8Array | undefined>;
  write: (key: FileKey, bytes: Uint8Array) => Promise<void>;
  /** removes what was cut from bytes that are gone */
  forget: (hashes: readonly string[]) => Promise<void>;
}

/** Files in the database, which go with what they were cut from. */
export class DatabaseFiles implements PictureFiles {
  constructor(private readonly db: Db) {}

  async read({ hash, box, width, format }: FileKey): Promise<Uint8Array | undefined> {
    const [kept] = await this.db
      .select({ bytes: pictureFile.bytes })
      .from(pictureFile)
      .where(and(eq(pictureFile.hash, hash), eq(pictureFile.box, box), eq(pictureFile.width, width), eq(pictureFile.format, format)));
    return kept?.bytes;
  }

  async write(key: FileKey, bytes: Uint8Array): Promise<void> {
    await this.db
      .insert(pictureFile)
      .values({ ...key, bytes })
      .onConflictDoNothing();
  }

  async forget(): Promise<void> {}
}

const pathOf = ({ hash, box, width, format }: FileKey): string =>
  `${hash.slice(0, 2)}/${hash}/${box.replaceAll(',', '-')}-${width}.${format}`;

/** Does a store say that there is no such file, by whatever name it calls that? */
function isMissing(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code, name } = at as NodeJS.ErrnoException;
    if (code === 'ENOENT' || name === 'NoSuchKey' || name === 'NotFound') return true;
  }
  return false;
}

/** Files in a folder or a bucket. What it refuses is said in the log; readers get what is made anew. */
export class DriveFiles implements PictureFiles {
  constructor(
    private readonly disk: Pick<Disk, 'getBytes' | 'put' | 'deleteAll'>,
    private readonly base = '',
  ) {}

  async read(key: FileKey): Promise<Uint8Array | undefined> {
    try {
      return await this.disk.getBytes(this.base + pathOf(key));
    } catch (error) {
      if (!isMissing(error)) log.warn({ err: error }, 'A picture’s file could not be read where ALMANAC_PICTURES says: it is made anew');
      return undefined;
    }
  }

  async write(key: FileKey, bytes: Uint8Array): Promise<void> {
    try {
      await this.disk.put(this.base + pathOf(key), bytes);
    } catch (error) {
      log.warn({ err: error }, 'A picture’s file could not be written where ALMANAC_PICTURES says: it is made each time');
    }
  }

  async forget(hashes: readonly string[]): Promise<void> {
    for (const hash of hashes) await this.disk.deleteAll(`${this.base}${hash.slice(0, 2)}/${hash}/`);
  }
}

const BUCKET = /^s3:\/\/([a-z0-9][a-z0-9.-]{1,61}[a-z0-9])(?:\/(.*))?$/;

/**
 * Where `ALMANAC_PICTURES` says: a folder, or `s3://bucket/beginning` of any service that speaks S3, whose address, region and keys are the
 * usual variables (`AWS_ENDPOINT_URL_S3`, `AWS_REGION`, `AWS_ACCESS_KEY_ID`, `AWS_SECRET_ACCESS_KEY`). Undefined: in the database.
 * @throws Problem that says what would be right
 */
export async function openPictureFiles(where: string | undefined, env: Environment): Promise<PictureFiles | undefined> {
  if (!where) return undefined;
  const { Disk } = await import('flydrive');
  if (!where.includes('://')) {
    const { FSDriver } = await import('flydrive/drivers/fs');
    return new DriveFiles(new Disk(new FSDriver({ location: where, visibility: 'private' })));
  }
  const [, bucket, beginning = ''] = BUCKET.exec(where) ?? [];
  if (!bucket) throw new Problem('conflict', `ALMANAC_PICTURES is ${where}; it takes a folder, or s3://bucket/beginning-of-names.`);
  const { AWS_ENDPOINT_URL_S3: endpoint, AWS_REGION: region = 'us-east-1', AWS_ACCESS_KEY_ID: id, AWS_SECRET_ACCESS_KEY: secret } = env;
  if (!id || !secret)
    throw new Problem(
      'conflict',
      'ALMANAC_PICTURES names a bucket; set AWS_ACCESS_KEY_ID and AWS_SECRET_ACCESS_KEY, which let the site in.',
    );
  const { S3Driver } = await import('flydrive/drivers/s3');
  const driver = new S3Driver({
    bucket,
    region,
    // A service of one's own rarely has a name of its own for each bucket.
    ...(endpoint ? { endpoint, forcePathStyle: true } : {}),
    credentials: { accessKeyId: id, secretAccessKey: secret },
    visibility: 'private',
    supportsACL: false,
  });
  return new DriveFiles(new Disk(driver), beginning && `${beginning.replace(/\/+$/, '')}/`);
}
