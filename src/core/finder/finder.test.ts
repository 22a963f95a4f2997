import { isOff } from '../dates/next-date';
import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf, some } from '../../../tests/support/generate';
import { isoDay } from '../day/day';
import { isoDateTime } from '../day/plain-date-time';
import { type EffectiveDate, effectiveStatus } from '../dates/effective-date';
import { type Condition, type DateFacts, FACT_NAMES, type FactCondition, GROUPS, type Group, holds, priceOf } from '../filters/condition';
import { titleKey } from '../match/relevance';
import { partsOf } from '../filters/part-of-day';
import { Finder } from './finder';
import type { FoundChange, FoundDate, FoundListing } from './found';

const seed = seedOf();
const VENUES = ['net-loft', 'lamp-room', 'ropewalk'];
const WORDS = ['harbour', 'choir', 'lantern', 'walk', 'rope', '(free)', 'evening,', 'chœur'];
type Stored = { listing: FoundListing; dates: FoundDate[] };

function generateListing(r: () => number, id: string): Stored {
  const listing: FoundListing = {
    listingId: id,
    listing: `listing-${id}`,
    title: pick(r, ['Harbour Choir', 'Lantern Walk', 'Über', 'Ümlaut', '\u{1f41f} Fish', '\uffee', 'Harbour Choir']),
    shortTitle: '',
    summary: 'Rope and tea.',
    headline: r() < 0.2,
    onTopUntil: r() < 0.2 ? between(r, 20_000, 20_040) : null,
    free: r() < 0.5,
    cost: pick(r, [{ kind: 'free' }, { kind: 'amount', amount: '8.50', currency: 'CAD' }, { kind: 'words', words: 'tea' }] as const),
    categoryId: pick(r, ['music', 'nature']),
    venueIds: r() < 0.7 ? some(r, VENUES, 2) : [],
    zone: '',
    attendance: pick(r, ['in-person', 'online', 'both'] as const),
    pictureId: null,
    translations: null,
    eventStatus: pick(r, ['going-ahead', 'going-ahead', 'postponed'] as const),
    tagIds: r() < 0.4 ? some(r, ['dark', 'kids'], 2) : [],
    organizerIds: r() < 0.4 ? ['guild'] : [],
    search: some(r, WORDS, 4).join(' '),
  };
  const starts = new Set(Array.from({ length: between(r, 0, 12) }, () => between(r, 0, 60) * 10 + between(r, 0, 2)));
  const dates = [...starts].map((at): FoundDate => {
    const day = 20_000 + Math.floor(at / 10);
    const minute = at % 10 === 0 ? null : (at % 10) * 600;
    const length = r() < 0.15 ? between(r, 1, 9) : 0;
    return {
      original: isoDateTime({ day, minute }),
      timed: r() < 0.2,
      startDay: day,
      startMinute: minute,
      endDay: minute === null ? null : day + length,
      endMinute: minute === null ? null : 1320,
      lastDay: day + length,
      eventStatus: r() < 0.2 ? 'cancelled' : null,
      note: r() < 0.1 ? 'No tea.' : '',
      venueId: r() < 0.1 ? pick(r, VENUES) : null,
      moved: r() < 0.1,
    };
  });
  return { listing, dates };
}

/** All dates as pages have them, in their order, without columns or slots. */
function slowDates(stored: Iterable<Stored>): (EffectiveDate & { of: Stored })[] {
  const dates = [...stored].flatMap((of) =>
    of.dates.map((date) => {
      const { tagIds: _t, organizerIds: _o, search: _s, ...listing } = of.listing;
      const { timed, venueId, eventStatus, ...times } = date;
      return {
        ...listing,
        ...times,
        date: timed ? date.original.replace(':', '') : date.original.slice(0, 10),
        eventStatus: effectiveStatus(listing.eventStatus, eventStatus),
        venueIds: venueId ? [venueId] : [...listing.venueIds],
        elsewhere: venueId !== null,
        of,
      };
    }),
  );
  const bytes = (text: string): string => Buffer.from(text).toString('hex');
  return dates.sort(
    (a, b) =>
      a.startDay - b.startDay ||
      (a.startMinute ?? -1) - (b.startMinute ?? -1) ||
      Number(b.headline) - Number(a.headline) ||
      (bytes(a.title) < bytes(b.title) ? -1 : bytes(a.title) > bytes(b.title) ? 1 : 0) ||
      (a.listingId < b.listingId ? -1 : 1),
  );
}

function slowFacts(date: EffectiveDate, { tagIds, organizerIds }: FoundListing): DateFacts {
  const { categoryId, venueIds, attendance, free, cost } = date;
  const off = date.eventStatus === 'cancelled' || date.eventStatus === 'postponed';
  return { categoryId, venueIds, organizerIds, tagIds, attendance, free, price: priceOf(cost), parts: partsOf(date), off };
}

function slowHolds(condition: Condition, date: EffectiveDate, { listing }: Stored): boolean {
  switch (condition.asks) {
    case 'word':
      return listing.search.includes(condition.word);
    case 'phrase':
      return listing.search.includes(condition.phrase);
    case 'any':
      return condition.of.some((one) => slowHolds(one, date, { listing, dates: [] }));
    default:
      return holds(condition, slowFacts(date, listing));
  }
}

function generateCondition(r: () => number, deep = true): Condition {
  const kind = pick(r, [
    'category',
    'venue',
    'online',
    'free',
    'tag',
    'organizer',
    'word',
    'phrase',
    'in-person',
    'going-ahead',
    'up-to',
    'part',
    ...(deep ? (['any'] as const) : []),
  ] as const);
  if (kind === 'online' || kind === 'free' || kind === 'in-person' || kind === 'going-ahead') return { asks: kind };
  if (kind === 'up-to') return { asks: kind, amount: pick(r, [0, 8, 9]), currency: pick(r, ['CAD', 'EUR']) };
  if (kind === 'part') return { asks: kind, parts: between(r, 1, 7) };
  if (kind === 'phrase') return { asks: kind, phrase: pick(r, ['harbour choir', 'walk rope', '(free) evening,', 'r cho']) };
  if (kind === 'word') return { asks: 'word', word: pick(r, ['cho', 'harbour', 'lk', '(', 'zz', 'evening', 'œ']) };
  if (kind === 'any') return { asks: 'any', of: Array.from({ length: between(r, 0, 3) }, () => generateCondition(r, false)) as never };
  const ids = { category: ['music', 'x'], venue: VENUES, tag: ['dark', 'kids'], organizer: ['guild'] }[kind];
  return { asks: kind, ids: new Set(some(r, ids, Math.min(2, ids.length))) };
}

function builtOf(stored: Iterable<Stored>): Finder {
  const builder = Finder.builder();
  for (const { listing, dates } of stored) builder.add(listing, dates);
  const steps = builder.finish();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** Compares everything that a finder answers with what a slow look at all dates gives. */
function compare(r: () => number, finder: Finder, stored: ReadonlyMap<string, Stored>): void {
  const all = slowDates(stored.values());
  const conditions = Array.from({ length: between(r, 0, 2) }, () => generateCondition(r));
  const from = 20_000 + between(r, -3, 62);
  const to = from + between(r, 0, 20);
  const fitting = all.filter((date) => conditions.every((one) => slowHolds(one, date, date.of)));
  const strip = ({ of: _of, ...date }: (typeof all)[number]): EffectiveDate => date;
  const inside = fitting.filter((date) => date.startDay <= to && date.lastDay >= from);
  const where = JSON.stringify({ from, to, conditions }, (_key, value: unknown) => (value instanceof Set ? [...value] : value));
  const asked = { span: { from, to }, conditions };

  expect(finder.find(asked), where).toEqual(inside.map(strip));
  expect(finder.find({ span: { from }, conditions }, 7, 3), where).toEqual(
    fitting
      .filter((d) => d.lastDay >= from)
      .slice(3, 10)
      .map(strip),
  );
  expect(
    finder.glance(asked).map((glance) => glance.whole()),
    where,
  ).toEqual(inside.map(strip));
  expect(finder.count(asked), where).toBe(inside.length);
  const { counts, several } = finder.perDay(asked);
  expect([...counts], where).toEqual(
    Array.from({ length: to - from + 1 }, (_, n) => inside.filter((d) => d.startDay <= from + n && d.lastDay >= from + n).length),
  );
  expect(
    several.map((glance) => glance.whole()),
    where,
  ).toEqual(inside.filter((d) => d.lastDay > d.startDay).map(strip));
  const [some] = inside;
  const related = finder.related(some?.listingId ?? 'nobody', { today: from, within: 20, most: 5, parentOf: () => undefined });
  expect(related.length, where).toBeLessThanOrEqual(5);
  for (const date of related) {
    expect(date.listingId).not.toBe(some?.listingId);
    const theirs = all.filter(
      (d) => d.listingId === date.listingId && d.lastDay >= from && d.startDay <= from + 20 && !isOff(d.eventStatus),
    );
    expect(date).toEqual(theirs[0] && strip(theirs[0]));
  }
  expect(finder.dates).toBe(all.length);
  expect(finder.sum).toBe(all.reduce((sum, date) => sum + date.startDay, 0));
  compareTally(r, finder, asked.span, all);
  const before = fitting.filter((date) => date.startDay < from);
  expect(finder.dayBefore(from, 5, conditions), where).toBe((before.at(-5) ?? before[0])?.startDay);
  const over = fitting.filter((date) => date.lastDay < from);
  const later = fitting.filter((date) => date.startDay > to);
  expect(finder.around(from, to, conditions), where).toEqual({
    earlier: over.length,
    last: over.length ? Math.max(...over.map((d) => d.startDay)) : undefined,
    later: later.length,
    next: later[0]?.startDay,
  });
  const ids = [...new Set(inside.map((d) => d.listingId))];
  expect(
    finder.findListings(asked).map((found) => ({
      listingId: found.listingId,
      titleKey: found.titleKey,
      dates: found.dates,
      days: found.days(),
      until: found.until,
      first: found.first().date,
    })),
    where,
  ).toEqual(
    ids.map((listingId) => {
      const own = inside.filter((d) => d.listingId === listingId);
      const days = own.slice(0, 5).map((d) => d.startDay);
      return {
        listingId,
        titleKey: titleKey(own[0]?.title ?? ''),
        dates: own.length,
        days,
        until: Math.max(...own.map((d) => d.lastDay)),
        first: own[0]?.date,
      };
    }),
  );
  const top = fitting.filter((d) => d.onTopUntil !== null && d.onTopUntil >= from && d.lastDay >= from);
  expect(finder.onTop(from, conditions), where).toEqual(
    [...new Set(top.map((d) => d.listingId))].map((id) => strip(top.find((d) => d.listingId === id) as (typeof top)[number])),
  );
}

/** A choice by one fact, of its group. */
function generateChoice(r: () => number): FactCondition {
  for (;;) {
    const condition = generateCondition(r, false);
    if (condition.asks !== 'word' && condition.asks !== 'phrase' && condition.asks !== 'any') return condition;
  }
}

function compareTally(r: () => number, finder: Finder, span: { from: number; to?: number }, all: ReturnType<typeof slowDates>): void {
  const groups = Object.fromEntries(
    some(r, [...GROUPS], between(r, 0, 4)).map((group) => [group, Array.from({ length: between(r, 1, 2) }, () => generateChoice(r))]),
  ) as Partial<Record<Group, FactCondition[]>>;
  const words = r() < 0.5 ? [generateCondition(r)] : [];
  const isAsked = (date: (typeof all)[number], without?: Group): boolean =>
    words.every((word) => slowHolds(word, date, date.of)) &&
    GROUPS.every((group) => group === without || (groups[group] ?? []).every((one) => slowHolds(one, date, date.of)));
  const inside = all.filter((d) => d.lastDay >= span.from && d.startDay <= (span.to ?? d.startDay));
  const counted = finder.tally(span, { groups, words });
  expect(counted.total).toBe(inside.filter((date) => isAsked(date)).length);
  const without = pick(r, [undefined, ...GROUPS]);
  for (const fact of FACT_NAMES) {
    const slow = new Map<string, number>();
    for (const date of inside.filter((one) => isAsked(one, without))) {
      const key = String(slowFacts(date, date.of.listing)[fact]);
      slow.set(key, (slow.get(key) ?? 0) + 1);
    }
    const found = counted.by(fact, without).map(({ value, n }): [string, number] => [String(value), n]);
    expect(new Map(found), `${fact} without ${without}`).toEqual(slow);
  }
}

describe(`a finder, seed ${seed}`, () => {
  it('answers as a slow look at all dates does, while listings come, change and go', () => {
    const r = random(seed);
    for (let round = 0; round < rounds(30); round++) {
      const stored = new Map<string, Stored>();
      for (let i = 0; i < between(r, 0, 30); i++) stored.set(`id${i}`, generateListing(r, `id${i}`));
      const finder = builtOf(stored.values());
      compare(r, finder, stored);
      for (let step = 0; step < 6; step++) {
        const changes = Array.from({ length: between(r, 1, 5) }, (): FoundChange => {
          const listingId = `id${between(r, 0, 35)}`;
          return { listingId, is: r() < 0.3 ? undefined : generateListing(r, listingId) };
        });
        finder.replace(changes);
        for (const { listingId, is } of changes) {
          stored.delete(listingId);
          if (is) stored.set(listingId, is as Stored);
        }
        compare(r, finder, stored);
        expect(finder.listings).toBe([...stored.values()].filter(({ dates }) => dates.length).length);
      }
    }
  });

  it('has nothing before it was given anything', () => {
    const finder = builtOf([]);
    expect([
      finder.dates,
      finder.find({ span: { from: 0 }, conditions: [] }),
      finder.tally({ from: 0 }, { groups: {}, words: [] }).by('free'),
    ]).toEqual([0, [], []]);
    expect(finder.dayBefore(20_000, 10, [])).toBeUndefined();
  });

  it('keeps dates of distant years in order', () => {
    const r = random(seed);
    const { listing } = generateListing(r, 'far');
    const days = [-354_000, 20_000, 2_900_000];
    const dates = days.map((startDay): FoundDate => {
      const blank = { endDay: null, endMinute: null, note: '', venueId: null, moved: false, eventStatus: null, timed: false };
      return { ...blank, original: isoDay(startDay), startDay, startMinute: null, lastDay: startDay };
    });
    const finder = builtOf([{ listing, dates: dates.reverse() }]);
    expect(finder.find({ span: { from: -400_000 }, conditions: [] }).map((date) => date.startDay)).toEqual(days);
  });
});
