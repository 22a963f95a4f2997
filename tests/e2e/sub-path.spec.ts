/** A site below a path of its host, which has other things beside it: everything leads below the path, and where it lay before leads on. */
import { expect, type Page, request as requests } from '@playwright/test';
import type { Served } from '../support/served';
import { serveCopy, test } from './site';
import { expectAccessible, sendEvent } from './support';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

let served: Served;
let host: string;
const PATH = '/parish/events';

test.beforeAll(async () => {
  served = await serveCopy('sub-path', { ALMANAC_PATH: `${PATH}, /calendar, /` });
  host = new URL(served.url).origin;
});
test.afterAll(async () => served.stop());

/** A page whose every request of the host goes below the path; what did not is collected. */
async function watched(page: Page): Promise<string[]> {
  const astray: string[] = [];
  page.on('request', (asked) => {
    const { origin, pathname } = new URL(asked.url());
    if (origin === host && !`${pathname}/`.startsWith(`${PATH}/`)) astray.push(`${asked.method()} ${pathname} on ${page.url()}`);
  });
  page.on('pageerror', (error) => astray.push(`${page.url()}: ${error.message}`));
  return astray;
}

async function signInBelow(page: Page): Promise<void> {
  await page.goto(`${served.url}/desk/sign-in`);
  await page.getByLabel('Mail address').fill('maud@almanac.example');
  await page.getByLabel('Password').fill('kittiwick-isles-1');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL(`${served.url}/desk/today`);
}

const NAMED = /\s(?:href|src|action|formaction|component-url|renderer-url)="([^"]*)"/g;

test('every address of readers’ pages and of the Desk begins with the path, and leads somewhere', async ({ page, browser }) => {
  test.setTimeout(240_000);
  expect(served.url.endsWith(PATH)).toBe(true);
  await signInBelow(page);
  const { origin, pathname } = new URL(served.url);
  const readers = [
    '/',
    '/month/2027-03',
    '/list',
    '/map',
    '/week/2027-W11',
    '/what/harbour-choir',
    '/at',
    '/subscribe',
    '/add',
    '/data',
    '/fr/',
    '/nowhere',
  ];
  const desk = [
    '/desk/listings',
    '/desk/month/2027-03',
    '/desk/venues',
    '/desk/pictures',
    '/desk/set-up',
    '/desk/intake',
    '/desk/health',
    '/desk/entry',
  ];
  const stranger = await browser.newContext();
  const leads = new Set<string>();
  for (const at of [...readers, ...desk]) {
    const asked = await (desk.includes(at) ? page.request : stranger.request).get(served.url + at);
    const html = await asked.text();
    expect(html, at).toContain(`data-root="${PATH}/"`);
    for (const [, raw = ''] of html.matchAll(NAMED)) {
      const to = new URL(raw.replaceAll('&amp;', '&'), `${served.url}${at}`);
      if (to.origin !== origin || !/^https?:/.test(raw.startsWith('/') ? origin : raw || origin)) continue;
      expect(`${to.pathname}/`.startsWith(`${pathname}/`), `${at}: ${raw}`).toBe(true);
      if (at !== '/nowhere') leads.add(to.pathname + to.search);
    }
    expect(html, at).not.toMatch(/url\(['"]?\/(?!parish\/events\/)/);
  }
  expect(leads.size).toBeGreaterThan(200);
  // One of each kind of address is opened.
  const kinds = new Map([...leads].map((to) => [to.replace(/[\da-f-]{8,}|\d+|(what|at|by)\/.*/g, '$1').replace(/\?.*/, '?'), to]));
  for (const to of kinds.values()) {
    const answer = await page.request.get(origin + to, { maxRedirects: 0 });
    expect([200, 301, 302, 303, 304, 405], to).toContain(answer.status());
    if (answer.headers().location) expect(answer.headers().location, to).toMatch(new RegExp(`^(${origin})?${PATH}/`));
  }
  await stranger.close();
  for (const feed of [
    '/feed.ics',
    '/feed.rss',
    '/feed.json',
    '/dates.geojson',
    '/sitemap.xml',
    '/api/open/v1/dates',
    '/api/open/v1/openapi.json',
  ]) {
    const text = (await (await page.request.get(served.url + feed)).text()).replace(/\r?\n[ \t]/g, '');
    expect(text.split(`${host}${PATH}`).length, feed).toBeGreaterThan(1);
    expect(text.replaceAll(`${host}${PATH}`, ''), feed).not.toContain(host);
  }
  const manifest = await (await page.request.get(`${served.url}/site.webmanifest`)).json();
  expect([manifest.start_url, manifest.scope, manifest.icons[0].src]).toEqual([`${PATH}/`, `${PATH}/`, `${PATH}/mark-192.png`]);
  expect(await (await page.request.get(`${served.url}/robots.txt`)).text()).toContain(`Disallow: ${PATH}/desk`);
});

test('a reader finds, looks, goes back, opens the map and sends an event in', async ({ page }) => {
  const astray = await watched(page);
  await page.goto(`${served.url}/month/2027-03`);
  await expectAccessible(page, 'a month below a path');
  await page.getByRole('searchbox').fill('choir');
  await expect(page).toHaveURL(`${served.url}/month/2027-03?words=choir`);
  const link = page.locator('[data-view] a[href*="/what/harbour-choir/"]').first();
  await link.hover();
  await expect(page.getByRole('tooltip')).toContainText('St Bride');
  await link.click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Harbour Choir');
  await page.getByRole('navigation', { name: 'Where you came from' }).getByRole('link').first().click();
  await expect(page).toHaveURL(`${served.url}/month/2027-03?words=choir`);
  await page.goto(`${served.url}/map`);
  await expect(page.locator('canvas')).toBeVisible();
  await expect(page.locator('[data-ids]').first()).toBeVisible();
  await page.goto(`${served.url}/add`);
  await sendEvent(page, 'Gig race below the path');
  await expect(page).toHaveURL(new RegExp(`^${served.url}/receipt/`));
  expect(astray).toEqual([]);
});

test('an editor writes, sees the picture in the text, saves, moves over the sheet and goes to a page', async ({ page }) => {
  test.setTimeout(180_000);
  const astray = await watched(page);
  await signInBelow(page);
  await page.goto(`${served.url}/desk/listings/new`);
  await page.getByLabel('Title', { exact: true }).fill('Pictured below the path');
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('Before the picture.');
  await page.getByRole('button', { name: 'Insert one you have' }).click();
  const dialog = page.getByRole('dialog');
  const frame = dialog.locator('.frame').first();
  await expect.poll(() => frame.locator('img').evaluate((one: HTMLImageElement) => one.naturalWidth)).toBeGreaterThan(0);
  await frame.click();
  const image = page.locator('.ProseMirror img').first();
  await expect(image).toHaveAttribute('src', new RegExp(`^${PATH}/picture/`));
  await expect.poll(() => image.evaluate((one: HTMLImageElement) => one.naturalWidth)).toBeGreaterThan(0);
  await page.keyboard.press('Control+s');
  await expect(page).toHaveURL(new RegExp(`^${served.url}/desk/listings/[0-9a-f-]{36}$`));
  // Kept as an address from the site's own root, whatever path it lies below.
  const id = page.url().split('/').at(-1);
  const stored = (await (await page.request.get(`${served.url}/api/v1/listings/${id}`)).json()) as { content: { text: string } };
  expect(stored.content.text).toMatch(/src="\/picture\//);
  await page.goto(`${served.url}/desk/month/2027-03`);
  await page.locator('[data-open]').first().waitFor();
  await page.keyboard.press('Alt+g');
  await page.getByRole('combobox', { name: 'Go to' }).fill('venues');
  await page.locator('#go-list').getByRole('option').first().click();
  await expect(page).toHaveURL(new RegExp(`^${served.url}/desk/`));
  expect(astray).toEqual([]);
});

test('where it lay before leads on; other addresses of the host are not its own; cookies stay below the path', async () => {
  const ask = await requests.newContext();
  const get = async (at: string, headers = {}): Promise<[number, string | undefined]> => {
    const answer = await ask.get(host + at, { maxRedirects: 0, headers });
    return [answer.status(), answer.headers().location];
  };
  expect(await get('/calendar/month/2027-03?kinds=music')).toEqual([301, `${PATH}/month/2027-03?kinds=music`]);
  expect(await get('/what/harbour-choir')).toEqual([301, `${PATH}/what/harbour-choir`]);
  expect(await get('/')).toEqual([301, `${PATH}/`]);
  expect((await get(PATH))[0]).toBe(200);
  expect((await get('/healthz'))[0]).toBe(200);
  // Nobody declared a proxy: whoever says that one took the path away is a stranger.
  expect((await get('/list', { 'x-forwarded-prefix': PATH }))[0]).toBe(301);
  const signedIn = await ask.post(`${served.url}/desk/sign-in`, {
    form: { email: 'ivo@almanac.example', password: 'kittiwick-isles-2' },
    maxRedirects: 0,
  });
  const cookies = signedIn.headersArray().filter((one) => one.name.toLowerCase() === 'set-cookie');
  expect(cookies.length).toBeGreaterThan(0);
  for (const { value } of cookies) expect(value).toContain(`Path=${PATH}`);
  await ask.dispose();
});

test('a proxy that takes the path away is understood; without a former root the host’s other addresses are nobody’s', async () => {
  const other = await serveCopy('stripped', { ALMANAC_PATH: '/events', ALMANAC_BEHIND_PROXY: '1' });
  const ask = await requests.newContext();
  try {
    const root = new URL(other.url).origin;
    const stripped = await ask.get(`${root}/list`, { headers: { 'x-forwarded-prefix': '/events' } });
    expect(stripped.status()).toBe(200);
    expect(await stripped.text()).toContain('href="/events/');
    const nobody = await ask.get(`${root}/list`);
    expect(nobody.status()).toBe(404);
    expect(await nobody.text()).toContain('<a href="/events/">');
  } finally {
    await ask.dispose();
    await other.stop();
  }
});
