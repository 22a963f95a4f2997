import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { ContentCache } from '../site/content-cache';
import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { yearMarks } from '../../../tests/support/year-marks';
import { problem } from '../../../tests/support/problem';
import { siteOf } from '../../../tests/support/site';
import type { ListingContent } from '@/core/listing/content';
import { TitleIndex } from '@/core/match/title-index';
import type { Db } from '../db/client';
import { listing, listingCopy, oldSlug, validationNote, published } from '../db/schema';
import { startJob } from '../jobs/runner';
import { mergeListings } from '../listings/merge';
import { createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import { referenceData } from '../reference/read';
import { findPublished } from '../public/listing';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { saveSettings } from '../site/write';
import { fullContext, type ValidationSite } from './context';
import { fixMany } from './quick-fixes';
import { countKinds, readNotes } from './read';
import { titlesOf } from './titles';
import { countDue, validateListing, readWaivers, startValidation, unwaiveNote, waiveNote } from './write';
import { validate } from '@/core/validation/validate';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});
const AT = new Date(NOW.ms);
let turn = 0;
/** Of a state of the content that nobody asked about before. */
const cacheNow = () => new ContentCache(() => `proof ${turn++}`);
const siteNow = async (): Promise<ValidationSite> => {
  const cache = cacheNow();
  return {
    db,
    settings: SETTINGS,
    now: NOW,
    reference: await referenceData({ db, cache, settings: () => DEFAULT_SETTINGS }),
    titles: await titlesOf(db, cache),
    yearMarks: yearMarks(),
  };
};
const make = (part: Partial<ListingContent> = {}) => inTx(db, (tx) => createListing(tx, choir(places, part), change()));
const publish = async (part: Partial<ListingContent> = {}) => {
  const row = await make(part);
  return inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
};
const notesOf = async (id: string) => {
  const site = await siteNow();
  return inTx(db, (tx) => validateListing(tx, site, id));
};
const kindsOf = async (id: string) =>
  (await db.select().from(validationNote).where(eq(validationNote.listingId, id))).map((n) => n.kind).sort();

describe('Proof against everything else', () => {
  it('looks at everything again when times, dates or the zone are written otherwise, and at nothing when the name is', async () => {
    const row = await make();
    await inTx(db, (tx) => saveSettings(tx, SETTINGS, EDITOR));
    await notesOf(row.id);
    expect(await countDue(db, NOW)).toBe(0);
    await inTx(db, (tx) => saveSettings(tx, { ...SETTINGS, name: 'The Outer Almanac' }, EDITOR));
    expect(await countDue(db, NOW)).toBe(0);
    for (const changed of [{ hours: '12' as const }, { date: 'iso' as const }, { zone: 'Europe/London' }]) {
      await inTx(db, (tx) => saveSettings(tx, { ...SETTINGS, ...changed }, EDITOR));
      expect(await countDue(db, NOW), JSON.stringify(changed)).toBe(1);
      await inTx(db, (tx) => saveSettings(tx, SETTINGS, EDITOR));
      await notesOf(row.id);
    }
  });

  it('finds who needs the same place, with the time to set up, and lookalikes with slips', async () => {
    await inTx(db, (tx) => saveVenue(tx, places.venue, { ...BLANK_VENUE, name: 'Net Loft', setUpMinutes: 30 }, EDITOR));
    const choirRow = await make();
    const near = {
      format: 3 as const,
      zone: SETTINGS.zone,
      parts: [{ start: '2027-03-23T21:20', length: { days: 0, minute: 1380 }, rule: null, limit: { kind: 'open' as const } }],
      exdates: [],
      breaks: [],
    };
    const after = await make({ title: 'Late Supper', recurrence: near });
    const twin = await make({ title: 'Harbor Choirs' });
    const site = await siteNow();
    const found = validate(choirRow.working, await fullContext(site, choirRow.id, choirRow.working));
    expect(
      found
        .filter((n) => n.kind === 'venue-clash')
        .map((n) => n.subject?.listingId)
        .sort(),
    ).toEqual([after.id, twin.id].sort());
    expect(found.filter((n) => n.kind === 'lookalike').map((n) => n.subject?.listingId)).toEqual([twin.id]);
    // Without the margin the supper does not touch it.
    await inTx(db, (tx) => saveVenue(tx, places.venue, { ...BLANK_VENUE, name: 'Net Loft' }, EDITOR));
    const again = validate(choirRow.working, await fullContext(await siteNow(), choirRow.id, choirRow.working));
    expect(again.filter((n) => n.kind === 'venue-clash').map((n) => n.subject?.listingId)).toEqual([twin.id]);
    expect(again.some((n) => n.kind === 'same-title')).toBe(false);
  });

  it('keeps the index of titles true while listings change, go and come back', async () => {
    const a = await make();
    const b = await make({ title: 'Seed Swap' });
    const cache = cacheNow();
    const search = async (words: string) => (await titlesOf(db, cache)).search(words);
    expect(await search('sed swap')).toEqual([]);
    expect(await search('seeds swap')).toEqual([b.id]);
    await inTx(db, (tx) => saveListing(tx, { id: b.id, content: { ...b.working, title: 'Bread Market' }, revision: 1 }, change()));
    expect([await search('seed'), await search('bread')]).toEqual([[], [b.id]]);
    await inTx(db, (tx) => moveToStage(tx, a.id, 'binned', change()));
    expect(await search('harbour')).toEqual([]);
    await inTx(db, (tx) => moveToStage(tx, a.id, 'draft', change()));
    expect(await search('harbour')).toEqual([a.id]);
    const index = await titlesOf(db, cache);
    const anew = new TitleIndex();
    for (const row of await db.select().from(listing)) anew.set(row.id, row.title);
    expect([index.size, index.weight('harbour')]).toEqual([anew.size, anew.weight('harbour')]);
  });
});

describe('what is open', () => {
  it('is written down by a job, of what changed only, and counted by kind', async () => {
    const site = siteOf(db);
    const row = await publish({ summary: '' });
    await make({ title: 'SEED SWAP', summary: '' });
    expect(await countDue(db, NOW)).toBe(2);
    const job = await inTx(db, (tx) => startValidation(tx, NOW));
    expect((await site.jobs.wait(job as string, 20_000)).state).toBe('done');
    expect(await countDue(db, NOW)).toBe(0);
    expect(await inTx(db, (tx) => startValidation(tx, NOW))).toBeUndefined();
    const kinds = await countKinds(db, NOW.day);
    expect(kinds.find((k) => k.kind === 'summary-missing')).toMatchObject({ listings: 2, severity: 'warning' });
    expect((await readNotes(db, 'title-capitals', NOW.day, 10)).map((n) => [n.title, n.quickFix])).toEqual([
      ['SEED SWAP', { code: 'writeTitle', with: { title: 'Seed swap' } }],
    ]);
    await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, summary: 'Sing.' }, revision: row.revision }, change()),
    );
    expect(await countDue(db, NOW)).toBe(1);
    // A day later all are due again, and a venue that changes makes its listings due.
    expect(await countDue(db, { ...NOW, day: NOW.day + 1 })).toBe(2);
  });

  it('lets work that somebody waits for go first, and goes on later', async () => {
    const site = siteOf(db);
    await make();
    const validation = await inTx(db, (tx) => startValidation(tx, NOW));
    const other = await inTx(db, (tx) => startJob(tx, { kind: 'rebuild', total: 1, input: {}, by: EDITOR, now: NOW }));
    expect((await site.jobs.wait(validation as string, 20_000)).state).toBe('done');
    expect((await site.jobs.wait(other, 20_000)).state).toBe('done');
    expect(await countDue(db, NOW)).toBe(1);
    const again = await inTx(db, (tx) => startValidation(tx, NOW));
    await site.jobs.wait(again as string, 20_000);
    expect(await countDue(db, NOW)).toBe(0);
  });

  it('is waived with a reason that the next editor sees, until somebody asks again', async () => {
    const row = await make({ summary: '' });
    await notesOf(row.id);
    expect(await kindsOf(row.id)).toContain('summary-missing');
    await inTx(db, (tx) => waiveNote(tx, row.id, 'summary-missing', ' The title says it all. ', EDITOR, AT));
    expect(await kindsOf(row.id)).not.toContain('summary-missing');
    await notesOf(row.id);
    expect(await kindsOf(row.id)).not.toContain('summary-missing');
    expect(await readWaivers(db, row.id)).toEqual([
      { key: 'summary-missing', reason: 'The title says it all.', by: EDITOR.name, at: AT.toISOString() },
    ]);
    expect((await problem(inTx(db, (tx) => waiveNote(tx, row.id, 'summary-missing', '  ', EDITOR, AT)))).fields[0]?.field).toBe('reason');
    await inTx(db, (tx) => unwaiveNote(tx, row.id, 'summary-missing'));
    await notesOf(row.id);
    expect(await kindsOf(row.id)).toContain('summary-missing');
  });

  it('is mended for many at once; what was published goes out again, what waits goes on waiting, what is gone is named', async () => {
    const live = await publish({ title: 'SEED SWAP' });
    const draft = await make({ title: 'ROPE EVENING' });
    const fine = await make({ title: 'Fine' });
    const waiting = await publish({ title: 'SHORE WALK' });
    await inTx(db, (tx) =>
      saveListing(tx, { id: waiting.id, content: { ...waiting.working, summary: 'x' }, revision: waiting.revision }, change()),
    );
    const gone = '01890000-0000-7000-8000-000000000000';
    const report = await fixMany(await siteNow(), [live.id, draft.id, fine.id, waiting.id, gone], 'title-capitals', change());
    expect(report).toEqual({
      fixed: 3,
      published: 1,
      stayed: [
        { title: 'Fine', reason: 'nothing is left to fix' },
        { title: 'one that is gone', reason: 'It was removed meanwhile.' },
      ],
    });
    const copies = await db.select({ title: published.title }).from(published);
    expect(copies.map((c) => c.title).sort()).toEqual(['SHORE WALK', 'Seed swap']);
    const [row] = await db.select().from(listing).where(eq(listing.id, waiting.id));
    expect([row?.title, row?.edited]).toEqual(['Shore walk', true]);
  });
});

describe('copies', () => {
  it('are not published before title and dates were looked at', async () => {
    const row = await make();
    await db.insert(listingCopy).values({ listingId: row.id, fromTitle: 'Harbour Choir', unlooked: ['title', 'when'] });
    const stopped = await problem(inTx(db, (tx) => publishListing(tx, row.id, row.revision, change())));
    expect([stopped.kind, stopped.fields.map((f) => f.field)]).toEqual(['invalid', ['title', 'when']]);
    const saved = await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, title: 'Summer Choir' }, revision: row.revision }, change()),
    );
    expect((await problem(inTx(db, (tx) => publishListing(tx, row.id, saved.revision, change())))).fields.map((f) => f.field)).toEqual([
      'when',
    ]);
  });
});

describe('two listings of one event', () => {
  it('are merged: what the other lacks comes over, this one goes to the bin, its address leads on', async () => {
    const full = await publish({
      title: 'Harbor Choir',
      website: 'https://sing.example',
      contact: { name: 'Hester Quill', phone: '', mail: '' },
    });
    const kept = await publish({ title: 'Harbour Choir', summary: 'Ours', contact: { name: '', phone: '', mail: '' } });
    await inTx(db, (tx) => mergeListings(tx, { id: full.id, revision: full.revision }, kept.id, change()));
    const [into] = await db.select().from(listing).where(eq(listing.id, kept.id));
    expect(into?.working).toMatchObject({
      title: 'Harbour Choir',
      summary: 'Ours',
      website: 'https://sing.example',
      contact: { name: 'Hester Quill' },
    });
    expect([into?.edited, (await db.select().from(listing).where(eq(listing.id, full.id)))[0]?.stage]).toEqual([true, 'binned']);
    expect(await findPublished(db, full.slug)).toEqual({ movedTo: kept.slug });
    expect((await db.select().from(oldSlug)).map((o) => o.slug)).toEqual([full.slug]);
    expect((await problem(inTx(db, (tx) => mergeListings(tx, { id: kept.id, revision: 1 }, kept.id, change())))).fields[0]?.field).toBe(
      'into',
    );
    expect((await problem(inTx(db, (tx) => mergeListings(tx, { id: kept.id, revision: 1 }, full.id, change())))).title).toContain(
      'in the bin',
    );
  });
});
