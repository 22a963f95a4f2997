import { describe, expect, it } from 'vitest';
import { type AddressStreet, houseOf, StreetGatherer } from './address-streets';
import { addressPlace, matchStreet, typedAddress } from './address-match';
import { readAddress } from './address-rows';

const address = (number: string, street: string, part: Record<string, string> = {}) => {
  const row = readAddress({ number, street, town: 'Gannet Bay', lat: '43.18', lng: '-57.45', ...part });
  if (typeof row === 'string') throw new Error(row);
  return row;
};
function streetsOf(rows: ReturnType<typeof address>[], town = ''): { streets: AddressStreet[]; guessed: number; taken: boolean[] } {
  const gatherer = new StreetGatherer(() => town);
  const taken = rows.map((row) => gatherer.add(row));
  return { streets: [...gatherer.streets()], guessed: gatherer.guessed, taken };
}

describe('addresses gathered by streets', () => {
  it('a street of a town is one, however it is written; flats of a house are one house', () => {
    const { streets, taken } = streetsOf([
      address('10', 'Rope Walk', { lat: '43.2' }),
      address('2', 'ROPE WALK', { postcode: 'K1A 0B1' }),
      address('2', 'Rope Walk'),
      address('2 A', 'Rope Walk', { postcode: 'K1A 0B2' }),
      address('2', 'Rope Walk', { town: 'Port Amble' }),
    ]);
    expect(taken).toEqual([true, true, false, true, true]);
    expect(streets.map(({ name, town, houses }) => [name, town, houses.numbers])).toEqual([
      ['Rope Walk', 'Gannet Bay', ['2', '2 A', '10']],
      ['Rope Walk', 'Port Amble', ['2']],
    ]);
    const [street] = streets as [AddressStreet];
    expect(street.words).toEqual(expect.arrayContaining(['rope', 'walk', 'gannet', 'bay', 'k1a', '0b1', '0b2']));
    expect(houseOf(street, '10')).toMatchObject({ point: { lat: 43.2, lng: -57.45 }, postcode: '' });
    expect(houseOf(street, '2a')).toMatchObject({ number: '2 A', postcode: 'K1A 0B2' });
    expect(houseOf(street, '1')).toBeUndefined();
    expect(houseOf(street, '3')).toBeUndefined();
  });
  it('a number that is parted is found by its beginning, another that only begins with its figures is not', () => {
    const [street] = streetsOf([address('12b', 'Slip Lane'), address('120', 'Slip Lane'), address('7-9', 'Slip Lane')]).streets as [
      AddressStreet,
    ];
    expect([houseOf(street, '12')?.number, houseOf(street, '7')?.number]).toEqual(['12b', '7-9']);
    expect(houseOf(street, '1')).toBeUndefined();
  });
  it('rows without a town have the nearest one, counted; far apart they are two streets', () => {
    const { streets, guessed } = streetsOf(
      [address('1', 'High Street', { town: '' }), address('2', 'High Street', { town: '' })],
      'Port Amble',
    );
    expect([streets.map(({ town }) => town), guessed]).toEqual([['Port Amble'], 2]);
  });
});

describe('a street and what was typed', () => {
  const [street] = streetsOf([
    address('221', '5th Avenue', { postcode: '04101' }),
    address('223', '5th Avenue', { postcode: '04102' }),
    address('225', '5th Avenue', { postcode: '04102' }),
  ]).streets as [AddressStreet];
  const MIDDLE = { lat: 43.18, lng: -57.45 };
  const place = (typed: string) => addressPlace(matchStreet(typedAddress(typed), street), MIDDLE);
  it('a number is a house where the street has none of it in its name', () => {
    expect(place('223 5th avenue gannet bay')).toMatchObject({
      label: '223 5th Avenue, Gannet Bay',
      exactness: 'house',
      postcode: '04102',
    });
    expect(place('5th ave 04101')).toMatchObject({ exactness: 'street', label: '5th Avenue, Gannet Bay' });
    expect(place('5th ave, 221')).toMatchObject({ exactness: 'house', number: 221 });
  });
  it('one that the street does not have counts a little less, and far away less', () => {
    expect(place('999 5th avenue').likeness).toBeLessThan(place('5th avenue').likeness);
    const far = addressPlace(matchStreet(typedAddress('5th avenue'), street), { lat: 44.5, lng: -57.45 });
    expect(far.likeness).toBeLessThan(place('5th avenue').likeness);
  });
  it('a postcode alone finds it, its town alone does not', () => {
    expect(matchStreet(typedAddress('04102'), street).likeness).toBeGreaterThan(0.7);
    expect(matchStreet(typedAddress('gannet bay'), street).likeness).toBe(0);
    expect(matchStreet(typedAddress('221'), street).likeness).toBe(0);
  });
});
