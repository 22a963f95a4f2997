import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { ContentCache } from '@/server/site/content-cache';
import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { isoDay, parseIsoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { job, listing, user } from '../db/schema';
import { referenceData } from '../reference/read';
import { readDeskDates, readDeskFilters } from './sheet-dates';
import { createListing, moveToStage, publishListing, saveListing } from '../listings/write';

const d = (text: string): number => parseIsoDay(text) as number;
let db: Db;
let places: Places;
const make = (part: Partial<ListingContent> = {}) => inTx(db, (tx) => createListing(tx, choir(places, part), change()));

beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

async function dates(query = '', actor: Actor = EDITOR, [from, to] = ['2027-03-29', '2027-04-11']): Promise<string[]> {
  const reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
  const filters = readDeskFilters(new URLSearchParams(query));
  const read = await readDeskDates(db, { actor, from: d(from), to: d(to), filters, reference, settings: SETTINGS });
  return read.dates.map((x) => `${isoDay(x.startDay)} ${x.title} ${x.stage}${x.edited ? ' edited' : ''}${x.moved ? ' moved' : ''}`);
}

describe('the Desk’s sheet', () => {
  it('has every stage but the bin, and what touches its edges', async () => {
    const draft = await make({ title: 'Draft' });
    const out = await make({ title: 'Out' });
    const gone = await make({ title: 'Gone' });
    const read = await make({ title: 'Read', headline: true });
    await inTx(db, (tx) => publishListing(tx, read.id, 1, change()));
    await inTx(db, (tx) => moveToStage(tx, out.id, 'withdrawn', change()));
    await inTx(db, (tx) => moveToStage(tx, gone.id, 'binned', change()));
    expect(await dates()).toEqual([
      '2027-03-30 Draft draft',
      '2027-03-30 Out withdrawn',
      '2027-03-30 Read published',
      '2027-04-06 Draft draft',
      '2027-04-06 Out withdrawn',
      '2027-04-06 Read published',
    ]);
    expect(await dates('stage=binned')).toHaveLength(2);
    expect(await dates('stage=draft,withdrawn&words=OU')).toEqual(['2027-03-30 Out withdrawn', '2027-04-06 Out withdrawn']);
    expect(draft.stage).toBe('draft');
    const recurrencePart = { start: '2027-03-25', length: { days: 7, minute: null }, rule: null, limit: { kind: 'open' as const } };
    await make({ title: 'Week', recurrence: { format: 3, zone: SETTINGS.zone, parts: [recurrencePart], exdates: [], breaks: [] } });
    expect(await dates('words=week')).toEqual(['2027-03-25 Week draft']);
  });
  it('shows working copies: changes that wait are where editors put them, until they are taken back', async () => {
    const row = await make();
    await inTx(db, (tx) => publishListing(tx, row.id, 1, change()));
    const moved = { original: '2027-03-30T19:00', movedTo: '2027-04-01T19:00', length: null, eventStatus: null, note: '' };
    await inTx(db, (tx) => saveListing(tx, { id: row.id, content: choir(places, { changes: [moved] }), revision: 2 }, change()));
    expect(await dates()).toEqual(['2027-04-01 Harbour Choir published edited moved', '2027-04-06 Harbour Choir published edited']);
    const back = await inTx(db, (tx) => saveListing(tx, { id: row.id, content: choir(places), revision: 3 }, change()));
    expect(back.edited).toBe(false);
    expect(await dates()).toEqual(['2027-03-30 Harbour Choir published', '2027-04-06 Harbour Choir published']);
  });
  it('is filtered by category and venue; a date that is elsewhere counts where it is', async () => {
    const stray = { original: '2027-03-30T19:00', movedTo: null, length: null, eventStatus: null, note: '', venueId: newId() };
    await make({ changes: [] });
    expect(await dates('kind=music-dance&venue=net-loft')).toHaveLength(2);
    expect(await dates('kind=unknown')).toEqual([]);
    expect(await dates('venue=unknown')).toEqual([]);
    await db.update(listing).set({ working: choir(places, { changes: [stray] }), stage: 'published', edited: true });
    expect(await dates('venue=net-loft')).toEqual(['2027-04-06 Harbour Choir published edited']);
  });
  it('shows a contributor their own only, and nobody what a job still brings in', async () => {
    const id = newId();
    await db.insert(user).values({ id, name: 'Nan', email: 'nan@almanac.example', role: 'contributor' });
    const row = await make();
    const nan: Actor = { id, name: 'Nan', role: 'contributor' };
    expect(await dates('', nan)).toEqual([]);
    await db.update(listing).set({ ownerId: id });
    expect(await dates('', nan)).toHaveLength(2);
    const at = new Date(0);
    const jobId = newId();
    const values = { id: jobId, kind: 'import' as const, state: 'running' as const, hidden: true, input: { format: 1 as const } };
    await db.insert(job).values({ ...values, byName: 'Ivo', startedAt: at, changedAt: at });
    await db.update(listing).set({ jobId }).where(eq(listing.id, row.id));
    expect(await dates()).toEqual([]);
    await db.update(job).set({ hidden: false });
    expect(await dates()).toHaveLength(2);
  });
});
