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
  // The isles themselves are a drawing: what is to be taken away has to be said.
  expect(almanac(site, 'map', 'remove').said).toContain('streets (isles.pmtiles) and a drawing of its own (isles.geojson)');
  expect(almanac(site, 'map', 'remove', 'isles.pmtiles').said).toContain('The streets of isles.pmtiles are gone from the map');
  await page.goto('/desk/set-up/map');
  await expect(page.getByRole('region', { name: 'Streets' })).toContainText('Send a PMTiles archive');
});

test('a drawing of the site’s own stands on every map, what it could not draw is said, and it is taken off and put back', async ({
  site,
  page,
  browser,
  baseURL,
  request,
}) => {
  const isles = (await (await request.get('/chart.json')).json()) as { bounds: Record<string, number>; features: unknown[] };
  const feature = (properties: object, type: string, coordinates: unknown) => ({
    type: 'Feature',
    properties,
    geometry: { type, coordinates },
  });
  const { lat, lng } = SLIP;
  const green = [
    [lng - 0.01, lat],
    [lng - 0.005, lat + 0.006],
    [lng, lat],
    [lng - 0.01, lat],
  ];
  const own = [
    feature({ leisure: 'park', name: 'Beacon Green' }, 'Polygon', [green]),
    feature({ x: 1 }, 'LineString', green),
    feature({}, 'Point', [lng, lat]),
  ];
  const { west, south, east, north } = isles.bounds;
  const drawing = { type: 'FeatureCollection', bbox: [west, south, east, north], features: [...isles.features, ...own] };
  const file = fileOf(site, 'with-green.geojson', JSON.stringify(drawing));
  expect(almanac(site, 'map', 'add', fileOf(site, 'broken.geojson', '{"type":'))).toEqual({
    status: 2,
    said: expect.stringContaining('not whole JSON'),
  });
  const { status, said } = almanac(site, 'map', 'add', file, '--credit', 'Isles Drawing Club');
  expect(status).toBe(3);
  expect(said).toContain(`left out feature ${drawing.features.length}: it is a point without a name.`);
  expect(said).toContain('1 feature without a kind that is known');
  expect(said).toContain('The map shows with-green.geojson now, in place of the coasts: 4 land');
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
  await page.goto('/map/2027-03-17');
  await expect(page.locator('.chart-name', { hasText: 'Beacon Green' })).toBeVisible({ timeout: 60_000 });
  await expect(page.locator('[data-part="credits"]')).toHaveText('Map: Isles Drawing Club.');
  expect(errors).toEqual([]);
  const context = await browser.newContext({ baseURL, javaScriptEnabled: false });
  const bare = await context.newPage();
  await bare.goto('/at/port-amble-slip');
  await expect(bare.locator('svg.base path[fill*="--tide-wash"]')).toHaveCount(1);
  await expect(bare.getByText('Map: Isles Drawing Club.')).toBeVisible();
  await context.close();
  await signIn(page, 'maud');
  await page.goto('/desk/set-up/map');
  await expect(page.getByRole('region', { name: 'A drawing of your own' })).toContainText('with-green.geojson');
  await expectAccessible(page, 'settings with a drawing');
  await page.getByRole('button', { name: 'Take the drawing off the map' }).click();
  await expect(page.getByRole('status')).toContainText('The drawing is off the map');
  expect(await (await request.get('/map/2027-03-17')).text()).not.toContain('Beacon Green');
  await page.getByRole('button', { name: 'Put the drawing back on the map' }).click();
  await expect(page.getByRole('status')).toContainText('on the map again');
  expect(almanac(site, 'map', 'remove').said).toContain('The drawing with-green.geojson is gone from the map');
  expect(almanac(site, 'map', 'remove')).toEqual({ status: 0, said: expect.stringContaining('no streets, and no drawing') });
  // In the open ocean nothing is left but the sea.
  expect(await (await request.get('/map/2027-03-17')).text()).not.toContain('Lantern</text>');
});

test('a map and addresses are sent from the browser: it goes on after a lost connection and a closed window, and says what came of it', async ({
  site,
  page,
  request,
}) => {
  await signIn(page, 'maud');
  await page.goto('/desk/set-up/map');
  const region = page.getByRole('region', { name: 'A file for the map' });
  const send = region.getByRole('button', { name: 'Send the file' });
  await send.click();
  await expect(region.getByRole('alert')).toHaveText('Choose a file first.');
  // Larger than two parts: what follows an archive's last tile is nobody's.
  const archive = Buffer.concat([writeArchive(smallTown(SLIP)), Buffer.alloc(20 * 1024 * 1024)]);
  const file = fileOf(site, 'isles again.pmtiles', archive);
  const offsets: number[] = [];
  let lost = 0;
  await page.route('**/api/v1/uploads/*', async (route) => {
    if (route.request().method() !== 'PATCH') return route.continue();
    const at = Number(route.request().headers()['upload-offset']);
    offsets.push(at);
    // The second part is lost once, and later never comes back until the window is closed.
    if (at > 0 && lost++ < 1) return route.abort('connectionreset');
    if (at > 0) return new Promise<void>(() => undefined);
    return route.continue();
  });
  await region.getByLabel('Streets (PMTiles)').setInputFiles(file);
  await send.click();
  await expect.poll(() => offsets.filter((at) => at > 0).length, { timeout: 30_000 }).toBeGreaterThan(1);
  await expect(region.getByRole('progressbar')).toBeVisible();
  await expectAccessible(page, 'a file on its way');
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.reload();
  const first = page.waitForRequest((one) => one.method() === 'PATCH');
  await region.getByLabel('Streets (PMTiles)').setInputFiles(file);
  await region.getByLabel('Who made its data').fill('Somebody else');
  await send.click();
  expect(Number((await first).headers()['upload-offset'])).toBeGreaterThan(0);
  await expect(region.getByText('The map shows the streets of isles again.pmtiles now.')).toBeVisible({ timeout: 60_000 });
  await expect(region.getByText('The archive names who made its data itself')).toBeVisible();
  await region.getByRole('link', { name: 'See what the site has now' }).click();
  await expect(page.getByRole('region', { name: 'Streets', exact: true })).toContainText('isles again.pmtiles');
  expect(await (await request.get('/map/2027-03-17')).text()).toContain('Isles Survey');

  // What is none is refused with what is wrong, and the map before stays.
  await region.getByLabel('Streets (PMTiles)').setInputFiles({ name: 'walk.pmtiles', mimeType: '', buffer: Buffer.from('Low-tide Walk') });
  await send.click();
  await expect(region.getByRole('alert')).toContainText('no PMTiles archive');
  expect(await (await request.get('/map/2027-03-17')).text()).toContain('Isles Survey');

  const rows = ['street,number,town,lat,lng', `Kelp Row,4,Port Amble,${SLIP.lat},${SLIP.lng}`, 'Kelp Row,6,Port Amble,here,there'];
  const addresses = page.getByRole('region', { name: 'Addresses', exact: true });
  await addresses
    .getByLabel('Addresses (a table')
    .setInputFiles({ name: 'isles.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
  await addresses.getByRole('button', { name: 'Send the file' }).click();
  await expect(addresses.getByText('knows the addresses of isles.csv now: one address in one street')).toBeVisible({ timeout: 60_000 });
  await expect(addresses.getByText(/Left out line 3: /)).toBeVisible();
  // Nothing of what was sent is left behind, and it is nobody's but a coordinator's.
  const foreign = await request.post('/api/v1/uploads', { headers: { 'tus-resumable': '1.0.0', 'upload-length': '3' } });
  expect(foreign.status()).toBe(401);
});
