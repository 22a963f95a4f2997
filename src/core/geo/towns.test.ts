import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { between, pick, random, seedOf } from '../../../tests/support/generate';
import { slipsAllowed, slipsBetween } from '../match/distance';
import { fold } from '../text/text';
import { countryName } from './countries';
import { Towns, type TownTable } from './towns';

/** An invented part of the world: name, region, country, latitude, longitude, people. */
const ISLES: [string, string, string, number, number, number][] = [
  ['Port Amble', 'Amble', 'CA', 43.18, -57.45, 4_100],
  ['Gannet Bay', 'Gannet', 'CA', 43.11, -57.4, 1_900],
  ['Outer Skerry', 'Skerry', 'CA', 43.09, -57.52, 640],
  ['Lantern Quay', 'Lantern', 'CA', 43.22, -57.37, 1_200],
  ['Gannet Bay', 'Firth Shore', 'GB', 57.5, -4.1, 52_000],
  ['Saint Dunlin', 'Amble', 'CA', 43.2, -57.5, 320],
  ['Skerry', 'Firth Shore', 'GB', 57.4, -4.2, 900],
  ['Tërn Élan', 'Rive', 'FR', 47.1, -1.9, 30_000],
  ['Westmost', 'Far', 'FJ', -17.2, -179.8, 5_000],
  ['Eastmost', 'Far', 'FJ', -17.1, 179.7, 4_000],
];

function tableOf(rows: typeof ISLES): TownTable {
  const regions = [...new Set(rows.map(([, region]) => region))];
  const countries = [...new Set(rows.map(([, , country]) => country))];
  return {
    format: 1,
    names: rows.map(([name]) => name).join('\n'),
    lat: rows.map((row) => Math.round(row[3] * 1e4)),
    lng: rows.map((row) => Math.round(row[4] * 1e4)),
    population: rows.map((row) => row[5]),
    region: rows.map(([, region]) => regions.indexOf(region)),
    country: rows.map(([, , country]) => countries.indexOf(country)),
    regions,
    countries,
  };
}

const isles = new Towns(tableOf(ISLES), countryName);
const found = (typed: string): string[] => isles.search(typed).map(({ name, region }) => `${name}, ${region}`);

describe('a town is found by what people type', () => {
  it.each([
    ['port amble', 'Port Amble, Amble'],
    ['PORT  AMBLE', 'Port Amble, Amble'],
    ['port am', 'Port Amble, Amble'],
    ['amble', 'Port Amble, Amble'],
    ['Port Ambel', 'Port Amble, Amble'],
    ['prot amble', 'Port Amble, Amble'],
    ['Port Amble, Amble, Canada', 'Port Amble, Amble'],
    ['St Dunlin', 'Saint Dunlin, Amble'],
    ['St. Dunlin', 'Saint Dunlin, Amble'],
    ['tern elan', 'Tërn Élan, Rive'],
    ['lantrn qu', 'Lantern Quay, Lantern'],
  ])('“%s”', (typed, first) => expect(found(typed)[0]).toBe(first));

  it('the larger before the smaller, unless the region or the country is said', () => {
    expect(found('Gannet Bay')).toEqual(['Gannet Bay, Firth Shore', 'Gannet Bay, Gannet']);
    expect(found('Gannet Bay, Canada')[0]).toBe('Gannet Bay, Gannet');
    expect(found('gannet bay gannet')).toEqual(['Gannet Bay, Gannet']);
    expect(found('Gannet Bay, UK')[0]).toBe('Gannet Bay, Firth Shore');
    expect(found('gannet bay scotland')).toEqual(['Gannet Bay, Firth Shore']);
  });
  it('a region that nobody knows behind a comma hides nothing', () =>
    expect(found('Outer Skerry, Nowhere')).toEqual(['Outer Skerry, Skerry']));
  it('a whole name goes before a part of one', () => expect(found('skerry')).toEqual(['Skerry, Firth Shore', 'Outer Skerry, Skerry']));
  it.each(['', '   ', ',,,', 'xqzw', '12345', '!'])('none for “%s”', (typed) => expect(found(typed)).toEqual([]));
  it('the nearest one to a point, over the date line too, and none in the middle of an ocean', () => {
    expect(isles.nearest({ lat: 43.1, lng: -57.41 })?.name).toBe('Gannet Bay');
    expect(isles.nearest({ lat: -17.19, lng: 179.99 })?.name).toBe('Westmost');
    expect(isles.nearest({ lat: -17.1, lng: 179.9 })?.name).toBe('Eastmost');
    expect(isles.nearest({ lat: 0, lng: -30 })).toBeUndefined();
  });
  it('those within bounds, largest first, with longitudes that go on over the date line', () => {
    const around = isles.within({ west: 179, east: 181, south: -18, north: -16 }, 9);
    expect(around.map(({ name, lng }) => [name, Math.round(lng * 10) / 10])).toEqual([
      ['Westmost', 180.2],
      ['Eastmost', 179.7],
    ]);
    expect(isles.within({ west: -58, east: -57, south: 43, north: 44 }, 2).map(({ name }) => name)).toEqual(['Port Amble', 'Gannet Bay']);
  });
});

describe('the towns of the world', () => {
  const table = JSON.parse(readFileSync('world/towns.json', 'utf8')) as TownTable;
  const world = new Towns(table, countryName);
  const names = table.names.split('\n');
  const keyOf = (name: string): string =>
    fold(name)
      .replace(/['’.]/g, '')
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()
      .slice(0, 60);
  const keys = names.map(keyOf);

  it(`each is found under its own name, seed ${seedOf()}`, () => {
    const r = random(seedOf());
    let asked = 0;
    for (let round = 0; round < 300; round++) {
      const i = between(r, 0, world.size - 1);
      const key = keys[i] as string;
      // Names in letters that this site's words are not written in, and those with a comma, are another matter.
      if (!key || names[i]?.includes(',')) continue;
      asked++;
      const region = table.regions[table.region[i] as number] ?? '';
      const typed = [
        names[i],
        region.replaceAll(',', ' '),
        countryName(table.countries[table.country[i] as number] as string).replaceAll(',', ' '),
      ]
        .filter(Boolean)
        .join(', ');
      const answers = world.search(typed);
      expect(
        answers.some((town) => keyOf(town.name) === key && town.region === region),
        typed,
      ).toBe(true);
    }
    expect(asked).toBeGreaterThan(250);
  });

  it(`with a slip, what a plain comparison with every name finds nearest is among the answers, seed ${seedOf()}`, () => {
    const r = random(seedOf() + 1);
    let asked = 0;
    for (let round = 0; round < 24; round++) {
      const i = between(r, 0, 20_000);
      const key = keys[i] as string;
      if (key.length < 6 || key.includes(' ')) continue;
      const at = between(r, 1, key.length - 2);
      const slipped = pick(r, [key.slice(0, at) + key.slice(at + 1), key.slice(0, at) + key[at + 1] + key[at] + key.slice(at + 2)]);
      const called = keys.some((other) => other.startsWith(slipped) || other.includes(` ${slipped}`));
      if (called || slipped === key) continue;
      asked++;
      const allowed = slipsAllowed(slipped.length);
      let least = allowed + 1;
      for (const other of keys) least = Math.min(least, slipsBetween(slipped, other, allowed));
      const [first] = world.search(slipped);
      expect(first, slipped).toBeDefined();
      expect(slipsBetween(slipped, keyOf(first?.name ?? ''), slipped.length), slipped).toBeLessThanOrEqual(Math.max(least, allowed));
    }
    expect(asked).toBeGreaterThan(4);
  });
});
