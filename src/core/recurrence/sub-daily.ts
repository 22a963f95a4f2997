/**
 * The starts of one rule with times of day: any frequency, BYHOUR, BYMINUTE, BYSECOND. A local second is
 * `day × 86,400 + second of the day` by the wall clock, without a zone (the wall clock's day always has so many).
 * Only the days in the window are looked at; shorter periods are aligned to the first start by arithmetic.
 * Semantics: RFC 5545 3.3.10; wall times that the zone skips are no dates and are not counted, one that it has twice is one.
 */
import { type EpochDay, dayOf, monthNumberOf, firstDayOfMonth, ymdOf } from '../day/day';
import { gapsBetween, type LocalGap } from '../day/zone';
import { Budget } from './budget';
import type { Frequency, Limit, Rule } from './model';
import { atPositions, dayHolds, inSeasons, keepSeasons, namedDays, type Pattern, patternOf, periodOf } from './periods';

/** Seconds since 1970-01-01T00:00 by a zone's wall clock. */
export type LocalSecond = number;
/** Seconds on the wall clock's face in one day; says nothing of how long a day lasts. */
export const SECONDS_OF_DAY = 86_400;
const UNITS = { hourly: 3600, minutely: 60, secondly: 1 } as const;
type ShortFrequency = keyof typeof UNITS;
/** The civil calendar repeats after 400 years (146,097 days): a rule without a date in so long has none. */
export const CYCLE_DAYS = 146_097;
const LAST_DAY = dayOf(9999, 12, 31);

/** A rule with its first start, limit and zone, in local seconds. */
export interface RuleStart {
  rule: Rule;
  /** the first start; counts as a date whether the rule names it or not */
  start: LocalSecond;
  limit: Limit;
  zone: string;
}

/** The starts in a window, and whether there are more than were asked for. */
export interface Starts {
  seconds: LocalSecond[];
  /** more lie in the window than were asked for */
  cut: boolean;
}

/** Does a rule give times of its own, so that days alone do not tell its dates? */
export function hasTimes({ freq, byHour, byMinute, bySecond }: Rule): boolean {
  return isShort(freq) || byHour !== undefined || byMinute !== undefined || bySecond !== undefined;
}

const isShort = (freq: Frequency): freq is ShortFrequency => freq in UNITS;
const daysIn = (second: LocalSecond): EpochDay => Math.floor(second / SECONDS_OF_DAY);

/** The starts on the days from `from` to `to`, both included, ascending, at most `most` of them. */
export function startsOfRule(input: RuleStart, from: EpochDay, to: EpochDay, most: number, budget = new Budget()): Starts {
  const { start, limit, zone } = input;
  const bound =
    limit.kind === 'until' ? untilBound(limit) : limit.kind === 'count' ? lastCounted(input, limit.count, to, budget) : Infinity;
  const seconds: LocalSecond[] = [];
  const add = (second: LocalSecond): boolean => {
    seconds.push(second);
    return seconds.length <= most;
  };
  if (bound < start) return { seconds, cut: false };
  if (daysIn(start) >= from && daysIn(start) <= to) add(start);
  const gaps = gapSeconds(zone, Math.max(from, daysIn(start)), to);
  walk({ ...input, budget }, Math.max(from, daysIn(start)), Math.min(to, LAST_DAY), (second) => {
    if (second > bound) return false;
    return second <= start || inGaps(gaps, second) ? true : add(second);
  });
  const cut = seconds.length > most;
  if (cut) seconds.length = most;
  return { seconds, cut };
}

/**
 * The rule's own first start on the days from `from` to `to` (a calendar cycle on, unless it is given), not before the given one;
 * undefined when there is none. @throws TooMuch
 */
export function firstNamed(input: RuleStart, from: EpochDay, to = from + CYCLE_DAYS, budget = new Budget()): LocalSecond | undefined {
  let found: LocalSecond | undefined;
  walk({ ...input, budget }, Math.max(from, daysIn(input.start)), Math.min(to, LAST_DAY), (second) => {
    if (second < input.start) return true;
    found = second;
    return false;
  });
  return found;
}

function untilBound(limit: { day: EpochDay; second?: number }): LocalSecond {
  return limit.day * SECONDS_OF_DAY + (limit.second ?? SECONDS_OF_DAY - 1);
}

/** The last date of COUNT: one walk from the start, as far as the day `to`, after which nobody asks; it ends early when nothing comes for a whole cycle. */
function lastCounted(input: RuleStart, count: number, to: EpochDay, budget: Budget): LocalSecond {
  let rest = count - 1;
  let last = input.start;
  if (rest <= 0) return last;
  let gaps: LocalGap[] = [];
  let known = -1;
  for (let from = daysIn(input.start); from <= Math.min(to, LAST_DAY); from += CYCLE_DAYS) {
    const before = rest;
    walk({ ...input, budget }, from, Math.min(from + CYCLE_DAYS - 1, to, LAST_DAY), (second) => {
      if (second <= input.start) return true;
      // The zone's gaps are asked for a decade at a time.
      if (second > known) {
        const day = daysIn(second);
        gaps = gapSeconds(input.zone, day, day + 3653);
        known = (day + 3653) * SECONDS_OF_DAY;
      }
      if (inGaps(gaps, second)) return true;
      last = second;
      return --rest > 0;
    });
    if (rest <= 0 || rest === before) return last;
  }
  return last;
}

function gapSeconds(zone: string, from: EpochDay, to: EpochDay): LocalGap[] {
  return zone === 'UTC' ? [] : gapsBetween(zone, from, to).map((gap) => ({ from: gap.from / 1000, to: gap.to / 1000 }));
}

const inGaps = (gaps: readonly LocalGap[], second: LocalSecond): boolean => gaps.some((gap) => second >= gap.from && second < gap.to);

/** A rule whose starts are looked for, and how much may be looked at. */
interface Walk extends RuleStart {
  budget: Budget;
}

/** Hands each start that the rule names on these days to `take`, ascending, until that says false. */
function walk(input: Walk, from: EpochDay, to: EpochDay, take: (second: LocalSecond) => boolean): void {
  if (from > to) return;
  if (isShort(input.rule.freq)) walkShort(input.rule.freq, input, from, to, take);
  else walkDays(input, from, to, take);
}

/** Rules of days and longer: the days of each period by the times of day. */
function walkDays({ rule, start, budget }: Walk, from: EpochDay, to: EpochDay, take: (second: LocalSecond) => boolean): void {
  const startDay = daysIn(start);
  const pattern: Pattern = patternOf(rule, startDay);
  budget.spend(countOf(rule));
  const times = timesOfDay(rule, start - startDay * SECONDS_OF_DAY);
  const end = Math.floor(periodOf(pattern, to) + 1e-9);
  const days: EpochDay[] = [];
  for (let k = Math.max(0, Math.floor(periodOf(pattern, from))); k <= end; k++) {
    days.length = 0;
    namedDays(pattern, k, days);
    if (rule.seasons) keepSeasons(rule.seasons, days);
    budget.spend(1 + days.length * times.length);
    let set: LocalSecond[] = days.flatMap((day) => times.map((time) => day * SECONDS_OF_DAY + time));
    if (rule.bySetPos) set = atPositions(set, rule.bySetPos);
    for (const second of set) {
      const day = daysIn(second);
      if (day > to) return;
      if (day >= from && !take(second)) return;
    }
  }
}

const ascending = (numbers: readonly number[]): number[] => [...new Set(numbers)].sort((a, b) => a - b);
/** A leap second has no place on the wall clock here: second 60 names no date. */
const seconds = (list: readonly number[]): number[] => ascending(list).filter((second) => second < 60);

/** How many times of day a rule's time parts name, at most. */
const countOf = ({ byHour, byMinute, bySecond }: Rule): number =>
  [byHour, byMinute, bySecond].reduce((n, list) => n * (list?.length ?? 1), 1);

/** The seconds of the day that a rule's time parts name; what they leave open comes from the first start. */
function timesOfDay({ byHour, byMinute, bySecond }: Rule, startSecond: number): number[] {
  const hours = byHour ? ascending(byHour) : [Math.floor(startSecond / 3600)];
  const minutes = byMinute ? ascending(byMinute) : [Math.floor((startSecond % 3600) / 60)];
  const rest = bySecond ? seconds(bySecond) : [startSecond % 60];
  return hours.flatMap((hour) => minutes.flatMap((minute) => rest.map((second) => hour * 3600 + minute * 60 + second)));
}

/** Rules of hours, minutes and seconds: on each day that holds, the periods that are in step with the first start. */
function walkShort(
  freq: ShortFrequency,
  { rule, start, budget }: Walk,
  from: EpochDay,
  to: EpochDay,
  take: (second: LocalSecond) => boolean,
): void {
  const unit = UNITS[freq];
  const { interval } = rule;
  const anchor = Math.floor(start / unit);
  const perDay = SECONDS_OF_DAY / unit;
  budget.spend(countOf(rule) + perDay);
  const starts = periodsOfDay(freq, rule);
  const offsets = withinPeriod(freq, rule, start);
  if (!offsets.length || !everInStep(starts, perDay, anchor, interval)) return;
  const steps: Steps = { starts, named: starts.length === perDay ? undefined : new Set(starts), perDay, anchor, interval };
  for (let day = from; day <= to; day++) {
    budget.spend();
    if (!dayHolds(rule, day) || (rule.seasons && !inSeasons(rule.seasons, day))) {
      day = skipMonths(rule, day);
      continue;
    }
    const periods = periodsInStep(steps, day * perDay);
    budget.spend(periods.length * offsets.length);
    for (const period of periods) {
      for (const offset of offsets) if (!take((day * perDay + period) * unit + offset)) return;
    }
  }
}

interface Steps {
  /** the periods of a day that the rule's parts name; `named` is the same as a set, or undefined when all are */
  starts: readonly number[];
  named: Set<number> | undefined;
  perDay: number;
  anchor: number;
  interval: number;
}

/**
 * The named periods of the day that begins with period `base`, in step with the first start. Where few are in step, they
 * are met one by one; else each that is named is asked.
 */
function periodsInStep({ starts, named, perDay, anchor, interval }: Steps, base: number): readonly number[] {
  if (interval === 1) return starts;
  if (perDay / interval >= starts.length) return starts.filter((period) => modulo(base + period - anchor, interval) === 0);
  const found: number[] = [];
  for (let period = modulo(anchor - base, interval); period < perDay; period += interval) {
    if (!named || named.has(period)) found.push(period);
  }
  return found;
}

const modulo = (n: number, by: number): number => ((n % by) + by) % by;

/** The periods of a day (its hours, minutes or seconds) that the rule's parts name, ascending. */
function periodsOfDay(freq: ShortFrequency, { byHour, byMinute, bySecond }: Rule): number[] {
  const every = (n: number): number[] => Array.from({ length: n }, (_, i) => i);
  const hours = byHour ? ascending(byHour) : every(24);
  if (freq === 'hourly') return hours;
  const minutes = byMinute ? ascending(byMinute) : every(60);
  const inMinutes = hours.flatMap((hour) => minutes.map((minute) => hour * 60 + minute));
  if (freq === 'minutely') return inMinutes;
  const rest = bySecond ? seconds(bySecond) : every(60);
  return inMinutes.flatMap((minute) => rest.map((second) => minute * 60 + second));
}

/** The seconds after each period's begin at which dates start, chosen by BYSETPOS. */
function withinPeriod(freq: ShortFrequency, { byMinute, bySecond, bySetPos }: Rule, start: LocalSecond): number[] {
  const rest = bySecond ? seconds(bySecond) : [modulo(start, 60)];
  let offsets = [0];
  if (freq === 'minutely') offsets = rest;
  else if (freq === 'hourly') {
    const minutes = byMinute ? ascending(byMinute) : [Math.floor(modulo(start, 3600) / 60)];
    offsets = minutes.flatMap((minute) => rest.map((second) => minute * 60 + second));
  }
  return bySetPos ? atPositions(offsets, bySetPos) : offsets;
}

/** Can any period of the day ever be in step? Steps and days share a divisor, and every day begins on a multiple of it. */
function everInStep(starts: readonly number[], perDay: number, anchor: number, interval: number): boolean {
  const divisor = greatestDivisor(perDay, interval);
  const at = modulo(anchor, divisor);
  return starts.some((period) => period % divisor === at);
}

function greatestDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestDivisor(b, a % b);
}

/** The day before the next month that BYMONTH names, when this one is not named: months without dates cost one look. */
function skipMonths(rule: Rule, day: EpochDay): EpochDay {
  if (!rule.byMonth.length) return day;
  const { month } = ymdOf(day);
  if (rule.byMonth.includes(month)) return day;
  return firstDayOfMonth(monthNumberOf(day) + 1) - 1;
}
