import { describe, expect, it } from 'vitest';
import { dayOf, isoDay, weekdayOf } from './day';
import { isoWeekName, parseIsoWeek } from './week';

describe('weeks by their names', () => {
  it.each([
    // ISO 8601's own examples of the turns of years.
    [dayOf(2027, 3, 17), '2027-W11'],
    [dayOf(2026, 12, 31), '2026-W53'],
    [dayOf(2027, 1, 3), '2026-W53'],
    [dayOf(2027, 1, 4), '2027-W01'],
    [dayOf(2024, 12, 30), '2025-W01'],
    [dayOf(2005, 1, 1), '2004-W53'],
  ])('%i is in %s', (day, name) => {
    expect(isoWeekName(day)).toBe(name);
  });

  it('lead back to their first day, whatever weekday that is, and each day is in one week of seven', () => {
    for (const firstWeekday of [0, 5, 6])
      for (let day = dayOf(2019, 12, 20); day < dayOf(2034, 1, 20); day++) {
        const start = parseIsoWeek(isoWeekName(day, firstWeekday), firstWeekday);
        expect(start !== undefined && start <= day && day < start + 7 && weekdayOf(start) === firstWeekday, isoDay(day)).toBe(true);
      }
  });

  it.each(['2027-W53', '2027-W00', '2027-W54', '2026-W54', '2027-11', '2027-W1', '2027-W011', '', 'W11'])('%s is no week', (text) => {
    expect(parseIsoWeek(text)).toBeUndefined();
  });
});
