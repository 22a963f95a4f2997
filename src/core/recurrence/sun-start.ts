/**
 * Starts that hang on the sun: so many minutes before or after it rises or sets. The position is kept with the start, so that its dates are
 * the same wherever they are worked out. Minutes of the local day in the recurrence's zone.
 */
import type { EpochDay } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import { instantToDateTime, MS_PER_MINUTE } from '../day/zone';
import { type SunEvent, sunInstant } from '../sky/sky';

/** A start by the sun. */
export interface SunStart {
  event: SunEvent;
  /** after it; before it where negative */
  minutes: number;
  /** whose sun it is, in degrees */
  lat: number;
  lng: number;
  /** does each date end at the same time of the clock, or last as long as the first? */
  ends: 'clock' | 'length';
}

/** The most minutes before or after the sun rises or sets. */
export const MOST_SUN_MINUTES = 360;
/** What finding one such start costs, in days looked at. */
export const SUN_LOOKS = 20;

/** The minute of a day at which such a start is; undefined where the sun does not rise or set on it, or the start would be on another day. */
export function sunMinute({ event, minutes, lat, lng }: SunStart, day: EpochDay, zone: string): number | undefined {
  const at = sunInstant(day, { lat, lng, zone }, event);
  if (at === undefined) return undefined;
  const wall = instantToDateTime(zone, Math.round(at / MS_PER_MINUTE + minutes) * MS_PER_MINUTE);
  return wall.day === day ? wall.minute : undefined;
}

/** When a part's date on a day starts: by the clock at the time of its first start, by the sun at that day's, where it has one. */
export function startOn(part: { start: PlainDateTime; sun?: SunStart | undefined }, day: EpochDay, zone: string): PlainDateTime {
  return { day, minute: (part.sun && sunMinute(part.sun, day, zone)) ?? part.start.minute };
}
