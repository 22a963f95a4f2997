/** The one clock for content. A demo may freeze it (ALMANAC_NOW); sessions and rate limits keep real time. */
import type { Day } from '@/core/day/day';
import { instantToWall, wallToInstant } from '@/core/day/zone';
import { parseIsoWall } from '@/core/day/wall';
import { Problem } from '../http/problem';

export interface Now {
  ms: number;
  /** day and minute in the site's zone */
  day: Day;
  minute: number;
}

export function nowIn(zone: string, frozen: string | undefined): Now {
  const wall = frozen ? parseIsoWall(frozen) : undefined;
  if (wall) return { ms: wallToInstant(zone, wall).ms, day: wall.day, minute: wall.minute ?? 0 };
  const ms = Date.now();
  return { ms, ...instantToWall(zone, ms) };
}

/** The frozen time asked for, checked: only in a demo, and of the form 2027-03-17T09:00. Throws a sentence. */
export function frozenNow(env: Record<string, string | undefined>): string | undefined {
  const text = env.ALMANAC_NOW;
  if (!text) return undefined;
  if (env.ALMANAC_DEMO !== '1') throw new Problem(409, 'ALMANAC_NOW sets the clock of a demo only; start it with ./bin/demo or unset it.');
  if (!parseIsoWall(text)) throw new Problem(409, 'ALMANAC_NOW must be a date and time such as 2027-03-17T09:00.');
  return text;
}
