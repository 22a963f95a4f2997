/** Which IANA zone a file's own zone means: by its name, else by its rules. Instants in milliseconds. */
import ICAL from 'ical.js';
import { dayOf } from '../day/day';
import { isZone, MS_PER_MINUTE, MS_PER_UTC_DAY, offsetAt } from '../day/zone';
import { findIana } from 'windows-iana';

/** Days of a year at which offsets are compared: the middle and the ends of months, where clocks are changed. */
const SAMPLES_A_YEAR = 24;

/** Offsets of a VTIMEZONE through two years, in milliseconds; undefined when it cannot be read. */
function offsetsOf(vtimezone: string, year: number): { at: number; offset: number }[] | undefined {
  try {
    const component = new ICAL.Component(ICAL.parse(vtimezone) as unknown as never[]);
    const zone = new ICAL.Timezone(component);
    const samples: { at: number; offset: number }[] = [];
    for (let i = 0; i < 2 * SAMPLES_A_YEAR; i++) {
      const day = dayOf(year, 1, 1) + Math.floor((i * 365.25) / SAMPLES_A_YEAR);
      // Noon by the zone's own clock: nobody changes clocks then.
      const time = ICAL.Time.fromJSDate(new Date(day * MS_PER_UTC_DAY + MS_PER_UTC_DAY / 2), true);
      time.zone = zone;
      const offset = zone.utcOffset(time) * 1000;
      samples.push({ at: day * MS_PER_UTC_DAY + MS_PER_UTC_DAY / 2 - offset, offset });
    }
    return samples;
  } catch {
    return undefined;
  }
}

/** Zones without summer time, for rules that have none either. */
const FIXED = [
  'UTC',
  ...Array.from({ length: 14 }, (_, i) => `Etc/GMT-${i + 1}`),
  ...Array.from({ length: 12 }, (_, i) => `Etc/GMT+${i + 1}`),
];

/** What a wall time of a file's own zone is in UTC, in minutes west to east, by the file's rules alone; undefined when they cannot be read. */
export function offsetByRules(rules: string, iso: string): number | undefined {
  try {
    const component = new ICAL.Component(ICAL.parse(rules) as unknown as never[]);
    const zone = new ICAL.Timezone(component);
    const time = ICAL.Time.fromDateTimeString(iso);
    time.zone = zone;
    const seconds = zone.utcOffset(time);
    return Number.isFinite(seconds) && component.getAllSubcomponents().length > 0 ? (seconds * 1000) / MS_PER_MINUTE : undefined;
  } catch {
    return undefined;
  }
}

/** What tells which zone a file means: its name, and its offsets. */
export interface ZoneAsk {
  /** as the file names it */
  name: string;
  /** its VTIMEZONE, where the file has one */
  rules: string | undefined;
  /** a year in which it is used */
  year: number;
  /** tried in this order; the site's own first */
  candidates: readonly string[];
}

/** The IANA name, or undefined when neither the name nor the rules tell: then somebody must be asked. */
export function zoneOf({ name, rules, year, candidates }: ZoneAsk): string | undefined {
  // Some programs write a path before the name: /kelp.example/20070227_1/America/Halifax
  const tail = /(?:^|\/)([A-Z][A-Za-z_]+\/[A-Za-z_/+-]+)$/.exec(name)?.[1];
  for (const known of [name, tail]) if (known && /[A-Za-z]/.test(known) && isZone(known)) return known === 'Z' ? 'UTC' : known;
  // Names that a widespread system gives its zones (CLDR's windowsZones); the first is the usual one.
  const [usual] = findIana(name);
  if (usual && isZone(usual)) return usual;
  const samples = rules ? offsetsOf(rules, year) : undefined;
  if (!samples) return undefined;
  return [...candidates, ...FIXED].find(
    (candidate) => isZone(candidate) && samples.every(({ at, offset }) => offsetAt(candidate, at) === offset),
  );
}
