import { readdirSync } from 'node:fs';
import path from 'node:path';
import { request as playwrightRequest, expect } from '@playwright/test';
import { emptyContent } from '../../src/core/listing/fields';
import { ACCESS } from '../../src/server/http/access';
import { cookieOf, type Who } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const WHO: { who: Who | null; role: string }[] = [
  { who: null, role: 'reader' },
  { who: 'nan', role: 'contributor' },
  { who: 'ivo', role: 'editor' },
  { who: 'maud', role: 'coordinator' },
];
const ID = '01900000-0000-7000-8000-000000000000';
const fill = (route: string): string =>
  route
    .replace('[...all]', 'get-session')
    .replace('[action]', 'publish')
    .replace('[decision]', 'publish')
    .replace('[command]', 'ready')
    .replace(/\[\w+\]/g, ID);

/** The methods that a file of src/pages answers. */
function routes(): { route: string; methods: string[] }[] {
  const files = readdirSync('src/pages', { recursive: true, withFileTypes: true }).filter((f) => f.isFile());
  return files.map((f) => {
    const file = path.relative('src/pages', path.join(f.parentPath, f.name));
    const route = `/${file.replace(/\.(astro|ts)$/, '')}`.replace(/\/index$/, '') || '/';
    return { route, methods: file.endsWith('.astro') ? ['GET', 'POST'] : ['GET', 'POST', 'PUT', 'DELETE'] };
  });
}

test('each route refuses whoever may not use it, by every method', async ({ request, baseURL }) => {
  let refusals = 0;
  // A context of its own, since the other one keeps the cookies of signing in.
  const clean = await playwrightRequest.newContext(baseURL ? { baseURL } : {});
  for (const { route, methods } of routes()) {
    const who = ACCESS[route];
    expect(who, `${route} declares who may use it`).toBeDefined();
    if (who === 'anyone' || who === undefined) continue;
    for (const { who: person, role } of WHO) {
      if (who !== 'operator' && who.some((r) => r === role)) continue;
      const headers: Record<string, string> = person ? { cookie: await cookieOf(request, person) } : {};
      for (const method of methods) {
        const body = method === 'GET' ? {} : { data: '{}', headers: { ...headers, 'content-type': 'application/json' } };
        const response = await clean.fetch(fill(route), { method, headers, maxRedirects: 0, ...body });
        const status = response.status();
        const label = `${method} ${route} as ${role}: ${status}`;
        if (who === 'operator') expect(status, label).toBe(404);
        else if (role === 'reader') {
          expect([302, 401], label).toContain(status);
          if (status === 302) expect(response.headers().location, label).toContain('/desk/sign-in');
        } else expect(status, label).toBe(403);
        refusals++;
      }
    }
  }
  expect(refusals).toBeGreaterThan(80);
});

test('whoever may use a Desk page gets it', async ({ request }) => {
  for (const route of [
    '/desk/listings',
    '/desk/intake',
    '/desk/venues',
    '/desk/organizers',
    '/desk/categories',
    '/desk/people',
    '/desk/mail',
    '/desk/set-up',
    '/desk/set-up/time',
    '/desk/listings/new',
    '/desk/venues/new',
    '/desk/organizers/new',
    '/desk/categories/new',
    '/desk/proof',
    '/desk/tags',
    '/desk/entry',
    '/desk/empty',
  ]) {
    const response = await request.get(route, { headers: { cookie: await cookieOf(request, 'maud') } });
    expect(response.status(), route).toBe(200);
    expect(response.headers()['cache-control'], route).toContain('no-store');
  }
});

test('a contributor learns and changes nothing of what others are working on', async ({ request }) => {
  const [ivo, nan] = await Promise.all([cookieOf(request, 'ivo'), cookieOf(request, 'nan')]);
  const as = (cookie: string) => ({ headers: { cookie, 'content-type': 'application/json' }, maxRedirects: 0 });
  const SECRET = 'Bell Buoy Surprise';
  const venues = (await (await request.get('/api/v1/go?words=Net%20Loft', as(ivo))).json()) as { href: string }[];
  const venue = venues.map(({ href }) => /venues\/([0-9a-f-]{36})/.exec(href)?.[1]).find(Boolean) ?? '';
  const part = {
    start: '2027-04-20T19:00',
    length: { days: 0, minute: 1260 },
    rule: null,
    limit: { kind: 'open' },
  };
  const recurrence = { format: 3, zone: 'America/Halifax', parts: [part], exdates: [], breaks: [] };
  const content = { ...emptyContent(), title: SECRET, venueIds: [venue], recurrence };
  const own = (await (await request.post('/api/v1/listings', { ...as(ivo), data: { content } })).json()) as {
    id: string;
    revision: number;
  };
  const bulk = await request.post('/api/v1/bulk', { ...as(ivo), data: { ids: [own.id], action: { kind: 'headline', on: true } } });
  const { run } = (await bulk.json()) as { run: string };

  // Its page, its versions, its preview, every write of it: with its real id.
  const revision = own.revision + 1;
  const at = `/api/v1/listings/${own.id}`;
  const tries: [string, string, unknown?][] = [
    ['GET', `/desk/listings/${own.id}`],
    ['GET', `/desk/listings/${own.id}/versions`],
    ['GET', `/desk/listings/${own.id}/preview`],
    ['GET', `/desk/listings/${own.id}/preview-page`],
    ['GET', at],
    ['PUT', at, { content: { ...content, title: 'Taken' }, revision }],
    ...['publish', 'withdraw', 'bin', 'restore', 'times', 'slug', 'review'].map((action): [string, string, unknown] => [
      'POST',
      `${at}/${action}`,
      { revision, slug: 'taken', times: { publishAt: null, withdrawAt: null } },
    ]),
    ['POST', `${at}/proof`, { do: 'waive', key: 'cost-missing', reason: 'x' }],
    ['POST', `${at}/merge`, { into: own.id, revision }],
    ['POST', `${at}/copy`, { title: 'Taken', when: '' }],
    ['POST', `${at}/row`, { field: 'title', value: 'Taken', revision }],
    ['PUT', `/api/v1/edits/${own.id}`, { revision, content }],
    ['POST', '/api/v1/proof', { id: own.id, content }],
    ['POST', '/api/v1/bulk/plan', { ids: [own.id], action: { kind: 'bin' } }],
    ['POST', '/api/v1/bulk', { ids: [own.id], action: { kind: 'bin' } }],
    ['GET', `/desk/listings?run=${run}`],
  ];
  for (const [method, to, data] of tries) {
    const response = await request.fetch(to, { ...as(nan), method, ...(data ? { data } : {}) });
    expect(response.status(), `${method} ${to}`).toBeGreaterThanOrEqual(400);
    expect(response.status(), `${method} ${to}`).toBeLessThan(500);
    expect(await response.text(), `${method} ${to}`).not.toContain(SECRET);
  }
  // What leads to it from elsewhere: the hall's dates, Proof of a listing of the same evening, the table, "Go to", a file.
  for (const to of [
    `/api/v1/bookings?venues=${venue}`,
    '/api/v1/go?words=Bell',
    '/desk/listings?words=Bell',
    '/desk/export/listings.json',
    '/api/v1/dates?from=2027-04-01&to=2027-04-30',
  ]) {
    const response = await request.get(to, as(nan));
    expect(await response.text(), to).not.toContain(SECRET);
    if (to.includes('bookings')) expect(await (await request.get(to, as(ivo))).text(), 'an editor sees it').toContain(SECRET);
  }
  const near = await request.post('/api/v1/proof', { ...as(nan), data: { id: null, content: { ...content, title: 'Nets' } } });
  expect(near.status()).toBe(200);
  expect(await near.text()).not.toContain(SECRET);

  // An editor's action on many is not theirs to take back or to cancel.
  const form = { headers: { cookie: nan }, maxRedirects: 0 };
  const forms: Record<string, string>[] = [
    { action: 'undo', run },
    { action: 'cancel', job: run },
  ];
  for (const sent of forms) {
    const response = await request.post('/desk/listings', { ...form, form: sent });
    expect(response.headers().location ?? '', sent.action).toBe('');
  }
  const after = (await (await request.get(at, as(ivo))).json()) as {
    content: { title: string; headline: boolean };
    stage: string;
    slug: string;
  };
  expect([after.content.title, after.content.headline, after.stage]).toEqual([SECRET, true, 'draft']);

  // Whom to ring at an organizer's stands on the organizer's own page, which is not theirs; nor do they rename themselves.
  const start = await (await request.get('/desk/listings/new', { headers: { cookie: nan } })).text();
  expect(start).toContain('Harbour Choir');
  expect(start).not.toMatch(/harbourchoir\.example|555-0101/);
  for (const path of ['update-user', 'change-email', 'get-session', 'list-sessions', 'sign-up/email'])
    for (const method of ['GET', 'POST']) {
      const response = await request.fetch(`/api/auth/${path}`, { ...as(nan), method, data: { name: 'Maud Petrel' } });
      expect([403, 404, 405], `${method} ${path}`).toContain(response.status());
    }
});

test('changes from another website are refused, whatever their body', async ({ request }) => {
  const cookie = await cookieOf(request, 'maud');
  for (const origin of ['https://elsewhere.example', 'null', 'nonsense']) {
    for (const type of ['application/x-www-form-urlencoded', 'application/json', 'text/plain', 'multipart/form-data; boundary=x']) {
      const response = await request.post('/desk/set-up/site', {
        headers: { cookie, origin, 'content-type': type },
        data: 'name=Taken',
        maxRedirects: 0,
      });
      expect(response.status(), `${origin} ${type}`).toBe(403);
    }
  }
  const quiet = await request.post('/desk/sign-out', { headers: { cookie, 'sec-fetch-site': 'cross-site' }, data: '', maxRedirects: 0 });
  expect(quiet.status()).toBe(403);
});

test('forwarded addresses are not believed, so the bound on signing in holds', async ({ request }) => {
  let last = 0;
  for (let i = 0; i < 12; i++) {
    const response = await request.post('/desk/sign-in', {
      form: { email: 'nobody@almanac.example', password: 'wrong-password-1' },
      headers: { 'x-forwarded-for': `10.0.0.${i}` },
      maxRedirects: 0,
    });
    last = response.status();
    if (last === 429) break;
    expect(last).toBe(401);
  }
  expect(last).toBe(429);
});
