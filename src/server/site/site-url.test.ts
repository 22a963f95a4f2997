import { describe, expect, it } from 'vitest';
import { isOnlyHere, listeningAddress } from '@/core/text/origin';
import { SiteAddresses } from './site-url';

const site = (env: Record<string, string>, set = '') => new SiteAddresses(env, () => set);
const asked = (headers: Record<string, string>): Headers => new Headers(headers);

describe('where the site is reached', () => {
  it('is where it listens until somebody says otherwise', () => {
    expect(site({ ALMANAC_LISTENING: 'http://127.0.0.1:4399' }).primary()).toBe('http://127.0.0.1:4399');
    expect(site({}).primary()).toBe('http://127.0.0.1:4321');
    expect(site({ PORT: '8080' }).primary()).toBe('http://127.0.0.1:8080');
    expect(site({ ALMANAC_LISTENING: 'http://127.0.0.1:4399' }, 'https://almanac.example').primary()).toBe('https://almanac.example');
    const listed = { ALMANAC_LISTENING: 'http://127.0.0.1:4399', ALMANAC_ADDRESS: ' https://almanac.example/ , http://isles.example:81' };
    expect(site(listed).primary()).toBe('https://almanac.example');
  });

  it('is a request’s own host only when that is one of its names', () => {
    const one = site({ ALMANAC_LISTENING: 'http://127.0.0.1:4399', ALMANAC_ADDRESS: 'https://almanac.example,http://isles.example:81' });
    const cases: [Record<string, string>, string][] = [
      [{ host: 'isles.example:81' }, 'http://isles.example:81'],
      [{ host: 'ISLES.example:81' }, 'http://isles.example:81'],
      [{ host: '127.0.0.1:4399' }, 'http://127.0.0.1:4399'],
      [{ host: 'evil.example' }, 'https://almanac.example'],
      [{ host: 'isles.example' }, 'https://almanac.example'],
      [{ host: 'evil.example"><script>' }, 'https://almanac.example'],
      [{}, 'https://almanac.example'],
      // Nobody declared a proxy: whoever sends this is a stranger.
      [{ host: 'evil.example', 'x-forwarded-host': 'evil.example', 'x-forwarded-proto': 'https' }, 'https://almanac.example'],
    ];
    for (const [headers, address] of cases) expect(one.forRequest(asked(headers)), JSON.stringify(headers)).toBe(address);
    expect(one.primary()).toBe('https://almanac.example');
  });

  it('is what a declared proxy says, also for mails that no request causes', () => {
    const one = site({ ALMANAC_LISTENING: 'http://127.0.0.1:4399', ALMANAC_BEHIND_PROXY: '1' });
    const headers = { host: '127.0.0.1:4399', 'x-forwarded-host': 'almanac.example', 'x-forwarded-proto': 'https' };
    expect(one.forRequest(asked(headers))).toBe('https://almanac.example');
    expect(one.primary()).toBe('https://almanac.example');
    expect(one.forRequest(asked({ 'x-forwarded-host': 'bad host', host: '127.0.0.1:4399' }))).toBe('https://almanac.example');
    // Many proxies pass on whatever host they were asked for: where names were set, only those count.
    const set = site({ ALMANAC_BEHIND_PROXY: '1' }, 'https://almanac.example');
    expect(set.forRequest(asked({ 'x-forwarded-host': 'evil.example' }))).toBe('https://almanac.example');
    expect(set.primary()).toBe('https://almanac.example');
  });

  it('ends with the path of its host that it lies below, however it is named', () => {
    const below = {
      ALMANAC_LISTENING: 'http://127.0.0.1:4399',
      ALMANAC_ADDRESS: 'https://isles.example/other',
      ALMANAC_PATH: 'events/, /calendar',
    };
    const one = site(below);
    expect([one.path, one.primary()]).toEqual(['/events', 'https://isles.example/events']);
    expect(one.forRequest(asked({ host: '127.0.0.1:4399' }))).toBe('http://127.0.0.1:4399/events');
    expect(one.forRequest(asked({ host: 'evil.example' }))).toBe('https://isles.example/events');
    expect(site(below, 'https://almanac.example').primary()).toBe('https://almanac.example/events');
  });

  it('knows how a port that is open to all is reached from here, and what nobody else reaches', () => {
    expect(listeningAddress('0.0.0.0', 4321)).toBe('http://127.0.0.1:4321');
    expect(listeningAddress('::1', 80)).toBe('http://[::1]');
    expect(listeningAddress('isles.example', 8080)).toBe('http://isles.example:8080');
    for (const address of ['http://127.0.0.1:4321', 'http://localhost', 'http://[::1]:80']) expect(isOnlyHere(address), address).toBe(true);
    for (const address of ['https://almanac.example', 'http://10.0.0.4', '']) expect(isOnlyHere(address), address).toBe(false);
  });
});
