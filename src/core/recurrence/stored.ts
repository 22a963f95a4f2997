/**
 * The stored and exchanged form of a recurrence and its changes: JSON with ISO dates and times and a format number.
 * `fromStored…` trusts its input's shape (the server checks it with Zod at the door) but not that dates exist.
 */
import { isoDay, parseIsoDay } from '../day/day';
import { isoWall, parseIsoWall, type Wall } from '../day/wall';
import type { DateChange, Length, Limit, Recurrence, Rule, Standing, Stretch } from './model';

/** Format 1 had no BYYEARDAY, BYWEEKNO, times, BYSETPOS and seasons in its rules; all of them are absent when not given, so it reads as it is. */
export const RECURRENCE_FORMAT = 2;

export type StoredLimit = { kind: 'open' } | { kind: 'until'; day: string; second?: number } | { kind: 'count'; count: number };

export interface StoredStretch {
  start: string;
  length: Length | null;
  rule: Rule | null;
  limit: StoredLimit;
}

export interface StoredRecurrence {
  format: 1 | typeof RECURRENCE_FORMAT;
  zone: string;
  stretches: StoredStretch[];
  leftOut: string[];
  breaks: { from: string; to: string }[];
}

export interface StoredChange {
  original: string;
  movedTo: string | null;
  length: Length | null;
  standing: Standing | null;
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

function wall(text: string): Wall {
  const value = parseIsoWall(text);
  if (!value) throw new StoredDateError(text);
  return value;
}

function day(text: string): number {
  const value = parseIsoDay(text);
  if (value === undefined) throw new StoredDateError(text);
  return value;
}

export function stretchFrom({ start, length, rule, limit }: StoredStretch): Stretch {
  return { start: wall(start), length, rule, limit: limitFrom(limit) };
}

export function fromStored(stored: StoredRecurrence): Recurrence {
  return {
    zone: stored.zone,
    stretches: stored.stretches.map(stretchFrom),
    leftOut: stored.leftOut.map(wall),
    breaks: stored.breaks.map((b) => ({ from: day(b.from), to: day(b.to) })),
  };
}

function limitFrom(limit: StoredLimit): Limit {
  return limit.kind === 'until' ? { ...limit, day: day(limit.day) } : limit;
}

export function toStored(recurrence: Recurrence): StoredRecurrence {
  return {
    format: RECURRENCE_FORMAT,
    zone: recurrence.zone,
    stretches: recurrence.stretches.map((s) => ({
      start: isoWall(s.start),
      length: s.length,
      rule: s.rule,
      limit: s.limit.kind === 'until' ? { ...s.limit, day: isoDay(s.limit.day) } : s.limit,
    })),
    leftOut: recurrence.leftOut.map(isoWall),
    breaks: recurrence.breaks.map((b) => ({ from: isoDay(b.from), to: isoDay(b.to) })),
  };
}

export function changesFromStored(stored: StoredChange[]): DateChange[] {
  return stored.map((c) => ({
    original: wall(c.original),
    movedTo: c.movedTo === null ? null : wall(c.movedTo),
    length: c.length,
    standing: c.standing,
    note: c.note,
    ...(c.venueId ? { venueId: c.venueId } : {}),
  }));
}
