/** A site that nobody has begun with, for each journey. */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Browser, type BrowserContextOptions, test as base, expect, type Page } from '@playwright/test';
import { type Served, serve } from '../support/served';

const CLI = 'dist/cli/main.mjs';
/** The password of a new site's coordinator. */
export const PASSWORD = 'herring ladder plum';
/** A real site has the real clock. */
export const NEXT_YEAR = `${new Date().getFullYear() + 1}-06-20`;

export interface NewSite {
  data: string;
  served: Served;
  /** ends the process at once, and starts it again */
  again: () => Promise<Served>;
}

/** A site of its own that nobody has begun with; its folder goes when the journey is over. */
export const test = base.extend<{ site: NewSite }, { begun: string }>({
  // An empty folder is begun with once, since that takes long; each journey has a copy of what came of it.
  begun: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads what a fixture needs from this pattern.
    async ({}, use) => {
      const data = mkdtempSync(path.join(tmpdir(), 'alm-begun-'));
      await (await serve({ data, demo: false })).stop();
      await use(data);
      rmSync(data, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  site: async ({ browser, begun }, use) => {
    const data = mkdtempSync(path.join(tmpdir(), 'alm-first-'));
    cpSync(begun, data, { recursive: true, filter: (file) => !file.endsWith('.sock') });
    const site: NewSite = {
      data,
      served: await serve({ data, demo: false }),
      again: async () => {
        await site.served.ended('SIGKILL');
        site.served = await serve({ data, demo: false });
        return site.served;
      },
    };
    await use(site);
    // Pages that stay open make the next journey's wait, up to its keys.
    for (const context of browser.contexts()) await context.close();
    await site.served.stop();
    rmSync(data, { recursive: true, force: true });
  },
});

/** A browser on the site, in which asking any other host fails the journey. */
export async function openPage(browser: Browser, { url }: Served, options: BrowserContextOptions = {}): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: url, ...options });
  await context.route('**/*', (route) => {
    const asked = new URL(route.request().url());
    if (asked.protocol !== 'data:' && asked.protocol !== 'blob:') expect(asked.host, asked.href).toBe(new URL(url).host);
    return route.continue();
  });
  return context.newPage();
}

/** Runs a command on a site. */
export const run = (site: NewSite, args: string[], input = '') =>
  spawnSync('node', [CLI, ...args], { encoding: 'utf8', input, env: { ...process.env, ALMANAC_DATA: site.data } });
