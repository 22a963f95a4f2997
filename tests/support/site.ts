/** A running site over a test's database: its jobs and its workshop, without pages. */
import { yearMarks } from './year-marks';
import type { Db } from '@/server/db/client';
import type { JobKind } from '@/server/db/schema';
import { JobRunner, type Work } from '@/server/jobs/runner';
import { WORKS } from '@/server/jobs/works';
import { wholeReference } from '@/server/reference/read';
import type { Runtime } from '@/server/runtime-type';
import type { Now } from '@/server/site/clock';
import { ContentCache } from '@/server/site/content-cache';
import { TaskWorker } from '@/server/worker/task-worker';
import type { Actor } from '@/server/accounts/roles';
import { readTable, readTableQuery, selectingOf } from '@/server/desk/table';
import { EDITOR, NOW, SETTINGS } from './db';

export const HOST = 'almanac.example';

export function siteOf(
  db: Db,
  part: { now?: Now; works?: Partial<Record<JobKind, Work>>; worker?: string; revision?: string } = {},
): Runtime {
  const now = part.now ?? NOW;
  const worker = new TaskWorker(part.worker);
  // Tests change small tables behind the site's back: nothing is remembered between two questions, unless a revision is given.
  const contentRevision = (): string => part.revision ?? `test ${Math.random()}`;
  const cache = new ContentCache(contentRevision);
  const contentChanged = async (): Promise<void> => undefined;
  const jobContext = async () => ({
    settings: SETTINGS,
    now,
    reference: await wholeReference({ db, cache }),
    worker,
    yearMarks: yearMarks(),
    cache,
    memo: new Map(),
  });
  const jobs = new JobRunner({ db, jobContext, contentChanged }, { ...WORKS, ...part.works });
  return {
    db,
    yearMarks: yearMarks(),
    settings: () => SETTINGS,
    now: () => now,
    host: () => HOST,
    siteUrl: () => `https://${HOST}`,
    contentRevision,
    hasRoom: () => true,
    cache,
    // Readers' dates come from the database, which tests change behind the site's back.
    finder: {
      current: async () => undefined,
      made: async () => undefined,
      build: 0,
      check: async () => true,
      state: { is: 'not-asked-for', listings: 0, dates: 0 },
    },
    contentChanged,
    reloadSettings: async () => undefined,
    jobs,
    worker,
    pictureWorker: new TaskWorker(part.worker),
    jobContext,
  } as unknown as Runtime;
}

/** The Desk's table as an address asks for it. */
export async function tableOf(db: Db, text = '', actor: Actor = EDITOR, now: Now = NOW) {
  const query = readTableQuery(new URLSearchParams(text));
  const selecting = await selectingOf(
    { db, cache: new ContentCache(() => `test ${Math.random()}`), now: () => now, settings: () => SETTINGS },
    query,
  );
  return readTable(db, { actor, query, sorted: text.includes('sort='), ...selecting });
}
