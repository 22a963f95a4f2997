import { eq, sql } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { siteOf } from '../../../tests/support/site';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { readHealth } from '../health/read';
import { audit, listing, occurrence, published, setting, user, version } from '../db/schema';
import { findPublished } from '../public/listing';
import { horizonOf, insertRows } from '../dates/date-index';
import { rebuildIndex, startRebuild, whyRebuild, zoneRules } from '../dates/rebuild';
import { changeSlug, createListing, moveToStage, publishListing, saveListing } from './write';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

const make = (part = {}, by: Actor = EDITOR) => inTx(db, (tx) => createListing(tx, choir(places, part), change(by)));
const publish = (row: { id: string; revision: number }, by: Actor = EDITOR) =>
  inTx(db, (tx) => publishListing(tx, row.id, row.revision, change(by)));
const dates = (id: string) => db.select().from(occurrence).where(eq(occurrence.listingId, id)).orderBy(occurrence.startDay);

describe('a listing and its dates', () => {
  it('are written together, with version and audit line, hidden while it is a draft', async () => {
    const row = await make();
    expect(row.slug).toBe('harbour-choir');
    const index = await dates(row.id);
    expect(index).toHaveLength(10);
    expect(index.every((d) => !d.public)).toBe(true);
    expect(index[0]).toMatchObject({ original: '2027-03-23T19:00', slug: '2027-03-23', startMinute: 1140, endMinute: 1260 });
    expect(await db.select().from(version)).toHaveLength(1);
    expect((await db.select().from(audit)).some((a) => a.subjectId === row.id && a.what.code === 'made')).toBe(true);
  });

  it('show to readers once published, and rebuild finds nothing to change', async () => {
    const row = await publish(await make());
    expect(row.stage).toBe('published');
    expect((await dates(row.id)).every((d) => d.public)).toBe(true);
    expect(await rebuildIndex(db, SETTINGS, NOW)).toEqual({ listings: 1, dates: 10, differed: [] });
  });

  it('rebuild names what is missing and what is surplus, and mends it', async () => {
    const row = await publish(await make());
    await db.delete(occurrence).where(eq(occurrence.original, '2027-03-30T19:00'));
    const [one] = await dates(row.id);
    if (!one) throw new Error('no dates');
    await insertRows(db, [
      {
        listing_id: row.id,
        original: '2027-03-24T19:00',
        date_id: '2027-03-24T19:00',
        slug: 'x',
        start_day: one.startDay,
        start_minute: 1,
        end_day: null,
        end_minute: null,
        last_day: one.startDay,
        starts_at: '2027-03-24T19:00:00Z',
        ends_at: '2027-03-24T19:00:00Z',
        event_status: null,
        note: '',
        venue_id: null,
        moved: false,
        public: true,
      },
    ]);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([{ slug: 'harbour-choir', missing: 1, surplus: 1 }]);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('go on when the month changes: the horizon moves and open-ended listings get their new dates', async () => {
    const content = choir(places);
    const open = content.recurrence && {
      ...content.recurrence,
      parts: content.recurrence.parts.map((s) => ({ ...s, limit: { kind: 'open' as const } })),
    };
    const row = await publish(await make({ recurrence: open }));
    const before = await dates(row.id);
    await rebuildIndex(db, SETTINGS, NOW);
    expect(await whyRebuild(db, SETTINGS, NOW)).toBeUndefined();
    const later = { ...NOW, day: NOW.day + 31 };
    expect(await whyRebuild(db, SETTINGS, later)).toEqual({});
    const id = await inTx(db, (tx) => startRebuild(tx, 'horizon', 1, later));
    // Somebody works on it already.
    expect(await whyRebuild(db, SETTINGS, later)).toBeUndefined();
    expect(await siteOf(db, { now: later }).jobs.wait(id, 20_000)).toMatchObject({ state: 'done', done: 1, input: { changed: 1 } });
    const after = await dates(row.id);
    expect(after.length - before.length).toBeGreaterThanOrEqual(4);
    expect(after.slice(0, before.length)).toEqual(before);
    expect(await whyRebuild(db, SETTINGS, later)).toBeUndefined();
    expect((await rebuildIndex(db, SETTINGS, later)).differed).toEqual([]);
  });

  it('follow new rules of a time zone where they are to come, and stay as they were where they are over', async () => {
    const row = await publish(await make());
    const far = { ...NOW, day: NOW.day + 20 };
    await rebuildIndex(db, SETTINGS, far);
    const right = await dates(row.id);
    // As the index is when other rules made it: an hour off, all of it.
    await db.execute(sql`update occurrence set starts_at = starts_at + interval '1 hour', ends_at = ends_at + interval '1 hour'`);
    await db
      .update(setting)
      .set({ value: { format: 2, day: horizonOf(far.day, SETTINGS.horizonMonths), zones: '2019a' } })
      .where(eq(setting.key, 'horizon'));
    const why = await whyRebuild(db, SETTINGS, far);
    expect(why).toEqual({ zonesBefore: '2019a' });
    const id = await inTx(db, (tx) => startRebuild(tx, 'horizon', 1, far, why));
    const done = await siteOf(db, { now: far }).jobs.wait(id, 20_000);
    expect(done).toMatchObject({
      state: 'done',
      input: { zones: { from: '2019a', to: zoneRules() }, differed: [{ slug: 'harbour-choir' }] },
    });
    const after = await dates(row.id);
    const over = right.filter((date) => date.lastDay < far.day).length;
    expect(over).toBeGreaterThan(0);
    expect(after.slice(over)).toEqual(right.slice(over));
    for (const [i, date] of after.slice(0, over).entries())
      expect(new Date(date.startsAt).getTime() - new Date(right[i]?.startsAt ?? 0).getTime()).toBe(3_600_000);
    expect(await whyRebuild(db, SETTINGS, far)).toBeUndefined();
    // Asked for by hand, all of it is made anew.
    expect((await rebuildIndex(db, SETTINGS, far)).differed).toEqual([{ slug: 'harbour-choir', missing: over, surplus: over }]);
    expect((await readHealth(db, new Date(far.ms))).zones).toMatchObject({
      from: '2019a',
      listings: [{ slug: 'harbour-choir', title: 'Harbour Choir' }],
    });
  });

  it('are all undone when anything in the transaction fails', async () => {
    await inTx(db, async (tx) => {
      await createListing(tx, choir(places), change());
      throw new Error('power cut');
    }).catch(() => undefined);
    expect(await db.select().from(listing)).toEqual([]);
    expect(await db.select().from(occurrence)).toEqual([]);
  });
});

describe('working and published copy', () => {
  it('readers see edits only after publishing them', async () => {
    const row = await publish(await make());
    const edited = choir(places, { title: 'Harbour Choir, summer' });
    const saved = await inTx(db, (tx) => saveListing(tx, { id: row.id, content: edited, revision: row.revision }, change()));
    expect(saved.edited).toBe(true);
    const hit = await findPublished(db, 'harbour-choir');
    expect(hit && 'row' in hit && hit.row.title).toBe('Harbour Choir');
    await publish(saved);
    const after = await findPublished(db, 'harbour-choir');
    expect(after && 'row' in after && [after.row.title, after.row.sequence]).toEqual(['Harbour Choir, summer', 1]);
  });

  it('the index follows the published copy, not the working one', async () => {
    const row = await publish(await make());
    const content = choir(places);
    const shorter = { ...content, recurrence: content.recurrence && { ...content.recurrence, exdates: ['2027-03-30T19:00'] } };
    const saved = await inTx(db, (tx) => saveListing(tx, { id: row.id, content: shorter, revision: row.revision }, change()));
    expect(await dates(row.id)).toHaveLength(10);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
    await publish(saved);
    expect(await dates(row.id)).toHaveLength(9);
  });

  it('a listing by address only is in no view but has its page', async () => {
    const row = await publish(await make({ visibility: 'address-only' }));
    expect((await dates(row.id)).some((d) => d.public)).toBe(false);
    expect(await findPublished(db, row.slug)).toBeDefined();
  });

  it('withdrawing takes it from readers', async () => {
    const row = await publish(await make());
    await inTx(db, (tx) => moveToStage(tx, row.id, 'withdrawn', change()));
    expect(await findPublished(db, row.slug)).toBeUndefined();
    expect((await dates(row.id)).some((d) => d.public)).toBe(false);
    expect(await db.select().from(published)).toEqual([]);
  });
});

describe('two editors', () => {
  it('the second is refused with the newer copy and who saved it; nothing is overwritten', async () => {
    const row = await make();
    const first = choir(places, { title: 'By the first' });
    await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: first, revision: row.revision }, change({ ...EDITOR, name: 'Maud Petrel' })),
    );
    const second = inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: choir(places, { title: 'By the second' }), revision: row.revision }, change()),
    );
    const { kind, title, extra } = await problem(second);
    expect(kind).toBe('conflict');
    expect(title).toContain('Maud Petrel');
    expect((extra.newer as { content: { title: string } }).content.title).toBe('By the first');
    const [now] = await db.select().from(listing);
    expect(now?.title).toBe('By the first');
  });
});

describe('web addresses', () => {
  it('are made from the title, unique, and follow a draft’s title', async () => {
    const one = await make();
    const two = await make();
    expect([one.slug, two.slug]).toEqual(['harbour-choir', 'harbour-choir-2']);
    const saved = await inTx(db, (tx) =>
      saveListing(tx, { id: two.id, content: choir(places, { title: 'Évening at the Lóft' }), revision: two.revision }, change()),
    );
    expect(saved.slug).toBe('evening-at-the-loft');
  });

  it('an old one redirects after a change, and nobody else may take it', async () => {
    const row = await publish(await make());
    await inTx(db, (tx) => changeSlug(tx, row.id, 'choir', change()));
    expect(await findPublished(db, 'harbour-choir')).toEqual({ movedTo: 'choir' });
    expect((await make()).slug).toBe('harbour-choir-2');
  });

  it('a taken one is refused with one that is free', async () => {
    await make();
    const other = await make({ title: 'Tide-table Talk' });
    const { fields } = await problem(inTx(db, (tx) => changeSlug(tx, other.id, 'harbour-choir', change())));
    expect(fields[0]).toMatchObject({ field: 'slug' });
    expect(fields[0]?.message).toContain('harbour-choir-2');
  });

  it('one with capitals or blanks is refused with one that would do', async () => {
    const row = await make();
    const { fields } = await problem(inTx(db, (tx) => changeSlug(tx, row.id, 'Choir of 2027', change())));
    expect(fields[0]?.message).toContain('choir-of-2027');
  });
});

describe('what stops publishing', () => {
  it('a listing without a date', async () => {
    const row = await make({ recurrence: null });
    const { kind, fields } = await problem(publish(row));
    expect([kind, fields[0]?.field]).toEqual(['invalid', 'when']);
  });
  it('a script as its website', async () => {
    const row = await make({ website: 'javascript:alert(1)' });
    expect((await problem(publish(row))).fields[0]?.field).toBe('website');
  });
});

describe('a contributor', () => {
  const nan: Actor = { id: 'nan', name: 'Nan Tarbert', role: 'contributor' };
  beforeEach(() => db.insert(user).values({ id: 'nan', name: 'Nan Tarbert', email: 'nan@almanac.example', role: 'contributor' }));
  it('may not change somebody else’s listing', async () => {
    const row = await make();
    expect(
      (await problem(inTx(db, (tx) => saveListing(tx, { id: row.id, content: choir(places), revision: row.revision }, change(nan))))).kind,
    ).toBe('refused');
    expect((await problem(inTx(db, (tx) => moveToStage(tx, row.id, 'binned', change(nan))))).kind).toBe('refused');
    expect((await problem(inTx(db, (tx) => changeSlug(tx, row.id, 'mine', change(nan))))).kind).toBe('refused');
  });
  it('may write their own but not publish it', async () => {
    const row = await make({}, nan);
    const saved = await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: choir(places, { title: 'Mine' }), revision: row.revision }, change(nan)),
    );
    expect((await problem(publish(saved, nan))).kind).toBe('refused');
  });
});
