import { describe, expect, it } from 'vitest';
import { dayOf } from '../day/day';
import { calendarName, SECOND_CALENDARS, sayInCalendar, shortInCalendar } from './second-calendar';

const BRITISH = { language: 'en', date: 'day-month' } as const;
const AMERICAN = { language: 'en', date: 'month-day' } as const;
const FRENCH = { language: 'fr', date: 'day-month' } as const;

describe('a second calendar', () => {
  it('says days as their calendars have them', () => {
    // New years of calendars, as they are published.
    expect(sayInCalendar(dayOf(2027, 10, 2), 'hebrew', BRITISH)).toMatch(/^1 Tishri 5788/);
    expect(sayInCalendar(dayOf(2027, 3, 21), 'persian', AMERICAN)).toMatch(/^Farvardin 1, 1406/);
    expect(sayInCalendar(dayOf(2027, 9, 12), 'coptic', FRENCH)).toMatch(/^1 .*1744/);
  });

  it('stands beside a numeral by its own, and names its month where that begins', () => {
    expect(shortInCalendar(dayOf(2027, 3, 20), 'persian', BRITISH)).toBe('29');
    expect(shortInCalendar(dayOf(2027, 3, 21), 'persian', BRITISH)).toMatch(/^1 Far/);
    expect(shortInCalendar(dayOf(2027, 3, 20), 'persian', BRITISH, true)).toMatch(/^29 Esf/);
  });

  it('has a name in each language', () => {
    for (const calendar of SECOND_CALENDARS)
      for (const language of ['en', 'fr'] as const) expect(calendarName(calendar, language), calendar).toMatch(/calend/i);
  });
});
