import { asc, eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import type { ListingContent } from '@/core/listing/content';
import { change, choir, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { dateName, occurrence, version } from '../db/schema';
import { type Changed, createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import { findMovedDate } from './date-names';
import { rebuildIndex } from './rebuild';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

/** The choir with another first start, on its weekday each week. */
function choirAt(start: string): ListingContent {
  const content = choir(places);
  const parts = content.recurrence?.parts.map((one) => ({ ...one, start, rule: one.rule && { ...one.rule, byDay: [] } }));
  return { ...content, recurrence: content.recurrence && { ...content.recurrence, parts: parts ?? [] } };
}
const SEVEN = '2027-03-23T19:00';
const EIGHT = '2027-03-23T20:00';

const publish = (content: ListingContent): Promise<Changed> =>
  inTx(db, async (tx) => {
    const row = await createListing(tx, content, change());
    return publishListing(tx, row.id, row.revision, change());
  });
const publishChange = (row: { id: string; revision: number }, content: ListingContent): Promise<Changed> =>
  inTx(db, async (tx) => {
    const saved = await saveListing(tx, { id: row.id, content, revision: row.revision }, change());
    return publishListing(tx, row.id, saved.revision, change());
  });
const ids = async (id: string): Promise<string[]> =>
  (await db.select().from(occurrence).where(eq(occurrence.listingId, id)).orderBy(asc(occurrence.startDay))).map((row) => row.dateId);

describe('ids of dates', () => {
  it('stay through another time of day, a move to another weekday, a withdrawal, and an index made anew', async () => {
    const row = await publish(choirAt(SEVEN));
    const first = await ids(row.id);
    expect(first).toHaveLength(10);
    expect(await db.select().from(dateName)).toEqual([]);

    const eight = await publishChange(row, choirAt(EIGHT));
    expect(eight.ended).toEqual([]);
    expect(await ids(row.id)).toEqual(first);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
    expect(await ids(row.id)).toEqual(first);

    const thursdays = await publishChange(eight, choirAt('2027-03-25T20:00'));
    expect(thursdays.ended).toEqual([]);
    expect(await ids(row.id)).toEqual(first);

    const withdrawn = await inTx(db, (tx) => moveToStage(tx, row.id, 'withdrawn', change()));
    await publishChange(withdrawn, choirAt(SEVEN));
    expect(await ids(row.id)).toEqual(first);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('lead from a former address to the date, and from a day that has two dates now to the first', async () => {
    const row = await publish(choirAt(SEVEN));
    const moved = await publishChange(row, choirAt('2027-03-25T20:00'));
    expect(await findMovedDate(db, row.id, '2027-03-23')).toBe('2027-03-25');
    expect(await findMovedDate(db, row.id, '2027-03-30')).toBe('2027-04-01');
    expect(await findMovedDate(db, row.id, '2027-03-24')).toBeUndefined();
    const content = choirAt('2027-03-25T20:00');
    const extra = { start: '2027-04-01T10:00', length: null, rule: null, limit: { kind: 'open' as const } };
    const recurrence = content.recurrence && { ...content.recurrence, parts: [...content.recurrence.parts, extra] };
    await publishChange(moved, { ...content, recurrence });
    expect(await findMovedDate(db, row.id, '2027-04-01')).toBe('2027-04-01T1000');
    expect(await findMovedDate(db, row.id, '2027-03-30')).toBe('2027-04-01T2000');
  });

  it('are told when their dates are no more, and come back with them', async () => {
    const row = await publish(choirAt(SEVEN));
    const first = await ids(row.id);
    const content = choirAt(SEVEN);
    const without = { ...content, recurrence: content.recurrence && { ...content.recurrence, exdates: ['2027-03-30T19:00'] } };
    const less = await publishChange(row, without);
    expect(less.ended).toEqual([{ original: '2027-03-30T19:00', dateId: '2027-03-30T19:00' }]);
    expect((await db.select().from(version).orderBy(asc(version.revision))).at(-1)?.what).toEqual({
      format: 1,
      code: 'publishedChanges',
      ended: 1,
    });
    await publishChange(less, choirAt(SEVEN));
    expect(await ids(row.id)).toEqual(first);
  });

  it('keep nothing of what only editors saw', async () => {
    const row = await inTx(db, (tx) => createListing(tx, choirAt(SEVEN), change()));
    await inTx(db, (tx) => saveListing(tx, { id: row.id, content: choirAt(EIGHT), revision: row.revision }, change()));
    expect((await ids(row.id))[0]).toBe('2027-03-23T20:00');
    expect(await db.select().from(dateName)).toEqual([]);
  });
});
