/**
 * The stored and exchanged form of a recurrence and its changes: JSON with ISO dates and times and a format number.
 * `fromStored…` trusts its input's shape (the server checks it with Zod at the door) but not that dates exist.
 */
import { type EpochDay, isoDay, parseIsoDay } from '../day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { shiftedLength } from './expand';
import { type SunStart, startOn } from './sun-start';
import type { DateChange, Length, Limit, Recurrence, Rule, EventStatus, RecurrencePart } from './model';

/**
 * Format 2 added BYYEARDAY, BYWEEKNO, times, BYSETPOS and seasons to rules, all of them absent where they are not given; format 3 named the parts
 * and the left-out dates as the field does. Starts by the sun came later, and are absent where there are none.
 */
export const RECURRENCE_FORMAT = 3;

/** A limit as JSON: days are ISO dates. */
export type StoredLimit = { kind: 'open' } | { kind: 'until'; day: string; second?: number } | { kind: 'count'; count: number };

/** A part of a recurrence as JSON: starts are ISO wall times. */
export interface StoredRecurrencePart {
  start: string;
  length: Length | null;
  rule: Rule | null;
  limit: StoredLimit;
  sun?: SunStart;
}

/** A recurrence as JSON, with its format number. */
export interface StoredRecurrence {
  format: typeof RECURRENCE_FORMAT;
  zone: string;
  parts: StoredRecurrencePart[];
  exdates: string[];
  breaks: { from: string; to: string }[];
}

/** What differs for one date, as JSON, by its original start. */
export interface StoredChange {
  original: string;
  movedTo: string | null;
  length: Length | null;
  eventStatus: EventStatus | null;
  note: string;
  venueId?: string;
}

/** A stored date that does not exist, with where it stands. */
export class StoredDateError extends Error {
  override name = 'StoredDateError';
  constructor(readonly text: string) {
    super(`“${text.slice(0, 30)}” is no date that exists`);
  }
}

/** A recurrence of an earlier format as one of today's; anything else as it is. */
export function upgradeRecurrence(raw: unknown): unknown {
  if (typeof raw !== 'object' || raw === null) return raw;
  const { format, stretches, leftOut, ...same } = raw as Record<string, unknown>;
  return format === 1 || format === 2 ? { ...same, format: RECURRENCE_FORMAT, parts: stretches, exdates: leftOut } : raw;
}

function wall(text: string): PlainDateTime {
  const value = parseIsoDateTime(text);
  if (!value) throw new StoredDateError(text);
  return value;
}

function day(text: string): number {
  const value = parseIsoDay(text);
  if (value === undefined) throw new StoredDateError(text);
  return value;
}

/** A stored part as the code uses it, in the recurrence's zone. Throws {@link StoredDateError} where a date does not exist. */
export function partFrom({ start, length, rule, limit, sun }: StoredRecurrencePart, zone: string): RecurrencePart {
  const part: RecurrencePart = { start: wall(start), length, rule, limit: limitFrom(limit) };
  return sun ? atSun(part, sun, zone) : part;
}

/** A part whose start hangs on the sun, at that of its first day; all-day parts stay as they are. */
export function atSun(part: RecurrencePart, sun: SunStart, zone: string): RecurrencePart {
  if (part.start.minute === null) return part;
  const start = startOn({ ...part, sun }, part.start.day, zone);
  return { ...part, start, length: sun.ends === 'length' ? shiftedLength(part.length, part.start, start) : part.length, sun };
}

/** A part whose first start is on another day: by the clock at the same time, by the sun at that day's, and as long. */
export function onDay(part: RecurrencePart, day: EpochDay, zone: string): RecurrencePart {
  const there = { ...part, start: { ...part.start, day } };
  return part.sun ? atSun(there, part.sun, zone) : there;
}

/** A stored recurrence as the code uses it. Throws {@link StoredDateError} where a date does not exist. */
export function fromStored(stored: StoredRecurrence): Recurrence {
  return {
    zone: stored.zone,
    parts: stored.parts.map((part) => partFrom(part, stored.zone)),
    exdates: stored.exdates.map(wall),
    breaks: stored.breaks.map((b) => ({ from: day(b.from), to: day(b.to) })),
  };
}

function limitFrom(limit: StoredLimit): Limit {
  return limit.kind === 'until' ? { ...limit, day: day(limit.day) } : limit;
}

/** A recurrence as it is kept: JSON with ISO dates and its format number. */
export function toStored(recurrence: Recurrence): StoredRecurrence {
  return {
    format: RECURRENCE_FORMAT,
    zone: recurrence.zone,
    parts: recurrence.parts.map((s) => ({
      start: isoDateTime(s.start),
      length: s.length,
      rule: s.rule,
      limit: s.limit.kind === 'until' ? { ...s.limit, day: isoDay(s.limit.day) } : s.limit,
      ...(s.sun ? { sun: s.sun } : {}),
    })),
    exdates: recurrence.exdates.map(isoDateTime),
    breaks: recurrence.breaks.map((b) => ({ from: isoDay(b.from), to: isoDay(b.to) })),
  };
}

/** A stored recurrence with each first start by the sun at the minute of its own day. Throws as {@link fromStored} does. */
export const atSunOfItsDay = (stored: StoredRecurrence): StoredRecurrence =>
  stored.parts.some(({ sun }) => sun) ? toStored(fromStored(stored)) : stored;

/** Stored changes as the code uses them. Throws {@link StoredDateError} where a date does not exist. */
export function changesFromStored(stored: StoredChange[]): DateChange[] {
  return stored.map((c) => ({
    original: wall(c.original),
    movedTo: c.movedTo === null ? null : wall(c.movedTo),
    length: c.length,
    eventStatus: c.eventStatus,
    note: c.note,
    ...(c.venueId ? { venueId: c.venueId } : {}),
  }));
}
