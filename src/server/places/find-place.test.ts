import { beforeEach, describe, expect, it } from 'vitest';
import { EDITOR, freshDb, inTx } from '../../../tests/support/db';
import { GAZETTEER } from '../../../demo/gazetteer';
import type { TownMatch } from '@/core/geo/towns';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import { BLANK_VENUE, type VenueInput } from '../venues/input';
import { saveVenue } from '../venues/write';
import type { World } from '../world/world';
import type { FoundPlace } from '@/core/geo/gazetteer';
import { findPlaces } from './find-place';

let db: Db;
beforeEach(async () => {
  db = await freshDb();
});
const MIDDLE = { lat: 43.18, lng: -57.45 };
const town = (name: string, lat: number, lng: number, likeness = 1): TownMatch => ({
  name,
  lat,
  lng,
  likeness,
  region: 'Isles',
  country: 'CA',
  population: 900,
});
const find = async (words: string, towns: TownMatch[] = []) =>
  (await findPlaces({ db, world: { towns: async () => towns } as unknown as World }, words, MIDDLE)).places;
const venue = (part: Partial<VenueInput>) => inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, ...part }, EDITOR));

describe('a place is found in all that the site knows', () => {
  it('addresses used before teach it: the same number, the next one on the street, the venue by its name', async () => {
    await venue({ name: 'The Net Loft', street: '4 Slip Lane', town: 'Gannet Bay', lat: 43.11, lng: -57.4 });
    const [same] = await find('4 slip lane');
    expect(same).toMatchObject({ source: 'venues', exactness: 'house', point: { lat: 43.11, lng: -57.4 } });
    expect((await find('9 slip lane'))[0]).toMatchObject({ source: 'venues', exactness: 'street' });
    // Another house of the street does not stand below it as the street.
    await venue({ name: 'The Shed', street: '6 Slip Lane', town: 'Gannet Bay', lat: 43.111, lng: -57.401 });
    expect((await find('6 slip lane')).map(({ label }) => label)).toEqual([expect.stringMatching(/^6 Slip Lane/)]);
    expect((await find('net lofft'))[0]).toMatchObject({ source: 'venues', label: expect.stringContaining('The Net Loft') });
    await venue({ name: 'The Yard', street: 'Quayside 12b', town: 'Gannet Bay', lat: 43.12, lng: -57.41 });
    expect((await find('quayside 12'))[0]).toMatchObject({ source: 'venues', point: { lat: 43.12, lng: -57.41 } });
    expect(await find('zzzzzz')).toEqual([]);
  });
  it('what is known here goes before the world, and of the world what is near; one place stands once', async () => {
    await db.insert(setting).values({ key: 'gazetteer', value: GAZETTEER });
    const found = await find('gannet bay', [
      town('Gannet Bay', 57.5, -4.1),
      town('Gannet Bay', 43.9, -57.2),
      town('Gannet Bay', 43.11, -57.4),
    ]);
    const bays = found.filter(({ entry }) => entry.name === 'Gannet Bay');
    expect(bays.map(({ source }) => source)).toEqual(['site', 'world', 'world']);
    expect(bays[1]?.point).toEqual({ lat: 43.9, lng: -57.2 });
    expect(bays[2]).toMatchObject({ label: 'Gannet Bay, Isles, Canada', country: 'CA', region: 'Isles' });
    expect(found.length).toBeLessThanOrEqual(8);
  });

  it('a service is asked along, stands behind what is known here, and its silence is said beside what is found', async () => {
    await venue({ name: 'The Net Loft', street: '4 Slip Lane', town: 'Gannet Bay', lat: 43.11, lng: -57.4 });
    const point = { lat: 43.15, lng: -57.5 };
    const place: FoundPlace = {
      ...{
        entry: { kind: 'street', name: 'Slip Lane', town: 'Skerry', island: '', line: [point] },
        point,
        label: '4 Slip Lane, Skerry',
        number: 4,
      },
      ...{ exactness: 'house', likeness: 0.88, source: 'service', region: '', country: '', postcode: 'K1A 0B1' },
    };
    const asked: string[] = [];
    const ask = (wrong: string) => (words: string) => {
      asked.push(words);
      return Promise.resolve({ places: wrong ? [] : [place], wrong });
    };
    const world = { towns: async () => [] } as unknown as World;
    const both = await findPlaces({ db, world, service: ask('') }, '4 slip lane', MIDDLE);
    expect(both.places.map(({ source, label }) => [source, label])).toEqual([
      ['venues', expect.stringContaining('Gannet Bay')],
      ['service', '4 Slip Lane, Skerry'],
    ]);
    const alone = await findPlaces({ db, world, service: ask('It did not answer.') }, '4 slip lane', MIDDLE);
    expect([alone.places.length, alone.wrong]).toEqual([1, 'It did not answer.']);
    // A letter or two are sent to nobody.
    await findPlaces({ db, world, service: ask('') }, '4 ', MIDDLE);
    expect(asked).toHaveLength(2);
  });
});
