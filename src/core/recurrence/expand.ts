/**
 * A recurrence's dates inside a window of days: parts together, left-out dates and breaks taken out, changes to
 * single dates applied. Window bounds are days, both included, in the recurrence's zone.
 */
import type { EpochDay } from '../day/day';
import { compareDateTime, isoDateTime, sameDateTime, type PlainDateTime } from '../day/plain-date-time';
import { Budget, TooMuch } from './budget';
import { daysOfPart } from './days';
import type { DateChange, Length, Occurrence, Recurrence, RecurrencePart } from './model';
import { type SunStart, SUN_LOOKS, sunMinute } from './sun-start';
import { hasTimes, SECONDS_OF_DAY, startsOfRule } from './sub-daily';

/** So many dates at most come out of one call; 20 a day for 3 years. A window with more is cut and says so. */
export const MAX_DATES = 25_000;

/** The end of a date that starts at `start`, exclusive; null when the length is not given. */
export function endOf(start: PlainDateTime, length: Length | null): PlainDateTime | null {
  if (length === null) return start.minute === null ? { day: start.day + 1, minute: null } : null;
  if (start.minute === null) return { day: start.day + Math.max(1, length.days), minute: null };
  return { day: start.day + length.days, minute: length.minute ?? start.minute };
}

/** The same duration by the wall clock, from another start: 07:40-09:40 moved to 06:55 ends 08:55. */
export function shiftedLength(length: Length | null, from: PlainDateTime, to: PlainDateTime): Length | null {
  if (length === null || length.minute === null || from.minute === null || to.minute === null) return length;
  const minutes = length.days * 1440 + length.minute - from.minute + to.minute;
  return { days: Math.floor(minutes / 1440), minute: ((minutes % 1440) + 1440) % 1440 };
}

interface Window {
  zone: string;
  from: EpochDay;
  to: EpochDay;
  budget: Budget;
}

/** Starts by the sun: days on which it does not rise or set have none. They lie in no gap of the zone, for the sun knows no clock. */
function sunStartsOf(recurrencePart: RecurrencePart, sun: SunStart, { zone, from, to, budget }: Window): PlainDateTime[] {
  const days = daysOfPart(recurrencePart, 'UTC', from, to, budget);
  budget.spend(days.length * SUN_LOOKS);
  return days.flatMap((day) => {
    const minute = sunMinute(sun, day, zone);
    return minute === undefined ? [] : [{ day, minute }];
  });
}

/** The starts of one part, by days alone where its rule gives no times of its own. */
function dateTimesOfPart(recurrencePart: RecurrencePart, zone: string, from: EpochDay, to: EpochDay, budget: Budget): PlainDateTime[] {
  const { start, rule, limit } = recurrencePart;
  const { minute } = start;
  if (recurrencePart.sun) return sunStartsOf(recurrencePart, recurrencePart.sun, { zone, from, to, budget });
  if (!rule || minute === null || !hasTimes(rule))
    return daysOfPart(recurrencePart, zone, from, to, budget).map((day) => ({ day, minute }));
  const input = { rule, limit, zone, start: start.day * SECONDS_OF_DAY + minute * 60 };
  return startsOfRule(input, from, to, MAX_DATES, budget).seconds.map((second) => {
    const day = Math.floor(second / SECONDS_OF_DAY);
    return { day, minute: Math.floor((second - day * SECONDS_OF_DAY) / 60) };
  });
}

/** A start, and the part that gives it. */
export interface PartStart {
  wall: PlainDateTime;
  recurrencePart: number;
}

/** The starts in a window, and whether there may be others that would take too long to find. */
export interface StartsFound {
  starts: PartStart[];
  tooMuch: boolean;
}

/** The starts that parts give in a window, ascending, each once, before changes; the first part wins a tie. */
export function startsWithin(recurrence: Recurrence, from: EpochDay, to: EpochDay, budget = new Budget()): StartsFound {
  const { parts, zone, breaks, exdates } = recurrence;
  const found: PartStart[] = [];
  let tooMuch = false;
  try {
    parts.forEach((recurrencePart, index) => {
      if (found.length >= MAX_DATES) return;
      for (const wall of dateTimesOfPart(recurrencePart, zone, from, to, budget)) {
        if (breaks.some((b) => wall.day >= b.from && wall.day <= b.to)) continue;
        found.push({ wall, recurrencePart: index });
        if (found.length >= MAX_DATES) return;
      }
    });
  } catch (error) {
    if (!(error instanceof TooMuch)) throw error;
    tooMuch = true;
  }
  if (parts.length > 1) {
    found.sort((a, b) => compareDateTime(a.wall, b.wall) || a.recurrencePart - b.recurrencePart);
  }
  const out = exdates.length ? new Set(exdates.map(isoDateTime)) : undefined;
  const starts = found.filter((date, i) => {
    const before = found[i - 1];
    if (before && sameDateTime(before.wall, date.wall)) return false;
    return !out?.has(isoDateTime(date.wall));
  });
  return { starts, tooMuch };
}

/** The same starts alone: of a recurrence that takes too long, which Proof does not let out, those that were found. */
export function startsBetween(recurrence: Recurrence, from: EpochDay, to: EpochDay): PartStart[] {
  return startsWithin(recurrence, from, to).starts;
}

/**
 * The dates whose *original* start lies in the window, with changes applied, in order of what now happens.
 * A date moved out of the window still comes with it; one moved in from outside does not: ask a wider window.
 */
export function expand(recurrence: Recurrence, changes: DateChange[], from: EpochDay, to: EpochDay): Occurrence[] {
  const byOriginal = new Map(changes.map((change) => [isoDateTime(change.original), change]));
  const dates = startsBetween(recurrence, from, to).map(({ wall, recurrencePart }) =>
    occurrenceOf(wall, recurrencePart, recurrence.parts[recurrencePart] as RecurrencePart, byOriginal.get(isoDateTime(wall))),
  );
  return byOriginal.size ? dates.sort((a, b) => compareDateTime(a.start, b.start) || compareDateTime(a.original, b.original)) : dates;
}

/** How long a date is that begins at `start`: as long as the first, or, by the sun and up to a time of the clock, to that time. */
function lengthFrom({ length, sun, start: first }: RecurrencePart, start: PlainDateTime, moved: boolean): Length | null {
  if (sun?.ends !== 'clock' || moved || start.minute === null) return shiftedLength(length, first, start);
  // A date that begins when the others end has no end that could be said; Proof tells which.
  return length && length.days * 1440 + (length.minute ?? 0) > start.minute ? length : null;
}

function occurrenceOf(original: PlainDateTime, index: number, recurrencePart: RecurrencePart, change: DateChange | undefined): Occurrence {
  const start = change?.movedTo ?? original;
  const length = change?.length ?? lengthFrom(recurrencePart, start, change?.movedTo != null);
  return {
    original,
    start,
    end: endOf(start, length),
    eventStatus: change?.eventStatus ?? null,
    note: change?.note ?? '',
    venueId: change?.venueId ?? null,
    changed: change !== undefined,
    recurrencePart: index,
  };
}

/**
 * Changes whose original date the recurrence no longer has: they lie idle and should be shown. Each is looked for on its own
 * day; beyond `to` nobody knows yet.
 */
export function idleChanges<T>(
  recurrence: Recurrence,
  changes: readonly T[],
  originalOf: (change: T) => PlainDateTime | undefined,
  to: EpochDay,
): T[] {
  return changes.filter((change) => {
    const at = originalOf(change);
    return at !== undefined && at.day <= to && !startsBetween(recurrence, at.day, at.day).some(({ wall }) => sameDateTime(wall, at));
  });
}

/** Are all dates of a recurrence known to end? False when a part is open. */
export function isOpenEnded(recurrence: Recurrence): boolean {
  return recurrence.parts.some((s) => s.rule !== null && s.limit.kind === 'open');
}
