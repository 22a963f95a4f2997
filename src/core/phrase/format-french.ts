/** Days and times in French as it is written in Canada: `mardi 23 mars 2027, 19 h–21 h`. The clock has 24 hours whatever the site's style. */
import { type EpochDay, weekdayOf, ymdOf } from '../day/day';
import type { DayWords, Style } from './style';
import { FRENCH_MONTHS, FRENCH_WEEKDAYS } from './language';

const pad = (n: number): string => String(n).padStart(2, '0');
// The hour keeps its sign on one line.
const SPACE = '\u00a0';

/** `7 h 40`, `19 h`; noon and midnight are `midi` and `minuit`. */
export function timeInFrench(minute: number): string {
  const [h, m] = [Math.floor(minute / 60), minute % 60];
  if (m === 0 && h === 12) return 'midi';
  if (m === 0 && h === 0) return 'minuit';
  return `${h}${SPACE}h${m ? `${SPACE}${pad(m)}` : ''}`;
}

/** `1er`, `2`, `31` */
export const dayNumberInFrench = (day: number): string => (day === 1 ? '1er' : String(day));

/** `dimanche 7 mars 2027`, `dim. 7 mars`, `2027-03-07`. */
export function dayInFrench(day: EpochDay, style: Style, words: DayWords = {}): string {
  const { year, month, day: d } = ymdOf(day);
  const weekday = words.weekday ? `${FRENCH_WEEKDAYS[words.weekday][weekdayOf(day)]} ` : '';
  if (style.date === 'iso') return `${weekday}${year}-${pad(month)}-${pad(d)}`;
  return `${weekday}${dayNumberInFrench(d)} ${FRENCH_MONTHS[words.month ?? 'long'][month - 1]}${words.year ? ` ${year}` : ''}`;
}

/** Two days, both included: `1er–31 août 2027`, `7 mars – 4 avril 2027`. */
export function daysInFrench(from: EpochDay, to: EpochDay, style: Style, words: DayWords = {}): string {
  if (from === to) return dayInFrench(from, style, words);
  const [a, b] = [ymdOf(from), ymdOf(to)];
  if (!words.weekday && a.year === b.year && a.month === b.month && style.date !== 'iso')
    return `${dayNumberInFrench(a.day)}–${dayInFrench(to, style, words)}`;
  return `${dayInFrench(from, style, { ...words, year: words.year === true && a.year !== b.year })} – ${dayInFrench(to, style, words)}`;
}

/** `dans 4 jours`, `demain`, `aujourd’hui`, `il y a 3 jours`. */
export function distanceInFrench(days: number): string {
  if (days === 0) return 'aujourd’hui';
  if (days === 1) return 'demain';
  if (days === -1) return 'hier';
  return days > 0 ? `dans ${days} jours` : `il y a ${-days} jours`;
}

/** `a, b et c`; `ou` where one of them is meant. */
export function listInFrench(words: readonly string[], and = 'et'): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} ${and} ${words[words.length - 1]}`;
}
