/**
 * A site for each file of journeys: a copy of one prepared folder of the demo, with a server of its own. Files can then run
 * beside each other and in any order, and none uses up what another may do in an hour. When a file is done, its site's dates
 * are made again from its listings, and must be what they were.
 */
import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, rmSync } from 'node:fs';
import path from 'node:path';
import { test as base } from '@playwright/test';
import { type Served, serve } from '../support/served';

const CLI = 'dist/cli/main.mjs';
export const FOLDER = '.cache/e2e';
const PREPARED = path.join(FOLDER, 'prepared');

export interface Site {
  url: string;
  /** its data folder */
  data: string;
}

/** The cookies of those who signed in to this worker's site, by name. */
export const sessions = new Map<string, string>();

/** Makes the demo's folder that each site begins with. */
export async function prepare(): Promise<void> {
  rmSync(FOLDER, { recursive: true, force: true });
  const served = await serve({ data: PREPARED, more: ['--fresh'] });
  await served.stop();
}

/** Serves a site of its own with other settings of its process, from a copy of the prepared folder; gone when stopped. */
export async function serveCopy(name: string, env: Record<string, string>): Promise<Served> {
  const data = path.join(FOLDER, `copy-${name}-${process.pid}`);
  cpSync(PREPARED, data, { recursive: true, filter: (file) => !file.endsWith('.sock') });
  const served = await serve({ data, env });
  const stop = async (): Promise<void> => {
    await served.stop();
    rmSync(data, { recursive: true, force: true });
  };
  return { ...served, stop };
}

/** The one site of this worker at a time. */
class Sites {
  private now: { file: string; site: Site; served: Served } | undefined;
  constructor(private readonly worker: number) {}

  async of(file: string): Promise<Site> {
    if (this.now?.file === file) return this.now.site;
    await this.stop();
    sessions.clear();
    const data = path.join(FOLDER, `${this.worker}-${path.basename(file, '.spec.ts')}`);
    if (!existsSync(PREPARED)) throw new Error(`${PREPARED} is missing: the set-up of the journeys makes it.`);
    // The socket of the server that made it is no part of a site.
    cpSync(PREPARED, data, { recursive: true, filter: (file) => !file.endsWith('.sock') });
    const served = await serve({ data });
    this.now = { file, served, site: { url: served.url, data } };
    return this.now.site;
  }

  async stop(): Promise<void> {
    if (!this.now) return;
    const { file, served, site } = this.now;
    this.now = undefined;
    try {
      const out = execFileSync('node', [CLI, 'rebuild'], { encoding: 'utf8', env: { ...process.env, ALMANAC_DATA: site.data } });
      if (!/^\d+ listings, \d+ dates, 0 differed\.$/m.test(out))
        throw new Error(`After ${path.basename(file)} the dates of some listings were not what their rules give: ${out}`);
    } finally {
      await served.stop();
      rmSync(site.data, { recursive: true, force: true });
    }
  }
}

export const test = base.extend<{ site: Site }, { sites: Sites }>({
  sites: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads what a fixture needs from this pattern.
    async ({}, use, worker) => {
      const sites = new Sites(worker.workerIndex);
      await use(sites);
      await sites.stop();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  site: [async ({ sites }, use, test) => use(await sites.of(test.file)), { auto: true, timeout: 120_000 }],
  baseURL: ({ site }, use) => use(site.url),
});
