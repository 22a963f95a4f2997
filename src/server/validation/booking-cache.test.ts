import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { spansOf } from '@/core/dates/clashes';
import type { Occurrence } from '@/core/recurrence/model';
import type { Db } from '../db/client';
import { createListing, moveToStage } from '../listings/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { Answers } from '../site/content-cache';
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
const find = async (answers: Answers | undefined, part: { venueIds?: string[]; not?: string | null; from?: number } = {}) => {
  const query = { venueIds: [places.venue], not: null, from: NOW.day, spans: spansOf(tuesday, 15), ...part };
  return [...new Set((await bookingsIn(db, { ...query, answers })).map((b) => b.title))].sort();
};

describe('what happens in a hall', () => {
  it('is remembered for a state of the content and a day, and for no other', async () => {
    const one = await make('Choir');
    const [r1, r2] = [new Answers('r1'), new Answers('r2')];
    expect(await find(r1)).toEqual(['Choir']);
    // The second time it is remembered.
    expect(await find(r1)).toEqual(['Choir']);
    await make('Supper');
    // The site says that something changed by another revision; until then the answer stands.
    expect(await find(r1)).toEqual(['Choir']);
    expect(await find(r2)).toEqual(['Choir', 'Supper']);
    expect(await find(r2, { not: one.id })).toEqual(['Supper']);
    expect(await find(r2, { from: NOW.day + 400 })).toEqual([]);
    // Where it is being changed right now, nothing is remembered.
    await inTx(db, (tx) => moveToStage(tx, one.id, 'binned', change()));
    expect(await find(undefined)).toEqual(['Supper']);
  });
  it('is each hall’s own, and of several together', async () => {
    const s1 = new Answers('s1');
    const other = await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Lamp Room' }, EDITOR));
    await make('Choir');
    await make('Lamps', [other.id]);
    expect(await find(s1, { venueIds: [other.id] })).toEqual(['Lamps']);
    expect(await find(s1, { venueIds: [places.venue, other.id] })).toEqual(['Choir', 'Lamps']);
    expect(await find(s1, { venueIds: [] })).toEqual([]);
  });
});
