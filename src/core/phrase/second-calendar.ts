/** A second calendar beside the Gregorian one: a day in it, in words (CLDR, through Intl). */
import { MS_PER_UTC_DAY } from '../day/zone';
import type { EpochDay } from '../day/day';
import { type Language, LANGUAGE_TAGS } from './language';
import type { Style } from './style';

/**
 * Calendars that can stand beside the days, by their Unicode names (UTS 35). The Chinese and Korean ones are not among them: the runtime has
 * whole months of theirs a day late where the new moon comes close to midnight (February 2027, 2030).
 */
export const SECOND_CALENDARS = [
  'hebrew',
  'islamic-umalqura',
  'islamic-civil',
  'persian',
  'indian',
  'buddhist',
  'japanese',
  'roc',
  'coptic',
  'ethiopic',
] as const;

/** One of them. */
export type SecondCalendar = (typeof SECOND_CALENDARS)[number];

const formats = new Map<string, Intl.DateTimeFormat>();

type WrittenAs = Pick<Style, 'language' | 'date'>;

function formatOf(calendar: SecondCalendar, { language, date }: WrittenAs, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const dayFirst = language === 'en' && date !== 'month-day';
  const key = `${calendar} ${language} ${dayFirst} ${Object.values(options).join()}`;
  let format = formats.get(key);
  if (!format) {
    format = new Intl.DateTimeFormat(dayFirst ? 'en-GB' : LANGUAGE_TAGS[language ?? 'en'], { ...options, calendar, timeZone: 'UTC' });
    formats.set(key, format);
  }
  return format;
}

/** Its day of the month alone, as it stands beside a numeral; with the month where that begins, or where `month` asks for it. */
export function shortInCalendar(day: EpochDay, calendar: SecondCalendar, style: WrittenAs, month = false): string {
  const ms = day * MS_PER_UTC_DAY;
  const numeral = formatOf(calendar, style, { day: 'numeric' }).format(ms);
  return month || numeral === '1' ? formatOf(calendar, style, { day: 'numeric', month: 'short' }).format(ms) : numeral;
}

/** A day in it, whole: `9 Adar II 5787`. */
export const sayInCalendar = (day: EpochDay, calendar: SecondCalendar, style: WrittenAs): string =>
  formatOf(calendar, style, { day: 'numeric', month: 'long', year: 'numeric' }).format(day * MS_PER_UTC_DAY);

/** What a calendar is called. */
export function calendarName(calendar: SecondCalendar, language: Language): string {
  return new Intl.DisplayNames(LANGUAGE_TAGS[language], { type: 'calendar' }).of(calendar) ?? calendar;
}
