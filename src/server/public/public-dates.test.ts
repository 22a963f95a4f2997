import { ContentCache } from '@/server/site/content-cache';
import type { EffectiveDate } from '@/core/dates/effective-date';
import { beforeAll, describe, expect, it } from 'vitest';
import { between, pick, random, seedOf, some } from '../../../tests/support/generate';
import { change, choir, EDITOR, freshDb, inTx, NOW, SETTINGS } from '../../../tests/support/db';
import { isoDay } from '@/core/day/day';
import type { Attendance, ListingContent } from '@/core/listing/content';
import { fold } from '@/core/text/text';
import { makeFallback, saveCategory } from '../categories/write';
import type { Db } from '../db/client';
import { createListing, publishListing } from '../listings/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { countOn, countComing, readComing, readDates } from './public-dates';
import { foundDates, readersComing, type DateSource, type ReadersDates, storedDates } from './readers-dates';
import type { Facets } from './facets';
import { SiteFinder } from '../finder/site-finder';
import type { Finder } from '@/core/finder/finder';
import { type Filters, filterQuery, isFiltered, readFilters } from '@/core/filters/filters';
import { type ReferenceData, referenceData } from '../reference/read';

const seed = seedOf();
const quietLog = { info: () => undefined, error: () => undefined };
const plain = (f: Facets) => ({ ...f, kinds: [...f.kinds].sort(), places: [...f.places].sort() });
const ALL: Filters = { kinds: [], places: [], free: false, tags: [], words: '' };
const span = { from: NOW.day, to: NOW.day + 60 };
let db: Db;
let reference: ReferenceData;
let all: EffectiveDate[];
let finder: Finder;
let source: DateSource;

/** Forty listings of two parents, a child, three towns, online and free ones; a fifth stay drafts. */
beforeAll(async () => {
  db = await freshDb();
  const r = random(seed);
  await inTx(db, async (tx) => {
    const music = await saveCategory(tx, null, { name: 'Music & dance', shape: 'disc', ink: '#86308f', parentId: null }, EDITOR);
    await makeFallback(tx, music);
    const choirs = await saveCategory(tx, null, { name: 'Choirs', shape: 'disc', ink: '#86308f', parentId: music }, EDITOR);
    const nature = await saveCategory(tx, null, { name: 'Nature & sea', shape: 'square', ink: '#0c5a63', parentId: null }, EDITOR);
    const venues: string[] = [];
    for (const [name, town] of [
      ['Net Loft', 'Gannet Bay'],
      ['Lamp Room', 'Ternhead'],
      ['Ropewalk', 'Gannet Bay'],
      ['Salt Store', 'Skua Sound'],
    ] as const)
      venues.push((await saveVenue(tx, null, { ...BLANK_VENUE, name, town }, EDITOR)).id);
    for (let i = 0; i < 40; i++) {
      const start = `${isoDay(NOW.day + between(r, -20, 50))}T${String(between(r, 8, 20)).padStart(2, '0')}:00`;
      const attendance = pick<Attendance>(r, ['in-person', 'in-person', 'online', 'both']);
      const base = choir({ category: pick(r, [music, choirs, nature]), venue: pick(r, venues) });
      const days = pick(r, [0, 0, 0, 2]);
      const content: ListingContent = {
        ...base,
        // A third of them are in two places or three.
        venueIds: r() < 0.35 ? some(r, venues, 3) : base.venueIds,
        title: `${pick(r, ['Harbour', 'Lantern', 'Tideline'])} ${pick(r, ['Evening', 'Walk', 'Chœur 100%'])} ${i}`,
        attendance,
        headline: r() < 0.2,
        onTopUntil: r() < 0.3 ? isoDay(NOW.day + between(r, 5, 30)) : null,
        onlineAddress: attendance === 'in-person' ? '' : 'https://live.example/room',
        cost: r() < 0.4 ? { kind: 'free' } : { kind: 'amount', amount: '8', currency: 'CAD' },
        recurrence: {
          format: 3,
          zone: SETTINGS.zone,
          parts: [
            {
              start,
              length: { days, minute: 1320 },
              rule: pick(r, [
                null,
                { freq: 'weekly' as const, interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 },
                { freq: 'daily' as const, interval: 2, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 },
              ]),
              limit: { kind: 'count', count: 12 },
            },
          ],
          exdates: [],
          breaks: [],
        },
      };
      const row = await createListing(tx, content, change());
      if (i % 5) await publishListing(tx, row.id, row.revision, change());
    }
  });
  reference = await referenceData({ db, cache: new ContentCache(() => '1') });
  all = await readDates(db, { from: NOW.day - 400, to: NOW.day + 400 }, ALL, reference);
  finder = (await new SiteFinder({ db, revision: () => '1', log: quietLog }).made()) as Finder;
  source = { db, cache: new ContentCache(() => '1'), finder: { current: async () => finder } };
});

/** What a filter leaves, decided date by date without a query. */
function slow(dates: EffectiveDate[], filters: Filters): EffectiveDate[] {
  return dates.filter((date) => {
    const category = reference.category.get(date.categoryId);
    const parent = category?.parentId ? reference.category.get(category.parentId) : undefined;
    const venues = date.venueIds.flatMap((id) => reference.venue.get(id) ?? []);
    const kind = !filters.kinds.length || filters.kinds.some((k) => k === category?.slug || k === parent?.slug);
    const place =
      !filters.places.length ||
      filters.places.some((p) => venues.some((v) => v.town === p) || (p === 'online' && date.attendance !== 'in-person'));
    const kinds = fold(`${category?.name} ${parent?.name ?? ''}`);
    const text = `${kinds} ${fold(date.title)} ${fold(date.summary)} ${venues.map((v) => `${v.name} ${v.town}`.toLowerCase()).join(' ')}`;
    const words = fold(filters.words)
      .split(' ')
      .filter(Boolean)
      .every((word) => text.includes(word));
    return kind && place && words && (!filters.free || date.free);
  });
}

function generateFilters(r: () => number): Filters {
  return {
    kinds: r() < 0.5 ? some(r, ['music-dance', 'choirs', 'nature-sea', 'no-such-kind'], 2) : [],
    places: r() < 0.5 ? some(r, ['Gannet Bay', 'Ternhead', 'Skua Sound', 'online', 'Nowhere'], 2) : [],
    free: r() < 0.3,
    tags: [],
    words: r() < 0.4 ? pick(r, ['harbour', 'choeur', '100%', 'e_e', 'net loft', 'ternhead walk', '%']) : '',
  };
}

const touching = (dates: EffectiveDate[], { from, to }: { from: number; to: number }): EffectiveDate[] =>
  dates.filter((d) => d.startDay <= to && d.lastDay >= from);
const names = (dates: { listing: string; date: string }[]): string[] => dates.map((d) => `${d.listing} ${d.date}`);

const SOURCES: [string, (filters: Filters) => ReadersDates][] = [
  ['database', (filters) => storedDates({ db }, filters, reference)],
  ['finder', (filters) => foundDates(finder, filters, reference)],
];

describe.each(SOURCES)(`dates for readers from the %s, seed ${seed}`, (_name, shown) => {
  it('are those that a slow filter leaves, in order, for views and for the month', async () => {
    const r = random(seed + 1);
    let nothing = 0;
    for (let i = 0; i < 60; i++) {
      const filters = generateFilters(r);
      const from = NOW.day + between(r, -30, 40);
      const part = { from, to: from + between(r, 0, 45) };
      const expected = names(slow(touching(all, part), filters));
      const where = JSON.stringify({ filters, part });
      expect(names(await shown(filters).dates(part)), where).toEqual(expected);
      expect(new Set(await shown(filters).listingIds(part)).size, where).toBe(new Set(expected.map((name) => name.split(' ')[0])).size);
      if (!expected.length) nothing++;
    }
    expect(nothing).toBeGreaterThan(3);
    expect(nothing).toBeLessThan(50);
  });

  it('are counted beside each choice as if it alone were ticked, with the other choices kept', async () => {
    const r = random(seed + 2);
    for (let i = 0; i < 30; i++) {
      const filters = generateFilters(r);
      const dates = touching(all, span);
      const facets = await shown(filters).facets(span);
      expect(facets.total).toBe(slow(dates, filters).length);
      expect(facets.free).toBe(slow(dates, { ...filters, free: true }).length);
      for (const kind of ['music-dance', 'choirs', 'nature-sea'])
        expect(facets.kinds.get(kind) ?? 0, `${kind} ${JSON.stringify(filters)}`).toBe(slow(dates, { ...filters, kinds: [kind] }).length);
      for (const place of ['Gannet Bay', 'Ternhead', 'Skua Sound', 'online'])
        expect(facets.places.get(place) ?? 0).toBe(slow(dates, { ...filters, places: [place] }).length);
    }
  });

  it('fill pages of whole days, each date once, forwards and back', async () => {
    const coming = all.filter((d) => d.lastDay >= NOW.day);
    const seen: string[] = [];
    const starts: number[] = [];
    for (let from: number | undefined = NOW.day; from !== undefined; ) {
      starts.push(from);
      const page = await shown(ALL).listPage(from, 15);
      expect(page.dates.length).toBeGreaterThan(0);
      seen.push(...names(page.dates.filter((d) => d.startDay >= (from as number) || from === NOW.day)));
      from = page.later;
    }
    expect(starts.length).toBeGreaterThan(4);
    expect(seen.sort()).toEqual(names(coming).sort());
    const last = starts.at(-1) as number;
    const back = (await shown(ALL).earlierDay(last, 15)) as number;
    const between2 = all.filter((d) => d.startDay >= back && d.startDay < last).length;
    expect(between2).toBeGreaterThanOrEqual(15);
    const first = Math.min(...all.map((d) => d.startDay));
    expect(await shown(ALL).earlierDay(first, 15)).toBeUndefined();
  });

  it('are found once a listing, with what follows, in pages', async () => {
    const r = random(seed + 3);
    for (let i = 0; i < 25; i++) {
      const filters = generateFilters(r);
      const from = NOW.day + between(r, -20, 30);
      const hits = slow(all, filters).filter((d) => d.lastDay >= from);
      const byListing = new Map<string, EffectiveDate[]>();
      for (const date of hits) byListing.set(date.listing, [...(byListing.get(date.listing) ?? []), date]);
      const seen: string[] = [];
      for (let page = 1; page < 20; page++) {
        const { results, total } = await shown(filters).results({ from, page, length: 4 });
        if (!results.length) break;
        expect(total, JSON.stringify(filters)).toBe(byListing.size);
        for (const result of results) {
          const own = byListing.get(result.listing) ?? [];
          expect([result.date, result.dates, result.until]).toEqual([own[0]?.date, own.length, Math.max(...own.map((d) => d.lastDay))]);
          expect(result.days).toEqual(own.slice(0, 5).map((d) => d.startDay));
          seen.push(result.listing);
        }
      }
      expect(seen.length).toBe(byListing.size);
      expect(new Set(seen).size).toBe(seen.length);
      const to = from + between(r, 0, 20);
      const matching = slow(all, filters);
      const before = matching.filter((d) => d.lastDay < from);
      const after = matching.filter((d) => d.startDay > to);
      expect(await shown(filters).elsewhere({ from, to })).toEqual({
        earlier: before.length,
        last: before.length ? Math.max(...before.map((d) => d.startDay)) : undefined,
        later: after.length,
        next: after.length ? Math.min(...after.map((d) => d.startDay)) : undefined,
      });
    }
  });

  it('on top are the next of each, the soonest first', async () => {
    for (const today of [NOW.day, NOW.day + 9]) {
      const first = new Map<string, EffectiveDate>();
      for (const date of all)
        if (date.onTopUntil !== null && date.onTopUntil >= today && date.lastDay >= today && !first.has(date.listing))
          first.set(date.listing, date);
      expect(first.size).toBeGreaterThan(2);
      expect(names(await shown(ALL).onTop(today))).toEqual(names([...first.values()].slice(0, 6)));
    }
  });
});

describe('dates for readers', () => {
  it('are the same from the finder as from the database, to the last field', async () => {
    const r = random(seed + 9);
    for (let i = 0; i < 40; i++) {
      const filters = generateFilters(r);
      const from = NOW.day + between(r, -30, 40);
      const part = { from, to: from + between(r, 0, 45) };
      const [stored, found] = [storedDates({ db }, filters, reference), foundDates(finder, filters, reference)];
      // A word that nothing has is another one's slip to the finder alone.
      if ([...found.guesses.values()].some((others) => others.length)) continue;
      expect(await found.dates(part)).toEqual(await stored.dates(part));
      expect((await found.glance(part)).map((date) => date.whole())).toEqual(await stored.dates(part));
      const [days, storedDays] = [await found.perDay(part), await stored.perDay(part)];
      expect([...days.counts]).toEqual([...storedDays.counts]);
      expect(days.several.map((date) => date.whole())).toEqual(storedDays.several.map((date) => date.whole()));
      expect(plain(await found.facets(part))).toEqual(plain(await stored.facets(part)));
      expect(await found.results({ from, page: 1, length: 30 })).toEqual(await stored.results({ from, page: 1, length: 30 }));
    }
  });

  it('of a venue and a day agree with the whole, and drafts are nowhere among them', async () => {
    for (const venue of reference.venues) {
      const expected = all.filter((d) => d.venueIds.includes(venue.id) && d.lastDay >= NOW.day);
      expect(expected.every((d) => d.attendance !== 'online')).toBe(true);
      const query = { from: NOW.day, limit: 1000, venueIds: [venue.id] };
      expect(names(await readComing(db, query))).toEqual(names(expected));
      expect(names((await readersComing(source, query)).dates)).toEqual(names(expected));
    }
    for (let day = NOW.day; day < NOW.day + 20; day++) expect(await countOn(db, day)).toBe(touching(all, { from: day, to: day }).length);
    expect(new Set(all.map((d) => d.listing)).size).toBe(32);
  });
});

describe('filters in the address', () => {
  it('are read back as they were written, in one order', () => {
    const r = random(seed + 3);
    for (let i = 0; i < 200; i++) {
      const filters = generateFilters(r);
      const again = readFilters(new URLSearchParams(filterQuery(filters)));
      expect({ ...again, kinds: again.kinds.sort(), places: again.places.sort() }).toEqual({
        ...filters,
        kinds: [...filters.kinds].sort(),
        places: [...filters.places].sort(),
      });
      expect(filterQuery(again)).toBe(filterQuery(filters));
      expect(isFiltered(filters)).toBe(filterQuery(filters) !== '');
    }
  });
  it('bound what a stranger may send', () => {
    const many = new URLSearchParams({
      kind: Array.from({ length: 500 }, (_, i) => `k${i}`).join(','),
      words: 'x'.repeat(5000),
      free: 'yes',
    });
    const filters = readFilters(many);
    expect(filters.kinds).toHaveLength(60);
    expect(filters.words).toHaveLength(80);
    expect(filters.free).toBe(false);
  });

  it('of a venue come in pages that hold each once, and are counted', async () => {
    for (const venue of reference.venues) {
      const query = { from: NOW.day, venueIds: [venue.id] };
      const whole = names(await readComing(db, { ...query, limit: 1000 }));
      expect(await countComing(db, query)).toBe(whole.length);
      const pages: string[] = [];
      expect((await readersComing(source, { ...query, limit: 1 })).total).toBe(whole.length);
      for (let offset = 0; offset < whole.length; offset += 7) pages.push(...names(await readComing(db, { ...query, limit: 7, offset })));
      expect(pages).toEqual(whole);
    }
  });
});
