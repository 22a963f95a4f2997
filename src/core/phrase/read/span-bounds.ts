/** A span of named days beside a rule is its first and its last day, in whatever order the two are said. */
import type { Clause } from './clause-state';
import { isSpan, type SaidDate, type SaidSpan } from './calendar-dates';

const repeats = (c: Clause): boolean =>
  (c.every !== undefined && c.every.unit !== 'year') || c.repeats || c.nths.length + c.monthDays.length + c.workdays.length > 0;

/** The one span that a clause names, where nothing else bounds it: not `Tuesdays and also 3 to 5 May`. */
function onlySpan(c: Clause): SaidSpan | undefined {
  const [span] = c.dates;
  if (c.dates.length !== 1 || !span || !isSpan(span) || c.extra) return undefined;
  return unbounded(c) ? span : undefined;
}

const unbounded = (c: Clause): boolean => !(c.start ?? c.until ?? c.yearly ?? c.rule) && !c.seasons.length && !c.months.length;

/** Longer than a week: a weekday beside it, even in the singular, comes several times. */
function isLong({ from, to }: SaidSpan): boolean {
  const at = ({ meaning }: SaidDate): number | undefined => (meaning.kind === 'day' ? meaning.month * 31 + meaning.day : undefined);
  const [first, last] = [at(from), at(to)];
  return first === undefined || last === undefined || last < first || last - first > 6;
}

const bounded = (c: Clause, span: SaidSpan): boolean => repeats(c) || (c.weekdays.length > 0 && (c.weekdaySpan || isLong(span)));

function bind(c: Clause, { from, to }: SaidSpan): void {
  c.start = from;
  c.until = to;
  if (c.weekdays.length) c.repeats = true;
  c.weekdaySpan = false;
}

/**
 * Clauses with their spans as bounds: `Fridays 18:00, 7 May to 25 June`, where the span stands in a clause of its own behind the times, and
 * `7 May to 25 June, Fridays 18:00`. A span with times of its own stays dates: `Tuesdays 19:00, 3 to 5 May 10:00`.
 */
export function boundBySpans(clauses: readonly Clause[]): Clause[] {
  const kept: Clause[] = [];
  for (const clause of clauses) {
    const span = onlySpan(clause);
    const before = kept.at(-1);
    if (span && bounded(clause, span)) {
      bind(clause, span);
      clause.dates = [];
    } else if (span && before && clause.joined && !clause.weekdays.length && !(clause.times && before.times)) {
      if (!before.dates.length && unbounded(before) && bounded(before, span)) {
        bind(before, span);
        take(before, clause);
        continue;
      }
    }
    kept.push(clause);
  }
  return kept;
}

/** What was said behind the span goes for the rule before it. */
function take(rule: Clause, { times, length, lasting, count, daysLater, allDay }: Clause): void {
  rule.times ??= times;
  rule.length ??= length;
  rule.lasting ??= lasting;
  rule.count ??= count;
  rule.daysLater ??= daysLater;
  rule.allDay ||= allDay;
}
