/** A site's own lines of the year: holidays, observances, school holidays, times that hang on the sun. Months 1-12; Gregorian calendar. */
import { type EpochDay, dateExists, dayOf, daysInMonth, type Weekday, weekdayOf, ymdOf } from '../day/day';
import { type Place, type SunEvent, sunOn } from '../sky/sky';
import { addMark, type DayMarks } from './day-marks';
import { easter } from './easter';

/** A day of any year. */
export interface MonthDay {
  month: number;
  day: number;
}

/** How a line is found in each year. */
export type HolidayRule = {
  name: string;
  /** the first and the last year in which it holds, by the year in which it begins; missing = always */
  from?: number | undefined;
  until?: number | undefined;
} & (
  | ({ kind: 'fixed' } & MonthDay)
  /** days after (or before) Easter Sunday */
  | { kind: 'easter'; offset: number }
  /** nth weekday of a month; -1 = the last */
  | { kind: 'weekday'; month: number; weekday: Weekday; nth: number }
  /** from one day to another, both included, over the year's end where the last one is earlier in the year */
  | { kind: 'span'; first: MonthDay; last: MonthDay }
  /** so many minutes after (or before) the sun rises or sets, on these weekdays */
  | { kind: 'sun'; event: SunEvent; minutes: number; weekdays: Weekday[] }
);

/** The nth weekday of a month (-1 = the last), where the month has so many. */
function weekdayIn(year: number, { month, weekday, nth }: { month: number; weekday: Weekday; nth: number }): EpochDay | undefined {
  const first = dayOf(year, month, 1);
  const length = daysInMonth(year, month);
  const offset = (weekday - weekdayOf(first) + 7) % 7;
  const last = offset + 7 * Math.floor((length - 1 - offset) / 7);
  const at = nth > 0 ? offset + 7 * (nth - 1) : last + 7 * (nth + 1);
  return at >= 0 && at < length ? first + at : undefined;
}

const dayIn = (year: number, { month, day }: MonthDay): EpochDay | undefined =>
  dateExists(year, month, day) ? dayOf(year, month, day) : undefined;

/** 29 February where there is none is the day before. */
const dayNear = (year: number, { month, day }: MonthDay): EpochDay => dayOf(year, month, Math.min(day, daysInMonth(year, month)));

/** The first and last day of a line that begins in a year, if it does. */
function daysIn(year: number, rule: Exclude<HolidayRule, { kind: 'sun' }>): [EpochDay, EpochDay] | undefined {
  if (rule.kind === 'span') {
    const over = rule.last.month * 100 + rule.last.day < rule.first.month * 100 + rule.first.day;
    return [dayNear(year, rule.first), dayNear(over ? year + 1 : year, rule.last)];
  }
  const day = rule.kind === 'easter' ? easter(year) + rule.offset : rule.kind === 'fixed' ? dayIn(year, rule) : weekdayIn(year, rule);
  return day === undefined ? undefined : [day, day];
}

const holds = ({ from, until }: HolidayRule, year: number): boolean =>
  (from === undefined || year >= from) && (until === undefined || year <= until);

/** The first and the last day that is asked for. */
export interface DaySpan {
  from: EpochDay;
  to: EpochDay;
}

/** A picture by the (English) name of a day. */
export type PictureOf = (name: string) => string | undefined;

/** What the marks of own lines depend on besides. */
export interface OwnMarks {
  /** whose sun counts */
  place: Place;
  pictureOf?: PictureOf;
}

/**
 * Adds the days of a site's own lines. Days are red; spans and times of the sun are said, and leave the numeral as it is.
 */
export function addOwnMarks(
  marks: DayMarks,
  rules: readonly HolidayRule[],
  { from, to }: DaySpan,
  { place, pictureOf = () => undefined }: OwnMarks,
): void {
  // One year more on each side, since an offset from Easter and a span may cross a year's end.
  const years = Array.from({ length: ymdOf(to).year - ymdOf(from).year + 3 }, (_, i) => ymdOf(from).year - 1 + i);
  for (const rule of rules) {
    if (rule.kind === 'sun') {
      addSunMarks(marks, rule, { from, to }, { place, pictureOf });
      continue;
    }
    for (const year of years) {
      const days = holds(rule, year) ? daysIn(year, rule) : undefined;
      if (!days) continue;
      const [first, last] = days;
      for (let day = Math.max(first, from); day <= Math.min(last, to); day++)
        addMark(marks, day, { name: rule.name, red: rule.kind !== 'span', begins: day === first, picture: pictureOf(rule.name) });
    }
  }
}

function addSunMarks(
  marks: DayMarks,
  rule: Extract<HolidayRule, { kind: 'sun' }>,
  { from, to }: DaySpan,
  { place, pictureOf = () => undefined }: OwnMarks,
): void {
  for (let day = from; day <= to; day++) {
    if (!rule.weekdays.includes(weekdayOf(day)) || !holds(rule, ymdOf(day).year)) continue;
    const sun = sunOn(day, place);
    if (sun.kind !== 'rises') continue;
    const minute = (rule.event === 'sunset' ? sun.set : sun.rise) + rule.minutes;
    addMark(marks, day, {
      name: rule.name,
      red: false,
      begins: true,
      minute: ((minute % 1440) + 1440) % 1440,
      picture: pictureOf(rule.name),
    });
  }
}
