/**
 * The days of one rule, found by arithmetic on its periods (weeks, months, years), never by walking from its start.
 * Periods are numbered from the one that holds the first start (0). Semantics: RFC 5545 3.3.10, day-level parts.
 */
import { type Day, dayOf, daysInMonth, monthNumberOf, weekdayOf, weekStart, yearMonthOf, ymdOf } from '../day/day';
import type { ByDay, Rule } from './model';

/** A rule made ready for its first start: defaults filled in from it. */
export interface Pattern {
  rule: Rule;
  startDay: Day;
  /** first day of period 0 (week), month number (month), year (year) or the start itself (day) */
  anchor: number;
  weekdays: ByDay[];
  monthDays: number[];
  months: number[];
  /** weekdays as distances from the start of the week, ascending; weekly only */
  weekOffsets: number[];
}

export function patternOf(rule: Rule, startDay: Day): Pattern {
  const { freq, byMonth, byMonthDay, byDay } = rule;
  const pattern: Pattern = {
    rule,
    startDay,
    anchor: startDay,
    weekdays: byDay,
    monthDays: byMonthDay,
    months: byMonth,
    weekOffsets: [],
  };
  if (freq === 'weekly') {
    pattern.anchor = weekStart(startDay, rule.weekStart);
    const days = byDay.length ? byDay.map((d) => d.weekday) : [weekdayOf(startDay)];
    for (let offset = 0; offset < 7; offset++) {
      if (days.includes((rule.weekStart + offset) % 7)) pattern.weekOffsets.push(offset);
    }
  } else if (freq === 'monthly') {
    pattern.anchor = monthNumberOf(startDay);
    if (!byMonthDay.length && !byDay.length) pattern.monthDays = [ymdOf(startDay).day];
  } else if (freq === 'yearly') {
    const { year, month, day } = ymdOf(startDay);
    pattern.anchor = year;
    if (!byMonthDay.length && !byDay.length) {
      pattern.monthDays = [day];
      if (!byMonth.length) pattern.months = [month];
    }
  }
  return pattern;
}

/** The number of the period that holds a day; fractional where the interval skips that period. */
export function periodOf(pattern: Pattern, day: Day): number {
  const { rule, anchor } = pattern;
  let distance: number;
  if (rule.freq === 'daily') distance = day - anchor;
  else if (rule.freq === 'weekly') distance = Math.floor((day - anchor) / 7);
  else if (rule.freq === 'monthly') distance = monthNumberOf(day) - anchor;
  else distance = ymdOf(day).year - anchor;
  return distance / rule.interval;
}

/** Appends the days of period `k` to `out`, ascending, without looking at the first start or the limit. */
export function daysOfPeriod(pattern: Pattern, k: number, out: Day[]): void {
  const { rule, anchor } = pattern;
  const step = k * rule.interval;
  switch (rule.freq) {
    case 'daily': {
      const day = anchor + step;
      if (dailyHolds(pattern, day)) out.push(day);
      return;
    }
    case 'weekly': {
      const first = anchor + 7 * step;
      for (const offset of pattern.weekOffsets) {
        const day = first + offset;
        if (!rule.byMonth.length || rule.byMonth.includes(ymdOf(day).month)) out.push(day);
      }
      return;
    }
    case 'monthly':
      if (!pattern.months.length || pattern.months.includes(yearMonthOf(anchor + step).month)) {
        daysOfMonth(pattern, anchor + step, out);
      }
      return;
    case 'yearly':
      daysOfYear(pattern, anchor + step, out);
  }
}

function dailyHolds({ rule }: Pattern, day: Day): boolean {
  if (rule.byDay.length && !rule.byDay.some((d) => d.weekday === weekdayOf(day))) return false;
  if (!rule.byMonth.length && !rule.byMonthDay.length) return true;
  const { year, month, day: d } = ymdOf(day);
  if (rule.byMonth.length && !rule.byMonth.includes(month)) return false;
  const length = daysInMonth(year, month);
  return !rule.byMonthDay.length || rule.byMonthDay.some((n) => (n > 0 ? n : length + 1 + n) === d);
}

function daysOfMonth(pattern: Pattern, monthNumber: number, out: Day[]): void {
  const { weekdays, monthDays } = pattern;
  const { year, month } = yearMonthOf(monthNumber);
  const first = dayOf(year, month, 1);
  const length = daysInMonth(year, month);
  const base = out.length;
  if (monthDays.length) {
    for (const n of monthDays) {
      const d = n > 0 ? n : length + 1 + n;
      if (d < 1 || d > length) continue;
      // Both given: BYDAY limits what BYMONTHDAY names.
      if (weekdays.length && !nthWeekdaysHold(weekdays, first + d - 1, first, length)) continue;
      out.push(first + d - 1);
    }
  } else {
    pushNthWeekdays(weekdays, first, length, out);
  }
  if (monthDays.length + weekdays.length > 1) sortUnique(out, base);
}

function daysOfYear(pattern: Pattern, year: number, out: Day[]): void {
  const { months, monthDays, weekdays } = pattern;
  if (!months.length && !monthDays.length) {
    // BYDAY alone counts its weekdays within the year.
    const base = out.length;
    const first = dayOf(year, 1, 1);
    pushNthWeekdays(weekdays, first, dayOf(year + 1, 1, 1) - first, out);
    if (weekdays.length > 1) sortUnique(out, base);
    return;
  }
  for (let month = 1; month <= 12; month++) {
    if (months.length && !months.includes(month)) continue;
    daysOfMonth(pattern, year * 12 + month - 1, out);
  }
}

function pushNthWeekdays(weekdays: ByDay[], first: Day, length: number, out: Day[]): void {
  const before = weekdayOf(first);
  for (const { weekday, nth } of weekdays) {
    const firstOne = (weekday - before + 7) % 7;
    const lastOne = firstOne + 7 * Math.floor((length - 1 - firstOne) / 7);
    if (nth === 0) for (let d = firstOne; d < length; d += 7) out.push(first + d);
    else {
      const d = nth > 0 ? firstOne + 7 * (nth - 1) : lastOne + 7 * (nth + 1);
      if (d >= 0 && d < length) out.push(first + d);
    }
  }
}

function nthWeekdaysHold(weekdays: ByDay[], day: Day, first: Day, length: number): boolean {
  const d = day - first;
  return weekdays.some(({ weekday, nth }) => {
    if (weekdayOf(day) !== weekday) return false;
    if (nth === 0) return true;
    return nth > 0 ? Math.floor(d / 7) === nth - 1 : Math.floor((length - 1 - d) / 7) === -nth - 1;
  });
}

function sortUnique(out: Day[], base: number): void {
  let ascending = true;
  for (let i = base + 1; ascending && i < out.length; i++) ascending = (out[i - 1] as Day) < (out[i] as Day);
  if (ascending) return;
  const part = out.splice(base).sort((a, b) => a - b);
  for (const day of part) if (out.length === base || out[out.length - 1] !== day) out.push(day);
}
