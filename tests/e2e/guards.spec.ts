import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect } from '@playwright/test';
import { cookieOf, signIn } from './support';
import { serveCopy, test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const READERS = [
  '/',
  '/list',
  '/month/2027-03',
  '/map',
  '/day/2027-03-23',
  '/subscribe',
  '/feed.ics',
  '/chart.json',
  '/sitemap.xml',
  '/fr/list',
];

test('readers’ pages are read, and nothing else is done with them', async ({ request, playwright, baseURL }) => {
  // A reader's own, since the other one keeps the cookies of signing in.
  const reader = await playwright.request.newContext(baseURL ? { baseURL } : {});
  const tag = async () => (await reader.get('/list')).headers().etag;
  // Words wait until everything that readers can find is at hand: from then on only a change makes another tag.
  await reader.get('/list?words=choir');
  const before = await tag();
  expect(before).toBeTruthy();
  for (const to of READERS)
    for (const method of ['POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS']) {
      const response = await request.fetch(to, { method, maxRedirects: 0 });
      const label = `${method} ${to}`;
      // A page in another language is asked as the page that it is.
      if (to.startsWith('/fr')) expect([404, 405], label).toContain(response.status());
      else expect([response.status(), response.headers().allow], label).toEqual([405, 'GET, HEAD']);
    }
  // Signing in, or failing to, changes nothing that readers see.
  await request.post('/desk/sign-in', { form: { email: 'nobody@almanac.example', password: 'wrong-password-1' }, maxRedirects: 0 });
  await request.post('/desk/forgotten', { form: { email: 'nobody@almanac.example' }, maxRedirects: 0 });
  await cookieOf(request, 'nan');
  expect(await tag(), 'kept copies stay good').toBe(before);
});

test('every answer has a name of its own, by which the log knows it', async ({ request }) => {
  const seen = new Set<string>();
  const month = await request.get('/month/2027-03');
  const asked = [
    month,
    await request.get('/month/2027-03'),
    await request.get('/month/2027-03', { headers: { 'if-none-match': month.headers().etag ?? '' } }),
    await request.get('/fr/month/2027-03'),
    await request.get('/nowhere'),
    await request.get('/desk/listings', { maxRedirects: 0 }),
    await request.delete('/month/2027-03'),
    await request.get('/api/v1/proof'),
    await request.get('/healthz'),
  ];
  expect(asked[2]?.status()).toBe(304);
  for (const answer of asked) {
    const id = answer.headers()['x-request-id'] ?? '';
    expect(id, answer.url()).toMatch(/^[0-9a-f]{12}$/);
    seen.add(id);
  }
  expect(seen.size, 'a kept page has another each time').toBe(asked.length);
});

test('TRACE is refused', async ({ site }) => {
  const status = await new Promise<number | undefined>((resolve, reject) => {
    const asked = http.request(site.url, { method: 'TRACE' }, (response) => resolve(response.resume().statusCode));
    asked.on('error', reject).end();
  });
  expect(status).toBe(405);
});

test('the content policy knows every inline script, and the browser runs them', async ({ page, request }) => {
  const refused: string[] = [];
  page.on('console', (message) => {
    if (/content security policy/i.test(message.text())) refused.push(message.text());
  });
  const check = async (to: string, cookie?: string): Promise<void> => {
    const response = await request.get(to, cookie ? { headers: { cookie } } : {});
    const policy = response.headers()['content-security-policy'] ?? '';
    expect(/script-src[^;]*/.exec(policy)?.[0], to).not.toContain('unsafe-inline');
    const scripts = [...(await response.text()).matchAll(/<script(?![^>]*\b(?:src|type="application\/ld\+json"))[^>]*>(.*?)<\/script>/gs)];
    for (const [, code = ''] of scripts)
      expect(policy, `${to}: ${code.slice(0, 60)}`).toContain(`'sha256-${createHash('sha256').update(code).digest('base64')}'`);
  };
  const cookie = await cookieOf(request, 'maud');
  for (const to of ['/list', '/month/2027-03', '/map', '/add']) await check(to);
  for (const to of [
    '/desk/listings',
    '/desk/listings/new',
    '/desk/month/2027-03',
    '/desk/entry',
    '/desk/pictures',
    '/desk/categories',
    '/desk/venues/new',
  ])
    await check(to, cookie);
  await signIn(page, 'maud');
  for (const to of ['/map', '/desk/listings', '/desk/listings/new', '/desk/month/2027-03', '/desk/pictures']) {
    await page.goto(to);
    await page.waitForLoadState('networkidle');
  }
  await page.goto('/desk/listings/new');
  await expect(page.getByLabel('Title', { exact: true })).toBeVisible();
  expect(refused).toEqual([]);
});

test('a page says what the site itself said to this person, and nothing that an address puts there', async ({ page }) => {
  await signIn(page, 'maud');
  const words = 'Call 555 0199 at once';
  for (const query of [
    `said=${encodeURIComponent(words)}`,
    `said=${encodeURIComponent(words)}&seal=${'x'.repeat(32)}`,
    'decided=constructor',
    'decided=__proto__',
  ]) {
    await page.goto(`/desk/tags?${query}`);
    await expect(page.locator('main')).not.toContainText('555 0199');
    await expect(page.locator('.note.good')).toHaveCount(0);
  }
  await page.getByLabel('A new tag').fill('for walkers');
  const sealed = page.waitForRequest((asked) => asked.url().includes('seal='));
  await page.getByRole('button', { name: 'Make it' }).click();
  const address = (await sealed).url();
  await expect(page.locator('.note.good')).toContainText('“for walkers” is there.');
  // Kept and sent to somebody else, it says nothing.
  await page.context().clearCookies();
  await signIn(page, 'ivo');
  await page.goto(address);
  await expect(page.locator('.note.good')).toHaveCount(0);
});

test('a version that is none is refused in words', async ({ request }) => {
  const cookie = await cookieOf(request, 'ivo');
  const found = (await (await request.get('/api/v1/go?words=Choir', { headers: { cookie } })).json()) as { href: string }[];
  const to = found.find(({ href }) => /^\/desk\/listings\/[0-9a-f-]{36}$/.test(href))?.href;
  for (const form of [
    {},
    { revision: '' },
    { revision: '9'.repeat(60), opened: '1' },
    { revision: '-1', opened: 'x' },
    { revision: '1e99', opened: '2' },
  ] as Record<string, string>[]) {
    const response = await request.post(`${to}/versions`, { headers: { cookie }, form, maxRedirects: 0 });
    expect([response.status(), await response.text()], JSON.stringify(form)).toEqual([
      422,
      expect.stringContaining('There is no such version'),
    ]);
  }
});

test('behind a proxy of the operator’s: its entry counts, forms and signing in work, and https is kept', async ({ request }) => {
  const served = await serveCopy('proxied', { ALMANAC_BEHIND_PROXY: '1', ALMANAC_ADDRESS: 'https://almanac.example' });
  // A small proxy that ends https and adds what it saw, as proxies do.
  const proxy = http.createServer((asked, answer) => {
    const seen = asked.headers['x-test-client'] ?? '203.0.113.9';
    const before = asked.headers['x-forwarded-for'];
    const headers = {
      ...asked.headers,
      'x-forwarded-for': before ? `${before}, ${seen}` : String(seen),
      'x-forwarded-host': 'almanac.example',
      'x-forwarded-proto': 'https',
    };
    const on = http.request(
      new URL(asked.url ?? '/', served.url),
      { method: asked.method, headers: { ...headers, host: 'almanac.example' } },
      (response) => {
        answer.writeHead(response.statusCode ?? 502, response.headers);
        response.pipe(answer);
      },
    );
    asked.pipe(on);
  });
  await new Promise<void>((done) => proxy.listen(0, '127.0.0.1', done));
  const at = `http://127.0.0.1:${(proxy.address() as { port: number }).port}`;
  try {
    const origin = 'https://almanac.example';
    const list = await request.get(`${at}/list`);
    expect(list.headers()['strict-transport-security']).toMatch(/max-age=\d{7,}/);
    expect(await list.text()).toContain('href="https://almanac.example/list"');
    const signed = await request.post(`${at}/desk/sign-in`, {
      form: { email: 'maud@almanac.example', password: 'kittiwick-isles-1' },
      headers: { origin },
      maxRedirects: 0,
    });
    expect(signed.status()).toBe(303);
    const cookies = signed
      .headersArray()
      .filter(({ name }) => name.toLowerCase() === 'set-cookie')
      .map(({ value }) => value);
    expect(cookies.length).toBeGreaterThan(0);
    for (const cookie of cookies) expect(cookie).toMatch(/; Secure/i);
    const cookie = cookies.map((one) => one.split(';')[0]).join('; ');
    const made = await request.post(`${at}/desk/tags`, {
      headers: { cookie, origin },
      form: { action: 'make', name: 'by proxy' },
      maxRedirects: 0,
    });
    expect([made.status(), decodeURIComponent(made.headers().location ?? '')]).toEqual([303, expect.stringContaining('by+proxy')]);
    // Whatever stands before the proxy's own entry came from outside: made-up addresses do not get round the bound.
    let last = 0;
    for (let i = 0; i < 12 && last !== 429; i++)
      last = (
        await request.post(`${at}/desk/sign-in`, {
          form: { email: `nobody${i}@almanac.example`, password: 'wrong-password-1' },
          headers: { origin, 'x-forwarded-for': `10.0.0.${i}` },
          maxRedirects: 0,
        })
      ).status();
    expect(last).toBe(429);
    const other = await request.post(`${at}/desk/sign-in`, {
      form: { email: 'maud@almanac.example', password: 'kittiwick-isles-1' },
      headers: { origin, 'x-test-client': '198.51.100.7' },
      maxRedirects: 0,
    });
    expect(other.status(), 'another address is another bound').toBe(303);
  } finally {
    await new Promise((done) => proxy.close(done));
    await served.stop();
  }
});

test('told to stop, it answers what is under way, takes nothing new, and ends well', async () => {
  const served = await serveCopy('stopping', {});
  const months = Array.from({ length: 60 }, (_, i) => `/month/20${27 + (i % 3)}-${String((i % 12) + 1).padStart(2, '0')}?words=${i}`);
  const agent = new http.Agent({ keepAlive: true, maxSockets: 60 });
  let first: () => void = () => undefined;
  const begun = new Promise<void>((done) => (first = done));
  const answers = months.map(
    (to) =>
      new Promise<string>((resolve) => {
        http
          .get(new URL(to, served.url), { agent }, (response) => {
            first();
            let text = '';
            response.on('data', (part: Buffer) => (text += part.toString()));
            response.on('end', () => resolve(`${response.statusCode} ${text.trim().endsWith('</html>') ? 'whole' : 'cut'}`));
            response.on('error', (error) => resolve(error.message));
          })
          .on('error', (error) => resolve(error.message));
      }),
  );
  await begun;
  const ended = served.ended('SIGTERM');
  expect(new Set(await Promise.all(answers))).toEqual(new Set(['200 whole']));
  expect(await ended).toBe(0);
  await expect(fetch(served.url)).rejects.toThrow();
  await served.stop();
});

test('pages go out compressed to those who take it, the same in each encoding, handed on or lost', async ({ request }) => {
  for (const path of ['/month/2027-03', '/list?words=choir', '/fr/month/2027-03', '/nowhere', '/feed.ics', '/sitemap.xml']) {
    const [plain, br, gzip] = await Promise.all(
      ['identity', 'br', 'gzip'].map((encoding) => request.get(path, { headers: { 'accept-encoding': encoding } })),
    );
    if (!plain || !br || !gzip) throw new Error('no answer');
    expect(br.headers()['content-encoding'], path).toBe(plain.status() === 200 ? 'br' : br.headers()['content-encoding']);
    expect([await br.text(), await gzip.text()], path).toEqual([await plain.text(), await plain.text()]);
    expect(await plain.text(), path).toMatch(/<\/html>|END:VCALENDAR|<\/urlset>/);
    if (plain.status() === 200) expect(br.headers().vary, path).toContain('accept-encoding');
  }
});

test('a monitor on this machine is told how the site is, one elsewhere whether it is ready, and the rest with the operator’s token', async ({
  request,
}) => {
  const token = 'harbour-lamp-harbour-lamp';
  const served = await serveCopy('monitor', { ALMANAC_BEHIND_PROXY: '1', ALMANAC_METRICS_TOKEN: token });
  try {
    const elsewhere = { 'x-forwarded-for': '203.0.113.5' };
    const ask = (path: string, headers: Record<string, string> = {}) => request.get(served.url + path, { headers });
    await ask('/month/2027-03');
    expect(await (await ask('/healthz', elsewhere)).text()).toBe('ok\n');
    expect(await (await ask('/readyz', elsewhere)).json()).toEqual({ ready: true });
    expect(await (await ask('/readyz')).json()).toMatchObject({ ready: true, database: 'ok', disk: 'ok' });
    expect((await ask('/metrics', elsewhere)).status()).toBe(404);
    expect((await ask('/metrics', { via: '1.1 lamp' })).status()).toBe(404);
    expect((await ask('/metrics', { ...elsewhere, authorization: 'Bearer wrong' })).status()).toBe(404);
    for (const headers of [{}, { ...elsewhere, authorization: `Bearer ${token}` }]) {
      const text = await (await ask('/metrics', headers)).text();
      expect(text).toMatch(/^almanac_requests_total\{route="\/\[view\]\/\[at\]",method="GET",status="200"\} \d+$/m);
      expect(text).toMatch(/^almanac_database_up 1$/m);
    }
  } finally {
    await served.stop();
  }
});

test('a coordinator makes a backup by a button on Health, and sees it come without a script', async ({ browser }) => {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  const served = await serveCopy('backups', { ALMANAC_BACKUPS: folder });
  try {
    const page = await (await browser.newContext({ javaScriptEnabled: false, baseURL: served.url })).newPage();
    await signIn(page, 'maud');
    await page.goto('/desk/health');
    const pressed = Date.now();
    await page.getByRole('button', { name: 'Make a backup now' }).click();
    await expect(page.getByText('The last one was made')).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('button', { name: 'Make a backup now' })).toBeVisible();
    // The demo's clock stands still, so the one that the site makes by itself has the same name.
    await expect
      .poll(() => statSync(path.join(folder, 'almanac-2027-03-17T0900.zip'), { throwIfNoEntry: false })?.mtimeMs ?? 0)
      .toBeGreaterThan(pressed);
    await page.context().close();
    // Nobody else makes one.
    const nan = await (await browser.newContext({ baseURL: served.url })).newPage();
    await signIn(nan, 'nan');
    const refused = await nan.request.post('/desk/health', { headers: { origin: served.url } });
    expect(refused.status()).toBe(403);
    await nan.context().close();
  } finally {
    await served.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
