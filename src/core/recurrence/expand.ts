/**
 * A recurrence's dates inside a window of days: stretches together, left-out dates and breaks taken out, changes to
 * single dates applied. Window bounds are days, both included, in the recurrence's zone.
 */
import type { Day } from '../day/day';
import { compareWall, isoWall, sameWall, type Wall } from '../day/wall';
import { daysOfStretch } from './days';
import type { DateChange, Length, Occurrence, Recurrence, Stretch } from './model';
import { hasTimes, SECONDS_OF_DAY, startsOfRule } from './sub-daily';

/** So many dates at most come out of one call; 20 a day for 3 years. A window with more is cut and says so. */
export const MAX_DATES = 25_000;

/** The end of a date that starts at `start`, exclusive; null when the length is not given. */
export function endOf(start: Wall, length: Length | null): Wall | null {
  if (length === null) return start.minute === null ? { day: start.day + 1, minute: null } : null;
  if (start.minute === null) return { day: start.day + Math.max(1, length.days), minute: null };
  return { day: start.day + length.days, minute: length.minute ?? start.minute };
}

/** The same duration by the wall clock, from another start: 07:40-09:40 moved to 06:55 ends 08:55. */
export function shiftedLength(length: Length | null, from: Wall, to: Wall): Length | null {
  if (length === null || length.minute === null || from.minute === null || to.minute === null) return length;
  const minutes = length.days * 1440 + length.minute - from.minute + to.minute;
  return { days: Math.floor(minutes / 1440), minute: ((minutes % 1440) + 1440) % 1440 };
}

/** The starts of one stretch, by days alone where its rule gives no times of its own. */
function wallsOfStretch(stretch: Stretch, zone: string, from: Day, to: Day): Wall[] {
  const { start, rule, limit } = stretch;
  const { minute } = start;
  if (!rule || minute === null || !hasTimes(rule)) return daysOfStretch(stretch, zone, from, to).map((day) => ({ day, minute }));
  const input = { rule, limit, zone, start: start.day * SECONDS_OF_DAY + minute * 60 };
  return startsOfRule(input, from, to, MAX_DATES).seconds.map((second) => {
    const day = Math.floor(second / SECONDS_OF_DAY);
    return { day, minute: Math.floor((second - day * SECONDS_OF_DAY) / 60) };
  });
}

/** The starts that stretches give in a window, ascending, each once, before changes; the first stretch wins a tie. */
export function startsBetween(recurrence: Recurrence, from: Day, to: Day): { wall: Wall; stretch: number }[] {
  const { stretches, zone, breaks, leftOut } = recurrence;
  const found: { wall: Wall; stretch: number }[] = [];
  stretches.forEach((stretch, index) => {
    for (const wall of wallsOfStretch(stretch, zone, from, to)) {
      if (breaks.some((b) => wall.day >= b.from && wall.day <= b.to)) continue;
      found.push({ wall, stretch: index });
      if (found.length >= MAX_DATES) return;
    }
  });
  if (stretches.length > 1) {
    found.sort((a, b) => compareWall(a.wall, b.wall) || a.stretch - b.stretch);
  }
  const out = leftOut.length ? new Set(leftOut.map(isoWall)) : undefined;
  return found.filter((date, i) => {
    const before = found[i - 1];
    if (before && sameWall(before.wall, date.wall)) return false;
    return !out?.has(isoWall(date.wall));
  });
}

/**
 * The dates whose *original* start lies in the window, with changes applied, in order of what now happens.
 * A date moved out of the window still comes with it; one moved in from outside does not: ask a wider window.
 */
export function expand(recurrence: Recurrence, changes: DateChange[], from: Day, to: Day): Occurrence[] {
  const byOriginal = new Map(changes.map((change) => [isoWall(change.original), change]));
  const dates = startsBetween(recurrence, from, to).map(({ wall, stretch }) =>
    occurrenceOf(wall, stretch, recurrence.stretches[stretch] as Stretch, byOriginal.get(isoWall(wall))),
  );
  return byOriginal.size ? dates.sort((a, b) => compareWall(a.start, b.start) || compareWall(a.original, b.original)) : dates;
}

function occurrenceOf(original: Wall, index: number, stretch: Stretch, change: DateChange | undefined): Occurrence {
  const start = change?.movedTo ?? original;
  const length = change?.length ?? shiftedLength(stretch.length, stretch.start, start);
  return {
    original,
    start,
    end: endOf(start, length),
    standing: change?.standing ?? null,
    note: change?.note ?? '',
    venueId: change?.venueId ?? null,
    changed: change !== undefined,
    stretch: index,
  };
}

/**
 * Changes whose original date the recurrence no longer has: they lie idle and should be shown. Each is looked for on its own
 * day; beyond `to` nobody knows yet.
 */
export function idleChanges<T>(recurrence: Recurrence, changes: readonly T[], originalOf: (change: T) => Wall | undefined, to: Day): T[] {
  return changes.filter((change) => {
    const at = originalOf(change);
    return at !== undefined && at.day <= to && !startsBetween(recurrence, at.day, at.day).some(({ wall }) => sameWall(wall, at));
  });
}

/** Are all dates of a recurrence known to end? False when a stretch is open. */
export function isOpenEnded(recurrence: Recurrence): boolean {
  return recurrence.stretches.some((s) => s.rule !== null && s.limit.kind === 'open');
}
