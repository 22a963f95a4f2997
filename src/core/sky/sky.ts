/**
 * Sun and moon for a place. Latitudes and longitudes in degrees (north and east positive), results as minutes of the
 * local day. Suncalc's formulas: sunrise and sunset within about a minute in middle latitudes, phases within an hour.
 */
import * as suncalc from 'suncalc';
import type { EpochDay } from '../day/day';
import { instantToDateTime, MS_PER_MINUTE, dateTimeToInstant } from '../day/zone';

/** A place on the earth in degrees, and its zone. */
export interface Place {
  lat: number;
  lng: number;
  zone: string;
}

/** What the sun does each day. */
export type SunEvent = 'sunrise' | 'sunset';

/** Where the sun does not rise or set that day, the reason stands instead of a time. */
export type SunDay = { kind: 'rises'; rise: number; set: number } | { kind: 'always-up' } | { kind: 'always-down' };

/** The four phases that have a name. */
export type Phase = 'new' | 'first-quarter' | 'full' | 'last-quarter';
const PHASES: readonly Phase[] = ['new', 'first-quarter', 'full', 'last-quarter'];
/** Mean days from new moon to new moon (Meeus 1998, chapter 49). */
export const SYNODIC_DAYS = 29.530588;

/** When the sun rises and sets on a day at a place, or why it does not. */
export function sunOn(day: EpochDay, place: Place): SunDay {
  const noon = dateTimeToInstant(place.zone, { day, minute: 720 }).ms;
  const times = suncalc.getTimes(new Date(noon), place.lat, place.lng);
  if (!times.sunrise || !times.sunset) return { kind: times.alwaysUp ? 'always-up' : 'always-down' };
  const minute = (date: Date): number => instantToDateTime(place.zone, date.getTime() + MS_PER_MINUTE / 2).minute;
  return { kind: 'rises', rise: minute(times.sunrise), set: minute(times.sunset) };
}

/** The instant at which the sun rises or sets on a day at a place, in milliseconds; undefined where it does not. */
export function sunInstant(day: EpochDay, { lat, lng, zone }: Place, event: SunEvent): number | undefined {
  const times = suncalc.getTimes(new Date(dateTimeToInstant(zone, { day, minute: 720 }).ms), lat, lng);
  return times[event]?.getTime();
}

/** Phases of instants already asked for: a day's end is the next day's beginning, and each month is looked at often. */
const phases = new Map<number, number>();
const MOST_PHASES = 4000;

function phaseAt(ms: number): number {
  let phase = phases.get(ms);
  if (phase === undefined) {
    phase = suncalc.getMoonIllumination(new Date(ms)).phase;
    if (phases.size >= MOST_PHASES) phases.clear();
    phases.set(ms, phase);
  }
  return phase;
}

/** The principal phase that falls on a local day, if one does. */
export function phaseOn(day: EpochDay, zone: string): Phase | undefined {
  const before = phaseAt(dateTimeToInstant(zone, { day, minute: 0 }).ms);
  const after = phaseAt(dateTimeToInstant(zone, { day: day + 1, minute: 0 }).ms);
  const quarter = Math.floor(after * 4) % 4;
  return Math.floor(before * 4) % 4 === quarter ? undefined : PHASES[quarter];
}

/** The moon at noon of a local day: growing or shrinking, and days since it was new. */
export function moonOn(day: EpochDay, zone: string): { waxing: boolean; age: number; phase: Phase | undefined } {
  const phase = phaseAt(dateTimeToInstant(zone, { day, minute: 720 }).ms);
  return { waxing: phase < 0.5, age: Math.round(phase * SYNODIC_DAYS), phase: phaseOn(day, zone) };
}
