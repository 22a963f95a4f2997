import { readdirSync } from 'node:fs';
import { type APIResponse, expect } from '@playwright/test';
import { cookieOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

/** Every page and endpoint that there is, each with names in its place holders that are none. */
function everyAddress(): string[] {
  const files = readdirSync('src/pages', { recursive: true, encoding: 'utf8' }).filter((f) => /\.(ts|astro)$/.test(f));
  const routes = files
    .map((f) => `/${f.replace(/\.(ts|astro)$/, '').replace(/(^|\/)index$/, '')}`)
    .filter((route) => !/operator|sign-out/.test(route));
  const few = ['0190a000-0000-7000-8000-000000000000', '..%2f..'];
  const names = process.env.FULL ? [...few, 'x', '9'.repeat(300)] : few;
  return [...new Set(routes.flatMap((route) => names.map((name) => route.replace(/\[[^\]]+\]/g, name))))];
}

test('no request, however odd, makes the site fail or show its insides', async ({ request }) => {
  test.setTimeout(240_000);
  const cookie = await cookieOf(request, 'maud');
  const query = `?words=%FF%27%25_&page=1e9&n=-1&from=x&month=99&stage=%27&sort=__proto__&kind=constructor&q=${'x'.repeat(3000)}`;
  const odd = [
    'null',
    '[]',
    '{"a":',
    '{"ids":[1],"content":null,"revision":1e308}',
    '{"name":"a\\u0000\\ud800","title":"\\u0000","words":"\\u0000"}',
  ];
  const bodies: [string, string][] = [
    ...odd.map((body): [string, string] => ['application/json', body]),
    ['application/x-www-form-urlencoded', 'name=a%00&title=%00&action=bin&ids=%00&id=x'],
    ['multipart/form-data; boundary=x', 'no parts'],
    ['text/plain', '\u0000'],
  ];
  const wrong: string[] = [];
  const look = async (what: string, response: APIResponse): Promise<void> => {
    const text = response.status() === 304 ? '' : await response.text();
    if (response.status() >= 500 || /\n\s+at .*\.m?js:\d+/.test(text)) wrong.push(`${response.status()} ${what}`);
  };
  for (const address of everyAddress()) {
    await look(`GET ${address}`, await request.get(address + query, { headers: { cookie }, maxRedirects: 0 }));
    await look(`GET ${address} with NUL`, await request.get(`${address}?words=%00`, { headers: { cookie }, maxRedirects: 0 }));
    for (const [type, data] of bodies) {
      const sent = await request.post(address, { headers: { cookie, 'content-type': type }, data: Buffer.from(data), maxRedirects: 0 });
      await look(`POST ${address} ${type} ${data.slice(0, 30)}`, sent);
    }
  }
  expect(wrong).toEqual([]);
});

// Last, since nobody at this address can send an event for an hour after it.
test('a robot that fills the trap is refused, and too many at once are bounded', async ({ request }) => {
  const form = { title: 'Spam', day: '2027-03-25', name: 'Robot', mail: 'robot@spam.example', homepage: 'https://spam.example' };
  const trapped = await request.post('/add', { multipart: form, maxRedirects: 0 });
  expect(trapped.status()).toBe(422);
  expect(await trapped.text()).toContain('Leave this field empty');
  let status = 0;
  for (let i = 0; i < 8 && status !== 429; i++)
    status = (await request.post('/add', { multipart: { ...form, homepage: '' }, maxRedirects: 0 })).status();
  expect(status).toBe(429);
});
