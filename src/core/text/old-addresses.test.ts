import { describe, expect, it } from 'vitest';
import { between, random, rounds, seedOf } from '../../../tests/support/generate';
import { addressKey, addressKeys, readOldAddresses } from './old-addresses';

const OWN = ['almanac.example'];
const pairs = (text: string) => readOldAddresses(text, OWN).addresses.map(({ from, to }) => `${from} > ${to}`);
const wrong = (text: string) => readOldAddresses(text, OWN).wrong.map(({ line, problem }) => `${line} ${problem}`);

describe('a table of old addresses', () => {
  it.each([
    ['old,new\n/choir.html,/what/harbour-choir', ['/choir.html > /what/harbour-choir']],
    ['/a\t/list', ['/a > /list']],
    ['/a;/list\n\n/b/;/list', ['/a > /list', '/b > /list']],
    [
      'https://old.example/events.php?id=7&lang=en,https://almanac.example/what/choir#dates',
      ['/events.php?id=7&lang=en > /what/choir#dates'],
    ],
    ['www.old.example/calendar/,/month', ['/calendar > /month']],
    ['/was für ein Tag,/list', ['/was%20f%C3%BCr%20ein%20Tag > /list']],
    ['/a,/b\n/b,/list', ['/a > /list', '/b > /list']],
    ['/a,/list\n/a/,/list', ['/a > /list']],
    ['/a,https://almanac.example//elsewhere.example/x', ['/a > /elsewhere.example/x']],
    ['"/a,b",/list', ['/a,b > /list']],
  ])('%j is read', (text, expected) => expect(pairs(text)).toEqual(expected));

  it.each([
    ['/a', ['1 no-pair']],
    ['/a,', ['1 no-pair']],
    ['old,new\nchoir,/list', ['2 not-an-address']],
    ['/a,https://elsewhere.example/x', ['1 elsewhere']],
    ['/a,//elsewhere.example/x', ['1 not-an-address']],
    ['/a/,/a', ['1 leads-to-itself']],
    ['/a,/list\n/a,/month', ['2 twice']],
    ['/a,/b\n/b,/c\n/c,/a', ['1 in-a-circle', '2 in-a-circle', '3 in-a-circle']],
    [`/${'a'.repeat(2000)},/list`, ['1 too-long']],
    ['/a,javascript:alert(1)', ['1 not-an-address']],
    ['/a,/\\elsewhere.example', ['1 not-an-address']],
  ])('%j is not taken', (text, expected) => {
    expect(wrong(text)).toEqual(expected);
  });

  it('is looked up with its query in any order, then without', () => {
    expect(addressKey(new URL('https://x.example/e/?b=2&a=1'))).toBe('/e?a=1&b=2');
    expect(addressKeys(new URL('https://x.example/e/?b=2&a=1'))).toEqual(['/e?a=1&b=2', '/e']);
    expect(addressKeys(new URL('https://x.example/'))).toEqual(['/']);
  });

  it('leads, whatever it holds, to no other host, to no old address and never around', () => {
    const next = random(seedOf());
    for (let i = 0; i < rounds(200); i++) {
      const lines = Array.from(
        { length: 30 },
        () => `/p${between(next, 1, 20)},${next() < 0.1 ? 'https://evil.example' : ''}/p${between(next, 1, 25)}`,
      );
      const { addresses, wrong: left } = readOldAddresses(lines.join('\n'), OWN);
      const from = new Set(addresses.map((one) => one.from));
      expect(from.size).toBe(addresses.length);
      for (const { to } of addresses) {
        expect(to.startsWith('/p')).toBe(true);
        expect(from.has(to)).toBe(false);
      }
      // Each line is taken, said to be wrong, or one that was there before.
      const said = new Set(left.map(({ line }) => line));
      for (const [at, line] of lines.entries())
        expect(said.has(at + 1) || lines.indexOf(line) < at || addresses.some((one) => one.line === at + 1), line).toBe(true);
    }
  });
});
