import { describe, expect, it } from 'vitest';
import { DATE_STYLES, HOUR_STYLES } from '../phrase/format';
import { COUNTRY_NAMES, countryName, habitsOf, isCountry } from './countries';

describe('countries', () => {
  it('are those that have a code today, by name', () => {
    const codes = COUNTRY_NAMES.map(([code]) => code);
    expect(new Set(codes).size).toBe(codes.length);
    expect(codes.length).toBeGreaterThan(240);
    expect(codes.length).toBeLessThan(260);
    // Unions, lands of tests and countries that are no more.
    for (const none of ['EU', 'UN', 'XA', 'ZZ', 'SU', 'YU', 'DD', 'AN']) expect(isCountry(none), none).toBe(false);
    const names = COUNTRY_NAMES.map(([, name]) => name);
    expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b, 'en')));
    expect(countryName('CA')).toBe('Canada');
    expect(countryName('QQ')).toBe('QQ');
  });
  it.each([
    ['CA', 6, '12', 'month-day'],
    ['US', 6, '12', 'month-day'],
    ['GB', 0, '24', 'day-month'],
    ['FR', 0, '24', 'day-month'],
    ['JP', 6, '24', 'iso'],
    ['EG', 5, '12', 'day-month'],
    ['NZ', 0, '12', 'day-month'],
  ])('%s writes as it is used to', (code, firstWeekday, hours, date) => expect(habitsOf(code)).toEqual({ firstWeekday, hours, date }));
  it('each has habits that a site can be set to', () => {
    for (const [code] of COUNTRY_NAMES) {
      const { firstWeekday, hours, date } = habitsOf(code);
      expect([0, 1, 2, 3, 4, 5, 6], code).toContain(firstWeekday);
      expect(HOUR_STYLES, code).toContain(hours);
      expect(DATE_STYLES, code).toContain(date);
    }
  });
});
