/** A map from another host: asked by readers' browsers, of that host alone; credited; and the site's own where it does not answer. */
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect } from '@playwright/test';
import sharp from 'sharp';
import { smallTown, tilesOfTown } from '../support/street-archive';
import { test } from './site';
import { expectAccessible, signIn } from './support';

// Journeys of one file share a site and build on each other.
test.describe.configure({ mode: 'serial' });

const SLIP = { lat: 43.18568, lng: -57.464 };

interface Host {
  url: string;
  asked: { path: string; referer: string | undefined; cookie: string | undefined }[];
  close: () => Promise<void>;
}

/** A small host of tiles and a style, as such services are: open to pages of other sites. */
async function openHost(): Promise<Host> {
  const picture = await sharp({ create: { width: 256, height: 256, channels: 3, background: '#3366aa' } })
    .png()
    .toBuffer();
  const vector = tilesOfTown(smallTown(SLIP));
  const asked: Host['asked'] = [];
  const server = http.createServer((request, response) => {
    const { url = '', headers } = request;
    asked.push({ path: url, referer: headers.referer, cookie: headers.cookie });
    response.setHeader('access-control-allow-origin', '*');
    if (url.endsWith('.png')) return response.setHeader('content-type', 'image/png').end(picture);
    if (url === '/style.json') {
      const at = `http://${headers.host}`;
      const sources = { isles: { type: 'raster', tiles: [`${at}/styled/{z}/{x}/{y}.png`], tileSize: 256 } };
      const layers = [{ id: 'isles', type: 'raster', source: 'isles' }];
      return response.setHeader('content-type', 'application/json').end(JSON.stringify({ version: 8, sources, layers }));
    }
    const tile = vector(url);
    if (!tile) return response.writeHead(204).end();
    return response.setHeader('content-type', 'application/x-protobuf').end(tile);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  const close = (): Promise<void> =>
    new Promise((done) => {
      server.closeAllConnections();
      server.close(() => done());
    });
  return { url: `http://127.0.0.1:${port}`, asked, close };
}

let host: Host;
test.beforeAll(async () => {
  host = await openHost();
});
test.afterAll(() => host.close());

const CREDIT = 'Isles Survey, open data';

test('a coordinator names it with who made it; readers’ browsers ask that host and no other, and the Desk asks none', async ({
  page,
  request,
}) => {
  await signIn(page, 'maud');
  await page.goto('/desk/set-up/map');
  const address = page.getByLabel('A map from another host');
  const save = page.getByRole('button', { name: 'Save' });
  await address.fill('http://tiles.example/{z}/{x}/{y}.png');
  await save.click();
  await expect(page.getByText('A tile service is written https://tiles.example/{z}/{x}/{y}.png').first()).toBeVisible();
  await address.fill(`${host.url}/{z}/{x}/{y}.png`);
  await save.click();
  await expect(page.getByText('Say who made this map.').first()).toBeVisible();
  await page.getByLabel('Who made that map').fill(CREDIT);
  await save.click();
  await expect(page.getByText('Saved', { exact: false }).first()).toBeVisible();
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
  await page.goto('/map/2027-03-17');
  await expect.poll(() => host.asked.filter(({ path }) => path.endsWith('.png')).length, { timeout: 60_000 }).toBeGreaterThan(0);
  await expect(page.locator('[data-part="credits"]')).toContainText(`Map: ${CREDIT}.`);
  // Places stand on it as on the site's own.
  await expect(page.locator('.place[data-ids]').first()).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expectAccessible(page, 'a map from another host');
  expect(errors).toEqual([]);
  expect(host.asked.filter(({ referer, cookie }) => referer !== undefined || cookie !== undefined)).toEqual([]);
  const policy = async (path: string): Promise<string> => (await request.get(path)).headers()['content-security-policy'] ?? '';
  expect(await policy('/map/2027-03-17')).toContain(`connect-src 'self' ${host.url};`);
  expect(await policy('/desk/sign-in')).not.toContain(host.url);
  // Small maps stay the site's own.
  const before = host.asked.length;
  await page.goto('/at/port-amble-slip');
  await expect(page.locator('svg.base').first()).toBeVisible();
  expect(host.asked.length).toBe(before);
});

test('vector tiles are drawn in the site’s own inks, and a style as it is', async ({ page }) => {
  await signIn(page, 'maud');
  const errors: string[] = [];
  page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
  for (const [address, part] of [
    ['/{z}/{x}/{y}.pbf', /\.pbf$/],
    ['/style.json', /^\/styled\//],
  ] as const) {
    await page.goto('/desk/set-up/map');
    await page.getByLabel('A map from another host').fill(host.url + address);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved', { exact: false }).first()).toBeVisible();
    await page.goto('/map/2027-03-17');
    await expect.poll(() => host.asked.some(({ path }) => part.test(path)), { timeout: 60_000 }).toBe(true);
    await expect(page.locator('.place[data-ids]').first()).toBeVisible();
  }
  expect(errors).toEqual([]);
});

test('where it does not answer, readers are told and have the site’s own; without a script it is that from the beginning', async ({
  page,
  browser,
  baseURL,
}) => {
  await host.close();
  await page.goto('/map/2027-03-17');
  await expect(page.getByRole('alert')).toContainText('does not answer. This is the site’s own.', { timeout: 60_000 });
  await expect(page.locator('.chart-name').first()).toBeVisible();
  await expect(page.locator('.place[data-ids]').first()).toBeVisible();
  await expectAccessible(page, 'the site’s own map again');
  const bare = await (await browser.newContext({ baseURL, javaScriptEnabled: false })).newPage();
  await bare.goto('/map/2027-03-17');
  await expect(bare.locator('.chart svg').first()).toBeVisible();
  await bare.close();
});
