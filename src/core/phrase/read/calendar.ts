/** Which day a date that was said means, seen from today. A date without a year is the next such date, today included. */
import { type EpochDay, dateExists, dayOf, daysInMonth, weekdayOf, weekStart, ymdOf } from '../../day/day';
import { easter } from '../../holidays/easter';
import { after } from './clause-rules';
import type { PhraseProblem } from './phrase-problem';
import type { DateMeaning, SaidDate } from './calendar-dates';

/** What is known when a date is looked up. */
export interface Bearings {
  today: EpochDay;
  /** first weekday of the week */
  weekStart: number;
  problems: PhraseProblem[];
  phrase: string;
  sayDate: (day: EpochDay) => string;
}

/** Years tried for a date that is not in each: 29 February comes within eight. */
const MOST_YEARS = 9;

/** The first day of such a kind on or after `floor`. */
function nextOf(floor: EpochDay, inYear: (year: number) => EpochDay | undefined): EpochDay | undefined {
  const { year } = ymdOf(floor);
  for (let y = year; y < year + MOST_YEARS; y++) {
    const day = inYear(y);
    if (day !== undefined && day >= floor) return day;
  }
  return undefined;
}

function nthIn(year: number, month: number, weekday: number, nth: number): EpochDay | undefined {
  const first = dayOf(year, month, 1);
  const length = daysInMonth(year, month);
  const offset = (weekday - weekdayOf(first) + 7) % 7;
  const at = nth > 0 ? offset + 7 * (nth - 1) : offset + 7 * Math.floor((length - 1 - offset) / 7) + 7 * (nth + 1);
  return at >= 0 && at < length ? first + at : undefined;
}

const real = (year: number, month: number, day: number): EpochDay | undefined =>
  dateExists(year, month, day) ? dayOf(year, month, day) : undefined;

/** Spans of days that a meaning covers: one day, a month, a year. */
export interface DaySpan {
  first: EpochDay;
  last: EpochDay;
}

const one = (day: EpochDay | undefined): DaySpan | undefined => (day === undefined ? undefined : { first: day, last: day });
const month = (year: number, m: number): DaySpan => ({ first: dayOf(year, m, 1), last: dayOf(year, m, daysInMonth(year, m)) });

/**
 * The days that a meaning names, on or after `floor` where it says no year; undefined when there are none, or when it can be
 * read in two ways. `covering`: a span that has begun before `floor` counts when it has not ended.
 */
export function spanOf(
  meaning: DateMeaning,
  floor: EpochDay,
  { today, weekStart: first }: Pick<Bearings, 'today' | 'weekStart'>,
  covering = true,
): DaySpan | undefined {
  const inYear = (year: number | undefined, find: (y: number) => EpochDay | undefined): DaySpan | undefined =>
    one(year === undefined ? nextOf(floor, find) : find(year));
  switch (meaning.kind) {
    case 'day':
      return inYear(meaning.year, (y) => real(y, meaning.month, meaning.day));
    case 'nth':
      return inYear(meaning.year, (y) => nthIn(y, meaning.month, meaning.weekday, meaning.nth));
    case 'easter':
      return inYear(meaning.year, (y) => easter(y) + meaning.offset);
    case 'month': {
      if (meaning.year !== undefined) return month(meaning.year, meaning.month);
      const { year } = ymdOf(floor);
      const here = month(year, meaning.month);
      return (covering ? here.last : here.first) >= floor ? here : month(year + 1, meaning.month);
    }
    case 'year':
      return { first: dayOf(meaning.year, 1, 1), last: dayOf(meaning.year, 12, 31) };
    case 'month-day':
      return one(nextMonthDay(floor, meaning.day));
    case 'weekday':
      return one(floor + ((meaning.weekday - weekdayOf(floor) + 7) % 7));
    case 'relative':
      return one(today + meaning.days);
    case 'weeks-on':
      return one(today + 1 + ((meaning.weekday - weekdayOf(today + 1) + 7) % 7) + 7 * meaning.weeks);
    case 'months-on':
      return one(after(today, meaning.months, 'month'));
    case 'iso':
      return one(meaning.day);
    case 'either':
      return undefined;
    case 'this':
      return thisUnit(meaning.unit, floor, first);
  }
}

function nextMonthDay(floor: EpochDay, day: number): EpochDay | undefined {
  const { year, month: m } = ymdOf(floor);
  for (let i = 0; i < 12; i++) {
    const found = real(year + Math.floor((m - 1 + i) / 12), ((m - 1 + i) % 12) + 1, day);
    if (found !== undefined && found >= floor) return found;
  }
  return undefined;
}

function thisUnit(unit: 'month' | 'year' | 'week', floor: EpochDay, firstWeekday: number): DaySpan {
  const { year, month: m } = ymdOf(floor);
  if (unit === 'month') return month(year, m);
  if (unit === 'year') return { first: dayOf(year, 1, 1), last: dayOf(year, 12, 31) };
  const first = weekStart(floor, firstWeekday);
  return { first, last: first + 6 };
}

/** The year that a date was said with, when it was. */
export function yearOf({ meaning }: SaidDate): number | undefined {
  if (meaning.kind === 'iso') return meaning.day === undefined ? undefined : ymdOf(meaning.day).year;
  return 'year' in meaning ? meaning.year : undefined;
}

/** The same date, of a year. */
export function inYear(date: SaidDate, year: number): SaidDate {
  const { meaning } = date;
  const takes = meaning.kind === 'day' || meaning.kind === 'month' || meaning.kind === 'nth' || meaning.kind === 'easter';
  return takes ? { ...date, meaning: { ...meaning, year } } : date;
}
