import { describe, expect, it } from 'vitest';
import { GAZETTEER } from '../../../demo/gazetteer';
import { random as randomOf } from '../../../tests/support/generate';
import { addressLines } from './postal-address';
import { along, searchGazetteer } from './gazetteer';
import { distanceKm } from './geo';

const first = (typed: string) => searchGazetteer(typed, GAZETTEER)[0];
const label = (typed: string): string | undefined => first(typed)?.label;

describe('the gazetteer', () => {
  it('finds a house on its street, in the order in which people say it', () => {
    for (const typed of ['3 Chapel Brae, Port Amble', 'chapel brae 3', 'Port Amble, Chapel Brae 3'])
      expect([typed, label(typed), first(typed)?.exactness]).toEqual([typed, '3 Chapel Brae, Port Amble, Amble', 'house']);
  });
  it('takes a street without a number, a number that the street does not have, a town alone, an island alone', () => {
    expect([label('chapel brae'), first('chapel brae')?.exactness]).toEqual(['Chapel Brae, Port Amble, Amble', 'street']);
    expect([label('900 Chapel Brae'), first('900 Chapel Brae')?.exactness]).toEqual(['Chapel Brae, Port Amble, Amble', 'street']);
    expect([label('gannet bay'), first('gannet bay')?.exactness]).toEqual(['Gannet Bay, Gannet', 'town']);
    expect(first('skerry ')?.exactness).toBe('island');
  });
  it('takes a short form and what is half typed', () => {
    expect(label('chapel b')).toBe('Chapel Brae, Port Amble, Amble');
    expect(label('hbr steps')).toBe('Harbour Steps, Port Amble, Amble');
  });
  it('puts higher house numbers further along the street', () => {
    const at = (n: number) => first(`${n} Rope Walk`)?.point as { lat: number; lng: number };
    const start = at(1);
    expect([distanceKm(start, at(9)) < distanceKm(start, at(20)), distanceKm(start, at(20)) < distanceKm(start, at(39))]).toEqual([
      true,
      true,
    ]);
  });
  it('forgives one slip in any longer word of any name', () => {
    const random = randomOf(7);
    const missed: string[] = [];
    let asked = 0;
    for (const entry of GAZETTEER.entries) {
      const words = entry.name.split(' ');
      for (let n = 0; n < 6; n++) {
        const i = words.findIndex((w) => w.length > 4);
        if (i < 0) continue;
        const word = words[i] as string;
        const at = 1 + Math.floor(random() * (word.length - 2));
        const slip = [
          word.slice(0, at) + word.slice(at + 1),
          `${word.slice(0, at)}x${word.slice(at + 1)}`,
          word.slice(0, at) + word[at] + word.slice(at),
        ][n % 3] as string;
        const typed = [...words.slice(0, i), slip, ...words.slice(i + 1), entry.town].join(' ').trim();
        asked++;
        const found = searchGazetteer(typed, GAZETTEER).slice(0, 2);
        if (!found.some((m) => m.entry === entry)) missed.push(typed);
      }
    }
    expect([missed, asked > 60]).toEqual([[], true]);
  });
  it('finds nothing rather than something else', () => {
    for (const typed of ['', '   ', '42', 'Zanzibar', 'qqqq wwww', '!!!', 'Elsewhere Street 4, Nowhere'])
      expect([typed, label(typed)]).toEqual([typed, undefined]);
    expect(searchGazetteer('brae '.repeat(5000), GAZETTEER).length).toBeLessThanOrEqual(8);
  });
  it('walks a line by its length', () => {
    const line = [
      { lat: 0, lng: 0 },
      { lat: 0, lng: 1 },
      { lat: 0, lng: 4 },
    ];
    expect([0, 0.25, 0.5, 1, 9].map((share) => Number(along(line, share).lng.toFixed(6)))).toEqual([0, 1, 2, 4, 4]);
    expect(() => along([], 0.5)).toThrow(RangeError);
  });
});

describe('addresses', () => {
  const parts = { street: '3 Chapel Brae', town: 'Port Amble', region: 'KI', postcode: 'K1A 0B1' };
  it('are written in the order of their country', () => {
    expect(addressLines(parts, 'CA')).toEqual(['3 Chapel Brae', 'Port Amble, KI K1A 0B1']);
    expect(addressLines(parts, 'GB')).toEqual(['3 Chapel Brae', 'Port Amble', 'KI', 'K1A 0B1']);
    expect(addressLines(parts, 'DE')).toEqual(['3 Chapel Brae', 'K1A 0B1 Port Amble']);
    expect(addressLines(parts, 'JP')).toEqual(['K1A 0B1', 'KI Port Amble', '3 Chapel Brae']);
    expect(addressLines(parts, 'XX')).toEqual(['3 Chapel Brae', 'Port Amble', 'KI K1A 0B1']);
  });
  it('leave no commas behind for what is missing', () => {
    expect(addressLines({ ...parts, region: '', postcode: '' }, 'CA')).toEqual(['3 Chapel Brae', 'Port Amble']);
    expect(addressLines({ ...parts, town: '', postcode: '' }, 'CA')).toEqual(['3 Chapel Brae', 'KI']);
    expect(addressLines({ street: '', town: '', region: '', postcode: '' }, 'CA')).toEqual([]);
  });
});
