/** The public site as plain files: written by the command line and from the Desk, carried by a web server that knows nothing of it. */
import { execFile } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Browser, expect } from '@playwright/test';
import sirv from 'sirv';
import { serveCopy, test } from './site';
import { expectAccessible, expectNoSidewaysScroll, signIn } from './support';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const BASE = '/parish/events';
const home = mkdtempSync(path.join(tmpdir(), 'alm-files-'));
const folder = path.join(home, 'www');

/** Any web server: files below a path, a folder by its own page, and what is missing by name. */
async function carry(dir: string): Promise<{ url: string; missing: string[]; stop: () => void }> {
  const missing: string[] = [];
  const files = sirv(dir, { dev: true });
  const server = createServer((request, response) => {
    const { url = '' } = request;
    const gone = (): void => {
      missing.push(url);
      response.writeHead(404).end();
    };
    if (!url.startsWith(`${BASE}/`)) return gone();
    request.url = url.slice(BASE.length);
    files(request, response, gone);
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}${BASE}`, missing, stop: () => server.close() };
}

const publish = (data: string, args: string[]): Promise<{ code: number; out: string }> =>
  new Promise((resolve) => {
    execFile('node', ['dist/cli/main.mjs', 'publish', ...args], { env: { ...process.env, ALMANAC_DATA: data } }, (error, stdout, stderr) =>
      resolve({ code: error ? Number(error.code) : 0, out: stdout + stderr }),
    );
  });

const filesIn = (dir: string): string[] =>
  (readdirSync(dir, { recursive: true }) as string[]).filter((file) => statSync(path.join(dir, file)).isFile());

/** Every link of every page that leads into the copy, looked up on the disk; those that lead nowhere. */
function brokenLinks(dir: string, url: string): string[] {
  const broken = new Set<string>();
  const known = new Map<string, boolean>();
  for (const file of filesIn(dir).filter((one) => one.endsWith('.html'))) {
    const here = `${url}/${file.replace(/index\.html$/, '')}`;
    for (const [, raw = ''] of readFileSync(path.join(dir, file), 'utf8').matchAll(
      /\s(?:href|src|component-url|renderer-url)="([^"]*)"/g,
    )) {
      const to = new URL(raw.replaceAll('&amp;', '&'), here);
      const inside = to.origin === new URL(url).origin;
      const at = to.origin + to.pathname;
      if (inside && !known.has(at)) {
        const rest = decodeURIComponent(to.pathname.slice(new URL(url).pathname.length));
        const name = rest.endsWith('/') ? `${rest}index.html` : rest;
        known.set(at, to.pathname.startsWith(new URL(url).pathname) && existsSync(path.join(dir, name)));
      }
      if (inside && !known.get(at)) broken.add(`${file}: ${raw}`);
    }
  }
  expect(known.size).toBeGreaterThan(150);
  return [...broken];
}

/** What stays published: something of each sort, so that a copy has every sort of page and is written in seconds. */
const KEPT = [
  'Harbour Choir',
  'Ceilidh at the Net Loft',
  'Shanty Hour',
  'Schools Exhibition',
  'Boat-building Weekend',
  'Quay Market',
  'Film Evening',
];

async function withdrawOthers(browser: Browser, url: string): Promise<void> {
  const context = await browser.newContext({ baseURL: url });
  const page = await context.newPage();
  await signIn(page, 'maud');
  for (;;) {
    await page.goto('/desk/listings?stage=published');
    const rows = await page
      .locator('[data-rows] tbody tr')
      .evaluateAll((all) =>
        all.map((row) => [(row as HTMLElement).dataset.id ?? '', row.querySelector('td[data-edit=title] a')?.textContent?.trim() ?? '']),
      );
    const ids = rows.filter(([, title]) => !KEPT.includes(title ?? '')).map(([id]) => id);
    if (!ids.length) break;
    const done = await page.request.post('/api/v1/bulk', { data: { ids, action: { kind: 'withdraw' } }, headers: { origin: url } });
    expect(done.ok()).toBe(true);
    await expect
      .poll(async () => (await (await page.request.get('/desk/listings?stage=published')).text()).includes(`data-id="${ids[0]}"`))
      .toBe(false);
  }
  await context.close();
}

test.afterAll(() => rmSync(home, { recursive: true, force: true }));

test('the command line writes them for an address; every link leads to a file or to the site, and searching is answered there', async ({
  browser,
  site,
}) => {
  test.setTimeout(240_000);
  await withdrawOthers(browser, site.url);
  const web = await carry(folder);
  try {
    const { code, out } = await publish(site.data, [folder, '--address', web.url, '--server', site.url, '--months', '0']);
    expect(out).toMatch(/^[\d,]+ files in .*: [\d,]+ new, 0 changed, 0 as they were, 0 removed\.$/m);
    expect(out).toContain(`Searching, choosing and sending in lead to ${site.url}`);
    expect(code).toBe(0);
    expect(brokenLinks(folder, web.url)).toEqual([]);
    const files = filesIn(folder);
    for (const file of [
      'index.html',
      '404.html',
      'fr/index.html',
      'feed.ics',
      'feed/kind=music-dance.ics',
      'what/harbour-choir/dates.ics',
      'chart.json',
      'sitemap.xml',
    ])
      expect(files, file).toContain(file);
    // Nothing of drafts, of the Desk or of what was sent in.
    expect(files.filter((file) => /^(desk|api|add|receipt|go)\b|tell/.test(file))).toEqual([]);
    const map = readFileSync(path.join(folder, 'sitemap.xml'), 'utf8');
    for (const [, loc = ''] of map.matchAll(/<loc>([^<]*)</g))
      expect(existsSync(path.join(folder, decodeURIComponent(loc.slice(web.url.length)), 'index.html')), loc).toBe(true);
    expect(readFileSync(path.join(folder, 'feed.rss'), 'utf8')).toContain(`<link>${web.url}/what/`);

    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const wrong: string[] = [];
    page.on('pageerror', (error) => wrong.push(error.message));
    await page.goto(`${web.url}/`);
    await expectAccessible(page, 'a copy’s first page');
    await expect(page.locator('[data-part="copy"]')).toContainText('This is a copy of the calendar.');
    await expect(page.locator('[data-part="copy"]')).toContainText('Written on 17 March 2027.');
    const link = page.locator('[data-view] a[href*="/what/harbour-choir/"]').first();
    await link.hover();
    await expect(page.getByRole('tooltip')).toContainText('St Bride');
    await link.click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Harbour Choir');
    await expect(page.getByRole('navigation', { name: 'Where you came from' }).getByRole('link').first()).toBeVisible();
    expect(
      await page
        .locator('img')
        .first()
        .evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth > 0),
    ).toBe(true);
    await page.goto(`${web.url}/map/`);
    await expect(page.locator('canvas')).toBeVisible();
    await expect(page.locator('[data-ids]').first()).toBeVisible();
    await page.getByRole('searchbox').fill('choir');
    await page.getByRole('searchbox').press('Enter');
    await expect(page).toHaveURL(new RegExp(`^${site.url}/map/?.*words=choir`));
    await context.close();
    expect(wrong).toEqual([]);
    expect(web.missing).toEqual([]);
  } finally {
    web.stop();
  }
});

test('what nobody says is as last time, and only what changed is written; files of others stay', async ({ site }) => {
  test.setTimeout(240_000);
  const stamp = statSync(path.join(folder, 'feed.ics')).mtimeMs;
  writeFileSync(path.join(folder, 'CNAME'), 'parish.example');
  const { code, out } = await publish(site.data, [folder]);
  expect(out).toMatch(/0 new, 0 changed, [\d,]+ as they were, 0 removed\.$/m);
  expect(code).toBe(0);
  expect(statSync(path.join(folder, 'feed.ics')).mtimeMs).toBe(stamp);
  expect(readFileSync(path.join(folder, 'CNAME'), 'utf8')).toBe('parish.example');
  const other = path.join(home, 'other');
  const { out: refused, code: failed } = await publish(site.data, [other, '--address', 'parish.example']);
  expect([failed, refused.trim()]).toEqual([2, 'An address looks like https://parish.example/events.']);
  writeFileSync(path.join(home, 'index.html'), 'Mine');
  const foreign = await publish(site.data, [home]);
  expect(foreign.code).toBe(1);
  expect(foreign.out).toContain('was not written by this site');
  expect(readFileSync(path.join(home, 'index.html'), 'utf8')).toBe('Mine');
  expect((await publish(site.data, [])).code).toBe(2);
});

test('a coordinator has them written from the Desk, whole by themselves, and reads them without a script on a phone', async ({
  browser,
}) => {
  test.setTimeout(200_000);
  const desk = path.join(home, 'desk');
  const served = await serveCopy('plain-files', { ALMANAC_PLAIN_FILES: desk });
  await withdrawOthers(browser, served.url);
  const web = await carry(desk);
  try {
    const context = await browser.newContext({ javaScriptEnabled: false, baseURL: served.url, viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await signIn(page, 'maud');
    await page.getByRole('link', { name: 'Publishing' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Plain files');
    await page.getByLabel('Months ahead').fill('soon');
    await page.getByRole('button', { name: 'Write the files' }).click();
    await expect(page.getByText('Choose how many months ahead, 0 to 60.').first()).toBeVisible();
    await expect(page.getByLabel('Months ahead')).toHaveValue('soon');
    await page.getByLabel('Months ahead').fill('0');
    await page.getByRole('button', { name: 'Write the files' }).click();
    await expect(page.getByText(/^Writing: /)).toBeVisible();
    await expect(page.locator('#files').getByRole('status')).toContainText('0 removed. Left out: searching', { timeout: 150_000 });
    await expect(page.getByText(/^Last written Wednesday 17 March 2027, 09:00/)).toBeVisible();
    await page.setViewportSize({ width: 360, height: 740 });
    await expectNoSidewaysScroll(page);

    expect(brokenLinks(desk, web.url)).toEqual([]);
    await page.goto(`${web.url}/index.html`);
    await expectNoSidewaysScroll(page);
    await expect(page.getByRole('link', { name: 'Add an event' })).toHaveCount(0);
    await expect(page.locator('form')).toHaveCount(0);
    await page.getByRole('navigation', { name: 'Kinds of event' }).getByRole('link', { name: 'Music & dance' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('From 17 March');
    await expect(page.locator('[data-part="chosen"]')).toContainText('Music & dance');
    await page.getByRole('link', { name: 'Harbour Choir', exact: true }).first().click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Harbour Choir');
    await expect(page.getByText('Something wrong? Tell us')).toHaveCount(0);
    await page.getByRole('link', { name: 'Français' }).click();
    await expect(page.locator('html')).toHaveAttribute('lang', 'fr-CA');
    await expect(page.locator('[data-part="copy"]')).toContainText('Ceci est une copie du calendrier, sans sa recherche.');
    expect(web.missing).toEqual([]);
    await context.close();
    const scripted = await (await browser.newContext({ baseURL: served.url })).newPage();
    await signIn(scripted, 'maud');
    await scripted.goto('/desk/plain-files');
    await expectAccessible(scripted, 'plain files');
    await scripted.context().close();
    const nan = await (await browser.newContext({ baseURL: served.url })).newPage();
    await signIn(nan, 'nan');
    expect((await nan.request.post('/desk/plain-files', { headers: { origin: served.url } })).status()).toBe(403);
    await nan.context().close();
  } finally {
    web.stop();
    await served.stop();
  }
});
