import { Answers } from '../site/content-cache';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, EDITOR, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { tableOf } from '../../../tests/support/site';
import { isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import type { Actor } from '../accounts/roles';
import { saveCategory } from '../categories/write';
import type { Db } from '../db/client';
import { listing, validationNote, user } from '../db/schema';
import { BLANK_ORGANIZER, saveOrganizer } from '../organizers/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { refreshNext } from '../dates/date-index';
import { readTable, readTableQuery } from './table';
import { dropView, keepView, readView, readViews } from './saved-views';
import { createListing, moveToStage, publishListing, saveListing } from '../listings/write';

let db: Db;
let places: Places;
beforeEach(async () => {
  db = await freshDb();
  places = await seedPlaces(db);
});
const make = (title: string, part: Partial<ListingContent> = {}) =>
  inTx(db, (tx) => createListing(tx, choir(places, { title, ...part }), change()));
const titles = async (query: string) => (await tableOf(db, query)).rows.map((r) => r.title);
const once = (day: number): Partial<ListingContent> => ({
  recurrence: {
    format: 3,
    zone: SETTINGS.zone,
    parts: [{ start: `${isoDay(day)}T19:00`, length: null, rule: null, limit: { kind: 'open' } }],
    exdates: [],
    breaks: [],
  },
});

describe('the table chooses', () => {
  it('by words with slips, the closest first, unless somebody asks for an order', async () => {
    await make('Harbour Choir: open rehearsal');
    await make('Harbour Choir');
    await make('Seed Swap', { summary: 'Bring harbour salt.' });
    expect(await titles('words=harbuor+chior')).toEqual(['Harbour Choir', 'Harbour Choir: open rehearsal']);
    expect(await titles('words=salt')).toEqual(['Seed Swap']);
    expect(await titles('words=harbour+choir&sort=title&down=1')).toEqual(['Harbour Choir: open rehearsal', 'Harbour Choir']);
    expect(await titles('words=%25')).toEqual([]);
  });

  it('by category with those under it, venue, organizer, owner', async () => {
    const child = await inTx(db, (tx) =>
      saveCategory(tx, null, { name: 'Choirs', shape: 'disc', ink: '#86308f', parentId: places.category }, EDITOR),
    );
    const venue = await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Lamp Room' }, EDITOR));
    const organizer = await inTx(db, (tx) => saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name: 'Skiffs' }, EDITOR));
    await db.insert(user).values({ id: 'nan', name: 'Nan Tarbert', email: 'nan@almanac.example' });
    await make('In the child', { categoryIds: [child] });
    await make('In the parent');
    await make('Elsewhere', { categoryIds: [], venueIds: [venue.id], organizerIds: [organizer.id] });
    const own = await inTx(db, (tx) =>
      createListing(tx, choir(places, { title: 'Hers' }), change({ id: 'nan', name: 'Nan Tarbert', role: 'contributor' })),
    );
    expect((await titles(`category=${places.category}`)).sort()).toEqual(['Hers', 'In the child', 'In the parent']);
    expect(await titles(`category=${child}`)).toEqual(['In the child']);
    expect(await titles(`venue=${venue.id}`)).toEqual(['Elsewhere']);
    expect(await titles(`organizer=${organizer.id}`)).toEqual(['Elsewhere']);
    expect(await titles('owner=nan')).toEqual(['Hers']);
    expect(await titles(`ids=${own.id},nonsense`)).toEqual(['Hers']);
    expect((await tableOf(db, '', { id: 'nan', name: 'Nan', role: 'contributor' })).rows.map((r) => r.title)).toEqual(['Hers']);
  });

  it('by what is missing, and by when the next date is', async () => {
    await make('Soon', once(NOW.day + 3));
    await make('Later', { ...once(NOW.day + 60), visibility: 'address-only' });
    await make('Over', once(NOW.day - 3));
    await make('Never', { recurrence: null, venueIds: [], headline: true });
    const [row] = await db.select().from(listing).limit(1);
    await db.insert(validationNote).values({
      listingId: row?.id ?? '',
      key: 'x',
      kind: 'x',
      severity: 'warning',
      field: 'title',
      says: { format: 1, code: 'titleMissing', with: {} },
    });
    expect(await titles('next=7')).toEqual(['Soon']);
    expect((await titles('next=92')).sort()).toEqual(['Later', 'Soon']);
    expect([await titles('next=past'), await titles('next=none')]).toEqual([['Over'], ['Never']]);
    expect([await titles('having=unlisted'), await titles('having=headline'), await titles('having=no-venue')]).toEqual([
      ['Later'],
      ['Never'],
      ['Never'],
    ]);
    expect([
      (await titles('having=problems')).length,
      (await titles('having=no-picture')).length,
      await titles('having=submitted'),
    ]).toEqual([1, 4, []]);
  });

  it('counts all of them, page by page, also beyond the last page', async () => {
    for (let i = 0; i < 53; i++) await make(`No ${String(i).padStart(2, '0')}`, { recurrence: null });
    const one = await tableOf(db, 'sort=title');
    const two = await tableOf(db, 'sort=title&page=2');
    expect([one.rows.length, one.total, two.rows.map((r) => r.title), two.total]).toEqual([50, 53, ['No 50', 'No 51', 'No 52'], 53]);
    expect(await tableOf(db, 'page=9')).toMatchObject({ rows: [], total: 53 });
    expect(one.stages.get('draft')).toBe(53);
  });

  it('counts stages once for each state of the content, and each person’s own apart', async () => {
    await make('Choir');
    const states = { before: new Answers('1'), after: new Answers('2') };
    const drafts = async (state: keyof typeof states, actor: Actor = EDITOR) => {
      const query = readTableQuery(new URLSearchParams());
      const input = { actor, query, sorted: false, today: NOW.day, found: undefined, kinds: [], answers: states[state] };
      const { stages, total } = await readTable(db, input);
      return [stages.get('draft') ?? 0, total];
    };
    const nan: Actor = { id: null, name: 'Nan', role: 'contributor' };
    expect([await drafts('before'), await drafts('before', nan)]).toEqual([
      [1, 1],
      [0, 0],
    ]);
    await make('Supper');
    expect([await drafts('before'), await drafts('after')]).toEqual([
      [1, 2],
      [2, 2],
    ]);
  });
});

describe('what is next', () => {
  it('follows each change, and the passing of days', async () => {
    const row = await make('Weekly');
    const next = async () => {
      const [now] = await db.select().from(listing);
      return [now?.nextDay, now?.nextMinute];
    };
    expect(await next()).toEqual([NOW.day + 6, 1140]);
    expect(await refreshNext(db, NOW.day + 6)).toBe(0);
    expect(await refreshNext(db, NOW.day + 7)).toBe(1);
    expect(await next()).toEqual([NOW.day + 13, 1140]);
    const published = await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    await inTx(db, (tx) =>
      saveListing(tx, { id: row.id, content: { ...row.working, ...once(NOW.day + 1) }, revision: published.revision }, change()),
    );
    // What readers see stays until it is published.
    expect(await next()).toEqual([NOW.day + 6, 1140]);
    await inTx(db, (tx) => moveToStage(tx, row.id, 'draft', change()));
    expect(await next()).toEqual([NOW.day + 1, 1140]);
    await refreshNext(db, NOW.day + 900);
    expect(await next()).toEqual([null, null]);
  });
});

describe('views', () => {
  it('are kept with what was chosen, for oneself or for everybody, and dropped by whom they belong to', async () => {
    await db.insert(user).values({ id: 'ivo', name: 'Ivo', email: 'ivo@almanac.example' });
    const query = new URLSearchParams('stage=draft&next=30&page=4&said=x&run=y&sort=next');
    const own = await inTx(db, (tx) => keepView(tx, { name: 'This month’s drafts', query, ownerId: 'ivo' }));
    const shared = await inTx(db, (tx) => keepView(tx, { name: 'This month’s drafts', query, ownerId: null }));
    expect([own.query, own.slug, shared.slug]).toEqual(['stage=draft&next=30&sort=next', 'this-months-drafts', 'this-months-drafts-2']);
    expect([(await readViews(db, 'ivo')).length, (await readViews(db, 'maud')).length]).toEqual([2, 1]);
    expect([await readView(db, own.slug, 'maud'), (await readView(db, own.slug, 'ivo'))?.name]).toEqual([undefined, 'This month’s drafts']);
    expect((await problem(inTx(db, (tx) => dropView(tx, own.slug, 'maud', true)))).kind).toBe('missing');
    expect((await problem(inTx(db, (tx) => dropView(tx, shared.slug, 'nan', false)))).kind).toBe('missing');
    await inTx(db, (tx) => dropView(tx, shared.slug, 'maud', true));
    expect((await problem(inTx(db, (tx) => keepView(tx, { name: ' ', query, ownerId: null })))).fields[0]?.field).toBe('name');
  });
});

describe('the table’s address', () => {
  it('is read with bounds: what is unknown has its default', () => {
    const odd = readTableQuery(
      new URLSearchParams(
        `stage=banana&sort=drop&page=-3&category=1%27--&columns=venue,x,owner&having=__proto__&next=8&words=${'x'.repeat(500)}`,
      ),
    );
    expect(odd).toMatchObject({ stage: '', sort: 'changed', page: 1, category: '', columns: ['venue', 'owner'], having: '', next: '' });
    expect(odd.words).toHaveLength(80);
  });
});
