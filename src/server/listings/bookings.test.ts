import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { createListing, moveToStage, publishListing, saveListing } from './write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { readBookings } from './bookings';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

const make = (part: Partial<ListingContent> = {}) => inTx(db, (tx) => createListing(tx, choir(places, part), change()));
const titles = async (not: string | null = null, venueIds = [places.venue]): Promise<string[]> => [
  ...new Set((await readBookings(db, { venueIds, not, from: NOW.day })).map(([title]) => title)),
];

describe('bookings of a venue', () => {
  it('are the dates of published listings and of those being prepared, but not of the one that asks', async () => {
    const draft = await make({ title: 'Draft' });
    const shown = await make({ title: 'Shown' });
    await inTx(db, (tx) => publishListing(tx, shown.id, shown.revision, change()));
    expect((await titles()).sort()).toEqual(['Draft', 'Shown']);
    expect(await titles(draft.id)).toEqual(['Shown']);
    expect(await readBookings(db, { venueIds: [places.venue], not: draft.id, from: NOW.day })).toHaveLength(10);
    expect(await readBookings(db, { venueIds: [], not: null, from: NOW.day })).toEqual([]);
  });

  it('leave out what takes no room: withdrawn, binned, online, cancelled as a whole or on a date', async () => {
    const gone = await make({ title: 'Gone' });
    await inTx(db, (tx) => moveToStage(tx, gone.id, 'withdrawn', change()));
    await make({ title: 'Online', attendance: 'online', onlineAddress: 'https://live.example' });
    await make({ title: 'Off', standing: 'cancelled' });
    const part = { movedTo: null, length: null, note: '' } as const;
    await make({ title: 'Once off', changes: [{ ...part, original: '2027-03-30T19:00', standing: 'cancelled' }] });
    const rows = await readBookings(db, { venueIds: [places.venue], not: null, from: NOW.day });
    expect([...new Set(rows.map(([title]) => title))]).toEqual(['Once off']);
    expect(rows).toHaveLength(9);
  });

  it('of a published listing follow what readers see until the changes are published', async () => {
    const other = await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Lamp Room' }, EDITOR));
    const row = await make({ title: 'Moving' });
    const published = await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    const saved = await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, venueIds: [other.id] }, revision: published.revision }, change()),
    );
    expect([await titles(), await titles(null, [other.id])]).toEqual([['Moving'], []]);
    await inTx(db, (tx) => publishListing(tx, row.id, saved.revision, change()));
    expect([await titles(), await titles(null, [other.id])]).toEqual([[], ['Moving']]);
  });
});
