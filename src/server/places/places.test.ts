import { DEFAULT_SETTINGS, type SiteSettings } from '@/server/site/settings';
import { sayHappening } from '../history/happening';
import { styleOf } from '../site/settings';
import { ContentCache } from '@/server/site/content-cache';
import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { siteOf } from '../../../tests/support/site';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { category, link, listing, occurrence, oldPlace, organizer, published, tag, venue, version } from '../db/schema';
import { readBookings } from '../dates/bookings';
import { rebuildIndex } from '../dates/rebuild';
import { createListing, publishListing, saveListing } from '../listings/write';
import { removeCategory, saveCategory } from '../categories/write';
import { findOrMakeTag, mergeTag } from '../tags/write';
import { BLANK_ORGANIZER, removeOrganizer, saveOrganizer } from '../organizers/write';
import { readComing } from '../public/public-dates';
import { referenceData } from '../reference/read';
import { read } from '../problem';
import { BLANK_VENUE, formHours, type VenueInput, venueInput } from '../venues/input';
import { binVenue, removeVenue, saveVenue } from '../venues/write';
import { readOldPlace } from './slugs';
import { bringBack, readKept } from './removed';
import { mergePlaces } from './merge';
import { countDates } from './read';
import { venueViews } from './view';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});
const AT = new Date(NOW.ms);
const makeVenue = async (part: Partial<VenueInput>): Promise<string> =>
  (await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, ...part }, EDITOR))).id;
const publish = (part: Partial<ListingContent> = {}) =>
  inTx(db, async (tx) => {
    const row = await createListing(tx, choir(places, part), change());
    return publishListing(tx, row.id, row.revision, change());
  });
const copies = async (id: string): Promise<[string[], string[]]> => {
  const [w] = await db.select().from(listing).where(eq(listing.id, id));
  const [p] = await db.select().from(published).where(eq(published.listingId, id));
  return [w?.working.venueIds ?? [], p?.content.venueIds ?? []];
};
const everything = async () => ({
  listings: (await db.select().from(listing).orderBy(listing.id)).map(({ revision: _, ...row }) => row),
  published: (await db.select().from(published).orderBy(published.listingId)).map(({ sequence: _s, changedAt: _c, ...row }) => row),
  links: (await db.select().from(link)).map((l) => JSON.stringify(l)).sort(),
  dates: (await db.select().from(occurrence)).map((o) => JSON.stringify(o)).sort(),
  venues: (await db.select().from(venue).orderBy(venue.id)).map(({ revision: _, ...row }) => row),
  old: await db.select().from(oldPlace),
});

describe('two venues made one', () => {
  it('listings follow in every copy, single dates too, and the old address leads on', async () => {
    const double = await makeVenue({ name: 'The Net Loft', phone: '555-0134' });
    const other = await makeVenue({ name: 'Lamp Room' });
    const both = await publish({ title: 'Both', venueIds: [double, places.venue, other] });
    const away = await publish({
      title: 'Away',
      venueIds: [other],
      changes: [{ original: '2027-03-30T19:00', movedTo: null, length: null, eventStatus: null, note: '', venueId: double }],
    });
    const draft = await inTx(db, (tx) => createListing(tx, choir(places, { title: 'Draft', venueIds: [double] }), change()));
    const done = await inTx(db, (tx) => mergePlaces(tx, 'venue', double, places.venue, change()));
    expect(done).toMatchObject({ listings: 3, from: 'The Net Loft', into: 'Net Loft' });
    expect(await copies(both.id)).toEqual([
      [places.venue, other],
      [places.venue, other],
    ]);
    expect(await copies(draft.id)).toEqual([[places.venue], []]);
    const [w] = await db.select().from(listing).where(eq(listing.id, away.id));
    expect(w?.working.changes[0]?.venueId).toBe(places.venue);
    expect((await db.select().from(occurrence).where(eq(occurrence.venueId, places.venue))).map((o) => o.listingId)).toEqual([away.id]);
    expect(await readOldPlace(db, 'venue', 'the-net-loft')).toBe('net-loft');
    // What only the other knew is kept.
    expect((await db.select().from(venue).where(eq(venue.id, places.venue)))[0]).toMatchObject({
      phone: '555-0134',
      town: 'Gannet Bay',
      lat: 43.12,
    });
    expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
  });

  it('is taken back as one: everything stands as before', async () => {
    const double = await makeVenue({ name: 'The Net Loft', phone: '555-0134' });
    const room = await makeVenue({ name: 'Upper room', parentId: double });
    const other = await makeVenue({ name: 'Lamp Room' });
    await publish({ title: 'Both', venueIds: [other, double, places.venue] });
    await publish({
      title: 'Away',
      venueIds: [other],
      changes: [{ original: '2027-03-30T19:00', movedTo: null, length: null, eventStatus: null, note: '', venueId: double }],
    });
    await publish({ title: 'In a room', venueIds: [room] });
    const before = await everything();
    const { id } = await inTx(db, (tx) => mergePlaces(tx, 'venue', double, places.venue, change()));
    expect((await readKept(db, 'venue', { into: places.venue })).map((m) => m.name)).toEqual(['The Net Loft']);
    const undone = await inTx(db, (tx) => bringBack(tx, id, change()));
    expect(undone).toEqual({ kind: 'venue', name: 'The Net Loft', listings: 2, left: 0 });
    const after = await everything();
    // The phone number that came over stays: nothing says that it was wrong.
    const phones = (rows: typeof before) => ({ ...rows, venues: rows.venues.map((v) => ({ ...v, phone: '' })) });
    expect(phones(after)).toEqual(phones(before));
    expect((await problem(inTx(db, (tx) => bringBack(tx, id, change())))).title).toContain('taken back already');
    expect(await readKept(db, 'venue', { into: places.venue })).toEqual([]);
  });

  it('leaves what somebody changed since', async () => {
    const double = await makeVenue({ name: 'The Net Loft' });
    const other = await makeVenue({ name: 'Lamp Room' });
    const row = await inTx(db, (tx) => createListing(tx, choir(places, { venueIds: [double] }), change()));
    const { id } = await inTx(db, (tx) => mergePlaces(tx, 'venue', double, places.venue, change()));
    const [now] = await db.select().from(listing).where(eq(listing.id, row.id));
    await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, venueIds: [other] }, revision: now?.revision ?? 0 }, change()),
    );
    expect(await inTx(db, (tx) => bringBack(tx, id, change()))).toMatchObject({ listings: 0, left: 1 });
    expect(await copies(row.id)).toEqual([[other], []]);
  });

  it('is refused with itself, with a room of its own, with what is gone or in the bin', async () => {
    const merge = (a: string, b: string) => problem(inTx(db, (tx) => mergePlaces(tx, 'venue', a, b, change())));
    const room = await makeVenue({ name: 'Upper room', parentId: places.venue });
    const binned = await makeVenue({ name: 'Old shed' });
    await inTx(db, (tx) => binVenue(tx, binned, AT, EDITOR));
    expect((await merge(places.venue, places.venue)).fields[0]?.message).toContain('the same venue');
    expect((await merge(places.venue, room)).fields[0]?.message).toContain('is a room of');
    expect((await merge(places.venue, binned)).fields[0]?.message).toContain('in the bin');
    expect((await merge('01890000-0000-7000-8000-000000000000', room)).kind).toBe('missing');
    expect(await db.select().from(venue)).toHaveLength(3);
  });

  it('works for organizers, in their order', async () => {
    const make = async (name: string) => (await inTx(db, (tx) => saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name }, EDITOR))).id;
    const [one, two, three] = [await make('Harbour Choir'), await make('The Harbour Choir'), await make('Net Loft Dances')];
    const row = await publish({ organizerIds: [three, two, one] });
    const { id } = await inTx(db, (tx) => mergePlaces(tx, 'organizer', two, one, change()));
    const now = async () => (await db.select().from(published).where(eq(published.listingId, row.id)))[0]?.content.organizerIds;
    expect(await now()).toEqual([three, one]);
    await inTx(db, (tx) => bringBack(tx, id, change()));
    expect(await now()).toEqual([three, two, one]);
    expect(await db.select().from(organizer)).toHaveLength(3);
  });
});

describe('what is removed', () => {
  const cases = ['venue', 'organizer', 'category', 'tag'] as const;
  for (const kind of cases)
    for (const instead of kind === 'category' ? [true] : [false, true])
      it(`a ${kind}${instead ? ', with another in its place' : ''}: comes back whole, and versions say both`, async () => {
        const name = (n: string) => `${n} ${kind}`;
        const makers = {
          venue: (n: string) => makeVenue({ name: name(n), phone: '555-0134' }),
          organizer: async (n: string) =>
            (await inTx(db, (tx) => saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name: name(n) }, EDITOR))).id,
          category: (n: string) =>
            inTx(db, (tx) => saveCategory(tx, null, { name: name(n), shape: 'bar', ink: '#0c5a63', parentId: null }, EDITOR)),
          tag: async (n: string) => (await inTx(db, (tx) => findOrMakeTag(tx, name(n), EDITOR))).id,
        };
        const [going, other] = [await makers[kind]('Going'), await makers[kind]('Other')];
        const field = { venue: 'venueIds', organizer: 'organizerIds', category: 'categoryIds', tag: 'tagIds' } as const;
        const out = await publish({ title: 'Out', [field[kind]]: [going, other] });
        const alone = await publish({ title: 'Alone', [field[kind]]: [going] });
        const away = { original: '2027-03-30T19:00', movedTo: null, length: null, eventStatus: null, note: '', venueId: going };
        const draft = await inTx(db, (tx) =>
          createListing(
            tx,
            choir(places, { title: 'Draft', [field[kind]]: [other, going], changes: kind === 'venue' ? [away] : [] }),
            change(),
          ),
        );
        if (kind === 'category') await db.update(organizer).set({ categoryId: going });
        const all = async () => ({
          ...(await everything()),
          organizers: (await db.select().from(organizer).orderBy(organizer.id)).map(({ revision: _, ...row }) => row),
          categories: (await db.select().from(category).orderBy(category.id)).map(({ revision: _, ...row }) => row),
          tags: (await db.select().from(tag).orderBy(tag.id)).map(({ revision: _, ...row }) => row),
        });
        const before = await all();
        const to = instead ? other : null;
        const remove = { venue: removeVenue, organizer: removeOrganizer, category: removeCategory };
        const gone = await inTx(db, (tx) => (kind === 'tag' ? mergeTag(tx, going, to, change()) : remove[kind](tx, going, to, change())));
        expect(gone).toMatchObject({ name: name('Going'), listings: 3 });
        const names = async (id: string) => (await db.select().from(listing).where(eq(listing.id, id)))[0]?.working[field[kind]];
        expect([await names(out.id), await names(alone.id), await names(draft.id)]).toEqual([[other], to ? [to] : [], [other]]);
        expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
        expect((await readKept(db, kind)).map((k) => k.name)).toEqual([name('Going')]);
        expect(await inTx(db, (tx) => bringBack(tx, gone.command, change()))).toEqual({
          kind,
          name: name('Going'),
          listings: 3,
          left: 0,
        });
        expect(await all()).toEqual(before);
        const said = (await db.select().from(version).where(eq(version.listingId, alone.id)).orderBy(version.revision)).map((v) =>
          sayHappening(v.what, styleOf(SETTINGS), SETTINGS.zone),
        );
        expect(said.at(-2)).toContain(name('Going'));
        expect(said.at(-1)).toBe(`brought “${name('Going')}” back`);
        expect((await rebuildIndex(db, SETTINGS, NOW)).differed).toEqual([]);
      });
});

describe('rooms', () => {
  it('are booked with their hall, not with each other', async () => {
    const [upper, kitchen] = [
      await makeVenue({ name: 'Upper room', parentId: places.venue }),
      await makeVenue({ name: 'Kitchen', parentId: places.venue }),
    ];
    await publish({ title: 'In the hall' });
    await publish({ title: 'Upstairs', venueIds: [upper] });
    await publish({ title: 'Cooking', venueIds: [kitchen] });
    const titles = async (id: string) =>
      [
        ...new Set((await readBookings(db, { venueIds: [id], not: null, from: NOW.day })).map(([t, , , , , , v]) => `${t} ${v === id}`)),
      ].sort();
    expect(await titles(places.venue)).toEqual(['Cooking true', 'In the hall true', 'Upstairs true']);
    expect(await titles(upper)).toEqual(['In the hall true', 'Upstairs true']);
    expect(await titles(kitchen)).toEqual(['Cooking true', 'In the hall true']);
    const coming = await readComing(db, { from: NOW.day, limit: 100, venueIds: [places.venue, upper, kitchen] });
    expect(new Set(coming.map((d) => d.title)).size).toBe(3);
  });
  it('have the address of their hall, and a hall with rooms stays', async () => {
    const room = await makeVenue({ name: 'Upper room', parentId: places.venue, town: 'Elsewhere', capacity: 30 });
    const view = venueViews(await db.select().from(venue)).find((v) => v.id === room);
    expect(view).toMatchObject({ town: 'Gannet Bay', lat: 43.12, capacity: 30, hall: { name: 'Net Loft' } });
    expect((await problem(inTx(db, (tx) => removeVenue(tx, places.venue, null, change())))).title).toContain(
      '“Upper room” is a room of it',
    );
    expect(
      (await problem(inTx(db, (tx) => saveVenue(tx, places.venue, { ...BLANK_VENUE, name: 'x', parentId: places.venue }, EDITOR))))
        .fields[0],
    ).toMatchObject({ field: 'parentId' });
  });
});

describe('what readers learn of a venue', () => {
  it('of an area: no street, no exact position; never the notes', async () => {
    await makeVenue({
      name: 'A kitchen',
      street: '9 Kelp Lane',
      town: 'Port Amble',
      postcode: 'K1',
      lat: 43.17777,
      lng: -57.50123,
      areaOnly: true,
      notes: 'key under the pot',
    });
    const reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
    const view = reference.venues.find((v) => v.name === 'A kitchen');
    expect(view).toMatchObject({ street: '', postcode: '', town: 'Port Amble', lat: 43.18, lng: -57.5 });
    expect(JSON.stringify(reference.venues)).not.toMatch(/Kelp|key under|43\.17777/);
  });
  it('no more than the site shows, whatever was asked before', async () => {
    await makeVenue({ name: 'The Slip', phone: '555-0142', mail: 'slip@isles.example', website: 'https://slip.example', capacity: 40 });
    const cache = new ContentCache(() => '1');
    const asked = async (venueShows: SiteSettings['venueShows']) => {
      const { venues } = await referenceData({ db, cache, settings: () => ({ ...DEFAULT_SETTINGS, venueShows }) });
      const { phone, mail, website, capacity } = venues.find((v) => v.name === 'The Slip') ?? {};
      return [phone, mail, website, capacity];
    };
    expect(await asked(DEFAULT_SETTINGS.venueShows)).toEqual(['555-0142', 'slip@isles.example', 'https://slip.example', 40]);
    expect(await asked(['website'])).toEqual(['', '', 'https://slip.example', null]);
  });
  it('nothing while it is in the bin, though listings keep its name', async () => {
    await publish({});
    await inTx(db, (tx) => binVenue(tx, places.venue, AT, EDITOR));
    const reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
    expect([reference.venues, reference.towns, reference.venue.get(places.venue)?.name]).toEqual([[], [], 'Net Loft']);
    await inTx(db, (tx) => binVenue(tx, places.venue, null, EDITOR));
    expect((await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS })).venues).toHaveLength(1);
  });
});

describe('counts of dates', () => {
  it('are of the places where they happen', async () => {
    const other = await makeVenue({ name: 'Lamp Room' });
    await publish({
      changes: [{ original: '2027-03-30T19:00', movedTo: null, length: null, eventStatus: null, note: '', venueId: other }],
    });
    await inTx(db, (tx) => createListing(tx, choir(places, { title: 'Draft' }), change()));
    const counts = await countDates(siteOf(db), 'venue', NOW.day + 20);
    const all = await db.select().from(occurrence).where(eq(occurrence.public, true));
    const past = all.filter((o) => o.lastDay < NOW.day + 20 && !o.venueId).length;
    expect([counts.get(places.venue), counts.get(other)]).toEqual([
      { coming: 9 - past, past },
      { coming: 0, past: 1 },
    ]);
    expect(all).toHaveLength(10);
  });
});

describe('a venue’s form', () => {
  it('says each wrong day of its hours, and takes good ones', () => {
    expect(formHours({ hours0: '9-17', hours3: 'late' }).problems).toEqual([{ field: 'hours3', message: expect.stringContaining('late') }]);
    expect(formHours({ hours0: '9-17' }).hours?.week[0]).toEqual([[540, 1020]]);
    expect(formHours({}).hours).toBeNull();
  });
  it('is bounded', async () => {
    const bad = await problem(
      (async () =>
        read(venueInput, {
          name: 'x',
          country: 'ZZ',
          capacity: '-3',
          setUpMinutes: '9999',
          features: ['ramp'],
          pictureId: 'no',
          parentId: 'no',
          notes: 'x'.repeat(3000),
        }))(),
    );
    expect(new Set(bad.fields.map((f) => f.field.split('.')[0]))).toEqual(
      new Set(['country', 'capacity', 'setUpMinutes', 'features', 'pictureId', 'parentId', 'notes']),
    );
    const gone = '01890000-0000-7000-8000-000000000000';
    expect(
      (await problem(inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'x', pictureId: gone }, EDITOR)))).fields[0]?.field,
    ).toBe('pictureId');
  });
});
