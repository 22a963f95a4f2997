/** A running site over a test's database: its jobs and its workshop, without pages. */
import type { Db } from '@/server/db/client';
import type { JobKind } from '@/server/db/schema';
import { JobRunner, type Work } from '@/server/jobs/runner';
import { WORKS } from '@/server/jobs/works';
import { lookup } from '@/server/public/lookup';
import type { Runtime } from '@/server/runtime';
import type { Now } from '@/server/site/clock';
import { Workshop } from '@/server/workshop/workshop';
import type { Actor } from '@/server/accounts/roles';
import { readTable, readTableQuery, selectingOf } from '@/server/listings/table';
import { EDITOR, NOW, SETTINGS } from './db';

export const HOST = 'almanac.example';

export function siteOf(
  db: Db,
  part: { now?: Now; works?: Partial<Record<JobKind, Work>>; worker?: string; revision?: string } = {},
): Runtime {
  const now = part.now ?? NOW;
  const workshop = new Workshop(part.worker);
  // Tests change small tables behind the site's back: nothing is remembered between two questions, unless a revision is given.
  const contentRevision = (): string => part.revision ?? `test ${Math.random()}`;
  const contentChanged = async (): Promise<void> => undefined;
  const around = async () => ({
    settings: SETTINGS,
    now,
    found: await lookup({ db, contentRevision }),
    workshop,
    contentRevision: contentRevision(),
    memo: new Map(),
  });
  const jobs = new JobRunner({ db, around, contentChanged }, { ...WORKS, ...part.works });
  return {
    db,
    settings: () => SETTINGS,
    now: () => now,
    host: () => HOST,
    address: () => `https://${HOST}`,
    contentRevision,
    contentChanged,
    reloadSettings: async () => undefined,
    jobs,
    workshop,
    darkroom: new Workshop(part.worker),
    around,
  } as unknown as Runtime;
}

/** The Desk's table as an address asks for it. */
export async function tableOf(db: Db, text = '', actor: Actor = EDITOR, now: Now = NOW) {
  const query = readTableQuery(new URLSearchParams(text));
  const selecting = await selectingOf({ db, contentRevision: () => `test ${Math.random()}`, now: () => now }, query);
  return readTable(db, { actor, query, sorted: text.includes('sort='), ...selecting });
}
