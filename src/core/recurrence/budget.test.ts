/** However a recurrence is made up, finding its dates ends after a bounded number of looks, and says when that was not enough. */
import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { dayOf } from '../day/day';
import { Budget, MOST_LOOKED_AT, TooMuch } from './budget';
import { firstFittingDay } from './days';
import { expand, startsWithin } from './expand';
import { type Recurrence, type RecurrencePart, type Rule, rule as plainRule } from './model';
import { problemsOf, TOO_DENSE, TOO_MUCH, whyNotTaken } from './problems';

const PLAIN: Rule = plainRule('daily');
const TODAY = dayOf(2027, 3, 17);
const HORIZON = dayOf(2030, 3, 31);

const part = (rule: Partial<Rule>, more: Partial<RecurrencePart> = {}): RecurrencePart => ({
  start: { day: dayOf(1000, 1, 1), minute: 600 },
  length: null,
  rule: { ...PLAIN, ...rule },
  limit: { kind: 'open' },
  ...more,
});
const recurrence = (...parts: RecurrencePart[]): Recurrence => ({ zone: 'America/Halifax', parts, exdates: [], breaks: [] });

/** Parts that cost as much as they can: rare days counted from long ago, days that never come, times of day without end. */
const COSTLY: RecurrencePart[] = [
  part({ byMonth: [2], byMonthDay: [29] }, { limit: { kind: 'count', count: 5000 } }),
  part({ byMonth: [2], byMonthDay: [30] }),
  part({ freq: 'hourly', byMonth: [2], byMonthDay: [30], byMinute: Array.from({ length: 60 }, (_, i) => i) }),
  part({ freq: 'secondly', interval: 7919, byYearDay: [366] }, { limit: { kind: 'count', count: 5000 } }),
  part({ freq: 'yearly', byWeekNo: [53], bySetPos: [-366] }, { limit: { kind: 'count', count: 5000 } }),
  part({
    freq: 'yearly',
    byHour: [0, 1, 2],
    byMinute: Array.from({ length: 60 }, (_, i) => i),
    bySecond: Array.from({ length: 60 }, (_, i) => i),
  }),
];

describe('a budget of looks', () => {
  it('is used up after so many, and each question has its own', () => {
    const budget = new Budget(3);
    budget.spend(2);
    budget.spend();
    expect(() => budget.spend()).toThrow(TooMuch);
    expect(() => new Budget(3).spend(3)).not.toThrow();
  });

  it('says as a value that there may be more dates than were found', () => {
    const many = recurrence(...Array.from({ length: 200 }, () => COSTLY[0] as RecurrencePart));
    expect(startsWithin(many, TODAY, HORIZON).tooMuch).toBe(true);
    expect(problemsOf(many, HORIZON)).toEqual([{ kind: 'too-much' }]);
    const few = recurrence(part({ byMonth: [2], byMonthDay: [29] }, { start: { day: dayOf(2000, 2, 29), minute: 600 } }));
    expect(startsWithin(few, TODAY, HORIZON)).toMatchObject({ tooMuch: false, starts: [{ wall: { day: dayOf(2028, 2, 29) } }] });
  });

  it('is enough for what people have: two hundred dates, a hundred weekly rules, every day since 1900', () => {
    const single = Array.from({ length: 200 }, (_, i) => part({}, { rule: null, start: { day: TODAY + i, minute: 600 } }));
    const weekly = Array.from({ length: 100 }, (_, i) => part({ freq: 'weekly' }, { start: { day: TODAY - 3650 + i, minute: 600 } }));
    const daily = [part({}, { start: { day: dayOf(1900, 1, 1), minute: 600 } })];
    const halfHours = [part({ freq: 'minutely', interval: 30, byHour: [9, 10, 11, 12] }, { start: { day: TODAY - 3000, minute: 540 } })];
    for (const parts of [single, weekly, daily, halfHours]) {
      expect(startsWithin(recurrence(...parts), TODAY, HORIZON).tooMuch).toBe(false);
      expect(problemsOf(recurrence(...parts), HORIZON).map((p) => p.kind)).not.toContain('too-much');
      expect(whyNotTaken(parts)).toBeUndefined();
    }
  });

  it('holds for any mixture of the costliest parts: the looks are counted, whatever is asked', () => {
    const r = random(seedOf());
    let refused = 0;
    for (let i = 0; i < rounds(40); i++) {
      const parts = Array.from({ length: between(r, 1, 200) }, () => pick(r, COSTLY));
      const from = between(r, dayOf(1000, 1, 1), HORIZON);
      const budget = new Budget();
      const { starts, tooMuch } = startsWithin(recurrence(...parts), from, HORIZON, budget);
      // What is left of a budget that was enough is less than all of it: nothing was looked at for free.
      if (!tooMuch) expect(() => budget.spend(MOST_LOOKED_AT)).toThrow(TooMuch);
      expect(starts.length).toBeLessThanOrEqual(25_000);
      expect(() => expand(recurrence(...parts), [], from, HORIZON)).not.toThrow();
      if (problemsOf(recurrence(...parts), HORIZON).some((p) => p.kind === 'too-much')) refused++;
    }
    expect(refused).toBeGreaterThan(rounds(20));
  });

  it('takes a rule that is dense but short, however it is limited', () => {
    const minutely = (count: number) => part({ freq: 'minutely' }, { start: { day: TODAY, minute: 600 }, limit: { kind: 'count', count } });
    expect(whyNotTaken([minutely(10)])).toBeUndefined();
    expect(whyNotTaken([minutely(400)])).toMatchObject({ recurrencePart: 0, reason: TOO_DENSE });
  });

  it('refuses at the door what would take too long to judge, and finds no first day in it', () => {
    const times = COSTLY[5] as RecurrencePart;
    expect(whyNotTaken(Array.from({ length: 200 }, () => COSTLY[3] as RecurrencePart))).toMatchObject({ reason: TOO_MUCH });
    expect(
      firstFittingDay({ ...times, rule: { ...(times.rule as Rule), byYearDay: Array.from({ length: 366 }, (_, i) => i + 1) } }),
    ).toBeUndefined();
  });
});
