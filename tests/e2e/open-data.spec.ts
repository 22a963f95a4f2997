/** What other programs read, over HTTP: from any origin, kept by tag, refused with words; and the page that explains it. */
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll } from './support';
import { test } from './site';
import { Vocabulary } from '../support/vocabulary';
import type { OpenListing } from '../../src/server/open-data/shapes';

const AT = '/api/open/v1';

test('a page of another site reads dates, asks again for nothing, and is told what is wrong', async ({ request, page, site }) => {
  // A slip is forgiven, and said: whoever asked sees nothing else of it.
  const slip = async () =>
    ((await (await request.get(`${AT}/listings?words=chior+xyzzyplugh`)).json()) as { taken: { word: string; others: string[] }[] }).taken;
  await expect.poll(slip, { message: 'once all that words are looked up in is at hand' }).toEqual([
    { word: 'chior', others: expect.arrayContaining(['choir']) },
    { word: 'xyzzyplugh', others: [] },
  ]);
  const first = await request.get(`${AT}/dates?free=1&limit=5`, { headers: { origin: 'https://parish.example' } });
  expect(first.status()).toBe(200);
  const { etag, ...headers } = first.headers();
  expect(headers).toMatchObject({
    'content-type': 'application/json; charset=utf-8',
    'access-control-allow-origin': '*',
    'cache-control': 'public, max-age=0, must-revalidate',
  });
  const again = await request.get(`${AT}/dates?free=1&limit=5`, { headers: { 'if-none-match': etag ?? '' } });
  expect([again.status(), again.headers()['access-control-allow-origin'], (await again.body()).length]).toEqual([304, '*', 0]);
  const asked = await request.fetch(`${AT}/dates`, {
    method: 'OPTIONS',
    headers: { origin: 'https://parish.example', 'access-control-request-method': 'GET', 'sec-fetch-site': 'cross-site' },
  });
  expect([asked.status(), asked.headers()['access-control-allow-methods']]).toEqual([204, 'GET, HEAD']);
  const wrong = await request.get(`${AT}/dates?from=soon&colour=red`);
  expect([wrong.status(), wrong.headers()['access-control-allow-origin']]).toEqual([422, '*']);
  expect(((await wrong.json()) as { fields: { field: string }[] }).fields.map(({ field }) => field)).toEqual(['colour', 'from']);
  for (const method of ['POST', 'PUT', 'DELETE']) expect((await request.fetch(`${AT}/dates`, { method })).status()).toBe(405);
  expect((await request.get(`${AT}/users`)).status()).toBe(404);

  // In a browser, from another origin, with the browser's own cache between.
  const parish = createServer((_, response) => response.setHeader('content-type', 'text/html').end('<title>Parish</title>'));
  await once(parish.listen(0, '127.0.0.1'), 'listening');
  await page.goto(`http://127.0.0.1:${(parish.address() as AddressInfo).port}/`);
  const read = await page.evaluate(async (url) => {
    const ask = async () => ((await (await fetch(url)).json()) as { data: { title: string }[] }).data.map(({ title }) => title);
    const refused = await fetch(`${url}&on=someday`);
    return { one: await ask(), two: await ask(), wrong: [refused.status, ((await refused.json()) as { title: string }).title] };
  }, `${site.url}${AT}/dates?limit=3`);
  parish.close();
  expect(read.one.length).toBeGreaterThan(0);
  expect(read.two).toEqual(read.one);
  expect(read.wrong).toEqual([422, 'One of today, tomorrow, weekend, next-week.']);
});

test('the page about it has examples that answer, in both languages, on a phone too', async ({ page, request }) => {
  for (const at of ['/data', '/fr/data']) {
    await page.goto(at);
    const links = await page.locator('main a[href^="/"]').evaluateAll((all) => all.map((link) => link.getAttribute('href') ?? ''));
    expect(links.length).toBeGreaterThan(14);
    for (const link of links) expect((await request.get(link)).status(), link).toBe(200);
    await expect(page.locator('pre')).toContainText('"start"');
    await expectAccessible(page, at);
    await page.setViewportSize({ width: 360, height: 740 });
    await expectNoSidewaysScroll(page);
    await page.setViewportSize({ width: 1280, height: 800 });
  }
  await page.goto('/subscribe');
  await page.getByRole('link', { name: 'For programmers' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('This calendar for other programs');
});

test('what pages say of themselves is in schema.org’s words, and every picture and icon that they name is there', async ({
  page,
  request,
}) => {
  const vocabulary = new Vocabulary();
  const home = (await (await request.get(`${AT}/listings?limit=200`)).json()) as { data: OpenListing[] };
  const several = home.data.filter(({ coming }) => coming > 1).slice(0, 3);
  expect(several.length).toBe(3);
  const venues = ((await (await request.get(`${AT}/venues?limit=5`)).json()) as { data: { page: string }[] }).data;
  const organizers = ((await (await request.get(`${AT}/organizers?limit=3`)).json()) as { data: { page: string }[] }).data;
  const kinds = new Set<string>();
  for (const { page: at } of [...several, ...venues, ...organizers]) {
    await page.goto(new URL(at).pathname);
    const data = JSON.parse((await page.locator('script[type="application/ld+json"]').textContent()) ?? '{}') as Record<string, unknown>;
    expect(data['@context']).toBe('https://schema.org');
    expect(vocabulary.wrong(data), at).toEqual([]);
    kinds.add(String(data['@type']));
    if (data['@type'] === 'Event') expect(data.superEvent).toMatchObject({ '@type': 'EventSeries' });
  }
  expect([...kinds].sort()).toEqual(['Event', 'Organization', 'Place']);
  for (const at of ['/', '/fr', '/list', several[0]?.page ?? '']) {
    await page.goto(new URL(at, page.url()).pathname);
    const image = await page.locator('meta[property="og:image"]').getAttribute('content');
    const icon = await page.locator('link[rel="apple-touch-icon"]').getAttribute('href');
    for (const file of [image, icon])
      expect((await request.get(new URL(file ?? '', page.url()).pathname)).headers()['content-type']).toMatch(/^image\//);
    const manifest = await (await request.get((await page.locator('link[rel=manifest]').getAttribute('href')) ?? '')).json();
    expect(manifest).toMatchObject({ name: 'Kittiwick Isles Almanac', start_url: at.startsWith('/fr') ? '/fr' : '/' });
    for (const { src } of manifest.icons) expect((await request.get(src)).status()).toBe(200);
  }
});

test('what an address asks is answered in words, however odd it is, and quickly', async ({ request }) => {
  const odd = [
    `kind=${Array.from({ length: 2000 }, (_, i) => `k${i}`).join(',')}`,
    'near=91,400',
    `words=${'a'.repeat(4000)}`,
    'cursor=99999-01-01',
    'limit=-1',
    'from=%00',
    'to=2027-13-45',
    '__proto__=1',
    'language=%F0%9F%98%80',
  ];
  for (const query of odd) {
    const response = await request.get(`${AT}/dates?${query}`);
    expect([200, 400, 414, 422, 431], query.slice(0, 40)).toContain(response.status());
    if (response.status() === 422) expect(((await response.json()) as { title: string }).title).toMatch(/\S/);
  }
});
