/** Red-letter days: holidays and observances of a site, as rules of a year. Months 1-12; Gregorian calendar. */
import { type EpochDay, dateExists, dayOf, daysInMonth, type Weekday, weekdayOf, ymdOf } from '../day/day';

/** How a holiday is found in each year: a fixed date, a weekday of a month, or days from Easter. */
export type HolidayRule =
  | { name: string; kind: 'fixed'; month: number; day: number }
  /** days after (or before) Easter Sunday */
  | { name: string; kind: 'easter'; offset: number }
  /** nth weekday of a month; -1 = the last */
  | { name: string; kind: 'weekday'; month: number; weekday: Weekday; nth: number };

/** Easter Sunday of a Gregorian year (Meeus, "Astronomical Algorithms", chapter 8). */
export function easter(year: number): EpochDay {
  const a = year % 19;
  const b = Math.floor(year / 100);
  const c = year % 100;
  const d = Math.floor(b / 4);
  const e = b % 4;
  const f = Math.floor((b + 8) / 25);
  const g = Math.floor((b - f + 1) / 3);
  const h = (19 * a + b - d - g + 15) % 30;
  const i = Math.floor(c / 4);
  const k = c % 4;
  const l = (32 + 2 * e + 2 * i - h - k) % 7;
  const m = Math.floor((a + 11 * h + 22 * l) / 451);
  const n = h + l - 7 * m + 114;
  return dayOf(year, Math.floor(n / 31), (n % 31) + 1);
}

function dayIn(year: number, rule: HolidayRule): EpochDay | undefined {
  if (rule.kind === 'easter') return easter(year) + rule.offset;
  if (rule.kind === 'fixed') return dateExists(year, rule.month, rule.day) ? dayOf(year, rule.month, rule.day) : undefined;
  const first = dayOf(year, rule.month, 1);
  const length = daysInMonth(year, rule.month);
  const offset = (rule.weekday - weekdayOf(first) + 7) % 7;
  const last = offset + 7 * Math.floor((length - 1 - offset) / 7);
  const at = rule.nth > 0 ? offset + 7 * (rule.nth - 1) : last + 7 * (rule.nth + 1);
  return at >= 0 && at < length ? first + at : undefined;
}

/** The names of the red-letter days from one day to another, both included. */
export function holidaysBetween(rules: readonly HolidayRule[], from: EpochDay, to: EpochDay): Map<EpochDay, string[]> {
  const found = new Map<EpochDay, string[]>();
  // One year more on each side, since an offset from Easter may cross a year's end.
  for (let year = ymdOf(from).year - 1; year <= ymdOf(to).year + 1; year++) {
    for (const rule of rules) {
      const day = dayIn(year, rule);
      if (day === undefined || day < from || day > to) continue;
      found.set(day, [...(found.get(day) ?? []), rule.name]);
    }
  }
  return found;
}
