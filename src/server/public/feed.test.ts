import { NO_FILTERS } from '@/core/filters/filters';
import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, type Places, seedPlaces } from '../../../tests/support/db';
import { siteOf } from '../../../tests/support/site';
import type { Db } from '../db/client';
import { venue } from '../db/schema';
import { createListing, publishListing } from '../listings/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { feedText } from './feed';
import { readersDates } from './readers-dates';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

const feed = async (): Promise<string[]> =>
  (await feedText(siteOf(db), await readersDates(siteOf(db), NO_FILTERS), 'https://almanac.example/feed.ics')).split('\r\n');
const saying = (lines: readonly string[], name: string): string[] => lines.filter((line) => line.startsWith(`${name}:`));

describe('the feed', () => {
  it('leads to no point of a venue that is said by its area, for the listing and for one of its dates', async () => {
    const blank = { ...BLANK_VENUE, town: 'Port Amble', lat: 43.3, lng: -57.6 };
    const { id: other } = await inTx(db, (tx) => saveVenue(tx, null, { ...blank, name: 'Orchard' }, EDITOR));
    const off = { movedTo: null, length: null, eventStatus: null, note: '' };
    const content = choir(places, { changes: [{ ...off, original: '2027-03-30T19:00', venueId: other }] });
    const row = await inTx(db, (tx) => createListing(tx, content, change()));
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    expect(saying(await feed(), 'GEO')).toEqual(['GEO:43.120000;-57.400000', 'GEO:43.300000;-57.600000']);

    await db.update(venue).set({ areaOnly: true }).where(eq(venue.id, other));
    expect(saying(await feed(), 'GEO')).toEqual(['GEO:43.120000;-57.400000']);
    await db.update(venue).set({ areaOnly: true, street: 'Slip Lane 4' });
    const lines = await feed();
    expect(saying(lines, 'GEO')).toEqual([]);
    expect(saying(lines, 'LOCATION').join()).toMatch(/Net Loft/);
    expect(lines.join()).not.toContain('Slip Lane');
  });
});
