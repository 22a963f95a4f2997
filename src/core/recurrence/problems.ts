/** What is wrong, or worth a look, in a recurrence, with what would be right. Days and minutes as in the model. */
import type { Day } from '../day/day';
import { wallToInstant } from '../day/zone';
import { firstFittingDay, gapDaysOfStretch, startFits } from './days';
import { startsBetween } from './expand';
import type { Recurrence, Stretch } from './model';
import { firstNamed, hasTimes, SECONDS_OF_DAY, startsOfRule } from './sub-daily';

export type RecurrenceProblem =
  | { kind: 'end-before-start'; stretch: number }
  | { kind: 'never'; stretch: number }
  | { kind: 'limit-before-start'; stretch: number }
  /** the rule does not name its first start; `fits` is the first day it does name */
  | { kind: 'start-not-in-rule'; stretch: number; fits: Day }
  /** a single date or first start inside a gap of the zone, read `minutes` later */
  | { kind: 'start-in-gap'; stretch: number; minutes: number }
  | { kind: 'dates-in-gap'; stretch: number; days: Day[] }
  | { kind: 'no-dates' }
  /** more dates a day than a listing may have */
  | { kind: 'too-dense'; stretch: number }
  | { kind: 'break-reversed'; index: number };

/** So many dates a day at most, over a week from a rule's first: a tour each half hour all around the clock. */
const MOST_A_DAY = 48;
export const TOO_DENSE = `A listing has at most ${MOST_A_DAY} dates a day; say the hours at which it begins, or that it lasts all day.`;

/** Does a rule with times of its own give more dates than a listing can show? */
export function isTooDense({ start, rule, limit }: Stretch): boolean {
  if (!rule || start.minute === null || !hasTimes(rule)) return false;
  const input = { rule, limit, zone: 'UTC', start: start.day * SECONDS_OF_DAY + start.minute * 60 };
  const first = firstNamed(input, start.day);
  if (first === undefined) return false;
  const day = Math.floor(first / SECONDS_OF_DAY);
  return startsOfRule(input, day, day + 6, MOST_A_DAY * 7).cut;
}

/** Does this length end before (or when) it starts? A length of null is open and never does. */
export function endsBeforeStart({ start, length }: Stretch): boolean {
  if (!length) return false;
  if (start.minute === null) return length.days < 1;
  return length.days < 0 || (length.days === 0 && (length.minute ?? 0) <= start.minute);
}

/** The problems of a recurrence, looking ahead as far as `horizon` (a day). */
export function problemsOf(recurrence: Recurrence, horizon: Day): RecurrenceProblem[] {
  const found: RecurrenceProblem[] = [];
  recurrence.stretches.forEach((stretch, index) => {
    found.push(...stretchProblems(stretch, index, recurrence.zone, horizon));
  });
  recurrence.breaks.forEach((b, index) => {
    if (b.to < b.from) found.push({ kind: 'break-reversed', index });
  });
  const first = Math.min(...recurrence.stretches.map((s) => s.start.day));
  const known = found.some((p) => p.kind === 'never' || p.kind === 'limit-before-start');
  if (!known && !startsBetween(recurrence, first, Math.max(horizon, first)).length) found.push({ kind: 'no-dates' });
  return found;
}

function stretchProblems(stretch: Stretch, index: number, zone: string, horizon: Day): RecurrenceProblem[] {
  const found: RecurrenceProblem[] = [];
  const { rule, start, limit } = stretch;
  if (endsBeforeStart(stretch)) found.push({ kind: 'end-before-start', stretch: index });
  if (start.minute !== null) {
    const instant = wallToInstant(zone, start);
    if (instant.kind === 'gap') found.push({ kind: 'start-in-gap', stretch: index, minutes: instant.minutes });
  }
  if (!rule) return found;
  if (limit.kind === 'until' && limit.day < start.day) {
    found.push({ kind: 'limit-before-start', stretch: index });
    return found;
  }
  if (isTooDense(stretch)) return [...found, { kind: 'too-dense', stretch: index }];
  if (!startFits(stretch)) {
    const fits = firstFittingDay(stretch);
    if (fits === undefined) {
      found.push({ kind: 'never', stretch: index });
      return found;
    }
    found.push({ kind: 'start-not-in-rule', stretch: index, fits });
  }
  const days = gapDaysOfStretch(stretch, zone, start.day, horizon);
  if (days.length) found.push({ kind: 'dates-in-gap', stretch: index, days });
  return found;
}
