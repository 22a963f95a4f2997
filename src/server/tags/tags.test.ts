import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { ContentCache } from '@/server/site/content-cache';
import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import type { Db } from '../db/client';
import { link, listing, published, tag } from '../db/schema';
import { read } from '../problem';
import { contentInput } from '../listings/input';
import { countUses } from '../listings/read';
import { rebuildIndex } from '../dates/rebuild';
import { createListing, publishListing, saveListing } from '../listings/write';
import { readDates } from '../public/public-dates';
import { filterQuery, isFiltered, readFilters } from '@/core/filters/filters';
import { referenceData } from '../reference/read';
import { findOrMakeTag, mergeTag, renameTag, tagName } from './write';
import { bringBack, readKept } from '../places/removed';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});
const make = async (name: string) => (await inTx(db, (tx) => findOrMakeTag(tx, read(tagName, name), EDITOR))).id;
const publish = (title: string, tagIds: string[]) =>
  inTx(db, async (tx) => {
    const row = await createListing(tx, choir(places, { title, tagIds }), change());
    return publishListing(tx, row.id, row.revision, change());
  });

describe('tags', () => {
  it('are one however they are written, with an address of their own', async () => {
    const [a, b] = [await make(' #For  Children '), await make('for children')];
    expect(a).toBe(b);
    expect((await db.select().from(tag)).map((t) => [t.name, t.slug])).toEqual([['For Children', 'for-children']]);
    expect((await problem((async () => read(tagName, '##'))())).title).toContain('Type a tag');
    expect((await problem((async () => read(tagName, 'x'.repeat(60)))())).title).toContain('at most 40');
  });
  it('are renamed, but not to another’s name; merged and removed in every copy', async () => {
    const [kids, young, dark] = [await make('kids'), await make('young people'), await make('in the dark')];
    const row = await publish('Stars', [young, dark, kids]);
    await inTx(db, (tx) => renameTag(tx, kids, 'children', EDITOR));
    expect((await problem(inTx(db, (tx) => renameTag(tx, kids, 'In the Dark', EDITOR)))).fields[0]?.message).toContain('merge the two');
    expect(await inTx(db, (tx) => mergeTag(tx, young, kids, change()))).toMatchObject({ listings: 1 });
    const copies = async () => {
      const [w] = await db.select().from(listing).where(eq(listing.id, row.id));
      const [p] = await db.select().from(published).where(eq(published.listingId, row.id));
      return [w?.working.tagIds, p?.content.tagIds];
    };
    expect(await copies()).toEqual([
      [kids, dark],
      [kids, dark],
    ]);
    expect((await countUses(db, 'tagId')).get(kids)).toBe(1);
    await inTx(db, (tx) => mergeTag(tx, kids, null, change()));
    expect(await copies()).toEqual([[dark], [dark]]);
    expect((await db.select().from(link)).filter((l) => l.tagId).every((l) => l.tagId === dark)).toBe(true);
    expect((await problem(inTx(db, (tx) => mergeTag(tx, dark, dark, change())))).fields[0]?.field).toBe('into');
    expect((await problem(inTx(db, (tx) => mergeTag(tx, kids, dark, change())))).kind).toBe('missing');
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });
  it('come back from a merge and from removal, in every copy, around what people changed since', async () => {
    const [kids, young, dark] = [await make('kids'), await make('young people'), await make('in the dark')];
    const one = await publish('Stars', [young, dark]);
    const two = await publish('Seeds', [dark, young, kids]);
    const copies = async (id: string) => {
      const [w] = await db.select().from(listing).where(eq(listing.id, id));
      const [p] = await db.select().from(published).where(eq(published.listingId, id));
      return [w?.working.tagIds, p?.content.tagIds];
    };
    const links = async () =>
      (await db.select().from(link))
        .filter((l) => l.tagId)
        .map((l) => `${l.listingId} ${l.copy} ${l.position} ${l.tagId}`)
        .sort();
    const before = await links();
    await inTx(db, (tx) => mergeTag(tx, young, kids, change()));
    expect(await copies(two.id)).toEqual([
      [dark, kids],
      [dark, kids],
    ]);
    const undo = async () => inTx(db, async (tx) => bringBack(tx, (await readKept(tx, 'tag'))[0]?.id ?? '', change()));
    expect((await readKept(db, 'tag'))[0]).toMatchObject({ name: 'young people', intoId: kids, byName: 'Ivo Skerrit' });
    expect(await undo()).toMatchObject({ name: 'young people', listings: 2, left: 0 });
    expect([await copies(one.id), await copies(two.id)]).toEqual([
      [
        [young, dark],
        [young, dark],
      ],
      [
        [dark, young, kids],
        [dark, young, kids],
      ],
    ]);
    expect(await links()).toEqual(before);
    expect(await readKept(db, 'tag')).toEqual([]);
    // Removed; then somebody gives one of them other tags.
    await inTx(db, (tx) => mergeTag(tx, dark, null, change()));
    const [now] = await db.select().from(listing).where(eq(listing.id, one.id));
    const content = choir(places, { title: 'Stars', tagIds: [kids] });
    await inTx(db, (tx) => saveListing(tx, { id: one.id, content, revision: now?.revision ?? 0 }, change()));
    expect(await undo()).toMatchObject({ name: 'in the dark', listings: 2, left: 0 });
    // The working copy keeps what was chosen since, the published one has the tag again.
    expect(await copies(one.id)).toEqual([[kids], [young, dark]]);
    expect(await copies(two.id)).toEqual([
      [dark, young, kids],
      [dark, young, kids],
    ]);
    await inTx(db, (tx) => mergeTag(tx, dark, null, change()));
    await make('in the dark');
    expect((await problem(undo())).title).toContain('rename that one first');
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });
  it('are chosen by readers, any of several, in every view', async () => {
    const [kids, dark] = [await make('kids'), await make('in the dark')];
    await publish('Stars', [kids, dark]);
    await publish('Seeds', [kids]);
    await publish('Ropes', []);
    const reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
    const span = { from: NOW.day, to: NOW.day + 8 };
    const titles = async (query: string) => {
      const filters = readFilters(new URLSearchParams(query));
      return (await readDates(db, span, filters, { reference, currency: 'CAD', around: undefined })).map((d) => d.title).sort();
    };
    expect([
      await titles('tag=kids'),
      await titles('tag=kids,in-the-dark'),
      await titles('tag=nothing'),
      (await titles('')).length,
    ]).toEqual([['Seeds', 'Stars'], ['Seeds', 'Stars'], [], 3]);
    const filters = readFilters(new URLSearchParams('tag=b,a'));
    expect([filterQuery(filters), isFiltered(filters)]).toEqual(['?tag=a,b', true]);
  });
  it('of a listing are thirty at most', async () => {
    const many = Array.from({ length: 1000 }, () => crypto.randomUUID());
    expect((await problem((async () => read(contentInput, choir(places, { tagIds: many })))())).fields[0]).toMatchObject({
      field: 'tagIds',
      message: 'At most 30',
    });
  });
});
