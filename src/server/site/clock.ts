/** The one clock for content. A demo may freeze it (ALMANAC_NOW); sessions and rate limits keep real time. */
import type { EpochDay } from '@/core/day/day';
import { instantToDateTime, dateTimeToInstant } from '@/core/day/zone';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { Problem } from '../problem';

/** A moment, in the site's zone. */
export interface Now {
  ms: number;
  /** day and minute in the site's zone */
  day: EpochDay;
  minute: number;
}

/** What time it is in a zone: the day, minutes since midnight, milliseconds; or the frozen time of a demo. */
export function nowIn(zone: string, frozen: string | undefined): Now {
  const wall = frozen ? parseIsoDateTime(frozen) : undefined;
  if (wall) return { ms: dateTimeToInstant(zone, wall).ms, day: wall.day, minute: wall.minute ?? 0 };
  const ms = Date.now();
  return { ms, ...instantToDateTime(zone, ms) };
}

/** The frozen time asked for, checked: only in a demo, and of the form 2027-03-17T09:00. Throws a sentence. */
export function frozenNow(env: Record<string, string | undefined>): string | undefined {
  const text = env.ALMANAC_NOW;
  if (!text) return undefined;
  if (env.ALMANAC_DEMO !== '1')
    throw new Problem('conflict', 'ALMANAC_NOW sets the clock of a demo only; start it with ./bin/demo or unset it.');
  if (!parseIsoDateTime(text)) throw new Problem('conflict', 'ALMANAC_NOW must be a date and time such as 2027-03-17T09:00.');
  return text;
}
