import { expect } from '@playwright/test';
import { emptyContent } from '../../src/core/listing/fields';
import { cookieOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const content = (part = {}) => ({ ...emptyContent(), title: 'Bad Input Evening', ...part });
const when = (start: string, length: unknown = null, rule: unknown = null) => ({
  recurrence: {
    format: 3,
    zone: 'America/Halifax',
    parts: [{ start, length, rule, limit: { kind: 'open' } }],
    exdates: [],
    breaks: [],
  },
});

test('the interface for programs answers bad input with the field and what would be right', async ({ request }) => {
  const cookie = await cookieOf(request, 'ivo');
  const post = (data: unknown, headers: Record<string, string> = {}) =>
    request.post('/api/v1/listings', {
      data: Buffer.from(typeof data === 'string' ? data : JSON.stringify(data)),
      headers: { cookie, 'content-type': 'application/json', ...headers },
    });
  const cases: [string, unknown, number, string | undefined][] = [
    ['31 February', { content: content(when('2027-02-31T10:00')) }, 422, 'content.recurrence.parts.0.start'],
    ['malformed JSON', '{"content":', 400, undefined],
    ['no content at all', {}, 422, 'content'],
    [
      'an unknown zone',
      { content: content({ recurrence: { ...when('2027-03-20').recurrence, zone: 'Isles/Nowhere' } }) },
      422,
      'content.recurrence.zone',
    ],
    ['a title of 200,000 characters', { content: content({ title: 'x'.repeat(200_000) }) }, 422, 'content.title'],
    ['a body over the limit', { content: content({ text: 'x'.repeat(500_000) }) }, 413, undefined],
  ];
  for (const [name, data, status, field] of cases) {
    const response = await post(data);
    expect(response.status(), name).toBe(status);
    const problem = await response.json();
    expect(response.headers()['content-type'], name).toContain('application/problem+json');
    expect(problem.title, name).toMatch(/\w/);
    if (field) expect(problem.fields[0].field, name).toBe(field);
    expect(JSON.stringify(problem), name).not.toMatch(/select |insert |\.ts:|node_modules/);
  }
  expect((await post({ content: content() }, { 'content-type': 'text/plain' })).status()).toBe(415);
});

test('a rule that never occurs and an end before its start can be kept as a draft but not published', async ({ request }) => {
  const headers = { cookie: await cookieOf(request, 'ivo') };
  const never = { freq: 'yearly', interval: 1, byMonth: [2], byMonthDay: [30], byDay: [], weekStart: 0 };
  for (const part of [when('2027-02-01T10:00', null, never), when('2027-03-20T10:00', { days: 0, minute: 540 })]) {
    const made = await (await request.post('/api/v1/listings', { data: { content: content(part) }, headers })).json();
    const refused = await request.post(`/api/v1/listings/${made.id}/publish`, { data: { revision: made.revision }, headers });
    expect(refused.status()).toBe(422);
    expect((await refused.json()).fields[0].field).toBe('when');
    expect((await request.post(`/api/v1/listings/${made.id}/bin`, { data: { revision: made.revision }, headers })).status()).toBe(200);
  }
});

test('a form older than the listing is refused with the newer copy; script in text and links is cleaned', async ({ request }) => {
  const headers = { cookie: await cookieOf(request, 'ivo') };
  const text = '<p>Hi<script>alert(1)</script> <a href="javascript:alert(1)">x</a></p>';
  const made = await (await request.post('/api/v1/listings', { data: { content: content({ text }) }, headers })).json();
  const put = (title: string, revision: number) =>
    request.put(`/api/v1/listings/${made.id}`, { data: { content: content({ title, text }), revision }, headers });
  expect((await put('First', made.revision)).status()).toBe(200);
  const old = await put('Second', made.revision);
  expect(old.status()).toBe(409);
  const { newer } = await old.json();
  expect(newer.content.title).toBe('First');
  expect(newer.content.text).toBe('<p>Hi <a rel="nofollow noopener">x</a></p>');
  const taken = await request.post(`/api/v1/listings/${made.id}/slug`, {
    data: { revision: newer.revision, slug: 'low-tide-walk' },
    headers,
  });
  expect(taken.status()).toBe(422);
  expect((await taken.json()).title).toContain('low-tide-walk-2');
});

test('unknown ids and actions are not found', async ({ request }) => {
  const headers = { cookie: await cookieOf(request, 'maud') };
  const none = '01900000-0000-7000-8000-000000000000';
  const data = { revision: 1 };
  expect((await request.post(`/api/v1/listings/${none}/publish`, { data, headers })).status()).toBe(404);
  expect((await request.post('/api/v1/listings/nonsense/publish', { data, headers })).status()).toBe(404);
  expect((await request.post(`/api/v1/listings/${none}/explode`, { data, headers })).status()).toBe(404);
  expect((await request.post(`/api/v1/intake/${none}/publish`, { data: {}, headers })).status()).toBe(404);
  expect((await request.get(`/desk/listings/${none}`, { headers })).status()).toBe(404);
  expect((await request.get('/desk/venues/nonsense', { headers })).status()).toBe(404);
  const gone = { ...content(), venueIds: [none] };
  const response = await request.post('/api/v1/listings', { data: { content: gone }, headers });
  expect([404, 422]).toContain(response.status());
  expect((await response.json()).title).toMatch(/venue/i);
});

test('what is no picture is refused, at once', async ({ request }) => {
  const headers = { cookie: await cookieOf(request, 'ivo') };
  const send = (buffer: Buffer) =>
    request.post('/api/v1/pictures', { headers, multipart: { file: { name: 'a.png', mimeType: 'image/png', buffer } } });
  const program = await send(Buffer.from('MZ this is a program'));
  expect(program.status()).toBe(422);
  expect((await program.json()).title).toContain('PNG, JPEG, GIF, WebP or AVIF');
  expect(
    await send(Buffer.alloc(23 * 1024 * 1024)).then(
      (r) => r.status(),
      () => 413,
    ),
  ).toBe(413);
  expect((await request.post('/api/v1/pictures', { headers, data: '{}' })).status()).toBe(422);
});

test('a page beyond the last one leads to the first', async ({ request }) => {
  const headers = { cookie: await cookieOf(request, 'ivo') };
  for (const [address, leads, holds] of [
    ['/desk/listings?words=harbour+choir&page=99', '/desk/listings?words=harbour+choir', 'Harbour Choir'],
    ['/desk/pictures?page=99', '/desk/pictures', 'Three seed packets'],
  ] as const) {
    const sent = await request.get(address, { headers, maxRedirects: 0 });
    expect(sent.headers().location, address).toBe(leads);
    expect(await (await request.get(leads, { headers })).text(), leads).toContain(holds);
  }
  // Where nothing is found at all, it is said.
  expect(await (await request.get('/desk/listings?words=zzzzzz', { headers })).text()).toContain('No listings match');
});
