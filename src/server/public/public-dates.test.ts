import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { ContentCache } from '@/server/site/content-cache';
import type { EffectiveDate } from '@/core/dates/effective-date';
import { sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { between, pick, random, seedOf, some } from '../../../tests/support/generate';
import { change, choir, EDITOR, freshDb, inTx, NOW, SETTINGS } from '../../../tests/support/db';
import { isoDay } from '@/core/day/day';
import type { Attendance, ListingContent } from '@/core/listing/content';
import { fold } from '@/core/text/text';
import { makeFallback, saveCategory } from '../categories/write';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { createListing, publishListing } from '../listings/write';
import { BLANK_ORGANIZER, saveOrganizer } from '../organizers/write';
import { findOrMakeTag } from '../tags/write';
import { BLANK_VENUE } from '../venues/input';
import { saveVenue } from '../venues/write';
import { countComing, readComing, readDates } from './public-dates';
import {
  countToday,
  type DateSource,
  foundDates,
  type ReaderContext,
  readerContext,
  readersComing,
  type ReadersDates,
  storedDates,
} from './readers-dates';
import type { FacetName, Facets } from './facets';
import { SiteFinder } from '../finder/site-finder';
import type { Finder } from '@/core/finder/finder';
import {
  type DaysChoice,
  filterParts,
  type Filters,
  filterQuery,
  isFiltered,
  NAMED_DAYS,
  type Near,
  NO_FILTERS,
  readFilters,
  unreadFilters,
  WAYS,
  withoutPart,
} from '@/core/filters/filters';
import { PARTS_OF_DAY, partBit, partsOf } from '@/core/filters/part-of-day';
import { type ReferenceData, referenceData } from '../reference/read';

const seed = seedOf();
const quietLog = { info: () => undefined, error: () => undefined };
const FACETS = ['kind', 'place', 'area', 'venue', 'by', 'tag', 'part', 'free', 'access', 'how', 'ahead', 'on'] as const;
const plain = (f: Facets) => [f.total, ...FACETS.map((name) => [name, [...f.of(name)].sort()])];
const ALL = NO_FILTERS;
const contextOf = (filters: Filters): Promise<ReaderContext> => readerContext(source, filters);
const span = { from: NOW.day, to: NOW.day + 60 };
let db: Db;
let reference: ReferenceData;
let all: EffectiveDate[];
let finder: Finder;
let source: DateSource;
/** the addresses of each listing's tags and organizers */
let links: Map<string, string[]>;

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
    for (const [name, town, island, features, lat] of [
      ['Net Loft', 'Gannet Bay', 'Amble', ['step-free', 'hearing-loop'], 47.5],
      ['Lamp Room', 'Ternhead', 'Tern', ['step-free', 'lift'], 47.52],
      ['Ropewalk', 'Gannet Bay', 'Amble', [], 47.6],
      ['Salt Store', 'Skua Sound', 'Skua', ['toilets'], null],
    ] as const)
      venues.push(
        (await saveVenue(tx, null, { ...BLANK_VENUE, name, town, island, features: [...features], lat, lng: lat && -60 }, EDITOR)).id,
      );
    const guild = (await saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name: 'Rope Guild' }, EDITOR)).id;
    const tags = [(await findOrMakeTag(tx, 'Dark', EDITOR)).id, (await findOrMakeTag(tx, 'Kids', EDITOR)).id];
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
        organizerIds: r() < 0.4 ? [guild] : [],
        tagIds: r() < 0.4 ? some(r, tags, 2) : [],
        eventStatus: r() < 0.15 ? 'cancelled' : 'going-ahead',
        headline: r() < 0.2,
        onTopUntil: r() < 0.3 ? isoDay(NOW.day + between(r, 5, 30)) : null,
        onlineAddress: attendance === 'in-person' ? '' : 'https://live.example/room',
        cost:
          r() < 0.4
            ? { kind: 'free' }
            : r() < 0.2
              ? { kind: 'words', words: 'Bring a cake' }
              : { kind: 'amount', amount: pick(r, ['8', '12.50']), currency: 'CAD' },
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
  reference = await referenceData({ db, cache: new ContentCache(() => '1'), settings: () => DEFAULT_SETTINGS });
  finder = (await new SiteFinder({ db, revision: () => '1', log: quietLog }).made()) as Finder;
  source = {
    db,
    cache: new ContentCache(() => '1'),
    finder: { current: async () => finder, made: async () => finder },
    now: () => NOW,
    settings: () => SETTINGS,
  };
  const against = { ...(await contextOf(ALL)), around: undefined };
  all = await readDates(db, { from: NOW.day - 400, to: NOW.day + 400 }, ALL, against);
  links = new Map(
    (
      await queryRows<{ id: string; slugs: (string | null)[] }>(
        db,
        sql`select listing_id as id, array_agg(coalesce(t.slug, o.slug)) as slugs from listing_link k
          left join tag t on t.id = k.tag_id left join organizer o on o.id = k.organizer_id where k.copy = 'published' group by 1`,
      )
    ).map(({ id, slugs }) => [id, slugs.filter((slug) => slug !== null)]),
  );
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
    const either = (chosen: readonly string[], of: readonly string[]): boolean => !chosen.length || chosen.some((one) => of.includes(one));
    const own = links.get(date.listingId) ?? [];
    const near = filters.near && NEAR[filters.near.place];
    const amount = date.cost.kind === 'amount' ? Number(date.cost.amount) : date.free ? 0 : undefined;
    const cost = filters.upTo === undefined ? !filters.free || date.free : amount !== undefined && amount <= filters.upTo;
    const ways = date.attendance === 'both' ? ['in-person', 'online'] : [date.attendance];
    const parts = filters.parts.reduce((bits, part) => bits | partBit(part), 0);
    return (
      kind &&
      place &&
      words &&
      cost &&
      either(
        filters.areas,
        venues.map(({ island }) => island),
      ) &&
      either(
        filters.venues,
        venues.map(({ slug }) => slug),
      ) &&
      either(filters.organizers, own) &&
      either(filters.tags, own) &&
      (!near || venues.some(({ name }) => near.includes(name))) &&
      filters.access.every((feature) => venues.some(({ features }) => features.includes(feature))) &&
      either(filters.ways, ways) &&
      (!filters.goingAhead || date.eventStatus === 'going-ahead') &&
      (!parts || (partsOf(date) & parts) !== 0) &&
      (!filters.days || onChosen(date, filters.days))
    );
  });
}

/** What is within five kilometres of what is asked for, worked out by hand: a hundredth of a degree is 1.1 km. */
const NEAR: Record<string, string[]> = { 'Net Loft': ['Net Loft', 'Lamp Room'], '47.6,-60': ['Ropewalk'], 'Nobody knows': [] };

/** Days as a calendar has them around NOW, a Wednesday whose week begins on Monday. */
function onChosen({ startDay, lastDay }: EffectiveDate, days: DaysChoice): boolean {
  const named = { today: [0, 0], tomorrow: [1, 1], weekend: [3, 4], 'next-week': [5, 11] } as const;
  const [from, to] = days.named
    ? named[days.named].map((day) => NOW.day + day)
    : [days.from ?? Number.NEGATIVE_INFINITY, days.to ?? Number.POSITIVE_INFINITY];
  return startDay <= (to as number) && lastDay >= (from as number);
}

function generateFilters(r: () => number): Filters {
  return {
    kinds: r() < 0.5 ? some(r, ['music-dance', 'choirs', 'nature-sea', 'no-such-kind'], 2) : [],
    places: r() < 0.5 ? some(r, ['Gannet Bay', 'Ternhead', 'Skua Sound', 'online', 'Nowhere'], 2) : [],
    areas: r() < 0.1 ? some(r, ['Amble', 'Tern', 'Nowhere'], 2) : [],
    venues: r() < 0.1 ? some(r, ['net-loft', 'ropewalk', 'nowhere'], 2) : [],
    organizers: r() < 0.1 ? some(r, ['rope-guild', 'nobody'], 1) : [],
    near: r() < 0.1 ? nearOf(pick(r, Object.keys(NEAR))) : undefined,
    days: r() < 0.15 ? generateDays(r) : undefined,
    parts: r() < 0.2 ? some(r, PARTS_OF_DAY, 2) : [],
    free: r() < 0.2,
    upTo: r() < 0.1 ? pick(r, [0, 8, 12.5]) : undefined,
    access: r() < 0.1 ? some(r, ['step-free', 'hearing-loop', 'toilets'] as const, 2) : [],
    ways: r() < 0.1 ? some(r, WAYS, 1) : [],
    goingAhead: r() < 0.2,
    tags: r() < 0.1 ? some(r, ['dark', 'kids', 'no-such-tag'], 2) : [],
    words: r() < 0.4 ? pick(r, ['harbour', 'choeur', '100%', 'e_e', 'net loft', 'ternhead walk', '%']) : '',
  };
}

const nearOf = (place: string): Near => readFilters(new URLSearchParams({ near: place })).near as Near;

function generateDays(r: () => number): DaysChoice {
  if (r() < 0.5) return { named: pick(r, NAMED_DAYS) };
  const from = NOW.day + between(r, -10, 20);
  const open = r();
  return { named: undefined, from: open < 0.2 ? undefined : from, to: open > 0.8 ? undefined : from + between(r, 0, 10) };
}

const touching = (dates: EffectiveDate[], { from, to }: { from: number; to: number }): EffectiveDate[] =>
  dates.filter((d) => d.startDay <= to && d.lastDay >= from);
const names = (dates: { listing: string; date: string }[]): string[] => dates.map((d) => `${d.listing} ${d.date}`);

const SOURCES: [string, (filters: Filters) => Promise<ReadersDates>][] = [
  ['database', async (filters) => storedDates({ db }, filters, await contextOf(filters))],
  ['finder', async (filters) => foundDates(finder, filters, await contextOf(filters))],
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
      expect(names(await (await shown(filters)).dates(part)), where).toEqual(expected);
      expect(new Set(await (await shown(filters)).listingIds(part)).size, where).toBe(
        new Set(expected.map((name) => name.split(' ')[0])).size,
      );
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
      const facets = await (await shown(filters)).facets(span);
      expect(facets.total).toBe(slow(dates, filters).length);
      const one = (name: FacetName, value: string, alone: Partial<Filters>): void =>
        expect(facets.of(name).get(value) ?? 0, `${name}=${value} ${JSON.stringify(filters)}`).toBe(
          slow(dates, { ...filters, ...alone }).length,
        );
      one('free', '1', { free: true, upTo: undefined });
      one('ahead', '1', { goingAhead: true });
      for (const kind of ['music-dance', 'choirs', 'nature-sea']) one('kind', kind, { kinds: [kind] });
      for (const place of ['Gannet Bay', 'Ternhead', 'Skua Sound', 'online']) one('place', place, { places: [place] });
      for (const area of ['Amble', 'Tern', 'Skua']) one('area', area, { areas: [area] });
      for (const venue of ['net-loft', 'ropewalk']) one('venue', venue, { venues: [venue] });
      one('by', 'rope-guild', { organizers: ['rope-guild'] });
      for (const tag of ['dark', 'kids']) one('tag', tag, { tags: [tag] });
      for (const part of PARTS_OF_DAY) one('part', part, { parts: [part] });
      for (const way of WAYS) one('how', way, { ways: [way] });
      for (const named of NAMED_DAYS) one('on', named, { days: { named } });
      for (const feature of ['step-free', 'lift'] as const) one('access', feature, { access: [...new Set([...filters.access, feature])] });
    }
  });

  it('fill pages of whole days, each date once, forwards and back', async () => {
    const coming = all.filter((d) => d.lastDay >= NOW.day);
    const seen: string[] = [];
    const starts: number[] = [];
    for (let from: number | undefined = NOW.day; from !== undefined; ) {
      starts.push(from);
      const page = await (await shown(ALL)).listPage({ from }, 15);
      expect(page.dates.length).toBeGreaterThan(0);
      seen.push(...names(page.dates.filter((d) => d.startDay >= (from as number) || from === NOW.day)));
      from = page.later;
    }
    expect(starts.length).toBeGreaterThan(4);
    expect(seen.sort()).toEqual(names(coming).sort());
    const last = starts.at(-1) as number;
    const back = (await (await shown(ALL)).earlierDay(last, 15)) as number;
    const between2 = all.filter((d) => d.startDay >= back && d.startDay < last).length;
    expect(between2).toBeGreaterThanOrEqual(15);
    const first = Math.min(...all.map((d) => d.startDay));
    expect(await (await shown(ALL)).earlierDay(first, 15)).toBeUndefined();
  });

  it('come to an end page by page even where more than a page has begun before and goes on', async () => {
    const day = [...all].filter((d) => d.lastDay > d.startDay).map((d) => d.startDay + 1)[0] as number;
    for (const count of [1, 2, 3]) {
      const seen: string[] = [];
      let pages = 0;
      for (let from: number | undefined = day; from !== undefined && pages < 1000; pages++) {
        // After the first page only what begins: what goes on was on that.
        const page = await (await shown(ALL)).listPage({ from, starting: pages > 0 }, count);
        seen.push(...names(page.dates));
        expect(page.later ?? from + 1).toBeGreaterThan(from);
        from = page.later;
      }
      expect(seen).toEqual(names(all.filter((d) => d.lastDay >= day)));
    }
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
        const { results, total } = await (await shown(filters)).results({ from, page, length: 4 });
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
      const matching = slow(all, { ...filters, days: undefined });
      const before = matching.filter((d) => d.lastDay < from);
      const after = matching.filter((d) => d.startDay > to);
      expect(await (await shown(filters)).elsewhere({ from, to })).toEqual({
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
      expect(names(await (await shown(ALL)).onTop(today))).toEqual(names([...first.values()].slice(0, 6)));
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
      const [stored, found] = [
        storedDates({ db }, filters, await contextOf(filters)),
        foundDates(finder, filters, await contextOf(filters)),
      ];
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
    for (let day = NOW.day; day < NOW.day + 20; day++)
      expect(await countToday(source, day)).toBe(touching(all, { from: day, to: day }).length);
    expect(new Set(all.map((d) => d.listing)).size).toBe(32);
  });
});

describe('filters in the address', () => {
  it('are read back as they were written, in one order', () => {
    const r = random(seed + 3);
    for (let i = 0; i < 200; i++) {
      const filters = generateFilters(r);
      const again = readFilters(new URLSearchParams(filterQuery(filters)));
      const sorted = (all: Filters) =>
        Object.fromEntries(Object.entries(all).map(([name, value]) => [name, Array.isArray(value) ? [...value].sort() : value]));
      expect(sorted(again)).toEqual(sorted(filters));
      expect(unreadFilters(new URLSearchParams(filterQuery(filters)))).toEqual([]);
      // Each part can be taken off, and nothing is left then.
      const parts = filterParts(filters);
      expect(isFiltered(parts.reduce(withoutPart, filters))).toBe(false);
      for (const part of parts) expect(filterParts(withoutPart(filters, part))).toEqual(parts.filter((other) => other !== part));
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
