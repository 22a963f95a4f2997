/** What a site is told from outside, by the environment of its process: read once, checked once. */
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import path from 'node:path';
import { Problem } from '../problem';
import { frozenNow } from './clock';

/** Names and values of a process's environment. */
export type Environment = Readonly<Record<string, string | undefined>>;

/** What it tells, checked. */
export interface Configuration {
  /** the application's own files */
  root: string;
  /** what is known of the world: towns, coasts (npm run world) */
  world: string;
  /** where the site's data lies */
  folder: string;
  /** where the site puts backups by itself; undefined = it makes none */
  backups: string | undefined;
  /** the folder that coordinators may have a copy of the public site written into; undefined = none */
  plainFiles: string | undefined;
  /** a folder or a bucket for the files that are cut from pictures; undefined = in the database */
  pictures: string | undefined;
  /** a PostgreSQL server's, when the embedded database is not used */
  databaseUrl: string | undefined;
  demo: boolean;
  /** the demo's time that stands still */
  frozen: string | undefined;
  smtp: string | undefined;
  /** may the geocoder be in a private network? */
  geocoderPrivate: boolean;
  /** the bundle of the thread for long computations; undefined = the sources */
  worker: string | undefined;
}

/** Reads it, and makes the data folder. Throws a Problem that says what would be right. */
export function readConfiguration(env: Environment): Configuration {
  const frozen = frozenNow(env);
  const root = env.ALMANAC_ROOT ?? process.cwd();
  const folder = path.resolve(root, env.ALMANAC_DATA ?? 'data');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  return {
    root,
    world: path.join(root, 'world'),
    folder,
    backups: backupFolder(env, root, folder),
    plainFiles: env.ALMANAC_PLAIN_FILES ? path.resolve(root, env.ALMANAC_PLAIN_FILES) : undefined,
    pictures: pictureFolder(env, root),
    databaseUrl: env.DATABASE_URL,
    demo: env.ALMANAC_DEMO === '1',
    frozen,
    smtp: env.ALMANAC_SMTP_URL,
    geocoderPrivate: env.ALMANAC_GEOCODER_PRIVATE === '1',
    worker: env.ALMANAC_WORKER,
  };
}

/** A demo needs none, and whoever runs a database server has backups of it; both make them where a folder is named. */
function backupFolder(
  { ALMANAC_BACKUPS: named, ALMANAC_DEMO, DATABASE_URL }: Environment,
  root: string,
  folder: string,
): string | undefined {
  if (named === 'none') return undefined;
  if (named) return path.resolve(root, named);
  return ALMANAC_DEMO === '1' || DATABASE_URL ? undefined : path.join(folder, 'backups');
}

const pictureFolder = ({ ALMANAC_PICTURES: named }: Environment, root: string): string | undefined =>
  named && !named.includes('://') ? path.resolve(root, named) : named || undefined;

/** A secret has at least so many characters. */
const LEAST_SECRET = 32;

/**
 * What signs cookies and receipts: made once and kept in the data folder, readable by its owner only. Asked for by whoever holds the folder's lock,
 * so that of two that start at once only one makes it.
 */
export function readSecret(folder: string, env: Environment): string {
  if (env.ALMANAC_SECRET) return env.ALMANAC_SECRET;
  const file = path.join(folder, 'secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600 });
  chmodSync(file, 0o600);
  const secret = readFileSync(file, 'utf8').trim();
  // An empty one would sign everything alike, and a new one would end all sessions and receipts without a word.
  if (secret.length < LEAST_SECRET)
    throw new Problem(
      'conflict',
      `The file ${file} is empty or cut off. Put it back from a backup; or remove it, and a new one is made: everybody then signs in again, and links in mails sent before no longer work.`,
    );
  return secret;
}
