/**
 * Civil days. A day is an integer: days since 1970-01-01 in the proleptic Gregorian calendar, without a zone.
 * Weekdays are 0 = Monday … 6 = Sunday (ISO 8601 order). A month number is `year * 12 + (month - 1)`.
 * Conversions follow Howard Hinnant, "chrono-Compatible Low-Level Date Algorithms" (exact for all years used here).
 */

/** Days since 1970-01-01 in the proleptic Gregorian calendar, a whole number; a calendar day without a zone. */
export type EpochDay = number;
/** Months since the year 0: year × 12 + month − 1. */
export type MonthNumber = number;
/** 0 = Monday … 6 = Sunday. */
export type Weekday = number;

/** A calendar day as year, month (1 to 12) and day of the month (1 to 31). */
export interface Ymd {
  year: number;
  /** 1-12 */
  month: number;
  /** 1-31 */
  day: number;
}

/** The day of a civil date; the date must exist (see {@link dateExists}). */
export function dayOf(year: number, month: number, day: number): EpochDay {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146097 + dayOfEra - 719468;
}

/** Year, month (1-12) and day of the month (1-31) of a day. */
export function ymdOf(day: EpochDay): Ymd {
  const z = day + 719468;
  const era = Math.floor(z / 146097);
  const dayOfEra = z - era * 146097;
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) / 365,
  );
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const mp = Math.floor((5 * dayOfYear + 2) / 153);
  const month = mp < 10 ? mp + 3 : mp - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    day: dayOfYear - Math.floor((153 * mp + 2) / 5) + 1,
  };
}

/** The weekday of a day, 0 = Monday. */
export function weekdayOf(day: EpochDay): Weekday {
  return (((day + 3) % 7) + 7) % 7;
}

/** Gregorian, for any year. */
export function isLeapYear(year: number): boolean {
  return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
}

const MONTH_LENGTHS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** How many days a month has, months 1-12. */
export function daysInMonth(year: number, month: number): number {
  return month === 2 && isLeapYear(year) ? 29 : (MONTH_LENGTHS[month - 1] ?? 0);
}

/** Is there such a date? Months 1-12, days from 1. */
export function dateExists(year: number, month: number, day: number): boolean {
  return month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month);
}

/** The month that a day lies in, counted from year 0. */
export function monthNumberOf(day: EpochDay): MonthNumber {
  const { year, month } = ymdOf(day);
  return year * 12 + month - 1;
}

/** Year and month (1-12) of a month number. */
export function yearMonthOf(monthNumber: MonthNumber): { year: number; month: number } {
  const year = Math.floor(monthNumber / 12);
  return { year, month: monthNumber - year * 12 + 1 };
}

/** The first day of a month number. */
export function firstDayOfMonth(monthNumber: MonthNumber): EpochDay {
  const { year, month } = yearMonthOf(monthNumber);
  return dayOf(year, month, 1);
}

/** The last day on or before `day` that is `weekday`. */
export function weekStart(day: EpochDay, weekday: Weekday): EpochDay {
  return day - ((weekdayOf(day) - weekday + 7) % 7);
}

/** ISO 8601 week number (1-53) of a day. */
export function isoWeekOf(day: EpochDay): number {
  const thursday = day - weekdayOf(day) + 3;
  return Math.floor((thursday - dayOf(ymdOf(thursday).year, 1, 1)) / 7) + 1;
}

const two = (n: number): string => (n < 10 ? `0${n}` : `${n}`);
const four = (n: number): string => (n >= 1000 ? `${n}` : String(n).padStart(4, '0'));

/** `2027-03-07` */
export function isoDay(day: EpochDay): string {
  const { year, month, day: d } = ymdOf(day);
  return `${four(year)}-${two(month)}-${two(d)}`;
}

/** `2027-03` */
export function isoMonth(monthNumber: MonthNumber): string {
  const { year, month } = yearMonthOf(monthNumber);
  return `${four(year)}-${two(month)}`;
}

/** Reads `2027-03-07`; undefined when it is not of that form or the date does not exist (31 February). */
export function parseIsoDay(text: string): EpochDay | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (!match) return undefined;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  return dateExists(year, month, day) ? dayOf(year, month, day) : undefined;
}

/** Reads `2027-03`; undefined when it is no month. */
export function parseIsoMonth(text: string): MonthNumber | undefined {
  const match = /^(\d{4})-(\d{2})$/.exec(text);
  if (!match) return undefined;
  const month = Number(match[2]);
  return month >= 1 && month <= 12 ? Number(match[1]) * 12 + month - 1 : undefined;
}
