import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { siteOf } from '../../../tests/support/site';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { listing, occurrence } from '../db/schema';
import { readTableQuery } from '../desk/table';
import { createListing, moveToStage, publishListing } from '../listings/write';
import { readComing } from '../public/public-dates';
import { BLANK_VENUE } from '../venues/input';
import { removeVenue, saveVenue } from '../venues/write';
import type { Runtime } from '../runtime-type';
import { readBookings } from '../dates/bookings';
import { startImport } from './import-jobs';
import { readPreview } from './import-preview';
import { EXPORT_FILES, exportListings } from './export';
import { keepFile } from './import-file';

let db: Db;
let places: Places;
let site: Runtime;
let hall: string;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  site = siteOf(db);
  const blank = { ...BLANK_VENUE, town: 'Port Amble', lat: 43.3, lng: -57.6 };
  hall = (await inTx(db, (tx) => saveVenue(tx, null, { ...blank, name: 'St Bride’s Hall' }, EDITOR))).id;
});

const make = (part: Partial<ListingContent> = {}) => inTx(db, (tx) => createListing(tx, choir(places, part), change()));
const off = { movedTo: null, length: null, eventStatus: null, note: '' };
/** Everything that a listing can hold. */
const full = (): Partial<ListingContent> => ({
  title: 'Harbour Choir, "out loud"',
  shortTitle: 'Choir',
  text: '<p>Forty <strong>voices</strong>;<br />no auditions.</p>',
  changes: [
    { ...off, original: '2027-03-30T19:00', venueId: hall },
    { ...off, original: '2027-04-06T19:00', movedTo: '2027-04-07T20:00', note: 'A day later' },
  ],
  cost: { kind: 'amount', amount: '8.50', currency: 'CAD' },
  contact: { name: 'Nan', phone: '555-0142', mail: 'nan@choir.example' },
  website: 'https://choir.example/',
  access: 'Step-free',
  attendance: 'both',
  onlineAddress: 'https://choir.example/live',
  callAddress: 'https://choir.example/book',
  callKind: 'book',
});
async function actionsOf(text: string): Promise<string[]> {
  const id = await keepFile(site, { name: 'file', bytes: new TextEncoder().encode(text) }, EDITOR);
  const { rows } = await readPreview(site, id, { action: '', page: 1 });
  return rows.map(
    ({ action, title, differences }) => `${action} ${title}${differences.map((d) => ` ${d.what}: ${d.before} > ${d.after}`).join()}`,
  );
}

describe('what is given out', () => {
  it.each(EXPORT_FILES.filter((name) => name !== 'dates.csv'))('as %s is the same when it comes back', async (what) => {
    await make(full());
    await make({ title: 'Tea', recurrence: null });
    const { text } = await exportListings(site, what);
    const actions = await actionsOf(text);
    expect(actions.filter((a) => !a.startsWith('same'))).toEqual([]);
    expect(actions.length).toBe(what === 'listings.json' ? 2 : 1);
  });

  it('as JSON makes the same listings on another site, whose places have other ids', async () => {
    const row = await make(full());
    const { text } = await exportListings(site, 'listings.json');
    const before = { ...row.working, changes: row.working.changes.map(({ venueId: _, ...rest }) => rest) };
    await db.delete(listing);
    await inTx(db, (tx) => removeVenue(tx, places.venue, null, change()));
    const { id } = await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Net Loft', town: 'Gannet Bay' }, EDITOR));
    const file = await keepFile(site, { name: 'x.json', bytes: new TextEncoder().encode(text) }, EDITOR);
    const job = await inTx(db, (tx) => startImport(tx, file, true, change()));
    expect(await site.jobs.wait(job, 20_000)).toMatchObject({ state: 'done', input: { made: 1, kept: [] } });
    const [made] = await db.select().from(listing);
    const { venueIds, changes, ...rest } = (made as NonNullable<typeof made>).working;
    const { venueIds: _v, changes: _c, ...same } = before;
    expect(rest).toEqual(same);
    expect([venueIds, changes[0]?.venueId, changes[1]?.note]).toEqual([[id], hall, 'A day later']);
    expect(made?.id).not.toBe(row.id);
  });

  it('is the table’s selection, drafts too, and of a contributor’s own only; dates have a row each', async () => {
    const one = await make(full());
    await make({ title: 'Bell Ringing' });
    const gone = await make({ title: 'Gone' });
    await inTx(db, (tx) => moveToStage(tx, gone.id, 'binned', change()));
    const query = (text: string) => ({ actor: EDITOR, query: readTableQuery(new URLSearchParams(text)) });
    const titles = async (selection?: { actor: Actor; query: ReturnType<typeof readTableQuery> }) =>
      (await exportListings(site, 'listings.csv', selection)).text
        .split('\r\n')
        .slice(1, -1)
        .filter(Boolean)
        .map((line) => line.split(',')[1]);
    expect(await titles(query(''))).toEqual(['Bell Ringing', '"Harbour Choir']);
    expect(await titles(query('words=bell'))).toEqual(['Bell Ringing']);
    const nan: Actor = { id: 'nobody', name: 'Nan', role: 'contributor' };
    expect(await titles({ ...query(''), actor: nan })).toEqual([]);
    const rows = (await exportListings(site, 'dates.csv', query('words=choir'))).text.split('\r\n').slice(1, -1);
    expect(rows).toHaveLength(10);
    expect(rows[1]).toContain('2027-03-30,19:00,2027-03-30,21:00,America/Halifax,St Bride’s Hall,Port Amble');
    expect(rows[2]).toContain('2027-04-07,20:00,2027-04-07,22:00,America/Halifax,Net Loft');
    const ics = (await exportListings(site, 'listings.ics', query('words=choir'))).text;
    expect(ics.match(/BEGIN:VEVENT/g)).toHaveLength(3);
    expect(ics).toContain(`UID:${one.id}@almanac.example`);
    expect(ics).toContain('LOCATION:St Bride’s Hall\\, Port Amble');
  });
});

describe('a date that is elsewhere', () => {
  it('is there for readers and for whoever else wants the place, and not where the listing usually is', async () => {
    const row = await make({ changes: [{ ...off, original: '2027-03-30T19:00', venueId: hall }] });
    await inTx(db, (tx) => publishListing(tx, row.id, 1, change()));
    const days = async (venueId: string) => (await readComing(db, { from: NOW.day, limit: 50, venueIds: [venueId] })).map((d) => d.date);
    expect(await days(hall)).toEqual(['2027-03-30']);
    expect(await days(places.venue)).toHaveLength(9);
    const booked = async (venueIds: string[]) => (await readBookings(db, { venueIds, not: null, from: NOW.day })).length;
    expect([await booked([hall]), await booked([places.venue]), await booked([hall, places.venue])]).toEqual([1, 9, 10]);
    // The place is removed: the date is where the others are, in both copies and in the index.
    await inTx(db, (tx) => removeVenue(tx, hall, null, change()));
    expect((await db.select().from(listing))[0]?.working.changes).toEqual([]);
    expect((await db.select().from(occurrence)).filter((o) => o.venueId)).toEqual([]);
    expect(await days(places.venue)).toHaveLength(10);
    expect(emptyContent().changes).toEqual([]);
  });
});
