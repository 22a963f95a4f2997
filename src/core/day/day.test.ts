import { describe, expect, it } from 'vitest';
import { Temporal } from 'temporal-polyfill';
import { between, random, seedOf } from '../../../tests/support/generate';
import {
  dateExists,
  dayOf,
  daysInMonth,
  firstDayOfMonth,
  isoDay,
  isoMonth,
  isoWeekOf,
  monthNumberOf,
  parseIsoDay,
  parseIsoMonth,
  weekdayOf,
  weekStart,
  ymdOf,
} from './day';
import { compareDateTime, isoDateTime, parseIsoTime, parseIsoDateTime, sameDateTime } from './plain-date-time';

const seed = seedOf();

describe(`days, seed ${seed}`, () => {
  it('agree with another calendar over ten thousand days from year 1 to 9999', () => {
    const r = random(seed);
    const epoch = Temporal.PlainDate.from('1970-01-01');
    for (let i = 0; i < 10_000; i++) {
      const day = between(r, dayOf(1, 1, 1), dayOf(9999, 12, 31));
      const date = epoch.add({ days: day });
      expect(ymdOf(day)).toEqual({ year: date.year, month: date.month, day: date.day });
      expect(dayOf(date.year, date.month, date.day)).toBe(day);
      expect(isoDay(day)).toBe(date.toString());
      expect(parseIsoDay(isoDay(day))).toBe(day);
      expect(weekdayOf(day)).toBe(date.dayOfWeek - 1);
      expect(isoWeekOf(day)).toBe(date.weekOfYear);
      expect(daysInMonth(date.year, date.month)).toBe(date.daysInMonth);
      const month = monthNumberOf(day);
      expect(parseIsoMonth(isoMonth(month))).toBe(month);
      expect(firstDayOfMonth(month)).toBe(day - date.day + 1);
      const first = between(r, 0, 6);
      const begins = weekStart(day, first);
      expect([weekdayOf(begins), begins <= day, day - begins < 7]).toEqual([first, true, true]);
    }
  });

  it('that do not exist are not read', () => {
    for (const text of ['2027-02-29', '2027-13-01', '2027-00-10', '2027-4-01', '20270401', '2027-04-31', '', '2027-04-01T10:00'])
      expect(parseIsoDay(text), text).toBeUndefined();
    expect(parseIsoMonth('2027-13')).toBeUndefined();
    expect([dateExists(2024, 2, 29), dateExists(1900, 2, 29), dateExists(2000, 2, 29), dateExists(2027, 4, 0)]).toEqual([
      true,
      false,
      true,
      false,
    ]);
  });
});

describe('wall times', () => {
  it('are written and read, with a whole day before its hours', () => {
    const texts = ['2027-03-07', '2027-03-07T00:00', '2027-03-07T07:40', '2027-03-08'];
    const walls = texts.map((text) => parseIsoDateTime(text));
    expect(walls.map((wall) => wall && isoDateTime(wall))).toEqual(texts);
    for (let i = 1; i < walls.length; i++) {
      const [a, b] = [walls[i - 1], walls[i]];
      if (!a || !b) throw new Error('not read');
      expect(compareDateTime(a, b)).toBeLessThan(0);
      expect([sameDateTime(a, b), sameDateTime(a, { ...a })]).toEqual([false, true]);
    }
  });
  it('outside of a day are not read', () => {
    for (const text of ['24:00', '07:60', '7:40', '07.40', '']) expect(parseIsoTime(text), text).toBeUndefined();
    expect(parseIsoDateTime('2027-02-30T10:00')).toBeUndefined();
    expect(parseIsoDateTime('2027-02-20T25:00')).toBeUndefined();
  });
});
