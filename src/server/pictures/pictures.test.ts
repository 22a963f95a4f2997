import { ContentCache } from '../site/content-cache';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { category, picture, pictureFile, pictureSource, setting, user, venue } from '../db/schema';
import { tidy } from '../listings/tidy';
import { createListing, publishListing, saveListing } from '../listings/write';
import { DEFAULT_SETTINGS } from '../site/settings';
import { TaskWorker } from '../worker/task-worker';
import { readFile } from './files';
import { readLibrary, readLibraryQuery } from './library';
import { readListingPictures } from './read';
import { keepPicture, keepSource } from './take-in';
import { usesOf } from './uses';
import { binPicture, changePicture, putBack, replacePicture } from './write';

const pictureWorker = new TaskWorker(undefined);
const NAN: Actor = { id: 'nan', name: 'Nan Tern', role: 'contributor' };
let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
  await db.insert(user).values({ id: 'nan', name: 'Nan Tern', email: 'nan@almanac.example' });
});

/** Left half dark, right half light, so that what a crop shows can be told. */
const halves = (width: number, height: number, ink = '#000000'): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: '#ffffff' } })
    .composite([{ input: { create: { width: Math.floor(width / 2), height, channels: 3, background: ink } }, left: 0, top: 0 }])
    .png()
    .toBuffer();
const cache = new ContentCache(() => '1');
const at = new Date(NOW.ms);
async function keep(part: { name?: string; alt?: string; by?: string; width?: number; height?: number; ink?: string; at?: Date } = {}) {
  const { name = 'a.png', alt = 'Two halves', by = null, width = 1000, height = 500 } = part;
  const bytes = await halves(width, height, part.ink);
  const kept = await keepPicture({ db, pictureWorker }, { bytes, name, alt, credit: 'Ada Fenwright', ownerId: by, at: part.at ?? at });
  return kept.picture;
}
const row = async (id: string) => (await db.select().from(picture).where(eq(picture.id, id)))[0] as typeof picture.$inferSelect;
const meanOf = async (bytes: Uint8Array): Promise<number> => Math.round((await sharp(bytes).stats()).channels[0]?.mean ?? -1);

describe('files of a picture', () => {
  it('follow the focal point, are made once, and are found again when it comes back', async () => {
    const { id } = await keep();
    const square = { use: 'square', width: 320, format: 'jpeg' } as const;
    const site = { db, pictureWorker, cache };
    const count = async () => (await db.select({ box: pictureFile.box }).from(pictureFile)).length;
    const covers = await count();
    expect(await meanOf(await readFile(site, await row(id), square))).toBeGreaterThan(120);
    // Two who ask at once get the same file, made once.
    await inTx(db, (tx) => changePicture(tx, id, { focus: { x: 0.2, y: 0.5 } }, EDITOR));
    const [a, b] = await Promise.all([readFile(site, await row(id), square), readFile(site, await row(id), square)]);
    expect([await meanOf(a), await meanOf(b)]).toEqual([0, 0]);
    expect(await count()).toBe(covers + 2);
    const left = await row(id);
    expect([left.version, left.focusX]).toEqual([2, 0.2]);
    await inTx(db, (tx) => changePicture(tx, id, { focus: { x: 0.5, y: 0.5 } }, EDITOR));
    await readFile(site, await row(id), square);
    expect(await count()).toBe(covers + 2);
    // By hand: the right half, whatever the focal point is.
    await inTx(db, (tx) => changePicture(tx, id, { crops: { format: 1, square: { x: 0.5, y: 0, w: 0.5, h: 1 } } }, EDITOR));
    expect(await meanOf(await readFile(site, await row(id), square))).toBe(255);
    const share = await sharp(await readFile(site, await row(id), { use: 'share', width: 5000, format: 'webp' })).metadata();
    expect([share.width, share.height, share.format]).toEqual([952, 500, 'webp']);
  });
});

describe('who may change a picture', () => {
  it('is whoever sent it, and editors; bad fractions are named', async () => {
    const mine = await keep({ by: 'nan' });
    const others = await keep({ ink: '#334455' });
    await inTx(db, (tx) => changePicture(tx, mine.id, { alt: 'Mine' }, NAN));
    expect(await row(mine.id)).toMatchObject({ alt: 'Mine', version: 1, search: 'mine ada fenwright a png' });
    expect(await problem(inTx(db, (tx) => changePicture(tx, others.id, { alt: 'Mine too' }, NAN)))).toMatchObject({ kind: 'refused' });
    expect(await problem(inTx(db, (tx) => binPicture(tx, others.id, at, NAN)))).toMatchObject({ kind: 'refused' });
    expect((await row(others.id)).alt).toBe('Two halves');
  });
});

describe('where a picture is shown', () => {
  it('is known of covers, galleries, texts, venues and categories; only what nothing shows can go', async () => {
    const [cover, gallery, text, alone] = [
      await keep(),
      await keep({ ink: '#111111' }),
      await keep({ ink: '#222222' }),
      await keep({ ink: '#333333' }),
    ];
    const content = choir(places, {
      pictureId: cover.id,
      galleryIds: [gallery.id],
      // One that is not there: a text that came from elsewhere.
      text: `<p>We sing.</p><img src="/picture/${text.id}/640" alt=""><img src="/picture/0190a1b2-0000-7000-8000-000000000009/640">`,
    });
    const listing = await inTx(db, (tx) => createListing(tx, content, change()));
    await db.update(venue).set({ pictureId: gallery.id }).where(eq(venue.id, places.venue));
    await db.update(category).set({ pictureId: gallery.id }).where(eq(category.id, places.category));
    expect(await usesOf(db, cover.id)).toEqual([{ kind: 'listing', id: listing.id, name: 'Harbour Choir', how: 'cover, draft' }]);
    expect((await usesOf(db, gallery.id)).map((u) => `${u.kind} ${u.name} ${u.how}`)).toEqual([
      'listing Harbour Choir gallery, draft',
      'venue Net Loft venue',
      'category Music & dance category',
    ]);
    expect((await usesOf(db, text.id))[0]?.how).toBe('in the text, draft');
    const ofADay = await keep({ ink: '#444444' });
    const value = { ...DEFAULT_SETTINGS, dayPictures: [{ name: 'Fog Day', pictureId: ofADay.id }] };
    await db.insert(setting).values({ key: 'site', value }).onConflictDoUpdate({ target: setting.key, set: { value } });
    expect(await usesOf(db, ofADay.id)).toEqual([{ kind: 'day', id: '', name: 'Fog Day', how: 'day of the year' }]);
    expect(await problem(inTx(db, (tx) => binPicture(tx, ofADay.id, at, EDITOR)))).toMatchObject({ kind: 'conflict' });
    const used = await readLibrary(db, readLibraryQuery(new URLSearchParams('use=used')), { zone: 'UTC' });
    expect(used.rows.find(({ id }) => id === ofADay.id)?.uses).toBe(1);
    await db.delete(setting).where(eq(setting.key, 'site'));
    await db.delete(picture).where(eq(picture.id, ofADay.id));
    const refused = await problem(inTx(db, (tx) => binPicture(tx, gallery.id, at, EDITOR)));
    expect(refused).toMatchObject({ kind: 'conflict', title: expect.stringContaining('“Harbour Choir” and 2 more') });
    // Published, then taken off the working copy: readers still see it.
    const out = await inTx(db, (tx) => publishListing(tx, listing.id, listing.revision, change()));
    await inTx(db, (tx) => saveListing(tx, { id: listing.id, content: { ...content, pictureId: null }, revision: out.revision }, change()));
    expect((await usesOf(db, cover.id))[0]?.how).toBe('cover, published, until its changes are published');
    const shown = await readListingPictures(db, { ...content, pictureId: null }, gallery.id);
    expect([shown.cover?.id, shown.gallery.map((p) => p.id), shown.all.has(text.id)]).toEqual([gallery.id, [gallery.id], true]);
    await inTx(db, (tx) => binPicture(tx, alone.id, at, EDITOR));
    const ids = async (query: string) =>
      (await readLibrary(db, readLibraryQuery(new URLSearchParams(query)), { zone: 'America/Halifax' })).rows.map((p) => p.id);
    expect(await ids('use=cover')).toEqual([cover.id]);
    expect(await ids('use=gallery')).toEqual([gallery.id]);
    expect(await ids('use=text')).toEqual([text.id]);
    expect(await ids('use=unused')).toEqual([]);
    expect(await ids('bin=1')).toEqual([alone.id]);
    expect((await ids('use=used')).length).toBe(3);
  });
});

describe('the library', () => {
  it('is searched and filtered by words, shape, month and what it lacks', async () => {
    const wide = await keep({ name: 'low-tide_walk.png', alt: 'Fête at low tide' });
    const tall = await keep({ alt: '', width: 500, height: 900, at: new Date('2027-02-01T03:30:00Z') });
    const square = await keep({ alt: 'A buoy', width: 900, height: 880 });
    const find = async (query: string) => {
      const { rows, total } = await readLibrary(db, readLibraryQuery(new URLSearchParams(query)), { zone: 'America/Halifax' });
      expect(total).toBe(rows.length);
      return rows.map((p) => p.id).sort();
    };
    const all = [wide.id, tall.id, square.id].sort();
    expect(await find('')).toEqual(all);
    expect(await find('words=fete')).toEqual([wide.id]);
    expect(await find('words=WALK+tide')).toEqual([wide.id]);
    expect(await find('words=100%25')).toEqual([]);
    expect(await find('words=_')).toEqual([]);
    expect(await find('shape=wide')).toEqual([wide.id]);
    expect(await find('shape=tall')).toEqual([tall.id]);
    expect(await find('shape=square')).toEqual([square.id]);
    expect(await find('lacking=alt')).toEqual([tall.id]);
    expect(await find('lacking=small')).toEqual([tall.id]);
    // Half past three in the morning by Greenwich is still January in the isles.
    expect(await find('month=2027-01')).toEqual([tall.id]);
    expect(await find('month=2027-02')).toEqual([]);
    expect(await find('use=nonsense&shape=__proto__&month=2027-13&page=-4')).toEqual(all);
  });
});

describe('another file in a picture’s place', () => {
  it('is shown everywhere at once, keeps its words, and is taken back', async () => {
    const first = await keep({ by: 'nan' });
    await inTx(db, (tx) => changePicture(tx, first.id, { crops: { format: 1, wide: { x: 0, y: 0, w: 0.5, h: 0.5 } } }, EDITOR));
    const source = await keepSource({ db, pictureWorker }, await halves(800, 800, '#445566'));
    const done = await inTx(db, (tx) => replacePicture(tx, first.id, source, NAN, at));
    expect(done.row).toMatchObject({ alt: 'Two halves', width: 800, height: 800, crops: { format: 1 }, version: 3 });
    expect(done.before).toBe(first.hash);
    expect(await problem(inTx(db, (tx) => replacePicture(tx, first.id, source, NAN, at)))).toMatchObject({ kind: 'invalid' });
    // The old file is kept a while: until then it can be put back.
    const unused = async () => (await db.select().from(pictureSource).where(eq(pictureSource.hash, first.hash)))[0]?.unusedSince;
    expect(await unused()).toEqual(at);
    const back = await inTx(db, (tx) => putBack(tx, first.id, done.before, NAN, at));
    expect([back.width, back.hash, await unused()]).toEqual([1000, first.hash, null]);
    const later = new Date(at.getTime() + 31 * 86_400_000);
    await inTx(db, (tx) => tidy(tx, later, later));
    expect(await problem(inTx(db, (tx) => putBack(tx, first.id, source.hash, NAN, at)))).toMatchObject({ kind: 'conflict' });
    expect(await row(first.id)).toMatchObject({ hash: first.hash });
  });

  it('goes for good from the bin after thirty days, with its files, unless another shows the same', async () => {
    const one = await keep();
    const two = await keep({ ink: '#556677' });
    const same = await keepSource({ db, pictureWorker }, await halves(1000, 500));
    await inTx(db, (tx) => replacePicture(tx, two.id, same, EDITOR, at));
    await inTx(db, (tx) => binPicture(tx, one.id, at, EDITOR));
    const soon = new Date(at.getTime() + 29 * 86_400_000);
    await inTx(db, (tx) => tidy(tx, soon, soon));
    expect(await db.select({ id: picture.id }).from(picture)).toHaveLength(2);
    // Sent again, it is out of the bin.
    expect((await keep()).id).toBe(one.id);
    expect((await row(one.id)).binnedAt).toBeNull();
    await inTx(db, (tx) => binPicture(tx, one.id, at, EDITOR));
    const later = new Date(at.getTime() + 31 * 86_400_000);
    await inTx(db, (tx) => tidy(tx, later, later));
    expect((await db.select({ id: picture.id }).from(picture)).map((p) => p.id)).toEqual([two.id]);
    expect((await db.select({ hash: pictureSource.hash }).from(pictureSource)).map((s) => s.hash)).toEqual([one.hash]);
  });
});
