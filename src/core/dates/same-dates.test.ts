import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { compareDateTime, isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { type KnownDate, matchDates } from './same-dates';

const at = (text: string): PlainDateTime => parseIsoDateTime(text) as PlainDateTime;
const known = (...texts: string[]): KnownDate[] => texts.map((text) => ({ id: `id of ${text}`, original: at(text) }));

/** What became of each date before: its start now, or a dash. */
function fate(before: string[], after: string[]): string[] {
  const { kept, ended } = matchDates(known(...before), after.map(at));
  const now = new Map([...kept].map(([start, id]) => [id, start]));
  expect(ended.every(({ id }) => !now.has(id))).toBe(true);
  return before.map((text) => now.get(`id of ${text}`) ?? '–');
}

const TUESDAYS = ['2027-03-02T19:00', '2027-03-09T19:00', '2027-03-16T19:00', '2027-03-23T19:00'];
const on = (days: string[], time: string): string[] => days.map((day) => `2027-03-${day}T${time}`);

describe('which dates go on', () => {
  it.each([
    ['nothing changed', TUESDAYS, TUESDAYS, TUESDAYS],
    ['another time of day', TUESDAYS, on(['02', '09', '16', '23'], '20:00'), on(['02', '09', '16', '23'], '20:00')],
    ['from Tuesday to Thursday', TUESDAYS, on(['04', '11', '18', '25'], '19:00'), on(['04', '11', '18', '25'], '19:00')],
    ['from Tuesday to Monday, as many as before', TUESDAYS, on(['01', '08', '15', '22'], '18:30'), on(['01', '08', '15', '22'], '18:30')],
    [
      'from Monday to Saturday, though the Saturday before is nearer',
      on(['01', '08', '15'], '10:00'),
      on(['06', '13', '20'], '10:00'),
      on(['06', '13', '20'], '10:00'),
    ],
    ['one left out', TUESDAYS, [TUESDAYS[0], TUESDAYS[2], TUESDAYS[3]], [TUESDAYS[0], '–', TUESDAYS[2], TUESDAYS[3]]],
    [
      'one left out and one more at the end: two different dates',
      TUESDAYS.slice(0, 3),
      [TUESDAYS[0], TUESDAYS[2], TUESDAYS[3]],
      [TUESDAYS[0], '–', TUESDAYS[2]],
    ],
    ['a week later as a whole: who comes on the 9th still does', TUESDAYS.slice(0, 3), TUESDAYS.slice(1), ['–', TUESDAYS[1], TUESDAYS[2]]],
    [
      'every day had two, in order of their times',
      ['2027-03-02T10:00', '2027-03-02T15:00'],
      ['2027-03-02T11:00', '2027-03-02T16:00'],
      ['2027-03-02T11:00', '2027-03-02T16:00'],
    ],
    [
      'the first of two a day goes',
      ['2027-03-02T10:00', '2027-03-02T15:00', '2027-03-09T10:00'],
      ['2027-03-02T15:00', '2027-03-09T10:00'],
      ['–', '2027-03-02T15:00', '2027-03-09T10:00'],
    ],
    ['the only date goes anywhere', ['2027-03-02T19:00'], ['2027-06-20'], ['2027-06-20']],
    ['one date becomes a series', ['2027-03-02T19:00'], ['2027-03-02T20:00', '2027-03-09T20:00'], ['2027-03-02T20:00']],
    [
      'a monthly one from the second Tuesday to the third',
      ['2027-03-09', '2027-04-13', '2027-05-11'],
      ['2027-03-16', '2027-04-20', '2027-05-18'],
      ['2027-03-16', '2027-04-20', '2027-05-18'],
    ],
    [
      'a yearly fair from June to August',
      ['2027-06-12', '2028-06-10', '2029-06-09'],
      ['2027-08-14', '2028-08-12', '2029-08-11'],
      ['2027-08-14', '2028-08-12', '2029-08-11'],
    ],
    ['an extra date far away is another date', TUESDAYS, [...TUESDAYS.slice(1), '2027-05-30T19:00'], ['–', ...TUESDAYS.slice(1)]],
    ['all gone', TUESDAYS, [], ['–', '–', '–', '–']],
    [
      'a day as a whole gets hours',
      ['2027-03-02', '2027-03-09'],
      ['2027-03-02T09:00', '2027-03-09T09:00'],
      ['2027-03-02T09:00', '2027-03-09T09:00'],
    ],
  ] as [string, string[], string[], string[]][])('%s', (_, before, after, expected) => {
    expect(fate(before, after)).toEqual(expected);
  });
});

/** Every choice of pairs in order within reach, looked at one by one: the most pairs, then the fewest minutes. */
function slowNearest(olds: readonly PlainDateTime[], news: readonly PlainDateTime[], reach: number): { pairs: number; moved: number } {
  const [old, ...olderLeft] = olds;
  if (!old || !news.length) return { pairs: 0, moved: 0 };
  let best = slowNearest(olderLeft, news, reach);
  news.forEach((now, i) => {
    if (Math.abs(now.day - old.day) > reach) return;
    const rest = slowNearest(olderLeft, news.slice(i + 1), reach);
    const moved = Math.abs((now.day - old.day) * 1440 + (now.minute ?? 0) - (old.minute ?? 0));
    const one = { pairs: rest.pairs + 1, moved: rest.moved + moved };
    if (one.pairs > best.pairs || (one.pairs === best.pairs && one.moved < best.moved)) best = one;
  });
  return best;
}

describe('over generated dates', () => {
  const seed = seedOf();
  const DAY = at('2027-03-01').day;

  function dates(r: () => number, count: number, gap: number): PlainDateTime[] {
    const all = new Map<string, PlainDateTime>();
    for (let day = DAY + between(r, 0, 9); all.size < count; day += between(r, 0, gap)) {
      const date = { day, minute: between(r, 0, 9) ? between(r, 9, 21) * 60 : null };
      all.set(isoDateTime(date), date);
    }
    return [...all.values()].sort(compareDateTime);
  }

  it(`gives each id to one date or names it as ended, seed ${seed}`, () => {
    const r = random(seed);
    let [goingOn, over] = [0, 0];
    for (let round = 0; round < 2000; round++) {
      const gap = between(r, 1, 12);
      const olds = dates(r, between(r, 0, 12), gap).map((original, i) => ({ id: `${i}`, original }));
      const news = dates(r, between(r, 0, 12), gap);
      const { kept, ended } = matchDates(olds, news);
      expect([...kept.values(), ...ended.map(({ id }) => id)].sort()).toEqual(olds.map(({ id }) => id).sort());
      const starts = new Set(news.map(isoDateTime));
      for (const start of kept.keys()) expect(starts.has(start)).toBe(true);
      for (const { id, original } of olds)
        if (starts.has(isoDateTime(original)) && (olds.length > 1 || news.length > 1)) expect(kept.get(isoDateTime(original))).toBe(id);
      goingOn += kept.size;
      over += ended.length;
    }
    expect(Math.min(goingOn, over)).toBeGreaterThan(500);
  });

  it('pairs as many as can be, moved as little as can be', () => {
    const r = random(seed + 1);
    let several = 0;
    for (let round = 0; round < 1500; round++) {
      const olds = dates(r, between(r, 2, 6), 5);
      // On other days than all of the old ones, so that only the nearest in order is asked.
      const days = new Set(olds.map(({ day }) => day));
      const news = dates(r, between(r, 1, 6), 6).filter(({ day }) => !days.has(day));
      const { kept } = matchDates(
        olds.map((original, i) => ({ id: String(i), original })),
        news,
      );
      const pairs = [...kept].map(([start, id]) => [olds[Number(id)], at(start)] as const);
      const moved = pairs.reduce(
        (sum, [old, now]) =>
          sum + Math.abs((now.day - (old as PlainDateTime).day) * 1440 + (now.minute ?? 0) - ((old as PlainDateTime).minute ?? 0)),
        0,
      );
      expect({ pairs: pairs.length, moved }).toEqual(slowNearest(olds, news, 6));
      if (pairs.length > 1) several++;
    }
    expect(several).toBeGreaterThan(500);
  });

  it('stays quick for a series of thousands of dates', () => {
    const olds = Array.from({ length: 5000 }, (_, i) => ({ id: String(i), original: { day: DAY + i * 2, minute: 600 } }));
    const { kept, ended } = matchDates(
      olds,
      olds.map(({ original }) => ({ day: original.day + 1, minute: 660 })),
    );
    expect([kept.size, ended.length]).toEqual([5000, 0]);
  });
});
