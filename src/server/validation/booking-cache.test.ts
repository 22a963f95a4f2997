import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { spansOf } from '@/core/dates/clashes';
import type { Occurrence } from '@/core/recurrence/model';
import type { Db } from '../db/client';
import { createListing, moveToStage } from '../listings/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { cached } from '../db/cache';
import { bookingsIn } from './booking-cache';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});
const make = (title: string, venueIds = [places.venue]) =>
  inTx(db, (tx) => createListing(tx, choir(places, { title, venueIds }), change()));
const tuesday: Occurrence[] = [{ start: { day: NOW.day + 6, minute: 1140 }, end: null } as Occurrence];
const find = async (revision: string | undefined, part: { venueIds?: string[]; not?: string | null; from?: number } = {}) => {
  const query = { venueIds: [places.venue], not: null, from: NOW.day, spans: spansOf(tuesday, 15), ...part };
  return [...new Set((await bookingsIn(db, { ...query, revision })).map((b) => b.title))].sort();
};

describe('what happens in a hall', () => {
  it('is remembered for a state of the content and a day, and for no other', async () => {
    const one = await make('Choir');
    expect(await find('r1')).toEqual(['Choir']);
    // The second time it is remembered.
    expect(await find('r1')).toEqual(['Choir']);
    await make('Supper');
    // The site says that something changed by another revision; until then the answer stands.
    expect(await find('r1')).toEqual(['Choir']);
    expect(await find('r2')).toEqual(['Choir', 'Supper']);
    expect(await find('r2', { not: one.id })).toEqual(['Supper']);
    expect(await find('r2', { from: NOW.day + 400 })).toEqual([]);
    // Where it is being changed right now, nothing is remembered.
    await inTx(db, (tx) => moveToStage(tx, one.id, 'binned', change()));
    expect(await find(undefined)).toEqual(['Supper']);
  });
  it('is each hall’s own, and of several together', async () => {
    const other = await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Lamp Room' }, EDITOR));
    await make('Choir');
    await make('Lamps', [other.id]);
    expect(await find('s1', { venueIds: [other.id] })).toEqual(['Lamps']);
    expect(await find('s1', { venueIds: [places.venue, other.id] })).toEqual(['Choir', 'Lamps']);
    expect(await find('s1', { venueIds: [] })).toEqual([]);
  });
  it('is asked again after a failure, and the oldest is forgotten first', async () => {
    let asked = 0;
    const ask = async (fails: boolean): Promise<number> => {
      asked++;
      if (fails) throw new Error('the database was away');
      return asked;
    };
    await expect(cached('t1', 'one', () => ask(true))).rejects.toThrow('away');
    expect(await cached('t1', 'one', () => ask(false))).toBe(2);
    expect(await cached('t1', 'one', () => ask(false))).toBe(2);
    for (let i = 0; i < 50; i++) await cached('t1', `other ${i}`, () => ask(false));
    expect(await cached('t1', 'one', () => ask(false))).toBe(53);
    expect(await cached(undefined, 'one', () => ask(false))).toBe(54);
  });
});
