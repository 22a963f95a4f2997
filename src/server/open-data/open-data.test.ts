/** What other programs read: the OpenAPI document is one, every answer is as it says, pages go through everything once, and drafts stay ours. */
import { Validator } from '@seriousme/openapi-schema-validator';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { HOST, siteOf } from '../../../tests/support/site';
import { isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { oldPlace } from '../db/schema';
import { createListing, publishListing, saveListing } from '../listings/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { EDITOR } from '../../../tests/support/db';
import { type CollectionName, COLLECTIONS, collectionItem, collectionPage } from './collections';
import { openApiDocument } from './document';
import type { OpenDate, OpenListing } from './shapes';
import { OPEN_DATA } from './telling';

const DOCUMENT = openApiDocument({ name: 'Kittiwick Isles Almanac', url: `https://${HOST}`, version: '1.0' });

/** Checks values by the document's own schemas, with a validator that knows nothing of how they were made. */
function checker() {
  const ajv = new Ajv2020({ strict: false, allErrors: true });
  addFormats.default(ajv);
  ajv.addSchema(DOCUMENT, 'doc');
  return (name: string, value: unknown): string[] => {
    const check = ajv.getSchema(`doc#/components/schemas/${name}`);
    if (!check) return [`no schema is called ${name}`];
    return check(value) ? [] : (check.errors ?? []).map((error) => `${error.instancePath} ${error.message}`);
  };
}

const PAGES: Record<CollectionName, string> = {
  dates: 'DatesPage',
  listings: 'ListingsPage',
  venues: 'VenuesPage',
  organizers: 'OrganizersPage',
  categories: 'CategoriesPage',
};
const ITEMS: Record<Exclude<CollectionName, 'dates'>, string> = {
  listings: 'Listing',
  venues: 'Venue',
  organizers: 'Organizer',
  categories: 'Category',
};

describe('the interface for other programs', () => {
  let db: Db;
  let places: Places;
  beforeEach(async () => {
    db = await freshDb();
    places = await seedPlaces(db);
  });
  const publish = async (part: Partial<ListingContent> = {}): Promise<string> => {
    const row = await inTx(db, (tx) => createListing(tx, choir(places, part), change()));
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    return row.id;
  };
  const url = (path: string): URL => new URL(`https://${HOST}${OPEN_DATA}/${path}`);
  const ask = (path: string) => collectionPage(siteOf(db), path.split(/[?/]/)[0], url(path));
  /** Every page, one after another. */
  const all = async <T>(path: string): Promise<{ data: T[]; pages: number }> => {
    const data: T[] = [];
    let next: string | null = url(path).href;
    let pages = 0;
    while (next !== null && pages < 200) {
      const at: URL = new URL(next);
      const page = await collectionPage(siteOf(db), path.split(/[?/]/)[0], at);
      data.push(...(page.data as T[]));
      next = page.next;
      pages++;
    }
    return { data, pages };
  };

  it('is described by a document that is valid OpenAPI 3.1', async () => {
    const { valid, errors } = await new Validator().validate(structuredClone(DOCUMENT));
    expect(errors ?? []).toEqual([]);
    expect(valid).toBe(true);
    expect(Object.keys(DOCUMENT.paths as object)).toEqual([
      '/dates',
      ...Object.keys(ITEMS).flatMap((name) => [`/${name}`, `/${name}/{slug}`]),
    ]);
  });

  it('answers as the document says, whatever a listing has or lacks', async () => {
    const check = checker();
    await publish();
    await publish({
      title: 'Tide tables, read aloud',
      attendance: 'both',
      onlineAddress: 'https://almanac.example/join',
      cost: { kind: 'amount', amount: '8.50', currency: 'CAD' },
      venueIds: [],
      text: '<p>With <strong>slides</strong>.</p>',
    });
    await publish({
      title: 'Salt week',
      cost: { kind: 'words', words: 'a tin for the shelf' },
      recurrence: {
        format: 3,
        zone: 'America/Halifax',
        parts: [{ start: '2027-03-15', length: { days: 7, minute: null }, rule: null, limit: { kind: 'open' } }],
        exdates: [],
        breaks: [],
      },
    });
    for (const name of Object.keys(COLLECTIONS) as CollectionName[]) {
      const page = await ask(name);
      expect(check(PAGES[name], page), name).toEqual([]);
      if (name === 'dates') continue;
      for (const { slug } of page.data as { slug: string }[]) {
        const item = await collectionItem(siteOf(db), name, slug, url(`${name}/${slug}`));
        expect(check(ITEMS[name], item), slug).toEqual([]);
        expect(page.data).toContainEqual(item);
      }
    }
    // The check can fail.
    expect(check('DatesPage', { data: [{ title: 'no date' }], next: 7 })).not.toEqual([]);
    const { data } = (await ask('dates')) as { data: OpenDate[] };
    expect(data[0]).toMatchObject({
      title: 'Salt week',
      start: '2027-03-15',
      end: '2027-03-21',
      allDay: true,
      cost: 'a tin for the shelf',
    });
    expect(data[1]).toMatchObject({ start: '2027-03-23T19:00:00-03:00', end: '2027-03-23T21:00:00-03:00', zone: 'America/Halifax' });
  });

  it('gives links and pictures of a text by their whole addresses, and what only looks like one as it is', async () => {
    const picture = '/picture/0198c5b2-1111-7111-8111-111111111111/1024';
    await publish({
      title: 'With a picture',
      text: `<p>Write src="/x" &amp; <a href="/what/choir">here</a>, <a href="https://almanac.example/">there</a></p><img src="${picture}" alt="a &gt; b">`,
    });
    const one = (await collectionItem(siteOf(db), 'listings', 'with-a-picture', url('listings/with-a-picture'))) as OpenListing;
    expect(one.text).toContain(`src="https://${HOST}${picture}"`);
    expect(one.text).toContain(`href="https://${HOST}/what/choir"`);
    expect(one.text).toContain('href="https://almanac.example/"');
    expect(one.text).toContain('Write src="/x" &amp; ');
  });

  it('goes through all dates once, page by page, however many go on since before', async () => {
    await publish();
    for (let i = 0; i < 6; i++)
      await publish({
        title: `On show ${i}`,
        recurrence: {
          format: 3,
          zone: 'America/Halifax',
          parts: [{ start: '2027-03-10', length: { days: 60 + i, minute: null }, rule: null, limit: { kind: 'open' } }],
          exdates: [],
          breaks: [],
        },
      });
    const whole = await all<OpenDate>('dates?limit=200');
    expect([whole.pages, whole.data.length]).toEqual([1, 16]);
    for (const limit of [1, 2, 3, 5, 7]) {
      const parts = await all<OpenDate>(`dates?limit=${limit}`);
      expect(parts.pages).toBeGreaterThan(1);
      expect(parts.data).toEqual(whole.data);
    }
  });

  it('goes through all listings and venues once', async () => {
    for (let i = 0; i < 5; i++) await publish({ title: `Evening ${i}` });
    for (let i = 0; i < 5; i++) await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: `Shed ${i}` }, EDITOR));
    for (const [name, total] of [
      ['listings', 5],
      ['venues', 6],
    ] as const) {
      const whole = await all(name);
      expect(whole.data.length).toBe(total);
      const parts = await all(`${name}?limit=2`);
      expect(parts).toEqual({ data: whole.data, pages: Math.ceil(total / 2) });
    }
  });

  it('tells nothing of drafts, of what waits in a published listing, or of what is in the bin', async () => {
    const id = await publish({ title: 'Told' });
    const before = JSON.stringify([await ask('dates'), await ask('listings')]);
    await inTx(db, (tx) => createListing(tx, choir(places, { title: 'Secret draft' }), change()));
    await inTx(db, (tx) => saveListing(tx, { id, content: choir(places, { title: 'Secret change' }), revision: 2 }, change()));
    expect(JSON.stringify([await ask('dates'), await ask('listings')])).toBe(before);
    expect(before).not.toContain('ecret');
    await expect(collectionItem(siteOf(db), 'listings', 'secret-draft', url('listings/secret-draft'))).rejects.toMatchObject({
      kind: 'missing',
    });
  });

  it('shows one by its address only to whoever has the address', async () => {
    await publish({ title: 'Quiet gathering', visibility: 'address-only' });
    expect((await ask('dates')).data).toEqual([]);
    expect((await ask('listings')).data).toEqual([]);
    const one = (await collectionItem(siteOf(db), 'listings', 'quiet-gathering', url('listings/quiet-gathering'))) as OpenListing;
    expect([one.title, one.coming]).toEqual(['Quiet gathering', 10]);
  });

  it('leads from a former slug to what has it now', async () => {
    const { id } = await inTx(db, (tx) => saveVenue(tx, null, { ...BLANK_VENUE, name: 'Old Shed' }, EDITOR));
    await db.insert(oldPlace).values({ kind: 'venue', slug: 'former-shed', targetId: id });
    const one = (await collectionItem(siteOf(db), 'venues', 'former-shed', url('venues/former-shed'))) as { slug: string };
    expect(one.slug).toBe('old-shed');
  });

  it('takes the filters of readers’ views', async () => {
    await publish();
    await publish({ title: 'Paid evening', cost: { kind: 'amount', amount: '12', currency: 'CAD' } });
    const titles = async (query: string) => [...new Set(((await ask(query)).data as OpenDate[]).map(({ title }) => title))];
    expect(await titles('dates?free=1')).toEqual(['Harbour Choir']);
    expect(await titles('listings?words=paid')).toEqual(['Paid evening']);
    expect(await titles(`dates?from=${isoDay(NOW.day)}&to=${isoDay(NOW.day + 2)}`)).toEqual([]);
    expect(await titles('dates?near=gannet+bay&kind=music-dance')).toEqual(['Harbour Choir', 'Paid evening']);
  });

  it.each([
    ['dates?colour=red', 'colour'],
    ['venues?kind=music-dance', 'kind'],
    ['dates?on=someday', 'on'],
    ['dates?from=2027-02-30', 'from'],
    ['dates?kind=nothing-like-it', 'kind'],
    ['dates?near=nowhere+at+all', 'near'],
    ['dates?limit=0', 'limit'],
    ['dates?limit=1e9', 'limit'],
    ['dates?cursor=%27%3B--', 'cursor'],
    ['listings?cursor=2027-03-17', 'cursor'],
    ['venues?cursor=%00', 'cursor'],
    ['dates?language=xx', 'language'],
  ])('refuses %s and names %s', async (path, field) => {
    await publish();
    await expect(ask(path)).rejects.toMatchObject({ kind: 'invalid', fields: [{ field }] });
  });

  it('has no collection of another name, not even one that every object has', async () => {
    for (const name of ['users', 'constructor', '__proto__', ''])
      await expect(collectionPage(siteOf(db), name, url('x'))).rejects.toMatchObject({ kind: 'missing' });
  });
});
