/** Which of many that were made over time are kept: many of late, fewer of long ago. */
import { type EpochDay, monthNumberOf, weekStart } from '../day/day';

/** How many days, weeks and months back there is one kept for each. */
export interface KeepRule {
  days: number;
  weeks: number;
  months: number;
}

/** A week of dailies, five weeks of weeklies and a year of monthlies. */
export const USUAL_RULE: KeepRule = { days: 7, weeks: 5, months: 12 };

/**
 * Those that go. Of each day, week and month that there is something of, the newest stays, for as many of the latest of them as the rule says.
 *
 * @param made when each was made, in any order; several may be of one day, the later of which stands later
 */
export function whichGo<T>(made: readonly T[], dayOf: (one: T) => EpochDay, rule: KeepRule): T[] {
  const newestFirst = made.map((one, i) => ({ one, day: dayOf(one), i })).sort((a, b) => b.day - a.day || b.i - a.i);
  const keep = new Set<T>();
  const keepBy = (most: number, spanOf: (day: EpochDay) => number): void => {
    const seen = new Set<number>();
    for (const { one, day } of newestFirst) {
      const span = spanOf(day);
      if (seen.has(span)) continue;
      if (seen.size >= most) return;
      seen.add(span);
      keep.add(one);
    }
  };
  keepBy(rule.days, (day) => day);
  keepBy(rule.weeks, (day) => weekStart(day, 0));
  keepBy(rule.months, (day) => monthNumberOf(day));
  return made.filter((one) => !keep.has(one));
}
