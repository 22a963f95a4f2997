/**
 * What a listing's dates are made of. Days are integers since 1970-01-01, minutes count from midnight (0-1439),
 * both in the recurrence's zone. Ends are exclusive. Names follow RFC 5545 where it has one.
 */
import type { EpochDay, Weekday } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import type { SunStart } from './sun-start';

/** From the shortest period to the longest. */
export const FREQUENCIES = ['secondly', 'minutely', 'hourly', 'daily', 'weekly', 'monthly', 'yearly'] as const;
/** How often a rule repeats (RFC 5545, FREQ). */
export type Frequency = (typeof FREQUENCIES)[number];

/** BYDAY: nth 0 = every such weekday, 1 = first, -1 = last. */
export interface ByDay {
  weekday: Weekday;
  nth: number;
}

/** A span of each year, both ends included, as month × 100 + day (501 = 1 May). `from` after `to` goes over the year's end. */
export interface Season {
  from: number;
  to: number;
}

/** One RRULE without its limit. An empty list means "not given"; then the first start decides (RFC 5545 3.3.10). */
export interface Rule {
  freq: Frequency;
  interval: number;
  /** 1-12 */
  byMonth: number[];
  /** 1-31, or -1 for the last day and so on */
  byMonthDay: number[];
  byDay: ByDay[];
  weekStart: Weekday;
  // What follows is rare, and absent unless it is given.
  /** 1-366, or from the year's end */
  byYearDay?: number[];
  /** 1-53, or from the year's end; yearly rules only */
  byWeekNo?: number[];
  byHour?: number[];
  byMinute?: number[];
  bySecond?: number[];
  /** which dates of each period's set are kept: 1 = the first, -1 = the last */
  bySetPos?: number[];
  /** the rule holds only in these spans of each year; what lies outside is no date and is not counted */
  seasons?: Season[];
}

/** Where a rule ends: nowhere, after a day (UTC where a second is named), or after so many dates. */
export type Limit =
  | { kind: 'open' }
  /** the last day on which a date may start, on it up to a second of the day when one is given */
  | { kind: 'until'; day: EpochDay; second?: number }
  /** so many dates, the first start included; left-out dates and breaks still count */
  | { kind: 'count'; count: number };

/**
 * The end of each date. Timed: `days` after the start's day, at `minute`. All day: `days` is how many days it
 * covers (1 = one day) and minute is null. No end given: the whole value is null.
 */
export interface Length {
  days: number;
  minute: number | null;
}

/** A first start, a length, and a rule or none: together with others they make a recurrence. */
export interface RecurrencePart {
  /** the first start; minute null = all day */
  start: PlainDateTime;
  length: Length | null;
  /** null = a single date */
  rule: Rule | null;
  limit: Limit;
  /** starts by the sun; the minute of the first start is then that of its day. Absent = by the clock */
  sun?: SunStart;
}

/** A span of days, both included, in which no date starts. */
export interface Break {
  from: EpochDay;
  to: EpochDay;
}

/** All dates of a listing: parts in order, without the left-out dates and those in breaks. */
export interface Recurrence {
  zone: string;
  parts: RecurrencePart[];
  /** original starts that are left out (EXDATE) */
  exdates: PlainDateTime[];
  breaks: Break[];
}

/** schema.org EventStatusType, in our words. */
export const EVENT_STATUSES = ['going-ahead', 'postponed', 'moved-online', 'rescheduled', 'cancelled'] as const;
/** One of {@link EVENT_STATUSES}, after schema.org's EventStatusType. */
export type EventStatus = (typeof EVENT_STATUSES)[number];

/** What differs for one date; `original` is the start the rule gives it, which stays its name. */
export interface DateChange {
  original: PlainDateTime;
  movedTo: PlainDateTime | null;
  /** null = as long as the others */
  length: Length | null;
  eventStatus: EventStatus | null;
  note: string;
  /** the venue it goes to instead; absent = where the others are */
  venueId?: string;
}

/** One date. `start` and `end` are what happens; `original` is what the rule said. */
export interface Occurrence {
  original: PlainDateTime;
  start: PlainDateTime;
  /** exclusive; null when no end is given */
  end: PlainDateTime | null;
  eventStatus: EventStatus | null;
  note: string;
  /** null = where the listing is */
  venueId: string | null;
  changed: boolean;
  /** index of the part it comes from */
  recurrencePart: number;
}

/** A rule with only what differs from "every one" named. */
export function rule(freq: Frequency, parts: Partial<Omit<Rule, 'freq'>> = {}): Rule {
  return { freq, interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0, ...parts };
}

/** Has a rule parts of the standard that few rules have, and forms and most sentences do not show? Seasons are not among them. */
export function hasRareParts({ byYearDay, byWeekNo, byHour, byMinute, bySecond, bySetPos }: Rule): boolean {
  return Boolean(byYearDay ?? byWeekNo ?? byHour ?? byMinute ?? bySecond ?? bySetPos);
}
