/**
 * What a phrase of the corpus means, worked out by plain loops over days: nothing of the reader, of recurrences or of zones is used.
 * The day on which all of it is read is Wednesday 10 March 2027, ten in the morning; dates are compared up to the end of February 2030.
 */

const DAY_MS = 86_400_000;
export const TODAY = '2027-03-10';
export const LAST = '2030-02-28';

export type Weekday = 'Mon' | 'Tue' | 'Wed' | 'Thu' | 'Fri' | 'Sat' | 'Sun';
const WEEK: readonly Weekday[] = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

const ms = (day: string): number => Date.parse(`${day}T00:00:00Z`);
const iso = (at: number): string => new Date(at).toISOString().slice(0, 10);
export const later = (day: string, days: number): string => iso(ms(day) + days * DAY_MS);
const weekdayOf = (day: string): Weekday => WEEK[new Date(ms(day)).getUTCDay()] as Weekday;
const monthOf = (day: string): number => Number(day.slice(5, 7));
const dayOfMonth = (day: string): number => Number(day.slice(8));

/** All days of a span, both included. */
export function daysBetween(from: string, to: string): string[] {
  const days: string[] = [];
  for (let at = ms(from); at <= ms(to); at += DAY_MS) days.push(iso(at));
  return days;
}

export interface Span {
  /** today unless it is said */
  from?: string;
  /** goes on without it */
  to?: string;
  /** months of each year in which there are dates, or are none */
  months?: readonly number[];
  notMonths?: readonly number[];
  /** days, or spans `2027-05-03/2027-05-09`, that are left out */
  not?: readonly string[];
  /** every second week, every third: counted from the first date */
  step?: number;
  /** so many dates at most */
  count?: number;
}

const inSpan = (day: string, span: string): boolean => {
  const [from = span, to = from] = span.split('/');
  return day >= from && day <= to;
};

/** Days that a test keeps, within a span. */
function pick(span: Span, keep: (day: string) => boolean): string[] {
  const { from = TODAY, to = LAST, months, notMonths = [], not = [], count } = span;
  const all = daysBetween(from, to < LAST ? to : LAST).filter(
    (day) => keep(day) && (!months || months.includes(monthOf(day))) && !notMonths.includes(monthOf(day)),
  );
  // A number of dates counts those that are left out, as a poster's "six Tuesdays, not on the 4th" does not: none of the corpus has both.
  return (count === undefined ? all : all.slice(0, count)).filter((day) => !not.some((gone) => inSpan(day, gone)));
}

export function weekly(weekdays: readonly Weekday[], span: Span = {}): string[] {
  const { step = 1 } = span;
  const days = pick({ ...span, count: undefined } as Span, (day) => weekdays.includes(weekdayOf(day)));
  const first = days[0];
  if (first === undefined) return [];
  // Weeks begin on Monday.
  const monday = ms(first) - ((new Date(ms(first)).getUTCDay() + 6) % 7) * DAY_MS;
  const stepped = days.filter((day) => Math.floor((ms(day) - monday) / (7 * DAY_MS)) % step === 0);
  return span.count === undefined ? stepped : stepped.slice(0, span.count);
}

export function daily(span: Span = {}): string[] {
  return pick(span, () => true);
}

/** The nth weekday of each month, -1 the last; `every` so many months from the first. */
export function nth(n: number | readonly number[], weekday: Weekday, span: Span & { every?: number } = {}): string[] {
  const wanted = typeof n === 'number' ? [n] : n;
  const isNth = (day: string): boolean => {
    if (weekdayOf(day) !== weekday) return false;
    const place = Math.ceil(dayOfMonth(day) / 7);
    return wanted.includes(place) || (wanted.includes(-1) && monthOf(later(day, 7)) !== monthOf(day));
  };
  const days = pick(span, isNth);
  const [first] = days;
  const number = (day: string): number => Number(day.slice(0, 4)) * 12 + monthOf(day);
  return span.every && first ? days.filter((day) => (number(day) - number(first)) % (span.every as number) === 0) : days;
}

/** The same days of each month. */
export function monthDays(days: readonly number[], span: Span = {}): string[] {
  return pick(span, (day) => days.includes(dayOfMonth(day)));
}

/** The last day of each month. */
export const lastDays = (span: Span = {}): string[] => pick(span, (day) => monthOf(later(day, 1)) !== monthOf(day));

/** The same day, or days, of each year: `04-01`. */
export function yearly(days: readonly string[], span: Span = {}): string[] {
  return pick(span, (day) => days.includes(day.slice(5)));
}

/** Days at a time, `18:00` or `18:00-20:00`, as `2027-05-07T18:00` or `2027-05-07T18:00/2027-05-07T20:00`. */
export const at = (time: string, days: readonly string[]): string[] => {
  const [from = '', to] = time.split('-');
  return days.map((day) => (to === undefined ? `${day}T${from}` : `${day}T${from}/${day}T${to}`));
};
/** From a time to one on the day after. */
export const overnight = (from: string, to: string, days: readonly string[]): string[] =>
  days.map((day) => `${day}T${from}/${later(day, 1)}T${to}`);
/** Whole days; `span` of so many each. */
export const whole = (days: readonly string[], span = 1): string[] =>
  days.map((day) => (span > 1 ? `${day}/${later(day, span - 1)}` : day));

/** What a phrase means: its dates; or that it has to be asked about; or nothing that says when. */
export type Means = { dates: readonly string[] } | 'ask' | 'none';
export type Phrase = readonly [text: string, means: Means];

export const on = (...dates: readonly string[][]): Means => ({ dates: dates.flat().sort() });
