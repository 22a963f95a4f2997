/** Opening hours of a venue: for each weekday (0 = Monday) spans of minutes since midnight, by the venue's own clock. */
import { type EpochDay, weekdayOf } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import { readClock } from '../phrase/read/clock-times';

/** [from, to) in minutes; `to` may pass midnight: 20:00 to 02:00 is [1200, 1560]. */
export type Span = [from: number, to: number];

/** When a venue is open, by weekday, in minutes since midnight. */
export interface OpeningHours {
  format: 1;
  /** seven lists, Monday first; an empty list is closed */
  week: Span[][];
}

/** Why hours cannot be, at their weekday. */
export interface HoursProblem {
  weekday: number;
  message: string;
}

/** What a day may be said as when it is closed. */
const CLOSED = /^(closed|shut|none|-|–|—)$/i;
const ALL_DAY = /^(all day|open all day|24 hours)$/i;
const MOST_SPANS = 6;

/** Reads one day's hours: "9–17", "9:00 to 12:00, 7pm to 2am", "closed", "all day". Empty = closed. */
export function readSpans(text: string): Span[] | string {
  const words = text.trim();
  if (!words || CLOSED.test(words)) return [];
  if (ALL_DAY.test(words)) return [[0, 1440]];
  const parts = words.split(/\s*[,;&]\s*|\s+and\s+/i).filter(Boolean);
  if (parts.length > MOST_SPANS) return `At most ${MOST_SPANS} spans a day`;
  const spans: Span[] = [];
  for (const part of parts) {
    const ends = part.split(/\s*(?:–|—|-|\bto\b|\buntil\b)\s*/i);
    const from = ends[0] === undefined ? undefined : readClock(ends[0]);
    const to = ends[1] === undefined ? undefined : /^(24|24:00|midnight)$/i.test(ends[1]) ? 1440 : readClock(ends[1], from ?? null);
    if (ends.length !== 2 || from === undefined || to === undefined)
      return `“${part.slice(0, 40)}” is not understood; write 9–17, or 10:00–12:30, 19:00–23:00`;
    if (from === to) return `“${part.slice(0, 40)}” begins and ends at the same time`;
    spans.push([from, to > from ? to : to + 1440]);
  }
  spans.sort((a, b) => a[0] - b[0]);
  const overlap = spans.find((span, i) => i > 0 && (spans[i - 1]?.[1] ?? 0) > span[0]);
  return overlap ? `“${words.slice(0, 60)}”: these hours overlap` : spans;
}

/** Seven texts to hours; `null` when nothing is said at all. */
export function readHours(texts: readonly string[]): { hours: OpeningHours | null; problems: HoursProblem[] } {
  if (texts.every((text) => !text.trim())) return { hours: null, problems: [] };
  const problems: HoursProblem[] = [];
  const week = Array.from({ length: 7 }, (_, weekday) => {
    const spans = readSpans(texts[weekday] ?? '');
    if (typeof spans !== 'string') return spans;
    problems.push({ weekday, message: spans });
    return [];
  });
  return { hours: problems.length ? null : { format: 1, week }, problems };
}

const two = (n: number): string => String(n).padStart(2, '0');
const clock = (minute: number): string => (minute === 1440 ? '24:00' : `${two(Math.floor((minute % 1440) / 60))}:${two(minute % 60)}`);

/** One day's hours as text that `readSpans` takes: "09:00–17:00, 19:00–02:00"; "" is closed. */
export function spansText(spans: readonly Span[]): string {
  if (isAllDay(spans)) return 'all day';
  return spans.map(([from, to]) => `${clock(from)}–${clock(to)}`).join(', ');
}

/** The words in which hours are said. */
export interface HoursWords {
  closed: string;
  allDay: string;
  /** two days and those between them, and two that follow each other */
  to: (from: string, last: string) => string;
  and: (from: string, last: string) => string;
  /** from one minute of a day to another, by the reader's clock; midnight at its end is 0 */
  times: (from: number, to: number) => string;
}

/** Hours in English, by the clock of 24 hours. */
export const IN_ENGLISH: HoursWords = {
  closed: 'closed',
  allDay: 'all day',
  to: (from, last) => `${from} to ${last}`,
  and: (from, last) => `${from} and ${last}`,
  times: (from, to) => `${clock(from)}–${clock(to || 1440)}`,
};

const isAllDay = (spans: readonly Span[]): boolean => spans.length === 1 && spans[0]?.[0] === 0 && spans[0][1] === 1440;

function saySpans(spans: readonly Span[], { closed, allDay, times }: HoursWords): string {
  if (isAllDay(spans)) return allDay;
  return spans.map(([from, to]) => times(from, to % 1440)).join(', ') || closed;
}

/** The hours of one day; undefined where it is closed. */
export function sayHoursOn({ week }: OpeningHours, day: EpochDay, words: HoursWords): string | undefined {
  const spans = week[weekdayOf(day)] ?? [];
  return spans.length ? saySpans(spans, words) : undefined;
}

/** The days said together where their hours are the same: "Monday to Friday 09:00–17:00". `names`: the weekdays, Monday first. */
export function sayHours(hours: OpeningHours, names: readonly string[], words: HoursWords = IN_ENGLISH): { days: string; hours: string }[] {
  const lines: { from: number; to: number; text: string }[] = [];
  for (const [weekday, spans] of hours.week.entries()) {
    const text = saySpans(spans, words);
    const last = lines[lines.length - 1];
    if (last && last.text === text) last.to = weekday;
    else lines.push({ from: weekday, to: weekday, text });
  }
  return lines.map(({ from, to, text }) => ({
    days: from === to ? (names[from] ?? '') : (to === from + 1 ? words.and : words.to)(names[from] ?? '', names[to] ?? ''),
    hours: text,
  }));
}

/** Open spans around a day in minutes since that day's midnight, joined where they touch; the day before may reach into it. */
function openAround(hours: OpeningHours, day: EpochDay, days: number): Span[] {
  const all: Span[] = [];
  for (let d = -1; d <= days; d++)
    for (const [from, to] of hours.week[weekdayOf(day + d)] ?? []) all.push([from + d * 1440, to + d * 1440]);
  all.sort((a, b) => a[0] - b[0]);
  const joined: Span[] = [];
  for (const span of all) {
    const last = joined[joined.length - 1];
    if (last && last[1] >= span[0]) last[1] = Math.max(last[1], span[1]);
    else joined.push([...span]);
  }
  return joined;
}

/** Is a venue open for a date? `partly`: for some of it. Whole days and dates of more than a day only need the venue to open at all. */
export function openFor(hours: OpeningHours, start: PlainDateTime, end: PlainDateTime | null): 'open' | 'partly' | 'closed' {
  const lastDay = end ? end.day : start.day;
  const long = start.minute === null || lastDay - start.day > 1;
  if (long) {
    const to = start.minute === null && end ? end.day : lastDay + 1;
    for (let day = start.day; day < Math.max(to, start.day + 1); day++) if (hours.week[weekdayOf(day)]?.length) return 'open';
    return 'closed';
  }
  const from = start.minute ?? 0;
  const to = end ? (end.day - start.day) * 1440 + (end.minute ?? 0) : from + 1;
  const spans = openAround(hours, start.day, lastDay - start.day + 1);
  if (spans.some(([a, b]) => a <= from && b >= to)) return 'open';
  return spans.some(([a, b]) => a < to && b > from) ? 'partly' : 'closed';
}
