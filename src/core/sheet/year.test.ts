import { describe, expect, it } from 'vitest';
import { between, random, rounds, seedOf } from '../../../tests/support/generate';
import { daysInMonth, firstDayOfMonth, weekdayOf } from '../day/day';
import type { SheetDate } from './month';
import { HEAVIEST, layYear, weightOf } from './year';

const january = 2027 * 12;

describe('a year as small sheets', () => {
  it('has each day once under its weekday, counts each date once a month, and lays no band over another', () => {
    for (let round = 0; round < rounds(60); round++) {
      const r = random(seedOf() + round);
      const firstWeekday = between(r, 0, 6);
      const first = firstDayOfMonth(january);
      const dates: SheetDate[] = Array.from({ length: between(r, 0, 300) }, (_, key) => {
        const from = first + between(r, -8, 370);
        return { from, to: from + (r() < 0.1 ? between(r, 1, 40) : 0), minute: null, headline: r() < 0.1, key };
      });
      const counts = Array.from({ length: 365 }, (_, n) => dates.filter((d) => d.from <= first + n && d.to >= first + n).length);
      const several = dates.filter((d) => d.to > d.from);
      const months = layYear({ month: january, months: 12, firstWeekday, counts, touching: several, bands: several });
      const days = months.flatMap(({ weeks }) => weeks.flatMap((week) => week.days.flatMap((day) => day ?? [])));
      expect(days.map(({ day }) => day)).toEqual(Array.from({ length: 365 }, (_, n) => first + n));
      for (const { month, weeks, total } of months) {
        const [from, to] = [firstDayOfMonth(month), firstDayOfMonth(month) + daysInMonth(2027, (month % 12) + 1) - 1];
        expect(total).toBe(dates.filter((d) => d.from <= to && d.to >= from).length);
        for (const { days: row, bands } of weeks) {
          for (const [column, day] of row.entries()) if (day) expect((weekdayOf(day.day) - firstWeekday + 7) % 7).toBe(column);
          for (const { date, fromColumn, toColumn } of bands)
            for (let column = fromColumn; column <= toColumn; column++) {
              const day = row[column]?.day ?? 0;
              expect(date.from <= day && date.to >= day).toBe(true);
            }
          for (const [i, one] of bands.entries())
            for (const other of bands.slice(i + 1))
              expect(one.lane === other.lane && one.fromColumn <= other.toColumn && other.fromColumn <= one.toColumn).toBe(false);
        }
      }
    }
  });

  it('weighs days against the fullest: nothing is nothing, one is something, the fullest is heaviest', () => {
    expect([0, 1, 2, 5, 10].map((n) => weightOf(n, 10))).toEqual([0, 2, 2, 3, 4]);
    expect([weightOf(1, 1), weightOf(1, 400), weightOf(20, 400), weightOf(400, 400)]).toEqual([1, 1, 3, HEAVIEST]);
    for (let n = 1; n < 400; n++) expect(weightOf(n, 400)).toBeGreaterThanOrEqual(weightOf(n - 1, 400));
  });

  it('half a year begins with any month, over the turn of the year too', () => {
    const months = layYear({ month: january + 9, months: 6, firstWeekday: 0, counts: [], touching: [], bands: [] });
    expect(months.map(({ month }) => month)).toEqual([0, 1, 2, 3, 4, 5].map((n) => january + 9 + n));
  });
});
