/**
 * IANA time zones. Instants are milliseconds since 1970-01-01T00:00Z; offsets are milliseconds to add to UTC.
 * The zone data is the runtime's (Intl); transitions are found by bisection once a zone and year and kept.
 * Offsets are exact to the second; zones' rules after the data's last year are the data's own guess.
 */
import { type EpochDay, dayOf, isoDay } from './day';
import { isoTime, type PlainDateTime } from './plain-date-time';

/** Milliseconds in a minute. */
export const MS_PER_MINUTE = 60_000;
/** The length of a UTC day. Never the length of a local one: those come from {@link dateTimeToInstant}. */
export const MS_PER_UTC_DAY = 1440 * MS_PER_MINUTE;

/** A moment at which a zone's offset changes. */
export interface Transition {
  /** the first instant with the new offset */
  at: number;
  before: number;
  after: number;
}

/** What a wall time means in a zone. A gap has no such time; an overlap has it twice. */
export type Instant =
  | { kind: 'once'; ms: number }
  | { kind: 'gap'; ms: number /** ms is the time read with the offset before the gap, RFC 5545 3.3.5 */; minutes: number }
  | { kind: 'twice'; ms: number /** ms is the first of the two */; second: number };

const formats = new Map<string, Intl.DateTimeFormat | null>();

function formatOf(zone: string): Intl.DateTimeFormat {
  let format = formats.get(zone);
  if (format === undefined) {
    try {
      format = new Intl.DateTimeFormat('en-US', {
        timeZone: zone,
        hourCycle: 'h23',
        year: 'numeric',
        month: 'numeric',
        day: 'numeric',
        hour: 'numeric',
        minute: 'numeric',
        second: 'numeric',
        era: 'short',
      });
    } catch {
      format = null;
    }
    // A caller may try any name: keep the map from growing without end.
    if (formats.size > 700) formats.clear();
    formats.set(zone, format);
  }
  if (format === null) throw new RangeError(`Unknown time zone: ${zone.slice(0, 60)}`);
  return format;
}

/** Is this the name of a time zone that the runtime knows? */
export function isZone(zone: string): boolean {
  try {
    formatOf(zone);
    return true;
  } catch {
    return false;
  }
}

/** The offset of a zone at an instant, from Intl itself. */
export function offsetFromIntl(zone: string, ms: number): number {
  const parts: Record<string, string> = {};
  for (const part of formatOf(zone).formatToParts(ms)) parts[part.type] = part.value;
  const year = parts.era === 'BC' ? 1 - Number(parts.year) : Number(parts.year);
  const day = dayOf(year, Number(parts.month), Number(parts.day));
  const seconds = (Number(parts.hour) * 60 + Number(parts.minute)) * 60 + Number(parts.second);
  return day * MS_PER_UTC_DAY + seconds * 1000 - Math.floor(ms / 1000) * 1000;
}

const PROBE_MS = 7 * MS_PER_UTC_DAY;
/** By zone, then year: asked several times for each wall time, so the look-up must cost nothing. */
const transitionsByZone = new Map<string, Map<number, Transition[]>>();
const MOST_ZONES = 700;
/** Before this year clocks went by the sun, and no zone of the time zone database changes. */
const FIRST_CHANGES = 1830;

/**
 * The transitions of a zone in a UTC year. Probes each week (no zone has had two transitions inside one that
 * cancel out since 1970), then bisects to the second: at most 53 probes and 2 × 20 bisection steps.
 */
export function transitionsOf(zone: string, year: number): Transition[] {
  if (year < FIRST_CHANGES) return [];
  let ofZone = transitionsByZone.get(zone);
  if (!ofZone) {
    ofZone = new Map();
    if (transitionsByZone.size >= MOST_ZONES) transitionsByZone.clear();
    transitionsByZone.set(zone, ofZone);
  }
  const known = ofZone.get(year);
  if (known) return known;
  const found: Transition[] = [];
  const end = dayOf(year + 1, 1, 1) * MS_PER_UTC_DAY;
  let left = dayOf(year, 1, 1) * MS_PER_UTC_DAY;
  let before = offsetFromIntl(zone, left);
  while (left < end) {
    const right = Math.min(left + PROBE_MS, end);
    const after = offsetFromIntl(zone, right);
    if (after !== before) {
      let lo = left / 1000;
      let hi = right / 1000;
      while (hi - lo > 1) {
        const mid = Math.floor((lo + hi) / 2);
        if (offsetFromIntl(zone, mid * 1000) === before) lo = mid;
        else hi = mid;
      }
      found.push({ at: hi * 1000, before, after });
      before = after;
    }
    left = right;
  }
  if (ofZone.size > 2000) ofZone.clear();
  ofZone.set(year, found);
  return found;
}

const yearOfMs = (ms: number): number => 1970 + Math.floor(ms / (365.2425 * MS_PER_UTC_DAY));

/** The offset of a zone at an instant. */
export function offsetAt(zone: string, ms: number): number {
  if (zone === 'UTC') return 0;
  const guess = yearOfMs(ms);
  let last: Transition | undefined;
  // The guess may be off by a day at a year's edge, so its neighbours are looked at too.
  for (let year = guess - 1; year <= guess + 1; year++) {
    for (const transition of transitionsOf(zone, year)) {
      if (transition.at > ms) return last ? last.after : transition.before;
      last = transition;
    }
  }
  return last ? last.after : offsetFromIntl(zone, ms);
}

/** The instant of a wall time in a zone; a null minute means the first moment of the day. */
export function dateTimeToInstant(zone: string, wall: PlainDateTime): Instant {
  const local = wall.day * MS_PER_UTC_DAY + (wall.minute ?? 0) * MS_PER_MINUTE;
  if (zone === 'UTC') return { kind: 'once', ms: local };
  const early = offsetAt(zone, local - MS_PER_UTC_DAY);
  const late = offsetAt(zone, local + MS_PER_UTC_DAY);
  const byEarly = local - early;
  const byLate = local - late;
  const earlyHolds = offsetAt(zone, byEarly) === early;
  const lateHolds = offsetAt(zone, byLate) === late;
  if (early === late && earlyHolds) return { kind: 'once', ms: byEarly };
  if (earlyHolds && lateHolds) {
    return byEarly === byLate
      ? { kind: 'once', ms: byEarly }
      : { kind: 'twice', ms: Math.min(byEarly, byLate), second: Math.max(byEarly, byLate) };
  }
  if (earlyHolds) return { kind: 'once', ms: byEarly };
  if (lateHolds) return { kind: 'once', ms: byLate };
  return { kind: 'gap', ms: byEarly, minutes: (late - early) / MS_PER_MINUTE };
}

/** The wall time of an instant in a zone, to the minute (seconds are dropped). */
export function instantToDateTime(zone: string, ms: number): { day: EpochDay; minute: number } {
  const local = ms + offsetAt(zone, ms);
  const day = Math.floor(local / MS_PER_UTC_DAY);
  return { day, minute: Math.floor((local - day * MS_PER_UTC_DAY) / MS_PER_MINUTE) };
}

/** A span of wall time that a zone leaves out, [from, to). */
export interface LocalGap {
  from: number;
  to: number;
}

/** Spans of wall time that a zone leaves out between two days, in local milliseconds. */
export function gapsBetween(zone: string, fromDay: EpochDay, toDay: EpochDay): LocalGap[] {
  if (zone === 'UTC') return [];
  const from = fromDay * MS_PER_UTC_DAY;
  const to = (toDay + 1) * MS_PER_UTC_DAY;
  const gaps: LocalGap[] = [];
  for (let year = yearOfMs(from) - 1; year <= yearOfMs(to) + 1; year++) {
    for (const { at, before, after } of transitionsOf(zone, year)) {
      if (after > before && at + after > from && at + before < to) gaps.push({ from: at + before, to: at + after });
    }
  }
  return gaps;
}

/** `UTC-3`, `UTC+10:30` */
export function offsetLabel(offset: number): string {
  const minutes = Math.round(Math.abs(offset) / MS_PER_MINUTE);
  if (minutes === 0) return 'UTC';
  const rest = minutes % 60;
  return `UTC${offset < 0 ? '\u2212' : '+'}${Math.floor(minutes / 60)}${rest ? `:${String(rest).padStart(2, '0')}` : ''}`;
}

/** `2027-03-07T11:40:00Z` */
export function isoInstant(ms: number): string {
  const day = Math.floor(ms / MS_PER_UTC_DAY);
  const rest = ms - day * MS_PER_UTC_DAY;
  const seconds = Math.floor((rest % MS_PER_MINUTE) / 1000);
  return `${isoDay(day)}T${isoTime(Math.floor(rest / MS_PER_MINUTE))}:${String(seconds).padStart(2, '0')}Z`;
}

/** `2027-03-07T07:40:00-04:00`, for schema.org and feeds. */
export function isoWithOffset(zone: string, ms: number): string {
  const offset = offsetAt(zone, ms);
  const minutes = Math.round(Math.abs(offset) / MS_PER_MINUTE);
  const wall = instantToDateTime(zone, ms);
  return `${isoDay(wall.day)}T${isoTime(wall.minute)}:00${offset < 0 ? '-' : '+'}${isoTime(minutes)}`;
}

/** A wall time with its offset, `2027-03-07T07:40:00-04:00`; a whole day as `2027-03-07` (ISO 8601). */
export const isoIn = (zone: string, wall: PlainDateTime): string =>
  wall.minute === null ? isoDay(wall.day) : isoWithOffset(zone, dateTimeToInstant(zone, wall).ms);

/** What the clocks of a zone do on a day: at `from` they are put to `to`, in minutes of the day before and after. */
export interface ClockChange {
  from: number;
  to: number;
  /** the hours between are left out; else they come twice */
  forward: boolean;
}

/** The change of a zone's clocks on a day, by which it has more or fewer than 24 hours; undefined on most days. */
export function clockChangeOn(day: number, zone: string): ClockChange | undefined {
  if (zone === 'UTC') return undefined;
  const start = day * MS_PER_UTC_DAY;
  for (let year = yearOfMs(start) - 1; year <= yearOfMs(start) + 1; year++)
    for (const { at, before, after } of transitionsOf(zone, year)) {
      const from = at + before - start;
      if (from >= 0 && from < MS_PER_UTC_DAY && after !== before)
        return { from: from / MS_PER_MINUTE, to: (from + after - before) / MS_PER_MINUTE, forward: after > before };
    }
  return undefined;
}
