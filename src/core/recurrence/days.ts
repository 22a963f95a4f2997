/**
 * The days of a part inside a window. The cost is that of the periods in the window; COUNT is turned into a last
 * day by arithmetic where each period has the same number of days, else by walking its periods once.
 */
import { type EpochDay, dayOf } from '../day/day';
import { gapsBetween, type LocalGap, MS_PER_MINUTE, MS_PER_UTC_DAY } from '../day/zone';
import { Budget, within } from './budget';
import type { ByDay, Frequency, Rule, RecurrencePart } from './model';
import { daysOfPeriod, type Pattern, patternOf, periodOf } from './periods';
import { CYCLE_DAYS, firstNamed, hasTimes, type RuleStart, SECONDS_OF_DAY } from './sub-daily';

/** The civil calendar repeats after 400 years: a rule without a day in so long has none. */
const CYCLE_YEARS = 400;
const LAST_DAY = dayOf(9999, 12, 31);

/** What looking at one period costs, in days looked at: years are worked out whole where weekdays or weeks choose in them. */
function weightOf({ rule, weekdays }: Pattern): number {
  if (rule.freq === 'monthly') return 4;
  if (rule.freq !== 'yearly') return 1;
  return weekdays.length || rule.byWeekNo || rule.byYearDay ? 200 : 10;
}

/** The days on which a part's dates start, from `from` to `to`, both included, ascending; gaps of the zone taken out. */
export function daysOfPart(recurrencePart: RecurrencePart, zone: string, from: EpochDay, to: EpochDay, budget = new Budget()): EpochDay[] {
  const start = recurrencePart.start.day;
  const { rule } = recurrencePart;
  if (rule === null) return start >= from && start <= to ? [start] : [];
  const pattern = patternOf(rule, start);
  const last = Math.min(to, lastDayOf(recurrencePart, pattern, zone, to, budget), LAST_DAY);
  if (last < from || last < start) return [];
  const days: EpochDay[] = [];
  // A first start that its rule does not name is a date all the same (RFC 5545 3.8.5.3).
  if (start >= from) days.push(start);
  let k = Math.ceil(periodOf(pattern, Math.max(from, start)) - 1e-9);
  const end = Math.floor(periodOf(pattern, last) + 1e-9);
  budget.spend(Math.max(0, end - k) * weightOf(pattern));
  for (; k <= end; k++) daysOfPeriod(pattern, k, days);
  const inside = start >= from ? keepFrom(days, start, last) : keepRange(days, from, last, start);
  return withoutGaps(recurrencePart, zone, inside);
}

function keepFrom(days: EpochDay[], start: EpochDay, last: EpochDay): EpochDay[] {
  const kept = [start];
  for (let i = 1; i < days.length; i++) {
    const day = days[i] as EpochDay;
    if (day > start && day <= last) kept.push(day);
  }
  return kept;
}

function keepRange(days: EpochDay[], from: EpochDay, last: EpochDay, start: EpochDay): EpochDay[] {
  const low = Math.max(from, start + 1);
  const inside = days.length === 0 || ((days[0] as EpochDay) >= low && (days[days.length - 1] as EpochDay) <= last);
  return inside ? days : days.filter((day) => day >= low && day <= last);
}

/** RFC 5545 3.3.10: an instance whose wall time does not exist is ignored; the first start follows 3.3.5 and stays. */
function withoutGaps(recurrencePart: RecurrencePart, zone: string, days: EpochDay[]): EpochDay[] {
  const { minute, day: start } = recurrencePart.start;
  const first = days[0];
  const last = days[days.length - 1];
  if (minute === null || first === undefined || last === undefined) return days;
  const gaps = gapsBetween(zone, first, last);
  if (!gaps.length) return days;
  return days.filter((day) => day === start || !inGap(gaps, day, minute));
}

function inGap(gaps: LocalGap[], day: EpochDay, minute: number): boolean {
  const local = day * MS_PER_UTC_DAY + minute * MS_PER_MINUTE;
  return gaps.some((gap) => local >= gap.from && local < gap.to);
}

/** The days that a rule names but whose wall time the zone leaves out, between two days: no dates, and worth saying. */
export function gapDaysOfPart(
  recurrencePart: RecurrencePart,
  zone: string,
  from: EpochDay,
  to: EpochDay,
  budget = new Budget(),
): EpochDay[] {
  const { minute } = recurrencePart.start;
  if (minute === null || !recurrencePart.rule) return [];
  const named = daysOfPart(recurrencePart, 'UTC', from, to, budget);
  const gaps = gapsBetween(zone, from, to);
  return named.filter((day) => day !== recurrencePart.start.day && inGap(gaps, day, minute));
}

/** The day after which a part has no date, by its limit; where that lies after `to`, any later day, since nobody asks how much later. */
function lastDayOf(recurrencePart: RecurrencePart, pattern: Pattern, zone: string, to: EpochDay, budget: Budget): EpochDay {
  const { limit } = recurrencePart;
  if (limit.kind === 'open') return LAST_DAY;
  if (limit.kind === 'until') return limit.day;
  return lastCountedDay({ recurrencePart, pattern, zone, to, budget }, limit.count);
}

interface Counting {
  recurrencePart: RecurrencePart;
  pattern: Pattern;
  zone: string;
  to: EpochDay;
  budget: Budget;
}

function lastCountedDay({ recurrencePart, pattern, zone, to, budget }: Counting, count: number): EpochDay {
  const { minute, day: start } = recurrencePart.start;
  let wanted = count;
  let last = nthDay(pattern, wanted, to, budget);
  if (minute === null || zone === 'UTC') return last;
  // Days in a gap are not counted, so each moves the end on by one; a year has no more than a few.
  for (let round = 0; round < 64 && last <= to; round++) {
    const lost = gapsBetween(zone, start, last).filter((gap) => {
      const day = Math.floor(gap.from / MS_PER_UTC_DAY);
      for (let d = day; d * MS_PER_UTC_DAY < gap.to; d++) {
        if (d > start && d <= last && inGap([gap], d, minute) && holds(pattern, d)) return true;
      }
      return false;
    }).length;
    if (count + lost === wanted) return last;
    wanted = count + lost;
    last = nthDay(pattern, wanted, to, budget);
  }
  return last;
}

/** Does the rule itself name this day? */
export function holds(pattern: Pattern, day: EpochDay): boolean {
  const at = periodOf(pattern, day);
  const k = Math.round(at);
  if (k < 0 || Math.abs(at - k) > 1e-9) return false;
  const days: EpochDay[] = [];
  daysOfPeriod(pattern, k, days);
  return days.includes(day);
}

/** The day of the nth date of a rule (1 = the first start, whether the rule names it or not); any later day where that lies after `to`. */
function nthDay(pattern: Pattern, n: number, to: EpochDay, budget: Budget): EpochDay {
  const { startDay } = pattern;
  if (n <= 1) return startDay;
  const first: EpochDay[] = [];
  daysOfPeriod(pattern, 0, first);
  let passed = 0;
  while (passed < first.length && (first[passed] as EpochDay) <= startDay) passed++;
  let rest = n - 1;
  if (rest <= first.length - passed) return first[passed + rest - 1] as EpochDay;
  rest -= first.length - passed;
  const perPeriod = constantDays(pattern);
  if (perPeriod !== null) {
    const days: EpochDay[] = [];
    daysOfPeriod(pattern, Math.ceil(rest / perPeriod), days);
    return days[(rest - 1) % perPeriod] ?? LAST_DAY;
  }
  return walkTo(pattern, rest, to, budget);
}

/** How many days every period has, when that is always the same; null when it varies. */
function constantDays(pattern: Pattern): number | null {
  const { rule, months, monthDays, weekdays } = pattern;
  if (rule.bySetPos || rule.seasons || rule.byYearDay || rule.byWeekNo) return null;
  switch (rule.freq) {
    case 'weekly':
      return rule.byMonth.length ? null : pattern.weekOffsets.length;
    case 'monthly':
      return months.length ? null : constantInMonth(pattern);
    case 'yearly':
      if (months.length) return multiply(constantInMonth(pattern), new Set(months).size);
      return monthDays.length ? multiply(constantInMonth(pattern), 12) : constantWeekdays(weekdays);
    default:
      return rule.byDay.length || rule.byMonth.length || rule.byMonthDay.length ? null : 1;
  }
}

function constantInMonth({ monthDays, weekdays }: Pattern): number | null {
  if (monthDays.length && weekdays.length) return null;
  return monthDays.length ? constantMonthDays(monthDays) : constantWeekdays(weekdays);
}

/** Days 1 to 28 are in every month; counted from both ends, two could be the same day. */
function constantMonthDays(monthDays: number[]): number | null {
  const oneSign = monthDays.every((n) => n > 0) || monthDays.every((n) => n < 0);
  return oneSign && monthDays.every((n) => Math.abs(n) <= 28) ? new Set(monthDays).size : null;
}

function constantWeekdays(weekdays: ByDay[]): number | null {
  const fixed = weekdays.every((d) => d.nth !== 0 && Math.abs(d.nth) <= 4);
  const oneSign = weekdays.every((d) => d.nth > 0) || weekdays.every((d) => d.nth < 0);
  return fixed && oneSign ? new Set(weekdays.map((d) => d.weekday * 100 + d.nth)).size : null;
}

/** At most so many; rules shorter than a day do not come here but for their days. */
const periodsPerYear = (freq: Frequency): number =>
  (({ weekly: 53, monthly: 12, yearly: 1 }) as Partial<Record<Frequency, number>>)[freq] ?? 366;

const multiply = (n: number | null, by: number): number | null => (n === null ? null : n * by);

function walkTo(pattern: Pattern, wanted: number, to: EpochDay, budget: Budget): EpochDay {
  const { freq, interval } = pattern.rule;
  const perYear = periodsPerYear(freq);
  // So many periods without a single day mean that there is none at all.
  const cap = Math.ceil((CYCLE_YEARS * perYear) / interval) * Math.min(interval, 7);
  let rest = wanted;
  let empty = 0;
  const days: EpochDay[] = [];
  for (let k = 1; empty <= cap; k++) {
    budget.spend(weightOf(pattern));
    days.length = 0;
    daysOfPeriod(pattern, k, days);
    if ((days[0] ?? -Infinity) > to) return LAST_DAY;
    if (days.length >= rest) return days[rest - 1] as EpochDay;
    rest -= days.length;
    empty = days.length ? 0 : empty + 1;
  }
  return LAST_DAY;
}

/** Does the rule name its own first start? False too where that takes too long to say. */
export function startFits(recurrencePart: RecurrencePart): boolean {
  const { rule, start } = recurrencePart;
  if (!rule) return true;
  const { minute, day } = start;
  if (minute === null || !hasTimes(rule)) return holds(patternOf(rule, day), day);
  const first = within(() => firstNamed(secondsOf(recurrencePart, rule, minute), day, day));
  return first === day * SECONDS_OF_DAY + minute * 60;
}

function secondsOf({ start, limit }: RecurrencePart, rule: Rule, minute: number): RuleStart {
  return { rule, limit, zone: 'UTC', start: start.day * SECONDS_OF_DAY + minute * 60 };
}

/** The first day on or after its start that a rule names, at most one calendar cycle ahead; undefined when none is found. */
export function firstFittingDay(recurrencePart: RecurrencePart): EpochDay | undefined {
  return within(() => findFittingDay(recurrencePart, new Budget()));
}

/** The same within a budget that other questions share. @throws TooMuch */
export function findFittingDay(recurrencePart: RecurrencePart, budget: Budget): EpochDay | undefined {
  const { rule, start } = recurrencePart;
  if (!rule) return start.day;
  if (start.minute !== null && hasTimes(rule)) {
    const second = firstNamed(secondsOf(recurrencePart, rule, start.minute), start.day, start.day + CYCLE_DAYS, budget);
    return second === undefined ? undefined : Math.floor(second / SECONDS_OF_DAY);
  }
  const pattern = patternOf(rule, start.day);
  const cap = Math.ceil((CYCLE_YEARS * periodsPerYear(rule.freq)) / rule.interval) + 1;
  const days: EpochDay[] = [];
  for (let k = 0; k <= cap; k++) {
    budget.spend(weightOf(pattern));
    daysOfPeriod(pattern, k, days);
    const found = days.find((day) => day >= start.day);
    if (found !== undefined) return found > LAST_DAY ? undefined : found;
    days.length = 0;
  }
  return undefined;
}
