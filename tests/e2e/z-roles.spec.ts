import { readdirSync } from 'node:fs';
import path from 'node:path';
import { request as playwrightRequest, expect } from '@playwright/test';
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

test('changes from another website are refused, whatever their body', async ({ request }) => {
  const cookie = await cookieOf(request, 'maud');
  for (const origin of ['https://elsewhere.example', 'null', 'nonsense']) {
    for (const type of ['application/x-www-form-urlencoded', 'application/json', 'text/plain', 'multipart/form-data; boundary=x']) {
      const response = await request.post('/desk/set-up', {
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
