import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { ContentCache } from '@/server/site/content-cache';
import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import type { Db } from '../db/client';
import { audit, category, link, listing, organizer, published, venue } from '../db/schema';
import { read } from '../problem';
import { rebuildIndex } from '../dates/rebuild';
import { createListing, publishListing } from '../listings/write';
import { BLANK_ORGANIZER, organizerInput, removeOrganizer, saveOrganizer } from '../organizers/write';
import { BLANK_VENUE, venueInput } from '../venues/input';
import { removeVenue, saveVenue } from '../venues/write';
import { orderCategories } from './order';
import { type CategoryInput, categoryInput, makeFallback, removeCategory, saveCategory, makeCategoryNamed } from './write';
import { tint } from '@/core/colour/colour';
import { referenceData } from '../reference/read';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});

const input = (part: Partial<CategoryInput> = {}): CategoryInput => ({
  name: 'Choirs',
  shape: 'square',
  ink: '#0c5a63',
  parentId: null,
  ...part,
});
const save = (id: string | null, part: Partial<CategoryInput> = {}) => inTx(db, (tx) => saveCategory(tx, id, input(part), EDITOR));
const rowOf = async (id: string) => (await db.select().from(category).where(eq(category.id, id)))[0];
/** A published listing that names these, in both copies. */
const publishWith = (part: Parameters<typeof choir>[1]) =>
  inTx(db, async (tx) => {
    const row = await createListing(tx, choir(places, part), change());
    return publishListing(tx, row.id, row.revision, change());
  });

describe('categories', () => {
  it('stand under a parent, whose shape they take and keep when it changes', async () => {
    const child = await save(null, { parentId: places.category });
    expect((await rowOf(child))?.shape).toBe('disc');
    await save(places.category, { name: 'Music', shape: 'diamond' });
    expect((await rowOf(child))?.shape).toBe('diamond');
    expect((await rowOf(places.category))?.revision).toBe(2);
  });

  it('are two levels deep at most', async () => {
    const child = await save(null, { parentId: places.category });
    const other = await save(null, { name: 'Walks' });
    expect((await problem(save(null, { name: 'Deep', parentId: child }))).fields[0]?.field).toBe('parentId');
    expect((await problem(save(places.category, { name: 'Music & dance', parentId: other }))).title).toContain('stays at the top');
    expect((await problem(save(places.category, { name: 'Music & dance', parentId: places.category }))).title).toContain('under itself');
    expect((await problem(save(null, { name: 'Lost', parentId: '01890000-0000-7000-8000-000000000000' }))).kind).toBe('missing');
  });

  it('get an address of their own, also when two have one name', async () => {
    const one = await save(null);
    const asked = await problem(save(null, { name: 'CHOIRS' }));
    expect([asked.fields[0]?.field, asked.title]).toEqual(['name', expect.stringContaining('There is “Choirs” already')]);
    const two = await save(null, { twice: true });
    // One that has its name already is not asked again.
    await save(two, { ink: '#86308f' });
    expect([(await rowOf(one))?.slug, (await rowOf(two))?.slug]).toEqual(['choirs', 'choirs-2']);
  });

  it('go, and what used them goes where it was said, or to the fallback, in both copies', async () => {
    const [going, target] = [await save(null), await save(null, { name: 'Walks' })];
    const row = await publishWith({ categoryIds: [going] });
    const both = await publishWith({ title: 'Second', categoryIds: [going, target] });
    await inTx(db, (tx) => removeCategory(tx, going, target, change()));
    expect(await rowOf(going)).toBeUndefined();
    for (const id of [row.id, both.id]) {
      const [kept] = await db.select().from(published).where(eq(published.listingId, id));
      const [working] = await db.select().from(listing).where(eq(listing.id, id));
      expect(kept?.categoryId).toBe(target);
      expect(kept?.content.categoryIds).toEqual([target]);
      expect(working?.working.categoryIds).toEqual([target]);
      const links = (await db.select().from(link).where(eq(link.listingId, id))).filter((l) => l.categoryId);
      expect(links.map((l) => l.categoryId)).toEqual([target, target]);
    }
    await inTx(db, (tx) => removeCategory(tx, target, null, change()));
    expect((await db.select().from(published)).every((p) => p.categoryId === places.category)).toBe(true);
    expect((await db.select().from(audit)).some((a) => a.what.code === 'removed')).toBe(true);
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('stay when they are the fallback or have others under them, and say why', async () => {
    const fallback = await problem(inTx(db, (tx) => removeCategory(tx, places.category, null, change())));
    expect([fallback.kind, fallback.title]).toEqual(['conflict', expect.stringContaining('is the fallback')]);
    const parent = await save(null, { name: 'Walks' });
    await save(null, { name: 'Shore walks', parentId: parent });
    expect((await problem(inTx(db, (tx) => removeCategory(tx, parent, null, change())))).title).toContain('“Shore walks” stands under it');
    await inTx(db, (tx) => makeFallback(tx, parent));
    expect((await db.select().from(category).where(eq(category.fallback, true))).map((c) => c.id)).toEqual([parent]);
  });

  it('are refused at the field when they cannot be read', async () => {
    const bad = await problem((async () => read(categoryInput, { name: ' ', shape: 'banana', ink: 'red', parentId: 'x' }))());
    expect(bad.fields.map((f) => f.field)).toEqual(['name', 'shape', 'ink', 'parentId']);
  });
});

describe('venues and organizers', () => {
  const hall = { ...BLANK_VENUE, name: 'Gannet Bay Hall', town: 'Gannet Bay' };
  const choirOf = { ...BLANK_ORGANIZER, name: 'Harbour Choir' };

  it('go, and listings follow to another or have none', async () => {
    const { id: other } = await inTx(db, (tx) => saveVenue(tx, null, hall, EDITOR));
    const row = await publishWith({});
    await inTx(db, (tx) => removeVenue(tx, places.venue, other, change()));
    const [moved] = await db.select().from(published).where(eq(published.listingId, row.id));
    expect([moved?.venueId, moved?.content.venueIds]).toEqual([other, [other]]);
    await inTx(db, (tx) => removeVenue(tx, other, null, change()));
    const [none] = await db.select().from(published).where(eq(published.listingId, row.id));
    expect([none?.venueId, none?.content.venueIds]).toEqual([null, []]);
    expect(await db.select().from(venue)).toEqual([]);
    expect((await problem(inTx(db, (tx) => removeVenue(tx, other, null, change())))).kind).toBe('missing');
  });

  it('of organizers, the order that is left stays', async () => {
    const ids: string[] = [];
    for (const name of ['One', 'Two', 'Three'])
      ids.push((await inTx(db, (tx) => saveOrganizer(tx, null, { ...choirOf, name }, EDITOR))).id);
    const [one, two, three] = ids as [string, string, string];
    const row = await publishWith({ organizerIds: [one, two, three] });
    await inTx(db, (tx) => removeOrganizer(tx, two, null, change()));
    const [kept] = await db.select().from(published).where(eq(published.listingId, row.id));
    expect(kept?.content.organizerIds).toEqual([one, three]);
    await inTx(db, (tx) => removeOrganizer(tx, one, three, change()));
    const [last] = await db.select().from(published).where(eq(published.listingId, row.id));
    expect(last?.content.organizerIds).toEqual([three]);
    expect((await db.select().from(organizer)).map((o) => o.name)).toEqual(['Three']);
  });

  it('keep their address and rise in revision when they are changed; unknown ones are refused', async () => {
    const { id } = await inTx(db, (tx) => saveVenue(tx, null, hall, EDITOR));
    await inTx(db, (tx) => saveVenue(tx, id, { ...hall, name: 'The Hall' }, EDITOR));
    const [row] = await db.select().from(venue).where(eq(venue.id, id));
    expect([row?.name, row?.slug, row?.revision]).toEqual(['The Hall', 'gannet-bay-hall', 2]);
    const gone = '01890000-0000-7000-8000-000000000000';
    expect((await problem(inTx(db, (tx) => saveVenue(tx, gone, hall, EDITOR)))).kind).toBe('missing');
    expect((await problem(inTx(db, (tx) => saveOrganizer(tx, gone, choirOf, EDITOR)))).kind).toBe('missing');
  });

  it('are read with bounds: half a position, a script as website, a mail without @', async () => {
    const badVenue = await problem(
      (async () => read(venueInput, { ...hall, lat: '43.1', website: 'javascript:alert(1)', mail: 'nobody' }))(),
    );
    expect(badVenue.fields.map((f) => f.field).sort()).toEqual(['lat', 'mail', 'website']);
    expect((await problem((async () => read(venueInput, { ...hall, lat: '43.1' }))())).fields[0]?.field).toBe('lat');
    expect((await problem((async () => read(venueInput, { ...hall, lat: '143', lng: '0' }))())).title).toContain('at most 90');
    expect((await problem((async () => read(organizerInput, { ...choirOf, name: 'x'.repeat(200) }))())).title).toContain('at most 120');
    expect(read(venueInput, { ...hall, lat: '43.12', lng: '-57.4' })).toMatchObject({ lat: 43.12, lng: -57.4 });
  });
});

describe('a child’s ink', () => {
  const shown = async () => {
    const reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
    return (id: string) => reference.category.get(id)?.ink;
  };
  it('is a tint of its parent’s unless somebody chose another, also after a move and back', async () => {
    const tinted = await save(null, { name: 'Choirs', ink: '', parentId: places.category });
    const second = await save(null, { name: 'Bands', ink: '', parentId: places.category });
    const own = await save(null, { name: 'Organs', ink: '#0c5a63', tinted: false, parentId: places.category });
    const walks = await save(null, { name: 'Walks', ink: '#2f6b12', tinted: true });
    const inks = await shown();
    expect([inks(tinted), inks(second)]).toEqual([tint('#86308f', 0), tint('#86308f', 1)]);
    expect([inks(own), inks(walks)]).toEqual(['#0c5a63', '#2f6b12']);
    const order = (parentId: string | null) => [
      { id: places.category, parentId: null },
      ...[tinted, second, own].map((id) => ({ id, parentId: places.category })),
      { id: walks, parentId },
    ];
    await inTx(db, (tx) => orderCategories(tx, order(places.category), EDITOR));
    expect((await shown())(walks)).toBe(tint('#86308f', 3));
    await inTx(db, (tx) => orderCategories(tx, order(null), EDITOR));
    expect((await shown())(walks)).toBe('#2f6b12');
  });
  it('must be chosen at the top', async () => expect((await problem(save(null, { ink: '' }))).fields[0]?.field).toBe('ink'));
  it('a category that is made from its name alone has the rarest mark', async () => {
    const made = await inTx(db, (tx) => makeCategoryNamed(tx, 'Concert series', EDITOR));
    expect([made.shape, made.ink]).not.toContain('disc');
    expect(await rowOf(made.id)).toMatchObject({ name: 'Concert series', parentId: null, fallback: false });
  });
});

describe('the order of categories', () => {
  it('is kept as a whole, children take their parent’s shape, and what is no tree is refused', async () => {
    const walks = await save(null, { name: 'Walks', shape: 'chevron' });
    const choirs = await save(null, { parentId: places.category });
    const put = (order: { id: string; parentId: string | null }[]) => inTx(db, (tx) => orderCategories(tx, order, EDITOR));
    await put([
      { id: walks, parentId: null },
      { id: choirs, parentId: walks },
      { id: places.category, parentId: null },
    ]);
    expect([(await rowOf(choirs))?.shape, (await rowOf(choirs))?.parentId, (await rowOf(walks))?.position]).toEqual(['chevron', walks, 0]);
    expect((await problem(put([{ id: walks, parentId: null }]))).kind).toBe('conflict');
    const deep = [
      { id: walks, parentId: null },
      { id: choirs, parentId: walks },
      { id: places.category, parentId: choirs },
    ];
    expect((await problem(put(deep))).fields[0]?.message).toContain('two levels');
  });
});
