/** A recurrence said back in words. Days and minutes as in the recurrence model; ends are said inclusively. */
import { type Day, weekdayOf, ymdOf } from '../day/day';
import type { ByDay, Length, Recurrence, Rule, Stretch } from '../recurrence/model';
import { MONTHS, sayCount, sayDay, sayDays, sayList, sayTimes, sayWhen, type Style, WEEKDAYS } from './format';
import { endOf, isOpenEnded } from '../recurrence/expand';

const ORDINALS = ['', 'first', 'second', 'third', 'fourth', 'fifth'];
const NUMBERS = ['', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];

const everyWord = (n: number, unit: string): string => {
  if (n === 1) return `every ${unit}`;
  if (n === 2) return `every second ${unit}`;
  return `every ${NUMBERS[n] ?? n} ${unit}s`;
};

function ordinalOf(nth: number): string {
  if (nth === -1) return 'last';
  if (nth < 0) return `${ORDINALS[-nth] ?? `${-nth}th`} to last`;
  return ORDINALS[nth] ?? `${nth}th`;
}

function numeral(n: number): string {
  const tens = n % 100;
  const suffix = tens >= 11 && tens <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${suffix}`;
}

function monthDayWords(days: number[]): string {
  const sorted = [...days].sort((a, b) => (a < 0 ? 100 - a : a) - (b < 0 ? 100 - b : b));
  return sayList(sorted.map((n) => (n === -1 ? 'last day' : n < 0 ? `${numeral(-n)} to last day` : numeral(n))));
}

/** "first and third Sunday", "first Monday and last Friday" */
function nthWeekdayWords(byDay: ByDay[]): string {
  const groups = new Map<number, number[]>();
  for (const { weekday, nth } of byDay) groups.set(weekday, [...(groups.get(weekday) ?? []), nth]);
  const words = [...groups].map(([weekday, nths]) => {
    const sorted = [...nths].sort((a, b) => (a < 0 ? 100 + a : a) - (b < 0 ? 100 + b : b));
    const name = WEEKDAYS[weekday] as string;
    return sorted.includes(0) ? `every ${name}` : `${sayList(sorted.map(ordinalOf))} ${name}`;
  });
  return sayList(words);
}

const isWorkdays = (days: number[]): boolean => days.length === 5 && days.every((day) => day < 5);

function weeklyWords(rule: Rule, startDay: Day): string {
  const days = rule.byDay.length ? [...new Set(rule.byDay.map((d) => d.weekday))] : [weekdayOf(startDay)];
  // Read the week from Monday whatever the rule's week start is: the order of names is not its meaning.
  days.sort((a, b) => a - b);
  if (days.length === 7 && rule.interval === 1) return 'Every day';
  if (isWorkdays(days)) return rule.interval === 1 ? 'Every workday' : `Workdays of ${everyWord(rule.interval, 'week')}`;
  const names = sayList(days.map((day) => `${WEEKDAYS[day]}`));
  if (rule.interval === 1) return `Every ${names}`;
  if (rule.interval === 2 && days.length === 1) return `Every second ${names}`;
  return `${sayList(days.map((day) => `${WEEKDAYS[day]}s`))} of ${everyWord(rule.interval, 'week')}`;
}

function inMonths(months: number[]): string {
  return sayList([...months].sort((a, b) => a - b).map((m) => MONTHS[m - 1] as string));
}

function monthlyWords(rule: Rule, startDay: Day, period: string): string {
  const { byDay, byMonthDay } = rule;
  if (byMonthDay.length && byDay.length) {
    const names = sayList(byDay.map((d) => WEEKDAYS[d.weekday] as string));
    return `On the ${monthDayWords(byMonthDay)} of ${period} when it is a ${names.replace(' and ', ' or ')}`;
  }
  if (byDay.length) {
    const words = nthWeekdayWords(byDay);
    return byDay.some((d) => d.nth !== 0) ? `On the ${words} of ${period}` : `On ${words} of ${period}`;
  }
  return `On the ${monthDayWords(byMonthDay.length ? byMonthDay : [ymdOf(startDay).day])} of ${period}`;
}

function yearlyWords(rule: Rule, startDay: Day): string {
  const { byMonth, byMonthDay, byDay } = rule;
  const { month, day } = ymdOf(startDay);
  const year = everyWord(rule.interval, 'year');
  if (!byMonth.length && !byMonthDay.length && !byDay.length) return `On ${day} ${MONTHS[month - 1]}, ${year}`;
  if (!byMonth.length && byMonthDay.length) return `${monthlyWords(rule, startDay, 'every month')}, ${year}`;
  if (!byMonth.length) return monthlyWords(rule, startDay, year);
  return `${monthlyWords(rule, startDay, inMonths(byMonth))}, ${year}`;
}

/** "On the first and third Sunday of every month": a rule without its times and limit. */
export function sayRule(rule: Rule, startDay: Day): string {
  const months = rule.byMonth.length ? ` in ${inMonths(rule.byMonth)}` : '';
  switch (rule.freq) {
    case 'daily': {
      const days = rule.byDay.map((d) => d.weekday);
      const on = days.length
        ? isWorkdays(days)
          ? ' that is a workday'
          : ` that is a ${sayList(days.map((x) => WEEKDAYS[x] as string)).replace(' and ', ' or ')}`
        : '';
      const of = rule.byMonthDay.length ? ` that is the ${monthDayWords(rule.byMonthDay)}` : '';
      const every = everyWord(rule.interval, 'day');
      return `${every[0]?.toUpperCase()}${every.slice(1)}${on}${of}${months}`;
    }
    case 'weekly':
      return weeklyWords(rule, startDay) + months;
    case 'monthly':
      return (
        monthlyWords(rule, startDay, rule.byMonth.length ? `${inMonths(rule.byMonth)}` : everyWord(rule.interval, 'month')) +
        (rule.byMonth.length && rule.interval > 1 ? `, ${everyWord(rule.interval, 'month')}` : '')
      );
    default:
      return yearlyWords(rule, startDay);
  }
}

function timeWords(minute: number | null, length: Length | null, style: Style): string {
  if (minute === null) {
    return length && length.days > 1 ? `, ${sayCount(length.days, 'day')} each` : ', all day';
  }
  const overnight = length && length.days > 1 ? ` (${sayCount(length.days, 'day')} later)` : '';
  return `, ${sayTimes(minute, length?.minute ?? null, style)}${overnight}`;
}

function limitWords(stretch: Stretch, style: Style): string {
  const { start, limit } = stretch;
  if (limit.kind === 'until') {
    const sameYear = ymdOf(start.day).year === ymdOf(limit.day).year;
    return `, from ${sayDay(start.day, style, { year: !sameYear })} to ${sayDay(limit.day, style, { year: true })}`;
  }
  const from = `, from ${sayDay(start.day, style, { year: true })}`;
  return limit.kind === 'count' ? `${from}, ${limit.count === 1 ? 'once' : `${limit.count} times`}` : from;
}

function sayStretch(stretch: Stretch, style: Style): string {
  const { start, length, rule } = stretch;
  if (!rule) return sayWhen(start, endOf(start, length), style);
  return sayRule(rule, start.day) + timeWords(start.minute, length, style) + limitWords(stretch, style);
}

/** Single dates of one length are said together: "Also on 3 and 10 July 2027". */
function saySingles(singles: Stretch[], style: Style, also: boolean): string[] {
  if (singles.length < 4) return singles.map((s) => (also ? `also on ${sayStretch(s, style)}` : sayStretch(s, style)));
  const first = singles[0] as Stretch;
  const last = singles[singles.length - 1] as Stretch;
  const span = sayDays(first.start.day, last.start.day, style, { year: true });
  return [`${also ? 'also on ' : ''}${singles.length} single dates, ${span}`];
}

/** The whole recurrence as one sentence (or two), without the number of dates. */
export function sayRecurrence(recurrence: Recurrence, style: Style): string {
  const ruled = recurrence.stretches.filter((s) => s.rule);
  const singles = recurrence.stretches.filter((s) => !s.rule).sort((a, b) => a.start.day - b.start.day);
  const parts = [...ruled.map((s) => sayStretch(s, style)), ...saySingles(singles, style, ruled.length > 0)];
  const joined = parts
    .map((p, i) => (i ? (p[0]?.toLowerCase() === 'o' || p.startsWith('E') ? (p[0] ?? '').toLowerCase() + p.slice(1) : p) : p))
    .join('; ');
  const breaks = recurrence.breaks.map((b) => sayDays(b.from, b.to, style, { year: false }));
  const broken = breaks.length ? `, with ${breaks.length === 1 ? 'a break' : 'breaks'} ${sayList(breaks)}` : '';
  return `${joined}${broken}.`;
}

/** "14 dates." or "156 dates until March 2030, and on." */
export function sayTotal(recurrence: Recurrence, total: number, horizon: Day): string {
  if (!isOpenEnded(recurrence)) return `${sayCount(total, 'date')}.`;
  const { year, month } = ymdOf(horizon);
  return `${sayCount(total, 'date')} until ${MONTHS[month - 1]} ${year}, and on.`;
}
