import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { addressTable, makeAddresses } from '../../../tests/support/address-file';
import { EDITOR, freshDb } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { addressFile, addressStreet, audit } from '../db/schema';
import { Problem } from '../problem';
import { TaskWorker } from '../worker/task-worker';
import { type AddedAddresses, AddressBook } from './address-book';

const MIDDLE = { lat: 43.18, lng: -57.45 };
const AT = new Date('2027-03-17T12:00:00Z');
const folder = mkdtempSync(path.join(tmpdir(), 'alm-addresses-'));
afterAll(() => rmSync(folder, { recursive: true }));

let db: Db;
let book: AddressBook;
beforeEach(async () => {
  db = await freshDb();
  book = new AddressBook(db, 'world', () => new TaskWorker(undefined));
});

const fileOf = (name: string, text: string | Uint8Array): string => {
  const at = path.join(folder, name);
  writeFileSync(at, text);
  return at;
};
const add = (name: string, text: string | Uint8Array, columns = {}): Promise<AddedAddresses> =>
  book.add({ path: fileOf(name, text), columns, credit: '' }, MIDDLE, EDITOR, AT);
const refusal = async (name: string, text: string | Uint8Array, columns = {}): Promise<string> => {
  const error = await add(name, text, columns).then(
    () => undefined,
    (wrong: unknown) => wrong,
  );
  if (!(error instanceof Problem)) throw new Error(`not refused: ${error}`);
  return error.title;
};
const found = async (typed: string): Promise<string[]> => (await book.find(typed, MIDDLE, 8)).map(({ label }) => label);

const ISLES = [
  'LON,LAT,NUMBER,STREET,UNIT,CITY,POSTCODE',
  '-57.400,43.110,3,Chapel Brae,,Port Amble,K1A 0B1',
  '-57.401,43.111,5,Chapel Brae,,Port Amble,K1A 0B1',
  '-57.500,43.200,3,Chapel Brae,,Gannet Bay,K2B 1C2',
  '-57.510,43.210,12,Harbour Road,,Gannet Bay,K2B 1C3',
].join('\n');

describe('an address file', () => {
  it('is taken in by streets and found as people type: half, with slips, short, number before or behind, with town or postcode', async () => {
    const added = await add('isles.csv', ISLES);
    expect(added).toMatchObject({ addresses: 4, streets: 3, leftOut: 0, guessed: 0, replaced: false });
    expect((await found('3 chapel brae'))[0]).toBe('3 Chapel Brae, Gannet Bay');
    expect((await found('3 chapel brae port amble'))[0]).toBe('3 Chapel Brae, Port Amble');
    expect(await found('chapl brea 5')).toEqual(['5 Chapel Brae, Port Amble', 'Chapel Brae, Gannet Bay']);
    expect(await found('12 hbr rd')).toEqual(['12 Harbour Road, Gannet Bay']);
    expect(await found('harb')).toEqual(['Harbour Road, Gannet Bay']);
    expect(await found('K2B 1C3')).toEqual(['Harbour Road, Gannet Bay']);
    // A town that nobody knows takes no street away.
    expect((await found('12 harbour road skerry'))[0]).toBe('12 Harbour Road, Gannet Bay');
    expect(await found('gannet bay')).toEqual([]);
    expect(await found('zzzzzz')).toEqual([]);
    expect(await found('12')).toEqual([]);
    expect(await found('')).toEqual([]);
    const [house] = await book.find('5 chapel brae', MIDDLE, 8);
    expect(house).toMatchObject({ source: 'addresses', exactness: 'house', postcode: 'K1A 0B1', point: { lat: 43.111, lng: -57.401 } });
  });
  it('of the same name takes the place of the one before; removed, its addresses are gone; each is noted', async () => {
    await add('isles.csv', ISLES);
    expect(await add('isles.csv', ISLES.replaceAll('Chapel Brae', 'Signal Terrace'))).toMatchObject({ replaced: true });
    expect([await found('chapel brae'), (await found('signal terrace')).length]).toEqual([[], 2]);
    expect((await book.files()).map(({ name, streets }) => [name, streets])).toEqual([['isles.csv', 3]]);
    await expect(book.remove('others.csv', EDITOR)).rejects.toThrow('It has: isles.csv');
    await book.remove('isles.csv', EDITOR);
    expect([await found('signal terrace'), await db.$count(addressStreet)]).toEqual([[], 0]);
    expect(await db.$count(audit)).toBe(3);
  });
  it('comes as GeoJSON too, in a collection or one a line, and compressed', async () => {
    const feature = (number: string, street: string) => ({
      type: 'Feature',
      properties: { hash: 'a', number, street, city: 'Gannet Bay' },
      geometry: { type: 'Point', coordinates: [-57.4, 43.1] },
    });
    const lines = [feature('1', 'Slip Lane'), { type: 'Feature', properties: {}, geometry: null }].map((one) => JSON.stringify(one));
    expect(await add('lines.geojson', `\u001e${lines.join('\n\u001e')}\n{oops\n`)).toMatchObject({
      addresses: 1,
      unit: 'line',
      wrong: [
        { line: 2, reason: 'it is no GeoJSON point' },
        { line: 3, reason: 'it is no JSON' },
      ],
    });
    const collection = JSON.stringify({ type: 'FeatureCollection', features: [feature('1', 'Net Row'), feature('', '')] }, null, 1);
    expect(await add('all.geojson.gz', gzipSync(collection))).toMatchObject({ addresses: 1, unit: 'feature', leftOut: 1 });
    expect([await found('slip lane'), await found('1 net row')]).toEqual([['Slip Lane, Gannet Bay'], ['1 Net Row, Gannet Bay']]);
  });
  it('names its broken rows by their lines, and takes the others', async () => {
    const added = await add(
      'broken.csv',
      `${ISLES}\n-57.4,43.1,9,,,Port Amble,\n"-57.4","43.1",9,"Rope\nWalk",,Port Amble,\nx,y,1,Slip Lane,,,\n0,0,1,Slip Lane,,,`,
    );
    expect(added).toMatchObject({
      addresses: 5,
      leftOut: 3,
      wrong: [
        { line: 6, reason: 'it names no street' },
        { line: 9, reason: 'its position is not in degrees (latitude −90 to 90, longitude −180 to 180)' },
        { line: 10, reason: 'it has no position' },
      ],
    });
    expect((await found('9 rope walk'))[0]).toBe('9 Rope Walk, Port Amble');
  });
  it('has its columns named where they are not found, and says what it has', async () => {
    const table = 'Weg;Nummer;Breite;Laenge\nRope Walk;4;43,11;-57,4\n';
    expect(await refusal('weg.csv', table)).toBe(
      'No column is recognised as lat, lng, street. The table has: Weg, Nummer, Breite, Laenge. Say which they are: --columns "lat=…,lng=…,street=…"',
    );
    const columns = { street: 'Weg', number: 'Nummer', lat: 'Breite', lng: 'Laenge' };
    expect(await refusal('weg.csv', table, { ...columns, lat: 'Hoehe' })).toContain('There is no column Hoehe.');
    expect(await add('weg.csv', table, columns)).toMatchObject({ addresses: 1, guessed: 1 });
    // Nobody lives near: no town is made up.
    expect((await found('4 rope walk'))[0]).toMatch(/^4 Rope Walk/);
  });
  it('that is none, or of elsewhere, is refused with what is wrong; what was there stays', async () => {
    await add('isles.csv', ISLES);
    for (const [text, says] of [
      [ISLES.replaceAll('43.', '13.'), 'The addresses lie elsewhere: the nearest is'],
      [ISLES.split('\n')[0] as string, 'The file has no rows.'],
      ['', 'The file has no rows.'],
      ['PK\u0003\u0004', 'This is a ZIP file.'],
      ['SQLite format 3', 'This is a database.'],
      ['{"type":"FeatureCollection","features":[', 'This is not whole JSON.'],
      ['{"a":1}', 'no GeoJSON with features'],
      [Buffer.from([0x1f, 0x8b, 1, 2, 3]), 'cannot be unpacked'],
      ['street,lat,lon\n,1,1\n,1,1\n', 'None of its 2 rows is an address. The first: it names no street.'],
      ['Low-tide Walk', 'No column is recognised'],
    ] as const)
      expect(await refusal('isles.csv', text)).toContain(says);
    await expect(book.add({ path: path.join(folder, 'nowhere'), columns: {}, credit: '' }, MIDDLE, EDITOR, AT)).rejects.toThrow(
      'There is no file',
    );
    expect([(await found('harbour road')).length, await db.$count(addressFile), book.reading]).toEqual([1, 1, undefined]);
  });
  it('is not found before all of it is there, and is gone where it breaks off; two at a time are refused', async () => {
    const made = makeAddresses(20_000, MIDDLE);
    const whole = addressTable(made);
    const name = made[0]?.street ?? '';
    const under = add('many.csv', whole);
    await expect(add('other.csv', ISLES)).rejects.toThrow('Another file is being read');
    expect(await found(name)).toEqual([]);
    await under;
    expect((await found(name)).length).toBeGreaterThan(0);
    // A process that ended while it read left a file that was never ready.
    await db.insert(addressFile).values({
      id: '01900000-0000-7000-8000-000000000000',
      name: 'half.csv',
      addresses: 1,
      streets: 1,
      leftOut: 0,
      credit: '',
      at: new Date(0),
    });
    expect((await book.files()).map(({ name }) => name)).toEqual(['many.csv']);
    await add('isles.csv', ISLES);
    expect(await db.$count(addressFile)).toBe(2);
  });
  it('each address that was made is found by its own words among thousands', async () => {
    const made = makeAddresses(6_000, MIDDLE);
    await add('many.csv', addressTable(made));
    for (let i = 0; i < made.length; i += 397) {
      const { number, street, town } = made[i] as (typeof made)[number];
      expect((await found(`${number} ${street}, ${town}`))[0]).toBe(`${number} ${street}, ${town}`);
    }
  });
});
