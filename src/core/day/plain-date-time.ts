/**
 * Wall times: a civil day and minutes since midnight (0-1439), without a zone. An all-day start has minute null.
 * Text form: `2027-03-07T07:40`, or `2027-03-07` for a whole day.
 */
import { type EpochDay, isoDay, parseIsoDay } from './day';

/** A wall time without a zone: an epoch day and minutes since midnight (0 to 1439); null = the whole day. */
export interface PlainDateTime {
  day: EpochDay;
  /** minutes since midnight; null = the whole day */
  minute: number | null;
}

const pad = (n: number): string => String(n).padStart(2, '0');

/** `07:40` */
export function isoTime(minute: number): string {
  return `${pad(Math.floor(minute / 60))}:${pad(minute % 60)}`;
}

/** Reads `07:40`; undefined when it is no time of day. */
export function parseIsoTime(text: string): number | undefined {
  const match = /^(\d{2}):(\d{2})$/.exec(text);
  if (!match) return undefined;
  const [hour, minute] = [Number(match[1]), Number(match[2])];
  return hour < 24 && minute < 60 ? hour * 60 + minute : undefined;
}

/** `2027-03-07T07:40`, or `2027-03-07` for a whole day. */
export function isoDateTime(wall: PlainDateTime): string {
  return wall.minute === null ? isoDay(wall.day) : `${isoDay(wall.day)}T${isoTime(wall.minute)}`;
}

/** Reads either text form; undefined when the date or the time does not exist. */
export function parseIsoDateTime(text: string): PlainDateTime | undefined {
  const [dayText = '', timeText] = text.split('T');
  const day = parseIsoDay(dayText);
  if (day === undefined) return undefined;
  if (timeText === undefined) return { day, minute: null };
  const minute = parseIsoTime(timeText);
  return minute === undefined ? undefined : { day, minute };
}

/** Order of two starts; a whole day comes before the times of that day. */
export function compareDateTime(a: PlainDateTime, b: PlainDateTime): number {
  return a.day - b.day || (a.minute ?? -1) - (b.minute ?? -1);
}

/** The same day and the same minute, or both the whole day. */
export function sameDateTime(a: PlainDateTime, b: PlainDateTime): boolean {
  return a.day === b.day && a.minute === b.minute;
}
