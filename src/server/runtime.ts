/** What one server process holds: its database, settings, accounts and the revision of its content. Made once. */
import { createHmac, randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createAuth } from './accounts/auth';
import { openDatabase } from './db/client';
import type { Runtime } from './runtime-type';
import { SiteAddresses } from './site/site-url';
import { frozenNow, type Now, nowIn } from './site/clock';
import { uidHost } from './site/uid-host';
import { readSettings } from './site/read';
import type { SiteSettings } from './site/settings';
import { type JobContext, JobRunner } from './jobs/runner';
import { log } from './health/log';
import { Tasks } from './health/tasks';
import { WORKS } from './jobs/works';
import { countListings, isHorizonOld, startRebuild } from './dates/rebuild';
import { tidy } from './listings/tidy';
import { keepTimes } from './listings/publication-times';
import { sendWaiting } from './mail/outbox';
import { startValidation } from './validation/write';
import { referenceData } from './reference/read';
import { TaskWorker } from './worker/task-worker';

const MAIL_EVERY_MS = 15_000;
const HORIZON_EVERY_MS = 3_600_000;
const PROOF_AFTER_MS = 2_000;
const PROOF_EVERY_MS = 60_000;
const TIMES_EVERY_MS = 10_000;
let made: Promise<Runtime> | undefined;

/** The process's runtime; opens the database at the first call. */
export function runtime(): Promise<Runtime> {
  made ??= start(process.env).catch((error) => {
    made = undefined;
    throw error;
  });
  return made;
}

async function start(env: NodeJS.ProcessEnv): Promise<Runtime> {
  const frozen = frozenNow(env);
  const root = env.ALMANAC_ROOT ?? process.cwd();
  const folder = path.resolve(root, env.ALMANAC_DATA ?? 'data');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const { db, close } = await openDatabase({ folder, root, url: env.DATABASE_URL });
  let stored = await readSettings(db);
  const secret = secretOf(folder, env);
  const addresses = new SiteAddresses(env, () => stored.settings.address);
  const readUidPart = (): Promise<string> => uidHost(db, stored.settings.address || (env.ALMANAC_ADDRESS ?? ''));
  let uidPart = await readUidPart();
  const boot = randomBytes(4).toString('hex');
  let revision = 0;
  const tasks = new Tasks(log);
  const startedAt = new Date();
  const address = (): string => addresses.primary();
  const settings = (): SiteSettings => ({ ...stored.settings, address: address() });
  const auth = createAuth(db, {
    secret,
    siteUrl: address,
    siteName: () => settings().name,
    secure: address().startsWith('https:'),
  });
  const watch = env.DATABASE_URL
    ? await watchServer(env.DATABASE_URL, () =>
        tasks.attempt('notices', async () => {
          revision++;
          stored = await readSettings(db);
        }),
      )
    : undefined;
  const smtp = env.ALMANAC_SMTP_URL;
  const timer = smtp ? setInterval(() => void tasks.attempt('mail', () => sendWaiting(db, smtp, settings())), MAIL_EVERY_MS) : undefined;
  timer?.unref();
  const extend = setInterval(() => {
    // What another process left undone is taken up here.
    jobs.wake();
    void tasks.attempt('horizon', keepHorizon);
    void tasks.attempt('tidy', tidyUp);
  }, HORIZON_EVERY_MS);
  const look = setInterval(() => void tasks.attempt('validation', validation), PROOF_EVERY_MS);
  look.unref();
  const times = setInterval(() => void tasks.attempt('times', byTime), TIMES_EVERY_MS);
  times.unref();
  extend.unref();
  const now = (): Now => nowIn(settings().zone, frozen);
  const contentChanged = async (): Promise<void> => {
    revision++;
    validateSoon();
    await watch?.tell();
  };
  const contentRevision = (): string => `${boot}.${revision}`;
  const worker = new TaskWorker(env.ALMANAC_WORKER);
  const pictureWorker = new TaskWorker(env.ALMANAC_WORKER);
  const jobContext = async (): Promise<JobContext> => ({
    settings: settings(),
    now: now(),
    reference: await referenceData({ db, contentRevision }),
    worker,
    contentRevision: contentRevision(),
    memo: new Map(),
  });
  const jobs = new JobRunner({ db, jobContext, contentChanged, tasks }, WORKS);
  const validation = async (): Promise<void> => {
    if (await db.transaction((tx) => startValidation(tx, now()))) jobs.wake();
  };
  // While somebody is at work, Proof waits for a pause.
  let pause: NodeJS.Timeout | undefined;
  function validateSoon(): void {
    clearTimeout(pause);
    pause = setTimeout(() => void tasks.attempt('validation', validation), PROOF_AFTER_MS).unref();
  }
  const byTime = async (): Promise<void> => {
    const due = await db.transaction((tx) => keepTimes(tx, { now: now(), settings: settings() }));
    if (due.published + due.withdrawn + due.held) await contentChanged();
  };
  const keepHorizon = async (): Promise<void> => {
    if (!(await isHorizonOld(db, settings(), now()))) return;
    const total = await countListings(db);
    await db.transaction((tx) => startRebuild(tx, 'horizon', total, now()));
    jobs.wake();
  };
  const tidyUp = async (): Promise<void> => {
    const { listings } = await db.transaction((tx) => tidy(tx, new Date(now().ms), new Date()));
    if (listings) await contentChanged();
  };
  // The first look comes after the start, which it does not hold up.
  setTimeout(() => {
    // What was under way when the process ended goes on.
    jobs.wake();
    void tasks.attempt('horizon', keepHorizon);
    void tasks.attempt('tidy', tidyUp);
    void tasks.attempt('times', byTime);
    validateSoon();
  }, 5_000).unref();
  return {
    db,
    auth,
    demo: env.ALMANAC_DEMO === '1',
    settings,
    storedSettings: () => stored.settings,
    settingsRevision: () => stored.revision,
    reloadSettings: async () => {
      stored = await readSettings(db);
      uidPart = await readUidPart();
    },
    now,
    contentRevision,
    contentChanged,
    addresses,
    siteUrl: address,
    sign: (text) => createHmac('sha256', secret).update(text).digest('base64url').slice(0, 32),
    host: () => uidPart,
    jobs,
    worker,
    pictureWorker,
    jobContext,
    tasks,
    startedAt,
    close: async () => {
      await jobs.stop();
      await worker.close();
      await pictureWorker.close();
      clearInterval(timer);
      clearInterval(extend);
      clearTimeout(pause);
      clearInterval(look);
      clearInterval(times);
      await watch?.stop();
      await close();
    },
  };
}

/** Signs cookies. Made once and kept in the data folder, readable by its owner only. */
function secretOf(folder: string, env: NodeJS.ProcessEnv): string {
  if (env.ALMANAC_SECRET) return env.ALMANAC_SECRET;
  const file = path.join(folder, 'secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600 });
  chmodSync(file, 0o600);
  return readFileSync(file, 'utf8').trim();
}

/** On a server several processes share the content: each tells the others of a change. */
async function watchServer(url: string, changed: () => Promise<void>): Promise<{ tell: () => Promise<void>; stop: () => Promise<void> }> {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query('listen almanac_content');
  client.on('notification', () => void changed());
  return {
    tell: async () => {
      await client.query('notify almanac_content');
    },
    stop: () => client.end(),
  };
}
