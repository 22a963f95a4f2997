/** Months said without a year beside a rule that goes on: they come back every year. */
import { ymdOf, type EpochDay } from '../../day/day';
import { MONTHS } from '../format';
import type { Rule } from '../../recurrence/model';
import type { Clause, Place } from './clause-state';
import { isSpan, monthsOf, type SaidDate, type SaidSpan } from './calendar-dates';

const ALL = Array.from({ length: 12 }, (_, i) => i + 1);

/** `March`, without a year, and not its beginning or end. */
const isEveryYears = ({ meaning, edge }: SaidDate): boolean => meaning.kind === 'month' && meaning.year === undefined && edge === undefined;

/** Is it a month, or a span of months, of no year? */
export const isOfEveryYear = (one: SaidDate | SaidSpan): boolean =>
  isSpan(one) ? isEveryYears(one.from) && isEveryYears(one.to) : isEveryYears(one);

const numbers = (list: readonly (SaidDate | SaidSpan)[]): number[] =>
  list.flatMap((one) => (isSpan(one) ? monthsOf(one) : one.meaning.kind === 'month' ? [one.meaning.month] : []));

/** The months in which a clause's rule holds, when they are of every year, and the clause without them. */
export function monthsOfEveryYear(clause: Clause): { months: number[]; said: (SaidDate | SaidSpan)[]; rest: Clause } | undefined {
  const { start, until, months, yearly } = clause;
  if (yearly) return undefined;
  if (months.length && months.every(isOfEveryYear)) return { months: numbers(months), said: months, rest: { ...clause, months: [] } };
  if (!start || !until || !isEveryYears(start) || !isEveryYears(until)) return undefined;
  const span = { from: start, to: until };
  const { start: _from, until: _to, ...rest } = clause;
  return { months: monthsOf(span), said: [span], rest };
}

/** A rule in some months only; the months that it has already stay a bound. */
export function inMonthsOnly(rule: Rule, months: readonly number[]): Rule {
  const now = rule.byMonth.length ? rule.byMonth : ALL;
  const kept = now.filter((m) => months.includes(m));
  return { ...rule, byMonth: kept.length === 12 ? [] : [...new Set(kept)].sort((a, b) => a - b) };
}

/** All months but some. */
export const monthsBut = (list: readonly (SaidDate | SaidSpan)[], more: readonly number[] = []): number[] => {
  const gone = new Set([...numbers(list), ...more]);
  return ALL.filter((m) => !gone.has(m));
};

/** `September 2027 to May 2028`: the same months, the next time only. */
export function onlyOnce(one: SaidDate | SaidSpan, today: EpochDay): { place: Place; instead: string; year: number } | undefined {
  const [from, to] = isSpan(one) ? [one.from, one.to] : [one, one];
  if (from.meaning.kind !== 'month' || to.meaning.kind !== 'month') return undefined;
  const { year, month } = ymdOf(today);
  const [first, last] = [from.meaning.month, to.meaning.month];
  // Of a span that is running, this one.
  const over = first <= last && last < month;
  const y = over ? year + 1 : year;
  const name = (m: number): string => MONTHS[m - 1] ?? '';
  const place = { from: from.from, to: to.to };
  if (!isSpan(one)) return { place, instead: `${name(first)} ${y}`, year: y };
  return {
    place,
    instead: first <= last ? `${name(first)} to ${name(last)} ${y}` : `${name(first)} ${y} to ${name(last)} ${y + 1}`,
    year: y,
  };
}
