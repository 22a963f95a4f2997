import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { Problem } from '../problem';
import { encodingFor, KeptPages, responseOf } from './kept-pages';

const html = (text: string, more: Record<string, string> = {}, status = 200): Response =>
  new Response(text, { status, headers: { 'content-type': 'text/html', ...more } });
const textOf = (page: { body: Uint8Array }): string => new TextDecoder().decode(page.body);
/** A page that is made when it is told to. */
function held(text: string): { make: () => Promise<Response>; let: () => void; made: () => number } {
  let made = 0;
  let open: () => void = () => undefined;
  const gate = new Promise<void>((done) => {
    open = done;
  });
  const make = async (): Promise<Response> => {
    made++;
    await gate;
    return html(text);
  };
  return { make, let: open, made: () => made };
}
const now = (text: string) => async () => html(text);

describe('kept pages', () => {
  it('are made once by a hundred who ask at once, and not again while their tag is the same', async () => {
    const pages = new KeptPages();
    const page = held('March');
    const all = Array.from({ length: 100 }, () => pages.answer({ address: '/month', etag: '1', make: page.make }));
    page.let();
    expect(new Set((await Promise.all(all)).map(textOf))).toEqual(new Set(['March']));
    await pages.answer({ address: '/month', etag: '1', make: page.make });
    expect(page.made()).toBe(1);
  });

  it('are made anew for another tag; who asks meanwhile gets the one before, for a second', async () => {
    let at = 0;
    const pages = new KeptPages(() => at);
    await pages.answer({ address: '/month', etag: '1', make: now('old') });
    const next = held('new');
    const first = pages.answer({ address: '/month', etag: '2', make: next.make });
    at = 900;
    expect(await pages.answer({ address: '/month', etag: '2', make: next.make })).toMatchObject({ etag: '1' });
    at = 1100;
    const late = pages.answer({ address: '/month', etag: '2', make: next.make });
    next.let();
    expect([textOf(await first), textOf(await late), next.made()]).toEqual(['new', 'new', 1]);
    // Whoever asks alone after a change gets the change.
    expect(textOf(await pages.answer({ address: '/month', etag: '3', make: now('newer') }))).toBe('newer');
  });

  it('that took long stand in the place of no newer one', async () => {
    const pages = new KeptPages();
    const slow = held('before the change');
    const first = pages.answer({ address: '/month', etag: '1', make: slow.make });
    expect(textOf(await pages.answer({ address: '/month', etag: '2', make: now('after it') }))).toBe('after it');
    slow.let();
    await first;
    expect(textOf(await pages.answer({ address: '/month', etag: '2', make: now('made once more') }))).toBe('after it');
  });

  it('errors, pages that set a cookie, and failures are not kept, and a failure reaches all who wait', async () => {
    const pages = new KeptPages();
    for (const [address, response] of [
      ['/lost', () => html('no', {}, 404)],
      ['/cookie', () => html('yours', { 'set-cookie': 'a=b' })],
    ] as const) {
      let made = 0;
      const make = async (): Promise<Response> => {
        made++;
        return response();
      };
      const ask = () => pages.answer({ address, etag: '1', make });
      await ask();
      await ask();
      expect(made, address).toBe(2);
    }
    const broken = () => pages.answer({ address: '/broken', etag: '1', make: () => Promise.reject(new Error('half')) });
    const both = await Promise.allSettled([broken(), broken()]);
    expect(both.map((one) => one.status)).toEqual(['rejected', 'rejected']);
    expect(textOf(await pages.answer({ address: '/broken', etag: '1', make: now('whole') }))).toBe('whole');
    expect(pages.size).toBeLessThan(5000);
  });

  it('stay within their memory, the ones asked for last', async () => {
    const pages = new KeptPages(undefined, 1_000_000);
    for (let i = 0; i < 500; i++) await pages.answer({ address: `/${i}`, etag: '1', make: now('x'.repeat(20_000)) });
    expect(pages.size).toBeLessThanOrEqual(1_000_000);
    expect(textOf(await pages.answer({ address: '/499', etag: '1', make: now('made anew') }))).toMatch(/^x+$/);
    expect(textOf(await pages.answer({ address: '/1', etag: '1', make: now('made anew') }))).toBe('made anew');
  });

  it('tell those who come when too many wait to come back', async () => {
    const pages = new KeptPages();
    const slow = held('late');
    const all = Array.from({ length: 408 }, (_, i) => pages.answer({ address: `/${i}`, etag: '1', make: slow.make }));
    await new Promise((resolve) => setImmediate(resolve));
    const refused = await pages.answer({ address: '/more', etag: '1', make: slow.make }).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(Problem);
    expect((refused as Problem).kind).toBe('busy');
    slow.let();
    expect(await Promise.all(all)).toHaveLength(408);
    expect(textOf(await pages.answer({ address: '/more', etag: '1', make: now('now') }))).toBe('now');
  });

  it('never give a page of another address, nor one older than a second, whatever the order of asking', async () => {
    const r = random(seedOf());
    let at = 0;
    const pages = new KeptPages(() => at, 60_000);
    let revision = 0;
    const asking: Promise<void>[] = [];
    for (let i = 0; i < rounds(3000); i++) {
      if (r() < 0.1) revision++;
      at += between(r, 0, 400);
      const address = `/${between(r, 0, 40)}`;
      const asked = revision;
      const make = async (): Promise<Response> => {
        if (r() < 0.5) await new Promise((resolve) => setImmediate(resolve));
        return html(`${address} ${asked} ${'.'.repeat(between(r, 0, 3000))}`);
      };
      asking.push(
        pages.answer({ address, etag: String(asked), make }).then((page) => {
          const [where, made] = textOf(page).split(' ');
          expect(where).toBe(address);
          if (Number(made) !== asked) expect(Number(page.etag)).toBeLessThan(asked);
          expect(String(made)).toBe(page.etag);
        }),
      );
      if (r() < 0.3) await Promise.all(asking.splice(0));
    }
    await Promise.all(asking);
  });

  it('go out in the encoding that is taken, and are the same text in all', async () => {
    const pages = new KeptPages();
    const text = 'Harbour Choir, Net Loft. '.repeat(400);
    const page = await pages.answer({ address: '/', etag: '1', make: now(text) });
    const r = random(seedOf() + 1);
    for (let i = 0; i < rounds(60); i++) {
      const header = pick(r, ['br', 'gzip, deflate', 'gzip;q=0.5, br;q=0', 'identity', '*', null, 'gzip, deflate, br, zstd', 'nonsense']);
      const response = await responseOf(page, header);
      const bytes = new Uint8Array(await response.arrayBuffer());
      const encoding = response.headers.get('content-encoding');
      const plain = encoding === 'br' ? brotliDecompressSync(bytes) : encoding === 'gzip' ? gunzipSync(bytes) : Buffer.from(bytes);
      expect(plain.toString(), String(header)).toBe(text);
      expect(response.headers.get('content-length')).toBe(String(bytes.length));
      if (header === null || header === 'identity' || header === 'nonsense') expect(encoding).toBeNull();
      if (header === 'gzip;q=0.5, br;q=0') expect(encoding).toBe('gzip');
      if (header?.includes('zstd')) expect(encoding).toBe('br');
    }
    expect(page.forms.size).toBe(2);
    const small = await pages.answer({ address: '/small', etag: '1', make: now('short') });
    expect(encodingFor('br', small)).toBe('identity');
    const picture = { headers: [['content-type', 'image/webp']] as [string, string][], body: new Uint8Array(5000) };
    expect(encodingFor('br', picture)).toBe('identity');
  });
});
