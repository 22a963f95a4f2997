/** Weeks by their ISO 8601 names, `2027-W11`: Monday to Sunday, the first of a year being the one with its first Thursday. */
import { dayOf, type EpochDay, isoWeekOf, type Weekday, weekStart, ymdOf } from './day';

/** The name of the week that a day is in. Where weeks begin on another day, it is that of their Thursday. */
export function isoWeekName(day: EpochDay, firstWeekday: Weekday = 0): string {
  const thursday = thursdayOf(day, firstWeekday);
  return `${ymdOf(thursday).year}-W${String(isoWeekOf(thursday)).padStart(2, '0')}`;
}

const thursdayOf = (day: EpochDay, firstWeekday: Weekday): EpochDay => {
  const start = weekStart(day, firstWeekday);
  return weekStart(start + 6, 3);
};

/** The first day of the week with a name, where weeks begin on a weekday; undefined for what is none, such as a week 53 in a year of 52. */
export function parseIsoWeek(text: string, firstWeekday: Weekday = 0): EpochDay | undefined {
  const found = /^(\d{4})-W(\d{2})$/.exec(text);
  if (!found) return undefined;
  // The 4th of January is always in the first week.
  const monday = weekStart(dayOf(Number(found[1]), 1, 4), 0) + (Number(found[2]) - 1) * 7;
  const start = weekStart(monday + 3, firstWeekday);
  return isoWeekName(start, firstWeekday) === text ? start : undefined;
}
