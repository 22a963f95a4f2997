import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { tableOf } from '../../../tests/support/site';
import type { ListingContent } from '@/core/listing/content';
import { linkToOriginal } from '../validation/copies';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { startBulk } from '../bulk/run';
import { bulkItem, edit, listing, listingCopy, published, user } from '../db/schema';
import { read } from '../problem';
import { copyInput, copyListing } from './copy';
import { dropEdit, keepEdit, OPEN_MS, readEdit, readOthers, stillOpen } from './edits';
import { lastDifferent, readVersions, restoreVersion } from './versions';
import { tidy } from './tidy';
import { createListing, moveToStage, publishListing, saveListing } from './write';

let db: Db;
let places: Places;
const IVO: Actor = { id: 'ivo', name: 'Ivo Skerrit', role: 'editor' };
const MAUD: Actor = { id: 'maud', name: 'Maud Petrel', role: 'coordinator' };
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  for (const { id, name } of [IVO, MAUD]) await db.insert(user).values({ id: id ?? '', name, email: `${id}@almanac.example` });
});
const make = (title = 'Harbour Choir') => inTx(db, (tx) => createListing(tx, choir(places, { title }), change()));

describe('what is typed and not saved', () => {
  it('is one’s own, found again, and gone when it is saved', async () => {
    const row = await make();
    const at = new Date();
    const typed = { ...row.working, title: 'Harbour Choirs' };
    await keepEdit(db, { key: row.id, content: typed, revision: 1 }, IVO, at);
    await keepEdit(db, { key: row.id, content: { ...typed, summary: 'More' }, revision: 1 }, IVO, at);
    expect((await readEdit(db, row.id, 'ivo'))?.content).toMatchObject({ title: 'Harbour Choirs', summary: 'More' });
    expect([await readEdit(db, row.id, 'maud'), await readEdit(db, 'new', 'ivo')]).toEqual([undefined, undefined]);
    expect((await tableOf(db, '')).rows[0]?.editing).toBe('Ivo Skerrit');
    // Saying that the form is open loses nothing.
    await stillOpen(db, row.id, 1, IVO, at);
    expect((await readEdit(db, row.id, 'ivo'))?.content.summary).toBe('More');
    await dropEdit(db, row.id, 'ivo');
    expect([await readEdit(db, row.id, 'ivo'), (await tableOf(db, '')).rows[0]?.editing]).toEqual([undefined, '']);
  });
  it('tells others who has it open, until a while after they left', async () => {
    const row = await make();
    const at = new Date();
    await stillOpen(db, row.id, 1, IVO, at);
    expect(await readOthers(db, row.id, 'maud', at)).toEqual([{ name: 'Ivo Skerrit', typing: false }]);
    await keepEdit(db, { key: row.id, content: row.working, revision: 1 }, IVO, at);
    expect(await readOthers(db, row.id, 'maud', at)).toEqual([{ name: 'Ivo Skerrit', typing: true }]);
    expect(await readOthers(db, row.id, 'ivo', at)).toEqual([]);
    expect(await readOthers(db, row.id, 'maud', new Date(at.getTime() + OPEN_MS + 1))).toEqual([]);
    await keepEdit(db, { key: 'new', content: row.working, revision: 0 }, IVO, at);
    expect(await readOthers(db, 'new', 'maud', at)).toEqual([]);
  });
});

describe('versions', () => {
  it('are every save and publication, and come back as new ones', async () => {
    const row = await make();
    const saved = await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, title: 'Summer Choir' }, revision: 1 }, change(IVO)),
    );
    const out = await inTx(db, (tx) => publishListing(tx, row.id, saved.revision, change(MAUD)));
    expect((await readVersions(db, row.id)).map((v) => `${v.revision} ${v.byName} ${v.what.code}`)).toEqual([
      '3 Maud Petrel published',
      '2 Ivo Skerrit saved',
      `1 ${EDITOR.name} made`,
    ]);
    await inTx(db, (tx) => restoreVersion(tx, { id: row.id, revision: 1, opened: out.revision }, change(IVO)));
    const [now] = await db.select().from(listing).where(eq(listing.id, row.id));
    expect([now?.title, now?.edited, (await db.select().from(published))[0]?.title]).toEqual(['Harbour Choir', true, 'Summer Choir']);
    expect((await readVersions(db, row.id))[0]?.what).toEqual({ format: 1, code: 'restored', revision: 1 });
    expect(now?.working).toEqual(row.working);
    expect((await problem(inTx(db, (tx) => restoreVersion(tx, { id: row.id, revision: 99, opened: 4 }, change())))).kind).toBe('missing');
    expect((await problem(inTx(db, (tx) => restoreVersion(tx, { id: row.id, revision: 1, opened: 2 }, change())))).kind).toBe('conflict');
  });
});

describe('copies', () => {
  it('have a fresh address from their title, are drafts, and remember what was not looked at', async () => {
    const row = await make();
    const copy = await inTx(db, (tx) => copyListing(tx, row.id, read(copyInput, { title: 'Harbour Choir', days: [] }), change()));
    const dated = await inTx(db, (tx) =>
      copyListing(tx, row.id, read(copyInput, { title: 'Summer Choir', days: ['2027-07-01'] }), change()),
    );
    expect([copy.unlooked, dated.unlooked]).toEqual([['title', 'when'], []]);
    const rows = new Map((await db.select().from(listing)).map((l) => [l.id, l]));
    expect([rows.get(copy.id)?.slug, rows.get(dated.id)?.slug, rows.get(dated.id)?.stage]).toEqual([
      'harbour-choir-2',
      'summer-choir',
      'draft',
    ]);
    expect((await db.select().from(listingCopy)).map((c) => c.fromTitle)).toEqual(['Harbour Choir', 'Harbour Choir']);
    const linked: ListingContent = { ...row.working, text: `<p>As <a href="/what/${row.slug}">before</a>.</p>` };
    expect(await linkToOriginal(db, copy.id, linked)).toEqual({ link: `/what/${row.slug}`, field: 'text', title: 'Harbour Choir' });
    expect(await linkToOriginal(db, copy.id, { ...row.working, website: `https://isles.example/what/${row.slug}` })).toMatchObject({
      field: 'website',
    });
    expect([await linkToOriginal(db, row.id, linked), await linkToOriginal(db, copy.id, row.working)]).toEqual([undefined, undefined]);
    const bad = await problem((async () => read(copyInput, { title: ' ', days: ['2027-02-31'] }))());
    expect(bad.fields.map((f) => f.field.split('.')[0])).toEqual(['title', 'days']);
  });
});

describe('what is kept for a while', () => {
  it('goes after thirty days: the bin, actions that could be undone, forms that were only open', async () => {
    const [binned, drafted] = [await make('Binned'), await make('Draft')];
    const at = new Date(NOW.ms);
    await inTx(db, (tx) => moveToStage(tx, binned.id, 'binned', change()));
    await inTx(db, (tx) => startBulk(tx, [drafted.id], { kind: 'bin' }, change()));
    await stillOpen(db, drafted.id, 1, IVO, at);
    await keepEdit(db, { key: drafted.id, content: drafted.working, revision: 1 }, MAUD, at);
    const later = (days: number) => new Date(at.getTime() + days * 86_400_000);
    expect(await inTx(db, (tx) => tidy(tx, later(29), at))).toEqual({ listings: 0, runs: 0, pictures: [] });
    expect(await inTx(db, (tx) => tidy(tx, later(31), later(2)))).toEqual({ listings: 1, runs: 1, pictures: [] });
    expect((await db.select().from(listing)).map((l) => l.title)).toEqual(['Draft']);
    expect([(await db.select().from(bulkItem)).length, (await db.select().from(edit)).map((e) => e.userId)]).toEqual([0, ['maud']]);
    expect(await readVersions(db, binned.id)).toEqual([]);
  });
});

describe('versions side by side', () => {
  it('open on the two that differ: stages and publications are versions too', async () => {
    const row = await make();
    const saved = await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, summary: 'Forty voices.' }, revision: row.revision }, change()),
    );
    const out = await inTx(db, (tx) => publishListing(tx, row.id, saved.revision, change()));
    const down = await inTx(db, (tx) => moveToStage(tx, row.id, 'withdrawn', change()));
    expect([out.revision, down.revision]).toEqual([3, 4]);
    expect(await lastDifferent(db, row.id, down.revision)).toBe(1);
    expect(await lastDifferent(db, row.id, 2)).toBe(1);
    expect(await lastDifferent(db, row.id, 1)).toBeUndefined();
  });
});

describe('a web address before the first save', () => {
  const makeAt = (wanted: string) => inTx(db, (tx) => createListing(tx, choir(places), change(), 'draft', wanted));
  it('is taken as it is written, or refused with what would do', async () => {
    expect((await makeAt('tuesday-choir')).slug).toBe('tuesday-choir');
    expect((await problem(makeAt('tuesday-choir'))).fields[0]?.message).toContain('“tuesday-choir-2” is free');
    expect((await problem(makeAt('Tuesday Choir'))).fields[0]).toMatchObject({
      field: 'slug',
      message: expect.stringContaining('“tuesday-choir” would do'),
    });
    expect((await makeAt('')).slug).toBe('harbour-choir');
  });
});
