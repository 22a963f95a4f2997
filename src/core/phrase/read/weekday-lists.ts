/** A list of days behind a weekday is those days: `Saturdays: 1, 15 and 29 May`. The weekday is then only a check on each of them. */
import type { Clause } from './clause-state';
import { isSpan, type SaidDate } from './calendar-dates';

/** The weekday that a clause names and nothing else of a rhythm. */
function onlyWeekday(c: Clause): number | undefined {
  const [weekday] = c.weekdays;
  const rhythm = c.every ?? c.yearly ?? c.rule ?? c.start ?? c.until ?? c.count ?? c.lasting;
  return c.weekdays.length === 1 && !rhythm && !c.nths.length && !c.months.length && !c.exceptWeekdays.length ? weekday : undefined;
}

/** Single dates, which a weekday may stand before. */
function singleDates(c: Clause): SaidDate[] | undefined {
  const dates = c.dates.filter((one): one is SaidDate => !isSpan(one));
  return dates.length === c.dates.length && dates.length > 0 && !c.extra && !c.instead ? dates : undefined;
}

/** In the singular one date is enough: `Saturday evening 20 March`. In the plural it takes two, for one may be where the rule begins. */
const isList = (dates: readonly SaidDate[], repeats: boolean): boolean => dates.length > (repeats ? 1 : 0);

/** Clauses in which such lists are dates, each with its weekday, whether they stand before or behind the times. */
export function datesOfWeekdays(clauses: readonly Clause[]): Clause[] {
  const kept: Clause[] = [];
  for (const clause of clauses) {
    const dates = singleDates(clause);
    const own = onlyWeekday(clause);
    const before = kept.at(-1);
    if (dates && own !== undefined && isList(dates, clause.repeats)) {
      name(clause, dates, own);
    } else if (dates && before && clause.joined && !clause.weekdays.length && !clause.times && !before.dates.length) {
      const weekday = onlyWeekday(before);
      if (weekday !== undefined && isList(dates, before.repeats)) {
        name(before, dates, weekday);
        continue;
      }
    }
    kept.push(clause);
  }
  return kept;
}

function name(clause: Clause, dates: readonly SaidDate[], weekday: number): void {
  clause.dates = dates.map((date) => (date.weekday === undefined ? { ...date, weekday } : date));
  clause.weekdays = [];
  clause.repeats = false;
}
