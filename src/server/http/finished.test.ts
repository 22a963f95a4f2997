import { describe, expect, it } from 'vitest';
import { finished } from './finished';

const half = (type: string): Response =>
  new Response(
    new ReadableStream({
      start: (controller) => controller.enqueue(new TextEncoder().encode('<!doctype html><p>One half')),
      pull: (controller) => controller.error(new Error('the database went away')),
    }),
    { headers: { 'content-type': type, etag: '"x"' } },
  );

describe('a page', () => {
  it('that fails half-way is an error', async () => {
    await expect(finished(half('text/html; charset=utf-8'))).rejects.toThrow('the database went away');
  });
  it('keeps its status, headers and every byte', async () => {
    const page = await finished(new Response('<p>Ærø – 1', { status: 422, headers: { 'content-type': 'text/html', allow: 'GET' } }));
    expect([page.status, page.headers.get('allow'), await page.text()]).toEqual([422, 'GET', '<p>Ærø – 1']);
  });
  it('that is a file, or nothing, is handed on as it is', async () => {
    const file = half('text/calendar');
    expect(await finished(file)).toBe(file);
    const none = new Response(null, { status: 304 });
    expect(await finished(none)).toBe(none);
  });
});
