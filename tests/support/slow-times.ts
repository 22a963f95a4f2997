/**
 * The slow twin of rules with all BY parts: asks every candidate second in turn whether RFC 5545 3.3.10 names it, and
 * gathers whole periods before BYSETPOS chooses. Shares no code with the expansion but the civil calendar.
 */
import { dayOf, daysInMonth, weekdayOf, ymdOf } from '@/core/day/day';
import type { Limit, Rule } from '@/core/recurrence/model';

const DAY = 86_400;
const UNIT = { secondly: 1, minutely: 60, hourly: 3600, daily: DAY } as const;

const range = (n: number): number[] => Array.from({ length: n }, (_, i) => i);
const either = (list: number[] | undefined, at: number, length: number): boolean =>
  !list?.length || list.includes(at) || list.includes(at - length - 1);

function weekOfYear(rule: Rule, day: number): { week: number; weeks: number } {
  const monday = (d: number): number => {
    let begins = d;
    while (weekdayOf(begins) !== rule.weekStart) begins--;
    return begins;
  };
  const begins = monday(day);
  const year = ymdOf(begins + 3).year;
  let week = 0;
  let weeks = 0;
  for (let w = monday(dayOf(year - 1, 12, 20)); w < dayOf(year + 1, 1, 7); w += 7) {
    if (ymdOf(w + 3).year !== year) continue;
    weeks++;
    if (w === begins) week = weeks;
  }
  return { week, weeks };
}

function weekdayFits(rule: Rule, day: number): boolean {
  const { year, month } = ymdOf(day);
  const inMonth = rule.freq === 'monthly' || rule.byMonth.length > 0;
  const same = (other: number): boolean => ymdOf(other).year === year && (!inMonth || ymdOf(other).month === month);
  let fromStart = 1;
  for (let d = day - 7; same(d); d -= 7) fromStart++;
  let fromEnd = -1;
  for (let d = day + 7; same(d); d += 7) fromEnd--;
  return rule.byDay.some((d) => d.weekday === weekdayOf(day) && [0, fromStart, fromEnd].includes(d.nth));
}

function dayFits(rule: Rule, start: number, day: number): boolean {
  const { year, month, day: d } = ymdOf(day);
  const first = ymdOf(start);
  if (rule.byMonth.length && !rule.byMonth.includes(month)) return false;
  if (!either(rule.byMonthDay, d, daysInMonth(year, month))) return false;
  const yearLength = dayOf(year + 1, 1, 1) - dayOf(year, 1, 1);
  if (!either(rule.byYearDay, day - dayOf(year, 1, 1) + 1, yearLength)) return false;
  if (rule.byWeekNo) {
    const { week, weeks } = weekOfYear(rule, day);
    if (!either(rule.byWeekNo, week, weeks)) return false;
  }
  if (rule.byDay.length && !weekdayFits(rule, day)) return false;
  if (rule.byDay.length || rule.byMonthDay.length || rule.byYearDay) return true;
  if (rule.byWeekNo || rule.freq === 'weekly') return weekdayOf(day) === weekdayOf(start);
  if (rule.freq === 'monthly') return d === first.day;
  if (rule.freq === 'yearly') return d === first.day && (rule.byMonth.length > 0 || month === first.month);
  return true;
}

/** The number of the period that holds a second, from that of the start; undefined when the interval skips it. */
function periodOf(rule: Rule, start: number, second: number): number | undefined {
  const [a, b] = [ymdOf(Math.floor(start / DAY)), ymdOf(Math.floor(second / DAY))];
  let apart: number;
  if (rule.freq === 'yearly') apart = b.year - a.year;
  else if (rule.freq === 'monthly') apart = (b.year - a.year) * 12 + b.month - a.month;
  else if (rule.freq === 'weekly') {
    const week = (s: number): number => Math.floor((Math.floor(s / DAY) - rule.weekStart + 3) / 7);
    apart = week(second) - week(start);
  } else apart = Math.floor(second / UNIT[rule.freq]) - Math.floor(start / UNIT[rule.freq]);
  return apart % rule.interval === 0 ? apart : undefined;
}

export interface SlowInput {
  rule: Rule;
  /** local second of the first start */
  start: number;
  limit: Limit;
}

/** All starts from the first to the end of day `to`; `exists` says whether a wall time exists. */
export function slowStarts({ rule, start, limit }: SlowInput, to: number, exists: (second: number) => boolean = () => true): number[] {
  const startDay = Math.floor(start / DAY);
  const at = start - startDay * DAY;
  const { freq } = rule;
  const hours = rule.byHour ?? (['hourly', 'minutely', 'secondly'].includes(freq) ? range(24) : [Math.floor(at / 3600)]);
  const minutes = rule.byMinute ?? (['minutely', 'secondly'].includes(freq) ? range(60) : [Math.floor((at % 3600) / 60)]);
  const seconds = rule.bySecond ?? (freq === 'secondly' ? range(60) : [at % 60]);
  const times = hours
    .flatMap((h) => minutes.flatMap((m) => seconds.filter((s) => s < 60).map((s) => (h * 60 + m) * 60 + s)))
    .sort((a, b) => a - b);
  const periods = new Map<number, number[]>();
  // From a year before, so that the first period is whole.
  const early = ['yearly', 'monthly', 'weekly'].includes(freq) ? startDay - 366 : startDay - 1;
  for (let day = early; day <= to + (rule.bySetPos ? 366 : 0); day++) {
    if (!dayFits(rule, startDay, day)) continue;
    for (const time of new Set(times)) {
      const second = day * DAY + time;
      const period = periodOf(rule, start, second);
      if (period === undefined) continue;
      const set = periods.get(period);
      if (set) set.push(second);
      else periods.set(period, [second]);
    }
  }
  const chosen = [...periods.values()].flatMap((set) =>
    rule.bySetPos ? set.filter((_, i) => rule.bySetPos?.includes(i + 1) || rule.bySetPos?.includes(i - set.length)) : set,
  );
  chosen.sort((a, b) => a - b);
  const dates = [start, ...chosen.filter((second) => second > start && exists(second))].filter((second) => second < (to + 1) * DAY);
  if (limit.kind === 'count') return dates.slice(0, limit.count);
  if (limit.kind === 'until') return dates.filter((second) => second <= limit.day * DAY + (limit.second ?? DAY - 1));
  return dates;
}
