/**
 * The days of one rule, found by arithmetic on its periods (days, weeks, months, years), never by walking from its start.
 * Periods are numbered from the one that holds the first start (0). Semantics: RFC 5545 3.3.10, the parts that name days.
 * Within a period every part given narrows what the others name; what a rule leaves open comes from its first start.
 */
import { type EpochDay, dayOf, daysInMonth, isLeapYear, monthNumberOf, weekdayOf, weekStart, yearMonthOf, ymdOf } from '../day/day';
import type { ByDay, Rule, Season } from './model';

/** A rule made ready for its first start: defaults filled in from it. */
export interface Pattern {
  rule: Rule;
  startDay: EpochDay;
  /** first day of period 0 (week), month number (month), year (year) or the start itself (day) */
  anchor: number;
  weekdays: ByDay[];
  monthDays: number[];
  months: number[];
  /** weekdays as distances from the start of the week, ascending; weekly only */
  weekOffsets: number[];
}

/** A rule with what follows from its first day where the rule itself says nothing. */
export function patternOf(rule: Rule, startDay: EpochDay): Pattern {
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
    yearlyDefaults(pattern, startDay);
  }
  return pattern;
}

function yearlyDefaults(pattern: Pattern, startDay: EpochDay): void {
  const { byMonth, byMonthDay, byDay, byWeekNo, byYearDay } = pattern.rule;
  const { year, month, day } = ymdOf(startDay);
  pattern.anchor = year;
  if (byMonthDay.length || byDay.length || byYearDay) return;
  if (byWeekNo) pattern.weekdays = [{ weekday: weekdayOf(startDay), nth: 0 }];
  else {
    pattern.monthDays = [day];
    if (!byMonth.length) pattern.months = [month];
  }
}

/** The number of the period that holds a day; fractional where the interval skips that period. */
export function periodOf(pattern: Pattern, day: EpochDay): number {
  const { rule, anchor } = pattern;
  let distance: number;
  if (rule.freq === 'weekly') distance = Math.floor((day - anchor) / 7);
  else if (rule.freq === 'monthly') distance = monthNumberOf(day) - anchor;
  else if (rule.freq === 'yearly') distance = ymdOf(day).year - anchor;
  else distance = day - anchor;
  return distance / rule.interval;
}

/** Appends the days of period `k` to `out`, ascending, without looking at the first start or the limit. */
export function daysOfPeriod(pattern: Pattern, k: number, out: EpochDay[]): void {
  const { bySetPos, seasons } = pattern.rule;
  const base = out.length;
  namedDays(pattern, k, out);
  if (seasons) keepSeasons(seasons, out, base);
  if (bySetPos) {
    const chosen = atPositions(out.splice(base), bySetPos);
    for (const day of chosen) out.push(day);
  }
}

/** The days of period `k` before BYSETPOS chooses among its dates. */
export function namedDays(pattern: Pattern, k: number, out: EpochDay[]): void {
  const { rule, anchor } = pattern;
  const step = k * rule.interval;
  switch (rule.freq) {
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
      return;
    default: {
      const day = anchor + step;
      if (dayHolds(rule, day)) out.push(day);
    }
  }
}

/** Does a day lie in one of these spans of each year? Seasons may go over the turn of a year. */
export function inSeasons(seasons: readonly Season[], day: EpochDay): boolean {
  const { month, day: d } = ymdOf(day);
  const at = month * 100 + d;
  return seasons.some(({ from, to }) => (from <= to ? at >= from && at <= to : at >= from || at <= to));
}

/** Takes out the days from `base` on that lie in none of the seasons; changes the list in place. */
export function keepSeasons(seasons: readonly Season[], out: EpochDay[], base = 0): void {
  let kept = base;
  for (let i = base; i < out.length; i++) {
    const day = out[i] as EpochDay;
    if (inSeasons(seasons, day)) out[kept++] = day;
  }
  out.length = kept;
}

/** Those at the positions, counted from 1 or from the end (-1), in order, each once. */
export function atPositions<T>(set: readonly T[], positions: readonly number[]): T[] {
  return set.filter((_, i) => positions.includes(i + 1) || positions.includes(i - set.length));
}

/** Do the parts that only narrow (BYMONTH, BYYEARDAY, BYMONTHDAY, BYDAY) hold a day? For rules of days and shorter. */
export function dayHolds(rule: Rule, day: EpochDay): boolean {
  const { byDay, byMonth, byMonthDay, byYearDay } = rule;
  if (byDay.length && !byDay.some((d) => d.weekday === weekdayOf(day))) return false;
  if (!byMonth.length && !byMonthDay.length && !byYearDay) return true;
  const { year, month, day: d } = ymdOf(day);
  if (byMonth.length && !byMonth.includes(month)) return false;
  if (byMonthDay.length && !fromEitherEnd(byMonthDay, d, daysInMonth(year, month))) return false;
  return !byYearDay || fromEitherEnd(byYearDay, day - dayOf(year, 1, 1) + 1, isLeapYear(year) ? 366 : 365);
}

function fromEitherEnd(wanted: readonly number[], at: number, length: number): boolean {
  return wanted.some((n) => (n > 0 ? n : length + 1 + n) === at);
}

function daysOfMonth(pattern: Pattern, monthNumber: number, out: EpochDay[]): void {
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

function daysOfYear(pattern: Pattern, year: number, out: EpochDay[]): void {
  const { months, monthDays, weekdays, rule } = pattern;
  if (rule.byYearDay || rule.byWeekNo) {
    narrowedDaysOfYear(pattern, year, out);
    return;
  }
  const first = dayOf(year, 1, 1);
  if (!months.length && !monthDays.length) {
    // BYDAY alone counts its weekdays within the year.
    const base = out.length;
    pushNthWeekdays(weekdays, first, dayOf(year + 1, 1, 1) - first, out);
    if (weekdays.length > 1) sortUnique(out, base);
    return;
  }
  const base = out.length;
  for (let month = 1; month <= 12; month++) {
    if (months.length && !months.includes(month)) continue;
    if (months.length || !weekdays.length) daysOfMonth(pattern, year * 12 + month - 1, out);
    else daysOfMonth({ ...pattern, weekdays: [] }, year * 12 + month - 1, out);
  }
  // Without BYMONTH, numbered weekdays are those of the year, also when BYMONTHDAY names the days.
  if (!months.length && weekdays.length) keepWeekdaysOfYear(weekdays, first, out, base);
}

function keepWeekdaysOfYear(weekdays: ByDay[], first: EpochDay, out: EpochDay[], base: number): void {
  const length = dayOf(ymdOf(first).year + 1, 1, 1) - first;
  const kept = out.splice(base).filter((day) => nthWeekdaysHold(weekdays, day, first, length));
  for (const day of kept) out.push(day);
}

/** A year by BYYEARDAY or BYWEEKNO: the days they name, narrowed by all other parts. Days keep to their calendar year. */
function narrowedDaysOfYear({ rule, months, monthDays, weekdays }: Pattern, year: number, out: EpochDay[]): void {
  const first = dayOf(year, 1, 1);
  const length = dayOf(year + 1, 1, 1) - first;
  const base = out.length;
  if (rule.byYearDay) {
    for (const n of rule.byYearDay) {
      const d = n > 0 ? n - 1 : length + n;
      if (d >= 0 && d < length && (!rule.byWeekNo || inWeeks(rule, first + d))) out.push(first + d);
    }
  } else {
    for (let day = first; day < first + length; day++) {
      // The week's number is that of all its days: one look for each week.
      if (inWeeks(rule, day)) out.push(day);
      else day += 6 - ((day - weekStart(day, rule.weekStart)) % 7);
    }
  }
  const kept = out.splice(base).filter((day) => {
    const { month, day: d } = ymdOf(day);
    if (months.length && !months.includes(month)) return false;
    if (monthDays.length && !fromEitherEnd(monthDays, d, daysInMonth(year, month))) return false;
    if (!weekdays.length) return true;
    if (!months.length) return nthWeekdaysHold(weekdays, day, first, length);
    return nthWeekdaysHold(weekdays, day, day - d + 1, daysInMonth(year, month));
  });
  for (const day of kept) out.push(day);
  sortUnique(out, base);
}

/** The first day of a year's week 1, the first week with four of its days in the year (ISO 8601 with any first weekday). */
function firstWeekOf(year: number, firstWeekday: number): EpochDay {
  return weekStart(dayOf(year, 1, 4), firstWeekday);
}

function inWeeks(rule: Rule, day: EpochDay): boolean {
  const begins = weekStart(day, rule.weekStart);
  // The week belongs to the year in which its fourth day lies.
  const { year } = ymdOf(begins + 3);
  const first = firstWeekOf(year, rule.weekStart);
  const weeks = (firstWeekOf(year + 1, rule.weekStart) - first) / 7;
  return fromEitherEnd(rule.byWeekNo ?? [], (begins - first) / 7 + 1, weeks);
}

function pushNthWeekdays(weekdays: ByDay[], first: EpochDay, length: number, out: EpochDay[]): void {
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

function nthWeekdaysHold(weekdays: ByDay[], day: EpochDay, first: EpochDay, length: number): boolean {
  const d = day - first;
  return weekdays.some(({ weekday, nth }) => {
    if (weekdayOf(day) !== weekday) return false;
    if (nth === 0) return true;
    return nth > 0 ? Math.floor(d / 7) === nth - 1 : Math.floor((length - 1 - d) / 7) === -nth - 1;
  });
}

function sortUnique(out: EpochDay[], base: number): void {
  let ascending = true;
  for (let i = base + 1; ascending && i < out.length; i++) ascending = (out[i - 1] as EpochDay) < (out[i] as EpochDay);
  if (ascending) return;
  const part = out.splice(base).sort((a, b) => a - b);
  for (const day of part) if (out.length === base || out[out.length - 1] !== day) out.push(day);
}
