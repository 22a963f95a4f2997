/**
 * The slow twin of the expansion: asks each day in turn whether RFC 5545 3.3.10 names it. Shares no code with it but
 * the civil calendar.
 */
import { daysInMonth, weekdayOf, ymdOf } from '@/core/day/day';
import type { ByDay, Rule, RecurrencePart } from '@/core/recurrence/model';

function monthsApart(a: number, b: number): number {
  const [x, y] = [ymdOf(a), ymdOf(b)];
  return (y.year - x.year) * 12 + y.month - x.month;
}

function inRightPeriod(rule: Rule, start: number, day: number): boolean {
  switch (rule.freq) {
    case 'daily':
      return (day - start) % rule.interval === 0;
    case 'weekly': {
      let monday = start;
      while (weekdayOf(monday) !== rule.weekStart) monday--;
      return Math.floor((day - monday) / 7) % rule.interval === 0;
    }
    case 'monthly':
      return monthsApart(start, day) % rule.interval === 0;
    default:
      return (ymdOf(day).year - ymdOf(start).year) % rule.interval === 0;
  }
}

function nthInSpan(day: number, same: (other: number) => boolean): { fromStart: number; fromEnd: number } {
  let fromStart = 1;
  for (let d = day - 7; same(d); d -= 7) fromStart++;
  let fromEnd = -1;
  for (let d = day + 7; same(d); d += 7) fromEnd--;
  return { fromStart, fromEnd };
}

function weekdayFits(rule: Rule, byDay: ByDay[], day: number): boolean {
  const { year, month } = ymdOf(day);
  const wholeYear = rule.freq === 'yearly' && !rule.byMonth.length;
  const same = (other: number): boolean => ymdOf(other).year === year && (wholeYear || ymdOf(other).month === month);
  const { fromStart, fromEnd } = nthInSpan(day, same);
  return byDay.some((d) => d.weekday === weekdayOf(day) && (d.nth === 0 || d.nth === fromStart || d.nth === fromEnd));
}

function names(rule: Rule, start: number, day: number): boolean {
  if (!inRightPeriod(rule, start, day)) return false;
  const { year, month, day: d } = ymdOf(day);
  const first = ymdOf(start);
  if (rule.byMonth.length && !rule.byMonth.includes(month)) return false;
  if (rule.byMonthDay.length && !rule.byMonthDay.some((n) => n === d || daysInMonth(year, month) + n + 1 === d)) return false;
  if (rule.byDay.length && !weekdayFits(rule, rule.byDay, day)) return false;
  if (rule.byDay.length || rule.byMonthDay.length) return true;
  if (rule.freq === 'weekly') return weekdayOf(day) === weekdayOf(start);
  if (rule.freq === 'monthly') return d === first.day;
  if (rule.freq === 'yearly') return d === first.day && (rule.byMonth.length > 0 || month === first.month);
  return true;
}

/** The days of a part from its start to `to`; `exists` says whether the wall time of a day exists. */
export function slowDays(recurrencePart: RecurrencePart, to: number, exists: (day: number) => boolean = () => true): number[] {
  const { rule, limit, start } = recurrencePart;
  const days: number[] = [];
  for (let day = start.day; day <= to; day++) {
    if (limit.kind === 'until' && day > limit.day) break;
    if (limit.kind === 'count' && days.length >= limit.count) break;
    if (day === start.day || (rule && names(rule, start.day, day) && exists(day))) days.push(day);
  }
  return limit.kind === 'until' && limit.day < start.day ? [] : days;
}
