/** Streets on the map: refused with what is wrong, taken in, drawn on every map with and without scripts, taken off and put back. */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect } from '@playwright/test';
import { smallTown, writeArchive } from '../support/street-archive';
import { type Site, test } from './site';
import { expectAccessible, signIn } from './support';

// Journeys of one file share a site and build on each other.
test.describe.configure({ mode: 'serial' });

/** Where the demo's slip is: its pages show the streets around it. */
const SLIP = { lat: 43.18568, lng: -57.464 };

function almanac(site: Site, ...args: string[]): { status: number | null; said: string } {
  const env = { ...process.env, ALMANAC_DATA: site.data };
  const { status, stdout, stderr } = spawnSync('node', ['dist/cli/main.mjs', ...args], { encoding: 'utf8', env });
  return { status, said: stdout + stderr };
}

function fileOf(site: Site, name: string, bytes: Uint8Array | string): string {
  const at = path.join(site.data, name);
  writeFileSync(at, bytes);
  return at;
}

test('a file that the map cannot be drawn from is refused, and nothing changes', async ({ site, page }) => {
  const elsewhere = fileOf(site, 'elsewhere.pmtiles', writeArchive(smallTown({ lat: 60, lng: 20 })));
  for (const [file, says] of [
    [elsewhere, /another part of the earth: from 59\.95, 19\.95/],
    [fileOf(site, 'words.pmtiles', 'Low-tide Walk'), /no PMTiles archive/],
    ['/nowhere/isles.pmtiles', /There is no file/],
  ] as const) {
    const { status, said } = almanac(site, 'map', 'add', file);
    expect([status, said]).toEqual([2, expect.stringMatching(says)]);
  }
  expect(almanac(site, 'map').said).toContain('The map has no streets yet');
  expect(almanac(site, 'map', 'paint')).toMatchObject({ status: 2 });
  await page.goto('/map/2027-03-17');
  await expect(page.locator('[data-part="credits"]')).toHaveCount(0);
});

test('streets are drawn on the movable map, and on small ones without a script', async ({ site, page, browser, baseURL, request }) => {
  const { status, said } = almanac(site, 'map', 'add', fileOf(site, 'isles.pmtiles', writeArchive(smallTown(SLIP))));
  expect([status, said]).toEqual([0, expect.stringContaining('The map has streets now: isles.pmtiles')]);
  const tiles: { url: string; status: number }[] = [];
  page.on('response', (response) => {
    if (response.url().includes('/streets/')) tiles.push({ url: response.url(), status: response.status() });
  });
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
  await page.goto('/map/2027-03-17');
  await expect(page.locator('[data-part="credits"]')).toContainText('Streets: Isles Survey.');
  await expect.poll(() => tiles.filter((tile) => tile.status === 200).length, { timeout: 60_000 }).toBeGreaterThan(0);
  expect(errors).toEqual([]);
  expect(tiles.filter((tile) => ![200, 204, 304].includes(tile.status))).toEqual([]);
  await expectAccessible(page, 'the map with streets');
  // A tile keeps for ever under its version, whole and compressed; another version is not there.
  const [tile] = tiles.filter((one) => one.status === 200);
  const url = tile?.url ?? '';
  const whole = await request.get(url);
  expect(whole.headers()).toMatchObject({
    'cache-control': 'public, max-age=31536000, immutable',
    'content-type': 'application/x-protobuf',
  });
  const etag = whole.headers().etag ?? '';
  expect((await request.get(url, { headers: { 'if-none-match': etag } })).status()).toBe(304);
  const plain = await request.get(url, { headers: { 'accept-encoding': 'identity' } });
  expect(plain.headers()['content-encoding']).toBeUndefined();
  expect(Buffer.compare(await plain.body(), await whole.body())).toBe(0);
  for (const wrong of [
    url.replace(/[0-9a-f]{16}/, '0123456789abcdef'),
    url.replace(/\d+$/, '99999999'),
    url.replace(/\d+$/, 'x'),
    url.replace(/\/\d+\/\d+\/\d+$/, '/40/1/1'),
  ])
    expect((await request.get(wrong)).status(), wrong).toBe(404);
  const context = await browser.newContext({ javaScriptEnabled: false, baseURL });
  const bare = await context.newPage();
  await bare.goto('/at/port-amble-slip');
  expect(await bare.locator('svg.base path[stroke="var(--amber-wash)"]').count()).toBe(1);
  await expect(bare.locator('svg.base')).toBeVisible();
  // Whoever made the data is named wherever it is drawn.
  await expect(bare.locator('main')).toContainText('Streets: Isles Survey.');
  await bare.goto('/what/morning-swim');
  await expect(bare.locator('main')).toContainText('Streets: Isles Survey.');
  // Where the streets do not reach, the coasts stand as they were.
  await bare.goto('/at/the-glasshouse');
  expect(await bare.locator('svg.base path[stroke="var(--amber-wash)"]').count()).toBe(0);
  await context.close();
});

test('the chart on which a pin is set shows them from near', async ({ page }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/venues');
  await page.getByRole('link', { name: 'Port Amble Slip' }).first().click();
  const chart = page.locator('svg.base').first();
  await expect(chart.locator('.pin')).toBeVisible();
  await page.getByRole('button', { name: 'Nearer' }).click();
  await expect(chart.locator('[data-streets] path').first()).toBeAttached();
  await expect(page.getByText('Streets: Isles Survey.')).toBeVisible();
  // They lie where they are: the shore road passes the pin as on the venue's own page, and stays with it when it comes nearer.
  const before = await chart.locator('[data-streets]').getAttribute('transform');
  expect(before).toMatch(/^translate\(-?[0-3]?\.?\d* /);
  await page.getByRole('button', { name: 'Nearer' }).click();
  await expect(chart.locator('[data-streets] path').first()).toBeAttached();
});

test('a coordinator takes them off the map and puts them back', async ({ page, request, site }) => {
  await signIn(page, 'maud');
  await page.goto('/desk/set-up/map');
  await expect(page.getByRole('region', { name: 'Streets' })).toContainText('isles.pmtiles');
  await page.getByRole('button', { name: 'Take the streets off the map' }).click();
  await expect(page.getByRole('status')).toContainText('Their file is still there');
  expect(await (await request.get('/map/2027-03-17')).text()).not.toContain('Isles Survey');
  await page.getByRole('button', { name: 'Put the streets back on the map' }).click();
  await expect(page.getByRole('status')).toContainText('on the map again');
  expect(await (await request.get('/map/2027-03-17')).text()).toContain('Isles Survey');
  expect(almanac(site, 'map', 'remove').said).toContain('The streets of isles.pmtiles are gone from the map');
  await page.goto('/desk/set-up/map');
  await expect(page.getByRole('region', { name: 'Streets' })).toContainText('almanac map add FILE');
});
