import { afterEach, describe, expect, it } from 'vitest';
import { type BadDay, type StandIn, serveGeocoder } from '../../../demo/geocoder';
import { readGeocoded } from './geocoded';
import { Geocoder, isPrivate } from './geocoder';

const MIDDLE = { lat: 43.18, lng: -57.45 };

let service: StandIn | undefined;
let other: StandIn | undefined;
afterEach(async () => {
  await service?.close();
  await other?.close();
  service = other = undefined;
});

async function asking(bad?: BadDay) {
  service = await serveGeocoder(bad);
  return service;
}

describe('an open geocoder', () => {
  it('finds a house with its street, town, postcode and country, says how exact it is, and is asked once', async () => {
    const { url, asked } = await asking();
    const geocoder = new Geocoder(true);
    const first = await geocoder.find(url, '3 chapel brae', MIDDLE);
    expect(first.wrong).toBe('');
    expect(first.places[0]).toMatchObject({
      source: 'service',
      exactness: 'house',
      label: expect.stringMatching(/^3 Chapel Brae, .*Kittiwick Isles$/),
      region: 'Kittiwick Isles',
      country: 'CA',
      postcode: 'K1A 0B1',
    });
    expect(await geocoder.find(url, ' 3  Chapel Brae', MIDDLE)).toEqual(first);
    expect(asked).toEqual(['3 chapel brae']);
    expect((await geocoder.find(url, 'zzzzzz', MIDDLE)).places).toEqual([]);
  });

  it.each<[string, BadDay, RegExp]>([
    ['hangs', 'hangs', /did not answer in time/],
    ['answers nonsense', 'nonsense', /no list of places/],
    ['answers another page', 'page', /no list of places/],
    ['fails', 'fails', /did not answer; this is/],
    ['never ends', 'endless', /no list of places/],
    ['leads around', { leadsTo: '/api' }, /did not answer; this is/],
    ['leads to a file', { leadsTo: 'file:///etc/hosts' }, /private network/],
  ])('that %s is said to do so, and does not keep anybody waiting', async (_, bad, says) => {
    const { url } = await asking(bad);
    const { places, wrong } = await new Geocoder(true).find(url, 'chapel brae', MIDDLE);
    expect([places, wrong]).toEqual([[], expect.stringMatching(says)]);
  });

  it('is not asked in a private network, by its number, by a name, or where another leads', async () => {
    const { url, asked } = await asking();
    const port = new URL(url).port;
    const geocoder = new Geocoder(false);
    for (const address of [
      url,
      `http://localhost:${port}/api`,
      `http://[::1]:${port}/api`,
      `http://[::ffff:127.0.0.1]:${port}/api`,
      `http://2130706433:${port}/api`,
    ])
      expect((await geocoder.find(address, 'chapel brae', MIDDLE)).wrong, address).toContain('private network');
    expect(asked).toEqual([]);
  });

  it('knows private networks from public ones', () => {
    const within = [
      '10.1.2.3',
      '127.0.0.1',
      '169.254.169.254',
      '172.31.0.1',
      '192.168.1.1',
      '100.64.0.1',
      '0.0.0.0',
      '224.0.0.1',
      '255.255.255.255',
    ];
    const within6 = ['::1', '::', 'fd00::1', 'fe80::1%eth0', 'ff02::1', '::ffff:10.0.0.1', '::ffff:7f00:1', '64:ff9b::a00:1', 'no address'];
    expect([...within, ...within6].filter((address) => !isPrivate(address))).toEqual([]);
    expect(['8.8.8.8', '172.32.0.1', '100.128.0.1', '2001:db8:1::1', '::ffff:8.8.8.8'].filter(isPrivate)).toEqual([]);
  });

  it('is read feature by feature: what is no place is left out, what is none at all is said', () => {
    const feature = (properties: object, coordinates: unknown = [-57.4, 43.1]) => ({
      type: 'Feature',
      geometry: { type: 'Point', coordinates },
      properties,
    });
    const places = readGeocoded(
      {
        features: [
          feature({ name: 'Gannet Bay', type: 'city', state: 'Isles' }),
          feature({ name: 'Net Loft', city: 'Gannet Bay', street: 'Slip Lane', housenumber: '4a', countrycode: 'xx' }),
          feature({ name: 12, city: 'Gannet Bay' }),
          feature({ name: 'Beyond' }, [999, 3]),
          feature({ name: 'Slip Lane', type: 'street', city: 'Gannet Bay' }),
          'Welcome',
        ],
      },
      5,
    );
    expect(places?.map(({ label, exactness, number, country, entry }) => [label, exactness, number, country, entry.kind])).toEqual([
      ['Gannet Bay, Isles', 'town', undefined, '', 'town'],
      ['4a Slip Lane, Net Loft, Gannet Bay', 'house', 4, '', 'street'],
      ['Slip Lane, Gannet Bay', 'street', undefined, '', 'street'],
    ]);
    expect(readGeocoded({ features: [] }, 5)).toEqual([]);
    for (const wrong of [null, [], 'x', {}, { features: 'x' }, { features: ['x'] }]) expect(readGeocoded(wrong, 5)).toBeUndefined();
  });
});
