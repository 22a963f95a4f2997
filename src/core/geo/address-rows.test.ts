import { describe, expect, it } from 'vitest';
import { addressColumns, readAddress, streetAndNumber } from './address-rows';

describe('columns of a table of addresses', () => {
  it('are found by their headings, however these are written, each field once', () => {
    expect(addressColumns('LON,LAT,NUMBER,STREET,UNIT,CITY,DISTRICT,REGION,POSTCODE,ID'.split(','))).toEqual([
      'lng',
      'lat',
      'number',
      'street',
      undefined,
      'town',
      undefined,
      'region',
      'postcode',
      undefined,
    ]);
    expect(addressColumns(['addr:housenumber', 'addr:street', 'addr:city', 'Latitude', 'longitude'])).toEqual([
      'number',
      'street',
      'town',
      'lat',
      'lng',
    ]);
    expect(addressColumns(['Full Address', 'y', 'x'])).toEqual(['address', 'lat', 'lng']);
    expect(addressColumns(['colour', 'shape'])).toEqual([undefined, undefined]);
  });
  it('are those that somebody names, before what would be found', () => {
    const chosen = { street: 'Way (official)', lat: 'Breite' };
    expect(addressColumns(['Street', 'way (official)', 'breite', 'lon'], chosen)).toEqual([undefined, 'street', 'lat', 'lng']);
  });
});

describe('a row', () => {
  const row = { lat: '43.18', lng: '-57.45', number: ' 12  a ', street: 'Rope  Walk', town: 'Gannet Bay', postcode: 'K1A 0B1' };
  it('is an address with its position; decimals may stand behind a comma', () => {
    expect(readAddress({ ...row, lat: '43,18' })).toEqual({
      number: '12 a',
      street: 'Rope Walk',
      town: 'Gannet Bay',
      region: '',
      postcode: 'K1A 0B1',
      lat: 43.18,
      lng: -57.45,
    });
    // What a spreadsheet makes of a number.
    expect(readAddress({ ...row, number: '12.0' })).toMatchObject({ number: '12' });
  });
  it('may have street and number in one', () => {
    const one = (address: string) => readAddress({ lat: '1', lng: '1', address });
    expect(one('12 Rope Walk, Gannet Bay')).toMatchObject({ number: '12', street: 'Rope Walk' });
    expect(one('Rope Walk 12b')).toMatchObject({ number: '12b', street: 'Rope Walk' });
    expect(streetAndNumber('12-14 Rope Walk')).toEqual({ number: '12-14', street: 'Rope Walk' });
    expect(streetAndNumber('12 Highway 7')).toEqual({ number: '12', street: 'Highway 7' });
    expect(streetAndNumber('Rope Walk')).toEqual({ number: '', street: 'Rope Walk' });
  });
  it('is refused with what it lacks', () => {
    expect(readAddress({ ...row, street: ' ' })).toBe('no-street');
    expect(readAddress({ ...row, street: '--' })).toBe('no-street');
    expect(readAddress({ ...row, lat: '' })).toBe('no-position');
    expect(readAddress({ ...row, lat: '0', lng: '0.0' })).toBe('no-position');
    expect(readAddress({ ...row, lat: '4531234.2', lng: '512345.9' })).toBe('not-degrees');
    expect(readAddress({ ...row, lat: 'north' })).toBe('not-degrees');
    expect(readAddress({ ...row, lng: '-181' })).toBe('not-degrees');
    expect(readAddress({ ...row, town: 'x'.repeat(121) })).toBe('too-long');
  });
});
