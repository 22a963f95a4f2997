/** Dates in phrases as they are said, before it is known which year they mean: `18 March`, `3/4`, `the last Friday in June`. */
import type { Weekday } from '../../day/day';
import { type Cursor, readList } from './cursor';
import { FIRST_YEAR, readLength } from './times-of-day';
import { MONTH_WORDS, NAMED_DAYS, NUMBER_WORDS, ORDINAL_WORDS, type Unit, WEEKDAY_WORDS } from './vocabulary';

/** What words for a day name: a date, a day of each month, a weekday of a month, a feast … */
export type DateMeaning =
  | { kind: 'day'; month: number; day: number; year?: number | undefined }
  | { kind: 'month'; month: number; year?: number | undefined }
  | { kind: 'year'; year: number }
  /** a day of the month whose month is not said: `the 14th` */
  | { kind: 'month-day'; day: number }
  | { kind: 'weekday'; weekday: Weekday; next: boolean }
  | { kind: 'nth'; weekday: Weekday; nth: number; month: number; year?: number | undefined }
  | { kind: 'easter'; offset: number; year?: number | undefined }
  /** days from today */
  | { kind: 'relative'; days: number }
  /** weeks after the next such weekday: `a week on Saturday` */
  | { kind: 'weeks-on'; weekday: Weekday; weeks: number }
  | { kind: 'months-on'; months: number }
  | { kind: 'iso'; day: number | undefined; minute: number | null; offset?: number | undefined }
  /** figures of which either may be the month */
  | { kind: 'either'; first: number; second: number; year?: number | undefined }
  /** `end of this month` */
  | { kind: 'this'; unit: 'month' | 'year' | 'week' };

/** A day as a phrase says it, with its place there. */
export interface SaidDate {
  meaning: DateMeaning;
  /** a weekday said with the date, which must agree */
  weekday?: Weekday | undefined;
  /** `end of`, `beginning of` */
  edge?: 'start' | 'end' | undefined;
  from: number;
  to: number;
}

/** Days from one to another, as a phrase says them. */
export interface SaidSpan {
  from: SaidDate;
  to: SaidDate;
}

const weekdayHere = (cursor: Cursor): Weekday | undefined => {
  const found = WEEKDAY_WORDS.get(cursor.word());
  if (found !== undefined) cursor.next();
  return found;
};

/** A month by its name. `may` and `mar` in small letters are words too, but nothing else here begins with them. */
export function readMonth(cursor: Cursor): number | undefined {
  const found = MONTH_WORDS.get(cursor.word());
  if (found !== undefined) cursor.next();
  return found;
}

function readYear(cursor: Cursor): number | undefined {
  const comma = cursor.word() === ',' ? 1 : 0;
  const token = cursor.peek(comma);
  if (token?.kind !== 'number' || token.ordinal || !/^(19|20|21)\d\d$/.test(token.text) || token.value < FIRST_YEAR) return undefined;
  cursor.at += comma + 1;
  return token.value;
}

/** `7`, `7th`, `the 7th`, `seventh` as a day of the month. */
function readMonthDay(cursor: Cursor, ordinalOnly = false): number | undefined {
  return cursor.attempt(() => {
    cursor.pass('the');
    const token = cursor.peek();
    if (
      token?.kind === 'number' &&
      Number.isInteger(token.value) &&
      token.value >= 1 &&
      token.value <= 31 &&
      (token.ordinal || !ordinalOnly)
    ) {
      cursor.next();
      return token.value;
    }
    const spelt = ORDINAL_WORDS.get(cursor.word()) ?? (ordinalOnly ? undefined : NUMBER_WORDS.get(cursor.word()));
    if (!spelt) return undefined;
    cursor.next();
    return spelt;
  });
}

/** `32` before a month: a day that no month has, which is asked about. */
function noMonthDay(cursor: Cursor): number | undefined {
  const token = cursor.peek();
  const wrong = token?.kind === 'number' && Number.isInteger(token.value) && (token.value === 0 || (token.value > 31 && token.value < 100));
  if (!wrong || !MONTH_WORDS.has(cursor.word(1))) return undefined;
  cursor.next();
  return token.value;
}

/** `last`, `first`, `3rd`, `second to last`. */
export function readNth(cursor: Cursor): number | undefined {
  return cursor.attempt(() => {
    cursor.pass('the');
    if (cursor.pass('last')) return -1;
    const token = cursor.peek();
    const nth = token?.kind === 'number' && token.ordinal ? token.value : ORDINAL_WORDS.get(cursor.word());
    if (nth === undefined || nth < 1 || nth > 53) return undefined;
    cursor.next();
    return cursor.passAll('to last') || cursor.passAll('- to - last') || cursor.passAll('from last') ? -nth : nth;
  });
}

function readFigures(cursor: Cursor): DateMeaning | undefined {
  const token = cursor.peek();
  if (token?.kind === 'iso') {
    cursor.next();
    return { kind: 'iso', day: token.day, minute: token.minute, offset: token.offset };
  }
  if (token?.kind === 'dotted') {
    cursor.next();
    return { kind: 'day', month: token.month, day: token.day, year: token.year };
  }
  if (token?.kind !== 'slash') return undefined;
  const { first, second, year } = token;
  const [dayFirst, monthFirst] = [second <= 12 && first <= 31, first <= 12 && second <= 31];
  if ((!dayFirst && !monthFirst) || first < 1 || second < 1) return undefined;
  cursor.next();
  if (dayFirst && monthFirst && first !== second) return { kind: 'either', first, second, year };
  return dayFirst ? { kind: 'day', day: first, month: second, year } : { kind: 'day', day: second, month: first, year };
}

function readNamed(cursor: Cursor): DateMeaning | undefined {
  for (const [name, value] of NAMED_DAYS) {
    if (!cursor.passAll(name)) continue;
    const year = readYear(cursor);
    return 'easter' in value ? { kind: 'easter', offset: value.easter, year } : { kind: 'day', ...value, year };
  }
  // `tonight` leaves the evening to be read after it.
  if (cursor.pass('today', 'tonight')) return { kind: 'relative', days: 0 };
  if (cursor.pass('tomorrow')) return { kind: 'relative', days: 1 };
  return cursor.passAll('day after tomorrow') || cursor.passAll('the day after tomorrow') ? { kind: 'relative', days: 2 } : undefined;
}

/** Days of a length that is made of whole ones. */
const DAYS_OF: Partial<Record<Unit, number>> = { day: 1, week: 7, fortnight: 14 };
/** What a length is counted from, in days from today. */
const FROM_NOW: [string, number][] = [
  ['from today', 0],
  ['from now', 0],
  ['from tomorrow', 1],
];

/** `in three days`, `in two weeks`, `three weeks from today`, `a week on Saturday`, `Saturday week`. */
function readFromNow(cursor: Cursor): DateMeaning | undefined {
  const weekdayFirst = cursor.attempt(() => {
    const weekday = weekdayHere(cursor);
    const weeks = weekday === undefined ? undefined : cursor.pass('week') ? 1 : cursor.pass('fortnight') ? 2 : undefined;
    return weekday === undefined || weeks === undefined ? undefined : { kind: 'weeks-on' as const, weekday, weeks };
  });
  if (weekdayFirst) return weekdayFirst;
  return cursor.attempt((): DateMeaning | undefined => {
    const led = cursor.pass('in');
    const length = readLength(cursor);
    if (!length || !Number.isInteger(length.amount) || length.amount < 1) return undefined;
    const days = DAYS_OF[length.unit];
    if (!led && days === 7 && cursor.pass('on')) {
      const weekday = weekdayHere(cursor);
      return weekday === undefined ? undefined : { kind: 'weeks-on', weekday, weeks: length.amount };
    }
    const from = FROM_NOW.find(([words]) => cursor.passAll(words))?.[1];
    if (!led && from === undefined) return undefined;
    if (days !== undefined) return { kind: 'relative', days: days * length.amount + (from ?? 0) };
    const months = length.unit === 'month' ? 1 : length.unit === 'year' ? 12 : undefined;
    return months === undefined ? undefined : { kind: 'months-on', months: months * length.amount };
  });
}

/** `7 March 2027`, `7th of March`, `March 7, 2027`. */
function readDayAndMonth(cursor: Cursor): DateMeaning | undefined {
  return (
    cursor.attempt(() => {
      const day = readMonthDay(cursor) ?? noMonthDay(cursor);
      if (day === undefined) return undefined;
      cursor.pass('of');
      const month = readMonth(cursor);
      return month === undefined ? undefined : { kind: 'day' as const, day, month, year: readYear(cursor) };
    }) ??
    cursor.attempt(() => {
      const month = readMonth(cursor);
      const day = month === undefined ? undefined : readMonthDay(cursor);
      return month === undefined || day === undefined ? undefined : { kind: 'day' as const, day, month, year: readYear(cursor) };
    })
  );
}

/** `last Friday in June`, `first Sunday of July 2028`. */
function readNthWeekday(cursor: Cursor): DateMeaning | undefined {
  return cursor.attempt(() => {
    const nth = readNth(cursor);
    const weekday = nth === undefined ? undefined : weekdayHere(cursor);
    if (nth === undefined || weekday === undefined || !cursor.pass('in', 'of')) return undefined;
    const month = readMonth(cursor);
    return month === undefined ? undefined : { kind: 'nth', nth, weekday, month, year: readYear(cursor) };
  });
}

/** In which style dates are read, and from which day. */
export interface DateOptions {
  /** a month or a year alone is a date here: after `until` and `from` */
  months?: boolean;
  /** a weekday alone is a date here */
  weekdays?: boolean;
}

/** One date, with the weekday said before it. */
export function readDate(cursor: Cursor, options: DateOptions = {}): SaidDate | undefined {
  return cursor.attempt(() => {
    const first = cursor.at;
    const edge = options.months ? readEdge(cursor) : undefined;
    const nth = readNthWeekday(cursor);
    if (nth) return { meaning: nth, edge, ...cursor.place(first) };
    const named = readNamed(cursor) ?? readFromNow(cursor);
    if (named) return { meaning: named, edge, ...cursor.place(first) };
    const meaning = cursor.attempt(() => readWithWeekday(cursor, options));
    if (meaning) return { ...meaning, edge, ...cursor.place(first) };
    const alone = options.months ? readMonthAlone(cursor) : undefined;
    return alone ? { meaning: alone, edge, ...cursor.place(first) } : undefined;
  });
}

function readEdge(cursor: Cursor): 'start' | 'end' | undefined {
  return cursor.attempt(() => {
    cursor.pass('the');
    const edge = cursor.pass('end') ? 'end' : cursor.pass('beginning', 'start') ? 'start' : undefined;
    return edge && cursor.pass('of') ? edge : undefined;
  });
}

function readMonthAlone(cursor: Cursor): DateMeaning | undefined {
  const month = readMonth(cursor);
  if (month !== undefined) return { kind: 'month', month, year: readYear(cursor) };
  const year = readYear(cursor);
  if (year !== undefined) return { kind: 'year', year };
  return cursor.attempt(() => {
    cursor.pass('the', 'this');
    const unit = cursor.word();
    if (unit !== 'month' && unit !== 'year' && unit !== 'week') return undefined;
    cursor.next();
    return { kind: 'this' as const, unit };
  });
}

function readWithWeekday(cursor: Cursor, options: DateOptions): Pick<SaidDate, 'meaning' | 'weekday'> | undefined {
  const before = cursor.at;
  const next = cursor.pass('next');
  if (!next) cursor.pass('this', 'coming');
  const weekday = weekdayHere(cursor);
  if (weekday === undefined) cursor.at = before;
  const meaning = cursor.attempt(() => {
    cursor.pass(',');
    if (weekday !== undefined) cursor.pass('on');
    cursor.pass('the');
    return readFigures(cursor) ?? readDayAndMonth(cursor) ?? (weekday === undefined ? undefined : loneDay(cursor));
  });
  if (meaning) return { meaning, weekday };
  if (weekday !== undefined) return options.weekdays || next ? { meaning: { kind: 'weekday', weekday, next } } : undefined;
  const lone = cursor.attempt(() => (cursor.pass('the') ? loneDay(cursor) : undefined));
  return lone ? { meaning: lone } : undefined;
}

/** `the 14th`, with no month. */
function loneDay(cursor: Cursor): DateMeaning | undefined {
  const day = readMonthDay(cursor, true);
  return day === undefined ? undefined : { kind: 'month-day', day };
}

/** `3, 10 and 24 July 2027`, `May 3 and 10`, `Sun 2 & Mon 3 May`: days that share a month. */
function readSharedMonth(cursor: Cursor): SaidDate[] | undefined {
  return cursor.attempt(() => {
    const leading = readMonth(cursor);
    const days = readList(cursor, () => {
      const at = cursor.at;
      const weekday = weekdayHere(cursor);
      const day = readMonthDay(cursor);
      return day === undefined ? undefined : { day, weekday, ...cursor.place(at) };
    });
    if (days.length < 2) return undefined;
    if (leading === undefined) cursor.pass('of');
    const month = leading ?? readMonth(cursor);
    if (month === undefined) return undefined;
    const year = readYear(cursor);
    return days.map(({ day, weekday, from, to }) => ({ meaning: { kind: 'day' as const, day, month, year }, weekday, from, to }));
  });
}

/** `14-16 May`, `14 May to 3 June`, `May 14–16`, `from Friday 14 May to Sunday 16 May 2027`. */
export function readSpan(cursor: Cursor): SaidSpan | undefined {
  return cursor.attempt(() => readShortSpan(cursor)) ?? cursor.attempt(() => readLongSpan(cursor));
}

const joinsSpan = (cursor: Cursor): boolean => cursor.pass('-', 'to', 'until', 'till', 'til', 'through', 'thru');

function readShortSpan(cursor: Cursor): SaidSpan | undefined {
  const first = cursor.at;
  const leading = readMonth(cursor);
  const fromWeekday = weekdayHere(cursor);
  const from = readMonthDay(cursor);
  if (from === undefined || !joinsSpan(cursor)) return undefined;
  const toWeekday = weekdayHere(cursor);
  const to = readMonthDay(cursor);
  if (to === undefined) return undefined;
  if (leading === undefined) cursor.pass('of');
  // `May 14 - 16 June` is a span of two months, which the long form reads.
  const month = leading ?? readMonth(cursor);
  if (month === undefined || (leading !== undefined && MONTH_WORDS.has(cursor.word()))) return undefined;
  const year = readYear(cursor);
  const place = cursor.place(first);
  const date = (day: number, weekday: Weekday | undefined): SaidDate => ({ meaning: { kind: 'day', day, month, year }, weekday, ...place });
  return { from: date(from, fromWeekday), to: date(to, toWeekday) };
}

function readLongSpan(cursor: Cursor): SaidSpan | undefined {
  const from = readDate(cursor);
  if (!from || from.meaning.kind === 'weekday') return undefined;
  cursor.attempt(() => (cursor.pass(',') ? true : undefined));
  if (!joinsSpan(cursor)) return undefined;
  const to = readDate(cursor, { months: true });
  return to ? { from, to } : undefined;
}

/** What is said behind a date that a rule has. */
const CHANGED = new Set('moved moves postponed rescheduled brought cancelled canceled'.split(' '));

/** Dates and spans joined by commas and `and`: `3 July, 10 July and 24 July`, `1-7 August and 3 September`. */
export function readDates(cursor: Cursor, options: DateOptions = {}): (SaidDate | SaidSpan)[] {
  return cursor.once(`dates${options.months ? ' months' : ''}${options.weekdays ? ' weekdays' : ''}`, () => listOfDates(cursor, options));
}

function listOfDates(cursor: Cursor, options: DateOptions): (SaidDate | SaidSpan)[] {
  const groups = readList(cursor, (): (SaidDate | SaidSpan)[] | undefined => {
    const span = readSpan(cursor) ?? (options.months ? cursor.attempt(() => readMonthSpan(cursor)) : undefined);
    if (span) return [span];
    const shared = readSharedMonth(cursor);
    if (shared) return shared;
    const one = readDate(cursor, options);
    // `13 April to 29 June, 4 May moved to 5 May`: that one is no more of the list.
    return one && !CHANGED.has(cursor.word()) ? [one] : undefined;
  });
  return groups.flat();
}

/** `March to October`, `July-August 2027`. */
export function readMonthSpan(cursor: Cursor): SaidSpan | undefined {
  return cursor.attempt(() => {
    const first = cursor.at;
    const month = readMonth(cursor);
    if (month === undefined) return undefined;
    const from: SaidDate = { meaning: { kind: 'month', month, year: readYear(cursor) }, ...cursor.place(first) };
    if (!joinsSpan(cursor)) return undefined;
    const to = readDate(cursor, { months: true });
    return to ? { from, to } : undefined;
  });
}

/** The months of a span of months, across the turn of the year too. */
export function monthsOf({ from, to }: SaidSpan): number[] {
  if (from.meaning.kind !== 'month' || to.meaning.kind !== 'month') return [];
  const months: number[] = [];
  for (let m = from.meaning.month; ; m = (m % 12) + 1) {
    months.push(m);
    if (m === to.meaning.month) return months;
  }
}

/** Is it days from one to another? */
export const isSpan = (one: SaidDate | SaidSpan): one is SaidSpan => 'meaning' in one === false;
