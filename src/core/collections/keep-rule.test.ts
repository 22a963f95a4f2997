import { describe, expect, it } from 'vitest';
import { between, random, rounds, seedOf } from '../../../tests/support/generate';
import { dayOf, isoDay } from '../day/day';
import { USUAL_RULE, whichGo } from './keep-rule';

const seed = seedOf();

describe(`what is kept by rule, seed ${seed}`, () => {
  it('is a week of days, five of weeks and a year of months, a backup a day', () => {
    let kept: number[] = [];
    const today = dayOf(2027, 3, 17);
    for (let day = today - 800; day <= today; day++) {
      kept.push(day);
      const gone = new Set(whichGo(kept, (one) => one, USUAL_RULE));
      kept = kept.filter((one) => !gone.has(one));
    }
    expect(kept.slice(-7)).toEqual([6, 5, 4, 3, 2, 1, 0].map((back) => today - back));
    // The last day of each of five weeks, of which two are among the days, and of each month.
    expect(kept.slice(0, -7).map(isoDay)).toEqual([
      ...['2026-04-30', '2026-05-31', '2026-06-30', '2026-07-31', '2026-08-31', '2026-09-30', '2026-10-31'],
      ...['2026-11-30', '2026-12-31', '2027-01-31', '2027-02-21', '2027-02-28', '2027-03-07'],
    ]);
  });

  it('has the newest of all, and never more than the rule has places', () => {
    const r = random(seed);
    for (let i = 0; i < rounds(200); i++) {
      const made = Array.from({ length: between(r, 1, 60) }, (_, id) => ({ id, day: between(r, 19_000, 21_000) }));
      const rule = { days: between(r, 1, 9), weeks: between(r, 0, 6), months: between(r, 0, 14) };
      const gone = new Set(whichGo(made, ({ day }) => day, rule));
      const kept = made.filter((one) => !gone.has(one));
      expect(kept.length).toBeLessThanOrEqual(rule.days + rule.weeks + rule.months);
      const newest = Math.max(...made.map(({ day }) => day));
      expect(kept.filter(({ day }) => day === newest)).toEqual([made.filter(({ day }) => day === newest).at(-1)]);
      // What is left is left again.
      expect(whichGo(kept, ({ day }) => day, rule)).toEqual([]);
    }
  });
});
