import { describe, expect, it } from 'vitest';
import { parseIsoDay } from '../day/day';
import { type DayMarks, redNames } from '../holidays/day-marks';
import { easter } from '../holidays/easter';
import { addOwnMarks, type HolidayRule } from '../holidays/holidays';
import { isoDay } from '../day/day';
import { moonOn, phaseOn, sunOn } from './sky';

const d = (text: string): number => parseIsoDay(text) as number;

describe('the sun', () => {
  const place = { lat: 43.18, lng: -57.45, zone: 'America/Halifax' };
  it('rises and sets within two minutes of the almanac’s equation on the equinox', () => {
    const sun = sunOn(d('2027-03-20'), place);
    if (sun.kind !== 'rises') throw new Error(sun.kind);
    // Noon by longitude: 12:00 UTC−3 is 45° W; 12.45° further west is 49.8 min later, equation of time +7.5 min.
    const noon = 720 + (57.45 - 45) * 4 + 7.5;
    expect(Math.abs((sun.rise + sun.set) / 2 - noon)).toBeLessThan(2);
    expect(sun.set - sun.rise).toBeGreaterThan(12 * 60);
    expect(sun.set - sun.rise).toBeLessThan(12 * 60 + 14);
  });
  it('says so where it does not rise or set', () => {
    const north = { lat: 78, lng: 15, zone: 'UTC' };
    expect([sunOn(d('2027-06-21'), north).kind, sunOn(d('2027-12-21'), north).kind]).toEqual(['always-up', 'always-down']);
  });
});

describe('the moon', () => {
  it('has four phases in order, about 7.4 days apart, through a year', () => {
    const found: [number, string][] = [];
    for (let day = d('2027-01-01'); day < d('2028-01-01'); day++) {
      const phase = phaseOn(day, 'America/Halifax');
      if (phase) found.push([day, phase]);
    }
    const order = ['new', 'first-quarter', 'full', 'last-quarter'];
    expect(found.length).toBeGreaterThanOrEqual(48);
    for (let i = 1; i < found.length; i++) {
      const [[before, a], [after, b]] = [found[i - 1] as [number, string], found[i] as [number, string]];
      expect(order[(order.indexOf(a) + 1) % 4]).toBe(b);
      expect(after - before).toBeGreaterThanOrEqual(6);
      expect(after - before).toBeLessThanOrEqual(9);
    }
  });
  it('knows a new and a full one', () => {
    expect(phaseOn(d('2027-03-08'), 'UTC')).toBe('new');
    expect(phaseOn(d('2027-03-22'), 'UTC')).toBe('full');
    expect(moonOn(d('2027-03-17'), 'America/Halifax')).toMatchObject({ waxing: true, age: 9 });
  });
});

describe('red-letter days', () => {
  it('Easter falls as the tables say', () => {
    const years: Record<number, string> = {
      1961: '1961-04-02',
      2000: '2000-04-23',
      2008: '2008-03-23',
      2027: '2027-03-28',
      2038: '2038-04-25',
      2100: '2100-03-28',
    };
    for (const [year, day] of Object.entries(years)) expect(isoDay(easter(Number(year)))).toBe(day);
  });
  it('fixed, Easter-based and weekday ones, over a year’s edge', () => {
    const rules: HolidayRule[] = [
      { name: 'New Year', kind: 'fixed', month: 1, day: 1 },
      { name: 'Leap Day', kind: 'fixed', month: 2, day: 29 },
      { name: 'Good Friday', kind: 'easter', offset: -2 },
      { name: 'Isles Day', kind: 'weekday', month: 6, weekday: 0, nth: 1 },
      { name: 'Last Sunday', kind: 'weekday', month: 12, weekday: 6, nth: -1 },
      { name: 'Fifth Monday', kind: 'weekday', month: 2, weekday: 0, nth: 5 },
    ];
    const marks: DayMarks = new Map();
    addOwnMarks(marks, rules, { from: d('2026-12-20'), to: d('2028-01-01') }, { place: { lat: 0, lng: 0, zone: 'UTC' } });
    const found = redNames(marks);
    expect([...found].map(([day, names]) => `${isoDay(day)} ${names}`).sort()).toEqual([
      '2026-12-27 Last Sunday',
      '2027-01-01 New Year',
      '2027-03-26 Good Friday',
      '2027-06-07 Isles Day',
      '2027-12-26 Last Sunday',
      '2028-01-01 New Year',
    ]);
  });
});
