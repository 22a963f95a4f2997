/** Days and times in the words of the site's style and the reader's language. English is here, since phrases are read in it too. */
import { type EpochDay, weekdayOf, ymdOf } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import { dayInFrench, daysInFrench, distanceInFrench, listInFrench, timeInFrench } from './format-french';
import { FRENCH_MONTHS, FRENCH_WEEKDAYS, type Language } from './language';
import type { DayWords, Style } from './style';

export { DATE_STYLES, type DayWords, HOUR_STYLES, type Style } from './style';

/** The months in English; January is the first. */
export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;
/** The weekdays in English; Monday is the first. */
export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

/** `March`, `mars`; months count from 1. */
export function monthName(month: number, { language }: Pick<Style, 'language'>): string {
  return (language === 'fr' ? FRENCH_MONTHS.long : MONTHS)[month - 1] ?? '';
}

/** `Tuesday`, `mardi`; weekdays count from Monday, 0. */
export function weekdayName(weekday: number, { language }: Pick<Style, 'language'>): string {
  return (language === 'fr' ? FRENCH_WEEKDAYS.long : WEEKDAYS)[weekday] ?? '';
}

/** `Tue`, `mar.` */
export function shortWeekdayName(weekday: number, style: Pick<Style, 'language'>): string {
  return style.language === 'fr' ? (FRENCH_WEEKDAYS.short[weekday] ?? '') : weekdayName(weekday, style).slice(0, 3);
}

/** An end up to this minute belongs to the evening before: a dance until 02:00 is not a matter of two days. */
export const NIGHT_ENDS = 360;

const pad = (n: number): string => String(n).padStart(2, '0');

/** `07:40` or `7:40 am`; noon and midnight in 12-hour style are said so. */
export function sayTime(minute: number, style: Style): string {
  if (style.language === 'fr') return timeInFrench(minute);
  const h = Math.floor(minute / 60);
  const m = minute % 60;
  if (style.hours === '24') return `${pad(h)}:${pad(m)}`;
  if (m === 0 && h === 12) return 'noon';
  if (m === 0 && h === 0) return 'midnight';
  return `${h % 12 || 12}${m ? `:${pad(m)}` : ''} ${h < 12 ? 'am' : 'pm'}`;
}

/** `07:40–09:40`; `9–11:30 am` in 12-hour style when both are of one half of the day. */
export function sayTimes(from: number, to: number | null, style: Style): string {
  if (to === null) return sayTime(from, style);
  const [a, b] = [sayTime(from, style), sayTime(to, style)];
  if (style.hours === '12' && style.language !== 'fr' && to > from && a.slice(-3) === b.slice(-3) && /[ap]m$/.test(a))
    return `${a.slice(0, -3)}–${b}`;
  return `${a}–${b}`;
}

/** `Sunday 7 March 2027`, `Sun 7 Mar`, `March 7, 2027`, `2027-03-07`. */
export function sayDay(day: EpochDay, style: Style, words: DayWords = {}): string {
  if (style.language === 'fr') return dayInFrench(day, style, words);
  const { year, month, day: d } = ymdOf(day);
  const weekdayName = WEEKDAYS[weekdayOf(day)] as string;
  const weekday = words.weekday ? `${words.weekday === 'short' ? weekdayName.slice(0, 3) : weekdayName} ` : '';
  const monthName = MONTHS[month - 1] as string;
  const m = words.month === 'short' ? monthName.slice(0, 3) : monthName;
  if (style.date === 'iso') return `${weekday}${year}-${pad(month)}-${pad(d)}`;
  if (style.date === 'month-day') return `${weekday}${m} ${d}${words.year ? `, ${year}` : ''}`;
  return `${weekday}${d} ${m}${words.year ? ` ${year}` : ''}`;
}

/** Two days, both included: `1–31 August 2027`, `7 March – 4 April 2027`. */
export function sayDays(from: EpochDay, to: EpochDay, style: Style, words: DayWords = {}): string {
  if (style.language === 'fr') return daysInFrench(from, to, style, words);
  if (from === to) return sayDay(from, style, words);
  const [a, b] = [ymdOf(from), ymdOf(to)];
  const sameMonth = a.year === b.year && a.month === b.month;
  if (!words.weekday && sameMonth && style.date !== 'iso') {
    const name = MONTHS[a.month - 1] as string;
    const m = words.month === 'short' ? name.slice(0, 3) : name;
    const year = words.year ? a.year : '';
    return style.date === 'day-month'
      ? `${a.day}–${b.day} ${m}${year ? ` ${year}` : ''}`
      : `${m} ${a.day}–${b.day}${year ? `, ${year}` : ''}`;
  }
  const left = sayDay(from, style, { ...words, year: words.year === true && a.year !== b.year });
  return `${left} – ${sayDay(to, style, words)}`;
}

/** When one date happens, as a sentence part. `end` is exclusive, as in the core; it is said inclusively. */
export function sayWhen(
  start: PlainDateTime,
  end: PlainDateTime | null,
  style: Style,
  words: DayWords = { weekday: 'long', year: true },
): string {
  if (start.minute === null) {
    const last = end ? Math.max(start.day, end.day - 1) : start.day;
    return last === start.day ? sayDay(start.day, style, words) : sayDays(start.day, last, style, words);
  }
  const left = sayDay(start.day, style, words);
  // An end in the small hours belongs to the evening it closes.
  const sameNight = end && (end.day === start.day || (end.day === start.day + 1 && (end.minute ?? 0) <= NIGHT_ENDS));
  if (!end || sameNight) return `${left}, ${sayTimes(start.minute, end?.minute ?? null, style)}`;
  return `${left}, ${sayTime(start.minute, style)} – ${sayDay(end.day, style, words)}, ${sayTime(end.minute ?? 0, style)}`;
}

/** `in 4 days`, `tomorrow`, `today`, `3 days ago`. */
export function sayDistance(days: number, language: Language = 'en'): string {
  if (language === 'fr') return distanceInFrench(days);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}

/** `a, b and c` */
export function sayList(words: readonly string[], language: Language = 'en'): string {
  if (language === 'fr') return listInFrench(words);
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;
}

/** `1 date`, `14 dates` */
export function sayCount(n: number, singular: string, plural = `${singular}s`): string {
  return `${n.toLocaleString('en')} ${n === 1 ? singular : plural}`;
}
