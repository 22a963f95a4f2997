/** What is wrong, or worth a look, in a recurrence, with what would be right. Days and minutes as in the model. */
import type { EpochDay } from '../day/day';
import { dateTimeToInstant } from '../day/zone';
import { Budget, TooMuch, within } from './budget';
import { daysOfPart, findFittingDay, gapDaysOfPart, startFits } from './days';
import { startsWithin } from './expand';
import type { Recurrence, RecurrencePart } from './model';
import { SUN_LOOKS, sunMinute } from './sun-start';
import { firstNamed, hasTimes, SECONDS_OF_DAY, startsOfRule } from './sub-daily';

/** What is wrong with a recurrence, or worth asking. */
export type RecurrenceProblem =
  | { kind: 'end-before-start'; recurrencePart: number }
  | { kind: 'never'; recurrencePart: number }
  | { kind: 'limit-before-start'; recurrencePart: number }
  /** the rule does not name its first start; `fits` is the first day it does name */
  | { kind: 'start-not-in-rule'; recurrencePart: number; fits: EpochDay }
  /** a single date or first start inside a gap of the zone, read `minutes` later */
  | { kind: 'start-in-gap'; recurrencePart: number; minutes: number }
  | { kind: 'dates-in-gap'; recurrencePart: number; days: EpochDay[] }
  /** days on which the sun does not rise or set, or the start would be on another day: no dates */
  | { kind: 'no-sun'; recurrencePart: number; days: EpochDay[] }
  /** by the sun it begins on these days at or after the time at which it ends */
  | { kind: 'sun-after-end'; recurrencePart: number; days: EpochDay[] }
  | { kind: 'no-dates' }
  /** it takes too long to find out which dates there are */
  | { kind: 'too-much' }
  /** more dates a day than a listing may have */
  | { kind: 'too-dense'; recurrencePart: number }
  | { kind: 'break-reversed'; index: number };

/** So many dates a day at most, over a week from a rule's first: a tour each half hour all around the clock. */
export const MOST_A_DAY = 48;
/** Said of a rule that would have more dates a day than a listing has. */
export const TOO_DENSE = `A listing has at most ${MOST_A_DAY} dates a day; say the hours at which it begins, or that it lasts all day.`;

/** Said of rules whose dates take too long to find. */
export const TOO_MUCH = 'It takes too long to work these dates out; begin later, or say the last day instead of how many times.';

/** A rule's first dates are looked for so many days on: longer than from one leap day to the next but one. */
const SOON_DAYS = 8 * 366;

/** Does a rule with times of its own give more dates than a listing can show? @throws TooMuch */
export function isTooDense({ start, rule, limit }: RecurrencePart, budget = new Budget()): boolean {
  if (!rule || start.minute === null || !hasTimes(rule)) return false;
  const input = { rule, limit, zone: 'UTC', start: start.day * SECONDS_OF_DAY + start.minute * 60 };
  const first = firstNamed(input, start.day, start.day + SOON_DAYS, budget);
  if (first === undefined) return false;
  const day = Math.floor(first / SECONDS_OF_DAY);
  return startsOfRule(input, day, day + 6, MOST_A_DAY * 7, budget).cut;
}

/** Why parts are not taken as they are, in words, with the index of the part; undefined when they are. */
export function whyNotTaken(parts: readonly RecurrencePart[]): { recurrencePart: number; reason: string } | undefined {
  const budget = new Budget();
  for (const [recurrencePart, part] of parts.entries()) {
    const dense = within(() => isTooDense(part, budget));
    if (dense !== false) return { recurrencePart, reason: dense ? TOO_DENSE : TOO_MUCH };
  }
  return undefined;
}

/** Does this length end before (or when) it starts? A length of null is open and never does. */
export function endsBeforeStart({ start, length }: RecurrencePart): boolean {
  if (!length) return false;
  if (start.minute === null) return length.days < 1;
  return length.days < 0 || (length.days === 0 && (length.minute ?? 0) <= start.minute);
}

/** The problems of a recurrence, looking ahead as far as `horizon` (a day). Nothing else is said of one that takes too long. */
export function problemsOf(recurrence: Recurrence, horizon: EpochDay): RecurrenceProblem[] {
  return within(() => findProblems(recurrence, horizon, new Budget())) ?? [{ kind: 'too-much' }];
}

function findProblems(recurrence: Recurrence, horizon: EpochDay, budget: Budget): RecurrenceProblem[] {
  const found: RecurrenceProblem[] = [];
  recurrence.parts.forEach((recurrencePart, index) => {
    found.push(...partProblems(recurrencePart, index, recurrence.zone, horizon, budget));
  });
  recurrence.breaks.forEach((b, index) => {
    if (b.to < b.from) found.push({ kind: 'break-reversed', index });
  });
  const first = Math.min(...recurrence.parts.map((s) => s.start.day));
  const known = found.some((p) => p.kind === 'never' || p.kind === 'limit-before-start');
  if (known) return found;
  const { starts, tooMuch } = startsWithin(recurrence, first, Math.max(horizon, first), budget);
  if (tooMuch) throw new TooMuch();
  if (!starts.length) found.push({ kind: 'no-dates' });
  return found;
}

function sunProblems(
  recurrencePart: RecurrencePart,
  index: number,
  { zone, horizon, budget }: { zone: string; horizon: EpochDay; budget: Budget },
): RecurrenceProblem[] {
  const { sun, length, start } = recurrencePart;
  if (!sun) return [];
  const days = daysOfPart(recurrencePart, 'UTC', start.day, Math.max(horizon, start.day), budget);
  budget.spend(days.length * SUN_LOOKS);
  const minutes = days.map((day) => ({ day, minute: sunMinute(sun, day, zone) }));
  const none = minutes.filter(({ minute }) => minute === undefined).map(({ day }) => day);
  const ends = length === null || sun.ends === 'length' ? Number.POSITIVE_INFINITY : length.days * 1440 + (length.minute ?? 0);
  const late = minutes.filter(({ minute }) => minute !== undefined && minute >= ends).map(({ day }) => day);
  return [
    ...(none.length ? [{ kind: 'no-sun' as const, recurrencePart: index, days: none }] : []),
    ...(late.length ? [{ kind: 'sun-after-end' as const, recurrencePart: index, days: late }] : []),
  ];
}

function partProblems(recurrencePart: RecurrencePart, index: number, zone: string, horizon: EpochDay, budget: Budget): RecurrenceProblem[] {
  const found: RecurrenceProblem[] = [];
  const { rule, start, limit } = recurrencePart;
  found.push(...sunProblems(recurrencePart, index, { zone, horizon, budget }));
  if (endsBeforeStart(recurrencePart) && recurrencePart.sun?.ends !== 'clock')
    found.push({ kind: 'end-before-start', recurrencePart: index });
  if (start.minute !== null && !recurrencePart.sun) {
    const instant = dateTimeToInstant(zone, start);
    if (instant.kind === 'gap') found.push({ kind: 'start-in-gap', recurrencePart: index, minutes: instant.minutes });
  }
  if (!rule) return found;
  if (limit.kind === 'until' && limit.day < start.day) {
    found.push({ kind: 'limit-before-start', recurrencePart: index });
    return found;
  }
  if (isTooDense(recurrencePart, budget)) return [...found, { kind: 'too-dense', recurrencePart: index }];
  if (!startFits(recurrencePart)) {
    const fits = findFittingDay(recurrencePart, budget);
    if (fits === undefined) {
      found.push({ kind: 'never', recurrencePart: index });
      return found;
    }
    found.push({ kind: 'start-not-in-rule', recurrencePart: index, fits });
  }
  if (recurrencePart.sun) return found;
  const days = gapDaysOfPart(recurrencePart, zone, start.day, horizon, budget);
  if (days.length) found.push({ kind: 'dates-in-gap', recurrencePart: index, days });
  return found;
}
