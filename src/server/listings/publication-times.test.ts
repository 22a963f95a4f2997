import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { ContentCache } from '@/server/site/content-cache';
import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { log } from '../health/log';
import { listing, published, user } from '../db/schema';
import { onTopOf, readDates, readOnTop } from '../public/public-dates';
import { readFilters } from '@/core/filters/filters';
import { referenceData } from '../reference/read';
import type { Now } from '../site/clock';
import { keepTimes, setTimes, timesOf } from './publication-times';
import { createListing, moveToStage, publishListing, saveListing } from './write';

let db: Db;
let places: Places;
const NAN: Actor = { id: 'nan', name: 'Nan Tern', role: 'contributor' };
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  await db.insert(user).values({ id: 'nan', name: 'Nan Tern', email: 'nan@almanac.example' });
});
const make = (part: Partial<ListingContent> = {}) => inTx(db, (tx) => createListing(tx, choir(places, part), change()));
const row = async (id: string) => (await db.select().from(listing).where(eq(listing.id, id)))[0] as typeof listing.$inferSelect;
const out = async (id: string) => (await db.select().from(published).where(eq(published.listingId, id)))[0];
const set = async (id: string, publishAt: string | null, withdrawAt: string | null = null, by: Actor = EDITOR) => {
  const { revision } = await row(id);
  return inTx(db, (tx) => setTimes(tx, id, { revision, publishAt, withdrawAt }, change(by)));
};
/** The clock so many minutes on. */
const later = (minutes: number): Now => ({
  day: NOW.day + Math.floor((540 + minutes) / 1440),
  minute: (540 + minutes) % 1440,
  ms: NOW.ms + minutes * 60_000,
});
const tick = (minutes: number) => inTx(db, (tx) => keepTimes(tx, { now: later(minutes), settings: SETTINGS }));

describe('a listing that goes out by itself', () => {
  it('is scheduled until then, goes out in its editor’s name, and comes down again', async () => {
    const { id } = await make();
    expect((await set(id, '2027-03-17T10:00', '2027-03-18T09:00')).stage).toBe('scheduled');
    expect(timesOf(await row(id), SETTINGS)).toEqual({ publishAt: '2027-03-17T10:00', withdrawAt: '2027-03-18T09:00' });
    expect(await tick(59)).toEqual({ published: 0, withdrawn: 0, held: 0 });
    expect(await out(id)).toBeUndefined();
    expect(await tick(60)).toEqual({ published: 1, withdrawn: 0, held: 0 });
    expect(await out(id)).toMatchObject({ title: 'Harbour Choir' });
    expect(await row(id)).toMatchObject({ stage: 'published', publishAt: null, edited: false });
    expect(await tick(61)).toEqual({ published: 0, withdrawn: 0, held: 0 });
    expect(await tick(1440)).toEqual({ published: 0, withdrawn: 1, held: 0 });
    expect([await out(id), (await row(id)).stage, (await row(id)).withdrawAt]).toEqual([undefined, 'withdrawn', null]);
  });

  it('never goes out when the site was down over both times', async () => {
    const { id } = await make();
    await set(id, '2027-03-17T10:00', '2027-03-17T11:00');
    expect(await tick(600)).toEqual({ published: 0, withdrawn: 1, held: 0 });
    expect((await row(id)).stage).toBe('withdrawn');
  });

  it('is held by Proof when its time comes, and says why', async () => {
    const { id } = await make();
    const { revision } = await set(id, '2027-03-17T10:00');
    const [emptied] = [choir(places, { title: '' })];
    await inTx(db, (tx) => saveListing(tx, { id, content: emptied, revision }, change()));
    expect((await row(id)).stage).toBe('scheduled');
    expect(await tick(60)).toEqual({ published: 0, withdrawn: 0, held: 1 });
    expect(await row(id)).toMatchObject({ stage: 'draft', publishAt: null, scheduleWrong: expect.stringMatching(/title/i) });
    expect(await out(id)).toBeUndefined();
    expect(await tick(61)).toEqual({ published: 0, withdrawn: 0, held: 0 });
  });

  it('is tried again when it was the site that failed', async () => {
    const { id } = await make({ venueIds: [] });
    await set(id, '2027-03-17T10:00');
    const broken = { ...SETTINGS, zone: 'Nowhere/Else' };
    const errors = vi.spyOn(log, 'error').mockImplementation(() => undefined);
    const due = await inTx(db, (tx) => keepTimes(tx, { now: later(60), settings: broken }));
    expect(errors).toHaveBeenCalledTimes(1);
    errors.mockRestore();
    expect([due, (await row(id)).stage]).toEqual([{ published: 0, withdrawn: 0, held: 0 }, 'scheduled']);
    expect(await tick(61)).toEqual({ published: 1, withdrawn: 0, held: 0 });
  });

  it('is refused where it could not go out, to those who may not publish, and with other times than there can be', async () => {
    const { id } = await make();
    const blank = await make({ title: '' });
    expect(await problem(set(blank.id, '2027-03-17T10:00'))).toMatchObject({ kind: 'invalid' });
    expect(await problem(set(id, '2027-03-17T08:00'))).toMatchObject({ kind: 'invalid', fields: [{ field: 'publishAt' }] });
    expect(await problem(set(id, null, '2027-03-18T08:00'))).toMatchObject({ fields: [{ field: 'withdrawAt' }] });
    expect(await problem(set(id, '2027-03-18T08:00', null, NAN))).toMatchObject({ kind: 'refused' });
    const stale = inTx(db, (tx) => setTimes(tx, id, { revision: 9, publishAt: null, withdrawAt: null }, change()));
    expect(await problem(stale)).toMatchObject({ kind: 'conflict' });
    await inTx(db, (tx) => moveToStage(tx, id, 'binned', change()));
    expect(await problem(set(id, '2027-03-18T08:00'))).toMatchObject({ kind: 'conflict' });
    expect((await row(id)).publishAt).toBeNull();
  });

  it('is a draft again when its time is taken off, and at once public when somebody publishes it', async () => {
    const { id } = await make();
    await set(id, '2027-03-17T10:00', '2027-03-19T10:00');
    expect((await set(id, null)).stage).toBe('draft');
    await set(id, '2027-03-17T10:00', '2027-03-19T10:00');
    const now = await row(id);
    await inTx(db, (tx) => publishListing(tx, id, now.revision, change()));
    expect(await row(id)).toMatchObject({ stage: 'published', publishAt: null, withdrawAt: null });
    // What is out comes down by itself; its changes can wait for a time.
    await set(id, null, '2027-03-20T10:00');
    expect(await problem(set(id, '2027-03-18T10:00', '2027-03-20T10:00'))).toMatchObject({ kind: 'conflict' });
    const { revision } = await row(id);
    await inTx(db, (tx) => saveListing(tx, { id, content: choir(places, { title: 'Quay Choir' }), revision }, change()));
    expect((await set(id, '2027-03-18T10:00', '2027-03-20T10:00')).stage).toBe('published');
    await tick(1440);
    expect((await out(id))?.title).toBe('Harbour Choir');
    await tick(1500);
    expect((await out(id))?.title).toBe('Quay Choir');
    expect((await row(id)).withdrawAt).not.toBeNull();
    await tick(3 * 1440 + 60);
    expect(await out(id)).toBeUndefined();
  });
});

describe('kept on top of lists', () => {
  it('until its day, its next date first, by what a reader chose', async () => {
    const publish = async (part: Partial<ListingContent>) => {
      const made = await make(part);
      await inTx(db, (tx) => publishListing(tx, made.id, made.revision, change()));
    };
    await publish({ title: 'Lamp Night', onTopUntil: isoDay(NOW.day + 2) });
    await publish({ title: 'Seed Swap', onTopUntil: isoDay(NOW.day - 1) });
    await publish({ title: 'Rope Class' });
    await publish({ title: 'Unseen', onTopUntil: isoDay(NOW.day + 2), visibility: 'address-only' });
    const reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
    const context = { reference, currency: 'CAD', around: undefined };
    const top = async (day: number, query = '') =>
      (await readOnTop(db, day, readFilters(new URLSearchParams(query)), context)).map((d) => `${d.title} ${isoDay(d.startDay)}`);
    expect(await top(NOW.day)).toEqual(['Lamp Night 2027-03-23']);
    expect(await top(NOW.day + 2)).toEqual(['Lamp Night 2027-03-23']);
    expect(await top(NOW.day + 3)).toEqual([]);
    expect(await top(NOW.day, 'words=rope')).toEqual([]);
    const dates = await readDates(db, { from: NOW.day, to: NOW.day + 30 }, readFilters(new URLSearchParams()), context);
    expect(onTopOf(dates, NOW.day).map((d) => `${d.title} ${isoDay(d.startDay)}`)).toEqual(['Lamp Night 2027-03-23']);
    expect(dates.filter((d) => d.title === 'Lamp Night').length).toBeGreaterThan(1);
  });
});
