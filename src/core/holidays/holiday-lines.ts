/**
 * Lines of the year as people write them, one each: "25 December Christmas Day", "Easter Monday", "Easter -2 Good Friday", "first Monday in June Village Day",
 * "21 December to 3 January School holidays", "18 minutes before sunset on Fridays Candle lighting"; with years where they hold only then.
 */
import { dateExists, type Weekday, ymdOf } from '../day/day';
import { MONTHS, WEEKDAYS } from '../phrase/format';
import { MONTH_WORDS, ORDINAL_WORDS, WEEKDAY_WORDS, WEEKDAYS_WORDS } from '../phrase/read/vocabulary';
import type { DaySpan, HolidayRule, MonthDay } from './holidays';

/** The most lines of a site. */
export const MOST_HOLIDAY_LINES = 500;
/** The longest name. */
export const LONGEST_HOLIDAY_NAME = 60;

const weekdayNamed = (word: string): Weekday | undefined => WEEKDAY_WORDS.get(word.toLowerCase()) ?? WEEKDAYS_WORDS.get(word.toLowerCase());

/** A year that has every day. */
const LEAP_YEAR = 2028;

function monthDay(day: string, month: string): MonthDay | undefined {
  const m = MONTH_WORDS.get(month.toLowerCase());
  return m !== undefined && dateExists(LEAP_YEAR, m, Number(day)) ? { month: m, day: Number(day) } : undefined;
}

const DAY = String.raw`(?:(?<{}d1>\d{1,2})(?:st|nd|rd|th)?\s+(?:of\s+)?(?<{}m1>[a-zà-ÿ]+)\.?|(?<{}m2>[a-zà-ÿ]+)\.?\s+(?<{}d2>\d{1,2})(?:st|nd|rd|th)?(?!\d))(?:,?\s+(?<{}y>\d{4}))?`;
const dayPattern = (name: string): string => DAY.replaceAll('{}', name);
const REST = String.raw`\s*[:,–—-]?\s+(?<name>.+)$`;

const FIXED = new RegExp(`^${dayPattern('a')}${REST}`, 'i');
const SPAN = new RegExp(`^(?:from\\s+)?${dayPattern('a')}\\s*(?:to|until|till|through|–|—|-)\\s*${dayPattern('b')}${REST}`, 'i');
const EASTER = /^easter(?:\s+sunday)?(?:\s*(?<offset>[+-−]\s*\d{1,3}))?\s*:?\s+(?<name>.+)$/i;
const WEEKDAY = new RegExp(
  String.raw`^(?:the\s+)?(?<nth>first|second|third|fourth|last|1st|2nd|3rd|4th)\s+(?<weekday>[a-z]+)\s+(?:in|of)\s+(?<month>[a-z]+)\.?${REST}`,
  'i',
);
const SUN = new RegExp(
  String.raw`^(?:(?<minutes>\d{1,3})\s*(?:minutes?|mins?|min\.?)\s+(?<way>before|after)|at)\s+(?<event>sunset|sunrise)(?:\s+(?:on\s+(?<weekdays>[a-z]+(?:(?:\s*,\s*|\s+and\s+|,\s*and\s+)[a-z]+)*)|(?<every>every day|daily)))?${REST}`,
  'i',
);
const YEARS = /\s*[(,]?\s*(?:(?<word>from|since|until|till)\s+(?<a>\d{4})(?:\s*(?:to|until|till|–|-)\s*(?<b>\d{4}))?)\s*\)?$/i;

type Groups = Record<string, string | undefined>;

/** A day that a pattern found under a prefix. */
function dayFound(groups: Groups, prefix: string): { at: MonthDay; year: number | undefined } | undefined {
  const at = monthDay(groups[`${prefix}d1`] ?? groups[`${prefix}d2`] ?? '', groups[`${prefix}m1`] ?? groups[`${prefix}m2`] ?? '');
  const year = groups[`${prefix}y`];
  return at && { at, year: year === undefined ? undefined : Number(year) };
}

type Years = Pick<HolidayRule, 'from' | 'until'>;
const only = (year: number | undefined): Years => (year === undefined ? {} : { from: year, until: year });

/** The years at a line's end, and the line without them. */
function readYears(line: string): { line: string; years: Years } {
  const found = YEARS.exec(line);
  const { word = '', a, b } = found?.groups ?? {};
  if (!found || !a) return { line, years: {} };
  const ends = /until|till/i.test(word);
  const years = ends ? { until: Number(a) } : { from: Number(a), ...(b ? { until: Number(b) } : {}) };
  return { line: line.slice(0, found.index).trim(), years };
}

function readFixed({ groups = {} }: RegExpExecArray): HolidayRule | undefined {
  const day = dayFound(groups, 'a');
  return day && { name: groups.name ?? '', kind: 'fixed', ...day.at, ...only(day.year) };
}

function readSpan({ groups = {} }: RegExpExecArray): HolidayRule | undefined {
  const [first, last] = [dayFound(groups, 'a'), dayFound(groups, 'b')];
  if (!first || !last) return undefined;
  const over = last.at.month * 100 + last.at.day < first.at.month * 100 + first.at.day;
  const year = first.year ?? (last.year === undefined ? undefined : last.year - (over ? 1 : 0));
  // A span holds less than a year: where both years are said, they fit each other.
  if (first.year !== undefined && last.year !== undefined && last.year !== first.year + (over ? 1 : 0)) return undefined;
  return { name: groups.name ?? '', kind: 'span', first: first.at, last: last.at, ...only(year) };
}

function readWeekday({ groups = {} }: RegExpExecArray): HolidayRule | undefined {
  const said = (groups.nth ?? '').toLowerCase();
  const nth = said === 'last' ? -1 : (ORDINAL_WORDS.get(said) ?? Number.parseInt(said, 10));
  const [weekday, month] = [weekdayNamed(groups.weekday ?? ''), MONTH_WORDS.get((groups.month ?? '').toLowerCase())];
  return weekday === undefined || month === undefined ? undefined : { name: groups.name ?? '', kind: 'weekday', month, weekday, nth };
}

function readSun({ groups = {} }: RegExpExecArray): HolidayRule | undefined {
  const said = groups.weekdays?.split(/\s*,\s*and\s+|\s*,\s*|\s+and\s+/i);
  const weekdays = said ? said.map(weekdayNamed) : [0, 1, 2, 3, 4, 5, 6];
  if (!weekdays.every((weekday) => weekday !== undefined)) return undefined;
  const minutes = Number(groups.minutes ?? 0) * (/before/i.test(groups.way ?? '') ? -1 : 1) + 0;
  const event = (groups.event ?? '').toLowerCase() === 'sunrise' ? 'sunrise' : 'sunset';
  return { name: groups.name ?? '', kind: 'sun', event, minutes, weekdays: [...new Set(weekdays)].sort((x, y) => x - y) };
}

function readEaster({ groups = {} }: RegExpExecArray): HolidayRule {
  const offset = Number((groups.offset ?? '0').replace(/\s/g, '').replace('−', '-'));
  return { name: groups.name ?? '', kind: 'easter', offset };
}

const FORMS: [RegExp, (found: RegExpExecArray) => HolidayRule | undefined][] = [
  [EASTER, readEaster],
  [WEEKDAY, readWeekday],
  [SUN, readSun],
  [SPAN, readSpan],
  [FIXED, readFixed],
];

/** Days that hang on Easter, by the names that say so by themselves. */
const OF_EASTER: Readonly<Record<string, number>> = {
  'shrove tuesday': -47,
  'ash wednesday': -46,
  'palm sunday': -7,
  'maundy thursday': -3,
  'good friday': -2,
  'easter saturday': -1,
  'easter sunday': 0,
  'easter monday': 1,
  'ascension day': 39,
  'whit sunday': 49,
  'whit monday': 50,
};

/** One line; undefined where it is not understood. */
export function readHolidayLine(text: string): HolidayRule | undefined {
  const { line, years } = readYears(text.trim());
  const offset = OF_EASTER[line.toLowerCase()];
  if (offset !== undefined) return { name: line, kind: 'easter', offset, ...years };
  for (const [pattern, read] of FORMS) {
    const found = pattern.exec(line);
    if (!found) continue;
    const rule = read(found);
    const name = rule?.name.trim();
    return rule && name && !/^\d+$/.test(name) ? { ...rule, name, ...years } : undefined;
  }
  return undefined;
}

/** The first line that is not taken, and why: its number from 1, counted with empty lines. */
export interface WrongHolidayLine {
  number: number;
  line: string;
  problem: 'not-understood' | 'long-name';
}

/** All lines, up to the first one that is wrong. */
export function readHolidayLines(text: string): { rules: HolidayRule[]; wrong: WrongHolidayLine | undefined } {
  const rules: HolidayRule[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    if (!line.trim()) continue;
    const rule = readHolidayLine(line);
    const problem = !rule ? 'not-understood' : rule.name.length > LONGEST_HOLIDAY_NAME ? 'long-name' : undefined;
    if (!rule || problem) return { rules, wrong: { number: i + 1, line: line.trim(), problem: problem ?? 'not-understood' } };
    rules.push(rule);
  }
  return { rules, wrong: undefined };
}

const nthWord = (nth: number): string => (nth === -1 ? 'last' : ([...ORDINAL_WORDS].find(([, n]) => n === nth)?.[0] ?? ''));

const sayMonthDay = ({ month, day }: MonthDay, year?: number): string =>
  `${day} ${MONTHS[month - 1]}${year === undefined ? '' : ` ${year}`}`;

/** How a line begins. `year` is said at the day where it holds in one year alone. */
function sayBeginning(rule: HolidayRule, year: number | undefined): string {
  if (rule.kind === 'easter') return `Easter${rule.offset === 0 ? '' : ` ${rule.offset > 0 ? '+' : ''}${rule.offset}`}`;
  if (rule.kind === 'weekday') return `${nthWord(rule.nth)} ${WEEKDAYS[rule.weekday]} in ${MONTHS[rule.month - 1]}`;
  if (rule.kind === 'span') {
    const over = rule.last.month * 100 + rule.last.day < rule.first.month * 100 + rule.first.day;
    return `${sayMonthDay(rule.first, year)} to ${sayMonthDay(rule.last, year === undefined ? undefined : year + (over ? 1 : 0))}`;
  }
  if (rule.kind === 'fixed') return sayMonthDay(rule, year);
  const at =
    rule.minutes === 0
      ? 'at'
      : `${Math.abs(rule.minutes)} minute${Math.abs(rule.minutes) === 1 ? '' : 's'} ${rule.minutes < 0 ? 'before' : 'after'}`;
  const on = rule.weekdays.length === 7 ? 'every day' : `on ${rule.weekdays.map((day) => `${WEEKDAYS[day]}s`).join(' and ')}`;
  return `${at} ${rule.event} ${on}`;
}

/** One line, as {@link readHolidayLine} reads it. */
export function sayHolidayLine(rule: HolidayRule): string {
  const { from, until } = rule;
  const byName = rule.kind === 'easter' && OF_EASTER[rule.name.toLowerCase()] === rule.offset;
  const once = (rule.kind === 'fixed' || rule.kind === 'span') && from !== undefined && from === until;
  const years =
    once || (from === undefined && until === undefined)
      ? ''
      : from === undefined
        ? ` until ${until}`
        : ` from ${from}${until === undefined ? '' : ` to ${until}`}`;
  const beginning = byName ? '' : `${sayBeginning(rule, once ? from : undefined)} `;
  return `${beginning}${rule.name}${years}`;
}

/** All lines, as {@link readHolidayLines} reads them. */
export const sayHolidayLines = (rules: readonly HolidayRule[]): string => rules.map(sayHolidayLine).join('\n');

/** A line for days of one year, such as a calendar's file names. */
export function lineOfDays(name: string, { from, to }: DaySpan): HolidayRule {
  const [first, last] = [ymdOf(from), ymdOf(to)];
  const named = { name: name.trim(), from: first.year, until: first.year };
  const at = ({ month, day }: MonthDay): MonthDay => ({ month, day });
  return from === to ? { ...named, kind: 'fixed', ...at(first) } : { ...named, kind: 'span', first: at(first), last: at(last) };
}
