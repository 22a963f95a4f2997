/** A time that a reader wants to see, in words: "december", "easter", "weekend after next", "24 Dec", "the first Monday in June", "2028". */
import { dayOf, type EpochDay, firstDayOfMonth, monthNumberOf, parseIsoDay, parseIsoMonth, weekStart, ymdOf } from '../../day/day';
import { parseIsoWeek } from '../../day/week';
import { fold } from '../../text/text';
import { monthName, weekdayName } from '../format';
import type { Language } from '../language';
import { spanOf } from './calendar';
import { readDate } from './calendar-dates';
import { Cursor } from './cursor';
import { tokensOf } from './tokens';

/** From where a time is seen. */
export interface TimeBearings {
  today: EpochDay;
  firstWeekday: number;
  /** names of the days to come, by day: holidays and what else the year says */
  holidays: ReadonlyMap<EpochDay, readonly string[]>;
  language: Language;
}

/** Words are read up to so many characters. */
export const MOST_TIME_WORDS = 60;
/** So many days ahead a holiday is looked for. */
export const HOLIDAYS_AHEAD = 366;
const SATURDAY = 5;

/** The day that words name, the first one where they name several; undefined where they name none. A day without a year is the next such day. */
export function readTimeToGoTo(text: string, bearings: TimeBearings): EpochDay | undefined {
  const words = fold(text.slice(0, MOST_TIME_WORDS)).replace(/\s+/g, ' ').trim();
  if (!words) return undefined;
  return readFigures(text.trim()) ?? readUnit(words, bearings) ?? readHoliday(words, bearings) ?? readSaid(text, words, bearings);
}

function readFigures(text: string): EpochDay | undefined {
  if (/^\d{4}$/.test(text)) return dayOf(Number(text), 1, 1);
  const month = parseIsoMonth(text);
  return parseIsoDay(text) ?? (month === undefined ? parseIsoWeek(text.toUpperCase()) : firstDayOfMonth(month));
}

type UnitOfTime = 'weekend' | 'week' | 'month' | 'year';
const UNITS: readonly (readonly [RegExp, UnitOfTime, number])[] = [
  [/^(?:the )?weekend after next$/, 'weekend', 2],
  [/^(?:the )?week after next$/, 'week', 2],
  [/^(?:the )?month after next$/, 'month', 2],
  [/^next (weekend|week|month|year)$/, 'week', 1],
  [/^(?:this |the )?(weekend|week|month|year)$/, 'week', 0],
  [/^last (week|month|year)$/, 'week', -1],
  [/^(?:la |cette )?fin de semaine prochaine$|^(?:le )?week-?end prochain$/, 'weekend', 1],
  [/^(?:cette )?fin de semaine$|^(?:ce |le )?week-?end$/, 'weekend', 0],
  [/^(?:la )?semaine prochaine$/, 'week', 1],
  [/^cette semaine$/, 'week', 0],
  [/^(?:le )?mois prochain$/, 'month', 1],
  [/^ce mois(?:-ci)?$/, 'month', 0],
  [/^(?:l.)?annee prochaine$/, 'year', 1],
  [/^cette annee$/, 'year', 0],
];
const DAYS = new Map([
  ...['today', 'now', 'aujourd’hui', "aujourd'hui", 'aujourd hui', 'aujourdhui'].map((word) => [fold(word), 0] as const),
  ['tomorrow', 1],
  ['yesterday', -1],
  ['demain', 1],
  ['hier', -1],
]);

function readUnit(words: string, { today, firstWeekday }: TimeBearings): EpochDay | undefined {
  const days = DAYS.get(words);
  if (days !== undefined) return today + days;
  for (const [pattern, usual, by] of UNITS) {
    const found = pattern.exec(words);
    if (found) return unitFrom((found[1] as UnitOfTime | undefined) ?? usual, by, today, firstWeekday);
  }
  return undefined;
}

/** The first day of a week, month or year so many after this one. On a weekend, "this weekend" is the one that is on. */
function unitFrom(unit: UnitOfTime, by: number, today: EpochDay, firstWeekday: number): EpochDay {
  if (unit === 'week') return weekStart(today, firstWeekday) + 7 * by;
  if (unit === 'month') return firstDayOfMonth(monthNumberOf(today) + by);
  if (unit === 'year') return dayOf(ymdOf(today).year + by, 1, 1);
  return weekStart(today, 0) + SATURDAY + 7 * by;
}

/** A holiday of the site, by its name or the beginning of it. */
function readHoliday(words: string, { holidays }: TimeBearings): EpochDay | undefined {
  if (words.length < 4) return undefined;
  const coming = [...holidays].sort(([a], [b]) => a - b);
  for (const fits of [(name: string) => name === words, (name: string) => name.startsWith(words)])
    for (const [day, names] of coming) if (names.some((name) => fits(fold(name)))) return day;
  return undefined;
}

/** Dates as the reader of phrases reads them; in another language by its names of months and weekdays. */
function readSaid(text: string, words: string, { today, firstWeekday, language }: TimeBearings): EpochDay | undefined {
  const english = language === 'en' ? text : inEnglish(words, language);
  for (const phrase of [english, english.replace(/^\s*(?:on|in|the)\s/i, '')]) {
    const cursor = new Cursor(tokensOf(phrase));
    const said = readDate(cursor, { months: true, weekdays: true });
    if (said && cursor.done) return spanOf(said.meaning, today, { today, weekStart: firstWeekday })?.first;
  }
  return undefined;
}

/** `14 juillet 2028` as `14 July 2028`: what only names days is read by the names. */
function inEnglish(words: string, language: Language): string {
  const names = new Map<string, string>([
    ...Array.from({ length: 12 }, (_, i) => [fold(monthName(i + 1, { language })), monthName(i + 1, { language: 'en' })] as const),
    ...Array.from({ length: 7 }, (_, i) => [fold(weekdayName(i, { language })), weekdayName(i, { language: 'en' })] as const),
    ['paques', 'Easter'],
    ['noel', 'Christmas'],
  ]);
  return words
    .split(' ')
    .filter((word) => word !== 'le')
    .map((word) => names.get(word) ?? word)
    .join(' ');
}
