import { describe, expect, it } from 'vitest';
import { bodyUnder, headersUnder } from './under-path';

const answer = (body: string, type: string): Response =>
  new Response(body, { status: 404, headers: { 'content-type': type, 'content-length': String(body.length) } });

describe('an answer of a site below a path', () => {
  it('is a page whose own addresses lead below it, and nothing else', async () => {
    const page = `<a href="/list?a=1&amp;b=2">/list</a><form action="/add"><button formaction="/desk/x"></button></form><img src="/m.png" srcset="/m.png 1x, /n.png 2x"><a href="//other.example/x">o</a><a href="https://isles.example/list">w</a><a href="#d">d</a><a href="?y">y</a><p>/list "/list"</p><script>var a="/list"</script>`;
    const made = await bodyUnder('/events', answer(page, 'text/html; charset=utf-8'));
    expect(await made.text()).toBe(
      page
        .replace('href="/list?', 'href="/events/list?')
        .replace('action="/add"', 'action="/events/add"')
        .replace('formaction="/desk', 'formaction="/events/desk')
        .replaceAll('/m.png', '/events/m.png')
        .replaceAll('/n.png', '/events/n.png'),
    );
    expect([made.status, made.headers.get('content-length'), made.headers.get('content-type')]).toEqual([
      404,
      null,
      'text/html; charset=utf-8',
    ]);
  });

  it('is the manifest with its addresses below it; other data goes out as it is', async () => {
    const manifest = await bodyUnder(
      '/events',
      answer('{"start_url":"/","icons":[{"src":"/m.png"}],"name":"A / B"}', 'application/manifest+json; charset=utf-8'),
    );
    expect(await manifest.json()).toEqual({ start_url: '/events/', icons: [{ src: '/events/m.png' }], name: 'A / B' });
    for (const same of [answer('{"at":"/list"}', 'application/json'), answer('<a href="/list">', 'text/calendar')])
      expect(await bodyUnder('/events', same)).toBe(same);
    const page = answer('<a href="/list">', 'text/html');
    expect(await bodyUnder('', page)).toBe(page);
  });

  it('sends on below the path, and keeps its cookies there', () => {
    const headers = new Headers({ location: '/desk?a=/b' });
    headers.append('set-cookie', 'almanac.session=a; Path=/; HttpOnly');
    headers.append('set-cookie', 'almanac.other=b; HttpOnly; path=/');
    headers.append('set-cookie', 'almanac_page=c; Path=/first-visit; HttpOnly');
    headersUnder('/events', headers);
    expect(headers.get('location')).toBe('/events/desk?a=/b');
    expect(headers.getSetCookie()).toEqual([
      'almanac.session=a; Path=/events; HttpOnly',
      'almanac.other=b; HttpOnly; Path=/events',
      'almanac_page=c; Path=/events/first-visit; HttpOnly',
    ]);
    const whole = new Headers({ location: 'https://other.example/x' });
    headersUnder('/events', whole);
    expect(whole.get('location')).toBe('https://other.example/x');
    const foreign = new Headers({ location: '//other.example/x' });
    headersUnder('/events', foreign);
    expect(foreign.get('location')).toBe('//other.example/x');
    const root = new Headers({ location: '/x' });
    headersUnder('', root);
    expect(root.get('location')).toBe('/x');
  });
});
