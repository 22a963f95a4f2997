/** The days that a phrase names, where nothing but days is asked for. */
import type { EpochDay, Weekday } from '../day/day';
import type { RecurrencePart } from '../recurrence/model';
import type { Style } from './format';
import { MOST_CHARACTERS, readPhrase } from './read/read-phrase';

/** From which day, and in which style, words for days are read. */
export interface DaysSetting {
  today: EpochDay;
  minute: number;
  zone: string;
  firstWeekday: Weekday;
  style: Style;
}

/** One day and nothing more: no rule, no hour, no days after it. */
const isDay = ({ rule, start, length }: RecurrencePart): boolean => !rule && start.minute === null && (length?.days ?? 1) === 1;

/** "3 April", "next Tuesday", "3 and 10 April": their days. None when nothing is typed, undefined when it is no list of days. */
export function daysIn(text: string, { today, minute, zone, firstWeekday, style }: DaysSetting): EpochDay[] | undefined {
  const phrase = text.trim();
  if (!phrase) return [];
  if (phrase.length > MOST_CHARACTERS) return undefined;
  const { recurrence, problems, unread } = readPhrase({ phrase, now: { day: today, minute }, zone, weekStart: firstWeekday, style });
  const parts = recurrence?.parts ?? [];
  if (problems.length || unread.length || !parts.length || !parts.every(isDay)) return undefined;
  return parts.map((s) => s.start.day);
}
