/** A time field's text: `9`, `9am`, `09.00`, `0900`, `half past seven`, `noon`, `21h`. */
import { Cursor } from './cursor';
import { readTime, readTimes } from './times-of-day';
import { tokensOf } from './tokens';

/**
 * Minutes since midnight, or undefined when the text is no time. An hour alone is that of the 24-hour clock; where it is the
 * end of something that starts later in the day, that of the afternoon: 9 after 19:00 is 21:00.
 */
export function readClock(text: string, after: number | null = null): number | undefined {
  if (text.length > 60) return undefined;
  const cursor = new Cursor(tokensOf(text));
  cursor.pass('at', '@');
  const time = readTime(cursor, true);
  if (!time || !cursor.done) return undefined;
  const later = time.minute + 720;
  return time.open && after !== null && time.minute <= after && later > after && later < 1440 ? later : time.minute;
}

/** A start and perhaps an end, each in a field of its own, in minutes since midnight. `other`: the reading that fits as well. */
export interface Clocks {
  from: number;
  to: number | undefined;
  other?: { from: number; to: number | undefined };
}

/**
 * Two fields read as one span of time: `7` and `8.30 pm` are both of the evening. An hour alone is that of the morning from nine on; below it is
 * as likely the evening's, and `other` says so. Undefined when they are no times.
 */
export function readClocks(start: string, end: string): Clocks | undefined {
  if (start.length > 60 || end.length > 60 || readClock(start) === undefined || (end && readClock(end) === undefined)) return undefined;
  const cursor = new Cursor(tokensOf(end ? `at ${start} to ${end}` : `at ${start}`));
  const times = readTimes(cursor);
  if (!times || !cursor.done) return undefined;
  const to = (minute: number | null): number | undefined => minute ?? undefined;
  const taken = times.shown === undefined ? times.start : times.shown;
  const { other } = times;
  const certain = !other || times.shown !== undefined || taken < NOON;
  return { from: taken, to: to(times.end), ...(certain ? {} : { other: { from: other.start, to: to(other.end) } }) };
}

const NOON = 720;
