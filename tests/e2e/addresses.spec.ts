import { type APIRequestContext, expect } from '@playwright/test';
import { pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

/** Absolute addresses in a text, without what stands behind them in a sentence or a folded line. */
function addressesIn(text: string): string[] {
  const whole = text
    .replace(/\r\n[ \t]/g, '')
    .replace(/&amp;/g, '&')
    .replace(/\\u003c/g, '<')
    .replace(/\\[;,]/g, (c) => c.charAt(1));
  return [...whole.matchAll(/(?:https?|webcal):\/\/[^\s"'<>\\]+/g)].map((m) => m[0].replace(/[.,;:)]+$/, ''));
}

/** What is somebody else's by its name: listings' own websites, namespaces of formats. */
const ELSEWHERE = /^(https?:\/\/)([\w.-]+\.example(?=[/:]|$)|schema\.org|www\.sitemaps\.org|www\.w3\.org)/;

/** So many of each kind of address are opened: they are made alike. */
const MOST_OF_A_KIND = process.env.FULL ? 12 : 4;
/** Which kind an address is of: one route, whatever listing, place or day it names. */
const kindOf = (href: string): string =>
  href
    .replace(/\?.*$/, '')
    .replace(/\d{4}-(?:W\d\d|\d\d(?:-\d\d)?)/g, 'DATE')
    .replace(/\/(what|at|by|kind|picture)\/[^/]+/, '/$1/*');

async function textOf(request: APIRequestContext, path: string, headers: Record<string, string> = {}): Promise<string> {
  const response = await request.get(path, { headers });
  expect(response.status(), path).toBeLessThan(400);
  return response.text();
}

test('every absolute address of every page, mail, feed and file opens, and every link of a page too', async ({
  browser,
  request,
  baseURL,
}) => {
  const base = baseURL ?? '';
  const seen = new Map<string, string>();
  const note = (text: string, where: string): void => {
    for (const address of addressesIn(text)) if (!seen.has(address)) seen.set(address, where);
  };
  const sitemap = await textOf(request, '/sitemap.xml');
  note(sitemap, '/sitemap.xml');
  const inMap = addressesIn(sitemap).filter((a) => a.startsWith(base));
  expect(inMap.length).toBeGreaterThan(80);
  const paths = new Set(['/', '/list', '/map', '/add', '/subscribe', '/month/2027-03', '/day/2027-03-20', '/robots.txt', '/feed.ics']);
  for (const address of inMap) paths.add(address.slice(base.length));
  const links = new Map<string, string>();
  for (const path of paths) {
    const text = await textOf(request, path);
    note(text, path);
    for (const [, href = ''] of text.matchAll(/(?:href|src)="(\/[^"#]*)/g))
      if (!/^\/(desk|api|_astro)/.test(href) && !links.has(href)) links.set(href.replace(/&amp;/g, '&'), path);
  }
  // Files of a few listings, and all that the Desk gives out.
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  for (const file of ['listings.ics', 'listings.csv', 'dates.csv', 'listings.json'])
    note(await (await maud.request.get(`/desk/export/${file}`)).text(), `/desk/export/${file}`);
  for (const path of ['/what/low-tide-walk/dates.ics', '/what/low-tide-walk/2027-03-21/date.ics', '/what/low-tide-walk/2027-03-21'])
    note(await textOf(request, path), path);
  // Mails: an event that is sent in, an invitation, a new password.
  const sent = await request.post('/add', {
    multipart: { title: 'Rope Day', day: '2027-05-08', name: 'Rue Dunlin', mail: 'rue@dunlin.example' },
    maxRedirects: 0,
  });
  expect(sent.status()).toBe(303);
  const forgotten = await request.post('/desk/forgotten', { form: { email: 'ivo@almanac.example' }, headers: { origin: base } });
  expect(forgotten.status()).toBeLessThan(400);
  await maud.goto('/desk/people');
  await maud.getByLabel('Name', { exact: true }).fill('Wren Holm');
  await maud.getByLabel('Mail address').fill('wren@holm.example');
  await maud.getByRole('button', { name: 'Send the invitation' }).click();
  await maud.goto('/desk/mail');
  await expect(maud.getByText('works on this machine only')).toBeVisible();
  const mails = (await maud.locator('details.paper').allTextContents()).join('\n');
  note(mails, 'mail');
  expect(
    addressesIn(mails).filter((a) => a.includes('/receipt/') || a.includes('/invitation/') || a.includes('/new-password')).length,
  ).toBeGreaterThan(1);
  // Of a listing's many dates and of each kind of view some are opened: they are made alike. All of them are at this site.
  const perKind = new Map<string, number>();
  const enough = (href: string): boolean => {
    const kind = kindOf(href);
    perKind.set(kind, (perKind.get(kind) ?? 0) + 1);
    return (perKind.get(kind) ?? 0) > MOST_OF_A_KIND;
  };
  const own = [...seen].filter(([address]) => !ELSEWHERE.test(address));
  expect(own.length).toBeGreaterThan(100);
  for (const [address, where] of own) {
    const http = address.replace(/^webcal:/, 'http:');
    expect(http.startsWith(`${base}/`) || http === base, `${address} in ${where}`).toBe(true);
    if (enough(http.slice(base.length) || '/')) continue;
    expect((await request.get(http)).status(), `${address} in ${where}`).toBeLessThan(400);
  }
  // No link of a page is dead.
  perKind.clear();
  let opened = 0;
  for (const [href, where] of links) {
    if (enough(href)) continue;
    opened++;
    expect((await request.get(href)).status(), `${href} in ${where}`).toBeLessThan(400);
  }
  expect(opened).toBeGreaterThan(60);
  await maud.context().close();
});

test('a stranger’s Host header and forwarded names reach no page', async ({ request, baseURL }) => {
  const claims: Record<string, string>[] = [{ host: 'evil.example' }, { 'x-forwarded-host': 'evil.example', 'x-forwarded-proto': 'https' }];
  for (const headers of claims)
    for (const path of ['/month/2027-03', '/subscribe', '/sitemap.xml', '/robots.txt', '/feed.ics', '/what/low-tide-walk']) {
      const text = await textOf(request, path, headers);
      expect(text, path).not.toContain('evil.example');
      if (path !== '/month/2027-03') expect(text, path).toContain(baseURL ?? '');
    }
});

test('what is reached by two addresses has one', async ({ request, baseURL }) => {
  const canonical = async (path: string) =>
    /rel="canonical" href="([^"]*)"/.exec(await textOf(request, path))?.[1]?.slice((baseURL ?? '').length);
  const hidden = async (path: string) => (await textOf(request, path)).includes('name="robots" content="noindex"');
  const cases: [string, string][] = [
    ['/', '/'],
    ['/month/2027-03', '/'],
    ['/month/2027-04', '/month/2027-04'],
    ['/list', '/list'],
    ['/list/2027-03-17', '/list'],
    ['/list/2027-05-01', '/list/2027-05-01'],
    ['/list?kind=music-dance', '/list?kind=music-dance'],
    ['/list/2027-03-17?kind=music-dance', '/list?kind=music-dance'],
    ['/list?kind=music-dance&free=1', '/list'],
    ['/map', '/map'],
    ['/map/2027-03-17', '/map'],
    ['/month/2027-03?words=choir', '/'],
  ];
  for (const [path, address] of cases) expect(await canonical(path), path).toBe(address);
  expect([await hidden('/month/2027-03'), await hidden('/month/2099-03'), await hidden('/list/2099-01-01'), await hidden('/list')]).toEqual(
    [false, true, true, false],
  );
});
