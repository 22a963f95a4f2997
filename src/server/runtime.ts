/** Puts a site together: its database, settings, accounts, caches, jobs and schedules. One process serves one; a test may make several. */
import { createHmac, randomBytes } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { createAuth } from './accounts/auth';
import { Backups } from './backup/scheduled';
import { writeBackup } from './backup/write';
import { type Db, openDatabase } from './db/client';
import { listenForChanges } from './db/notices';
import { freeBytes, Room } from './db/room';
import { SiteFinder } from './finder/site-finder';
import { FirstVisitKey } from './first-visit/key';
import { isSetUp } from './first-visit/state';
import { YearMarks } from './holidays/year-marks';
import { log } from './health/log';
import { Tasks } from './health/tasks';
import { type JobContext, JobRunner } from './jobs/runner';
import { WORKS } from './jobs/works';
import { OldAddresses } from './old-addresses/old-addresses';
import { askOwn } from './plain-files/ask';
import { PlainFiles, type PublishSource } from './plain-files/publish';
import { openPictureFiles } from './pictures/file-store';
import { wholeReference } from './reference/read';
import type { Runtime } from './runtime-type';
import { Schedules } from './schedules';
import { type Now, nowIn } from './site/clock';
import { type Configuration, type Environment, readConfiguration, readSecret } from './site/configuration';
import { ContentCache } from './site/content-cache';
import { readSettings } from './site/read';
import type { SiteSettings } from './site/settings';
import { SeenContent } from './site/seen-content';
import { mailService } from './mail/test-mail';
import { StreetMap } from './map/street-map';
import { Uploads } from './uploads/uploads';
import { AddressBook } from './places/address-book';
import { Geocoder } from './places/geocoder';
import { SiteAddresses } from './site/site-url';
import { uidHost } from './site/uid-host';
import { TaskWorker } from './worker/task-worker';
import { World } from './world/world';

/** Watches the disk of the embedded database; a server watches its own. */
function roomOf(folder: string | undefined): Room {
  return new Room(
    () => (folder === undefined ? Number.POSITIVE_INFINITY : freeBytes(folder)),
    (has, free) => {
      const megabytes = Math.round(free / 1024 / 1024);
      if (has) log.warn({ megabytes }, 'There is room on the disk again: changes are taken');
      else
        log.error(
          { megabytes },
          'The disk of the data folder is full: the site shows what it has and takes no changes until there is room',
        );
    },
  );
}

/** Backs a database of an older version up before it is brought up to this one. */
function backupInto(folder: string): (old: Db, has: number) => Promise<void> {
  return async (old, has) => {
    const file = path.join(folder, `before-upgrade-from-${has}.zip`);
    mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
    const { rows } = await writeBackup(old, { path: file, madeAt: new Date(), current: false });
    log.info({ file, rows }, 'The database is of an older version: a backup of it was made, and now it is brought up to this one');
  };
}

/** Settings as they stand in the database, and what follows from them and the environment: addresses, the clock, the part of UIDs. */
async function openSettings(db: Db, env: Environment, frozen: string | undefined) {
  let stored = await readSettings(db);
  const addresses = new SiteAddresses(env, () => stored.settings.address);
  const readUidPart = (): Promise<string> => uidHost(db, stored.settings.address || (env.ALMANAC_ADDRESS ?? ''));
  let uidPart = await readUidPart();
  const settings = (): SiteSettings => ({ ...stored.settings, address: addresses.primary() });
  return {
    addresses,
    settings,
    stored: () => stored,
    now: (): Now => nowIn(settings().zone, frozen),
    host: () => uidPart,
    reload: async () => {
      stored = await readSettings(db);
      uidPart = await readUidPart();
    },
  };
}

/** Which state of the content this process stands at: `contentRevision` after any change, `seenRevision` after those that readers see. */
async function followContent(db: Db) {
  const boot = randomBytes(4).toString('hex');
  let revision = 0;
  const seen = new SeenContent(db);
  await seen.follow();
  return {
    contentRevision: () => `${boot}.${revision}`,
    seenRevision: () => `${boot}.${seen.revision}`,
    advance: async () => {
      revision++;
      await seen.follow();
    },
  };
}

function warnOfOwnSecret(databaseUrl: string | undefined, folder: string, env: Environment): void {
  if (databaseUrl && !env.ALMANAC_SECRET)
    log.warn(
      { folder },
      'ALMANAC_SECRET is not set: this process signs with the secret of its data folder. Where several processes serve the site, all need the same',
    );
}

/** Hears what other processes of the site changed; a process with another secret is said on Health. */
function listenToOthers(databaseUrl: string | undefined, print: string, tasks: Tasks, changed: () => Promise<void>) {
  return listenForChanges(databaseUrl, print, (other) =>
    tasks.attempt('notices', async () => {
      await changed();
      if (other !== print)
        throw new Error(
          'Another process of this site has another secret, so that people are signed out and links in mails do not work: set the same ALMANAC_SECRET for all',
        );
    }),
  );
}

/** Copies of the site, which it asks itself for. */
function plainFilesOf({ folder, plainFiles }: Configuration, site: Omit<PublishSource, 'dataFolder'>): PlainFiles {
  return new PlainFiles({ ...site, dataFolder: folder }, plainFiles);
}

/** The threads beside this one, and what they know. */
function threadsOf({ worker: bundle, world }: Configuration): Pick<Runtime, 'worker' | 'pictureWorker' | 'world' | 'yearMarks'> {
  const worker = new TaskWorker(bundle);
  return { worker, pictureWorker: new TaskWorker(bundle, 'apart'), world: new World(world, worker), yearMarks: new YearMarks(worker) };
}

/** Asks until the answer is yes. */
function onceTrue(ask: () => Promise<boolean>): () => Promise<boolean> {
  let yes = false;
  return async () => {
    yes ||= await ask();
    return yes;
  };
}

let made: Promise<Runtime> | undefined;

/** The process's own site; opened at the first call, again after a failure. */
export function runtime(): Promise<Runtime> {
  made ??= openSite(process.env).catch((error) => {
    made = undefined;
    throw error;
  });
  return made;
}

/** What stands by itself beside the rest: each has its own part of the database, of the folder, or of neither. */
function partsOf(db: Db, { folder, geocoderPrivate, world, worker }: Configuration) {
  return {
    oldAddresses: new OldAddresses(db, () => new Date()),
    streets: new StreetMap(db, folder),
    uploads: new Uploads(folder),
    geocoder: new Geocoder(geocoderPrivate),
    addressBook: new AddressBook(db, world, () => new TaskWorker(worker, 'apart')),
  };
}

/** Opens the site that an environment names. Throws a Problem that says what would be right. */
export async function openSite(env: Environment): Promise<Runtime> {
  const configuration = readConfiguration(env);
  const { root, folder, backups: backupFolder, pictures, databaseUrl, demo, frozen, smtp } = configuration;
  const pictureFiles = await openPictureFiles(pictures, env);
  const beforeMigrating = backupInto(backupFolder ?? path.join(folder, 'backups'));
  const { db, aside, close } = await openDatabase({ folder, root, url: databaseUrl, beforeMigrating });
  const secret = readSecret(folder, env);
  warnOfOwnSecret(databaseUrl, folder, env);
  const { addresses, settings, stored, now, host, reload } = await openSettings(db, env, frozen);
  const address = (): string => addresses.primary();
  const room = roomOf(databaseUrl ? undefined : folder);
  const tasks = new Tasks(log);
  const backups = new Backups({ aside, now, folder: backupFolder });
  const startedAt = new Date();
  const auth = createAuth(db, { secret, siteUrl: address, siteName: () => settings().name });

  const { contentRevision, seenRevision, advance } = await followContent(db);
  const cache = new ContentCache(contentRevision, seenRevision);
  const finder = new SiteFinder({ db, revision: seenRevision, log });
  const sign = (text: string): string => createHmac('sha256', secret).update(text).digest('base64url').slice(0, 32);
  const print = sign('which secret this is');
  const notices = await listenToOthers(databaseUrl, print, tasks, async () => {
    await advance();
    await reload();
  });
  // Those that run already learn of this one, and whether its secret is theirs.
  await notices.tell();
  const contentChanged = async (): Promise<void> => {
    await advance();
    schedules.validateSoon();
    await notices.tell();
  };

  const { worker, pictureWorker, world, yearMarks } = threadsOf(configuration);
  const jobContext = async (): Promise<JobContext> => ({
    settings: settings(),
    now: now(),
    reference: await wholeReference({ db, cache }),
    worker,
    yearMarks,
    cache,
    memo: new Map(),
  });
  const jobs = new JobRunner({ db, jobContext, contentChanged, tasks, hasRoom: () => room.has() }, WORKS);
  const hasRoom = (): boolean => room.has();
  const ask = askOwn({ folder, root });
  const state = (): string => [seenRevision(), stored().revision, now().day].join(' ');
  const plainFiles = plainFilesOf(configuration, { ask, db, now, settings, siteUrl: address, state });
  const parts = partsOf(db, configuration);
  const shared = { db, tasks, jobs, now, settings, contentChanged, finder, backups, pictureFiles, plainFiles, hasRoom, world };
  const schedules = new Schedules({ ...shared, smtp, embedded: !databaseUrl });
  schedules.start();

  return {
    ...shared,
    aside,
    auth,
    demo,
    ...mailService(smtp, settings),
    storedSettings: () => stored().settings,
    isSetUp: onceTrue(() => isSetUp(db)),
    firstVisit: new FirstVisitKey(),
    yearMarks,
    ...parts,
    ask,
    settingsRevision: () => stored().revision,
    reloadSettings: reload,
    contentRevision,
    seenRevision,
    cache,
    addresses,
    siteUrl: address,
    sign,
    host,
    worker,
    pictureWorker,
    jobContext,
    startedAt,
    close: async () => {
      for (const part of [schedules, jobs, finder, parts.oldAddresses, parts.streets]) await part.stop();
      for (const one of [worker, pictureWorker]) await one.close();
      await notices.stop();
      await close();
    },
  };
}
