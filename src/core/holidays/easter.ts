/** The Sunday that many days of a year hang on. */
import { type EpochDay, dayOf } from '../day/day';

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
