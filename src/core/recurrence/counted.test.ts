/** COUNT far from the window that is asked: the same dates as a literal walk gives, without the walk to the end of time. */
import { describe, expect, it } from 'vitest';
import { dayOf, isoDay } from '../day/day';
import { gapsBetween } from '../day/zone';
import { expand } from './expand';
import { rule, type Recurrence, type Rule } from './model';

const ZONE = 'America/Halifax';
const counted = (part: Partial<Rule> & Pick<Rule, 'freq'>, from: [number, number, number], count: number): Recurrence => ({
  zone: ZONE,
  parts: [
    { start: { day: dayOf(...from), minute: 600 }, length: null, rule: { ...rule(part.freq), ...part }, limit: { kind: 'count', count } },
  ],
  exdates: [],
  breaks: [],
});
const dates = (recurrence: Recurrence, from: number, to: number): string[] =>
  expand(recurrence, [], dayOf(from, 1, 1), dayOf(to, 12, 31)).map(({ start }) => isoDay(start.day));

/** Leap days from a year on, by the rule of the calendar itself. */
const leapDays = (from: number, n: number): string[] => {
  const found: string[] = [];
  for (let year = from; found.length < n; year++) if ((year % 4 === 0 && year % 100 !== 0) || year % 400 === 0) found.push(`${year}-02-29`);
  return found;
};

describe('a rule with a count that began a thousand years ago', () => {
  const daily: Partial<Rule> & Pick<Rule, 'freq'> = { freq: 'daily', byMonth: [2], byMonthDay: [29] };
  it('has the dates that are in the window, and ends where its count does', () => {
    const all = leapDays(1004, 260);
    for (const count of [1, 2, 244, 245, 246, 247, 248, 249, 250, 5000]) {
      // The first start, a New Year's Day that the rule does not name, counts as one.
      const own = ['1001-01-01', ...all].slice(0, count).filter((day) => day >= '2000' && day <= '2030-12-31');
      expect(dates(counted(daily, [1001, 1, 1], count), 2000, 2030), String(count)).toEqual(own);
      const hourly = counted({ freq: 'hourly', byMonth: [2], byMonthDay: [29], byHour: [10] }, [1001, 1, 1], count);
      expect(dates(hourly, 2000, 2030), `hourly, ${count}`).toEqual(own);
    }
  });
  it('counts the same whether the window ends before, in or after its last date', () => {
    const seven = counted({ freq: 'monthly', interval: 7, byMonthDay: [31] }, [1950, 1, 31], 300);
    const whole = dates(seven, 1950, 2400);
    expect(whole).toHaveLength(300);
    for (const [from, to] of [
      [1950, 1960],
      [1990, 2010],
      [2200, 2300],
      [2300, 2400],
    ] as const)
      expect(dates(seven, from, to)).toEqual(whole.filter((day) => day >= `${from}` && day <= `${to}-12-31`));
  });
  it('knows that no clock was changed before there were zones', () => {
    expect(gapsBetween(ZONE, dayOf(1000, 1, 1), dayOf(1829, 12, 31))).toEqual([]);
    expect(gapsBetween(ZONE, dayOf(2027, 1, 1), dayOf(2027, 12, 31))).toHaveLength(1);
  });
});
