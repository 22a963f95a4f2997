/** A recurrence said back in words; English here, other languages have a sayer each. Days and minutes as in the recurrence model; ends are said inclusively. */
import { type EpochDay, type Weekday, weekdayOf, ymdOf } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import {
  type ByDay,
  type DateChange,
  hasRareParts,
  type Length,
  type Recurrence,
  type Rule,
  type RecurrencePart,
} from '../recurrence/model';
import { ruleText } from '../recurrence/rule-text';
import { MONTHS, NIGHT_ENDS, sayCount, sayDay, sayDays, sayList, sayTime, sayTimes, sayWhen, type Style, WEEKDAYS } from './format';
import { startOfSentence } from '../text/text';
import { isWorkdays, monthRuns, workdayPositions } from './rule-words';
import { recurrenceInFrench } from './say-french';
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

function weeklyWords(rule: Rule, startDay: EpochDay): string {
  const days = rule.byDay.length ? [...new Set(rule.byDay.map((d) => d.weekday))] : [weekdayOf(startDay)];
  // Read the week from Monday whatever the rule's week start is: the order of names is not its meaning.
  days.sort((a, b) => a - b);
  if (days.length === 7 && rule.interval === 1) return 'Every day';
  if (isWorkdays(days)) return rule.interval === 1 ? 'Every workday' : `Workdays of ${everyWord(rule.interval, 'week')}`;
  const names = sayList(days.map((day) => `${WEEKDAYS[day]}`));
  if (rule.interval === 1) return `Every ${names}`;
  if (rule.interval === 2 && days.length === 1) return `Every other ${names}`;
  return `${sayList(days.map((day) => `${WEEKDAYS[day]}s`))} of ${everyWord(rule.interval, 'week')}`;
}

function inMonths(months: number[]): string {
  return sayList([...months].sort((a, b) => a - b).map((m) => MONTHS[m - 1] as string));
}

function monthlyWords(rule: Rule, startDay: EpochDay, period: string): string {
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

/** A day of every year, which has no year that could be written with it. */
const yearlyDay = (month: string, day: number, { date }: Style): string => (date === 'month-day' ? `${month} ${day}` : `${day} ${month}`);

function yearlyWords(rule: Rule, startDay: EpochDay, style: Style): string {
  const { byMonth, byMonthDay, byDay } = rule;
  const { month, day } = ymdOf(startDay);
  const year = everyWord(rule.interval, 'year');
  if (!byMonth.length && !byMonthDay.length && !byDay.length) return `On ${yearlyDay(MONTHS[month - 1] ?? '', day, style)}, ${year}`;
  if (!byMonth.length && byMonthDay.length) return `${monthlyWords(rule, startDay, 'every month')}, ${year}`;
  if (!byMonth.length) return monthlyWords(rule, startDay, year);
  return `${monthlyWords(rule, startDay, inMonths(byMonth))}, ${year}`;
}

/** Rules that words say exactly. Others are said by their text, where the whole is asked for. */
function isSayable(rule: Rule, weekStart: Weekday): boolean {
  const { freq, interval, byMonth, byMonthDay, byDay, bySetPos } = rule;
  if (bySetPos) return workdayPositions(rule) !== undefined && !byMonth.length;
  if (hasRareParts(rule) || interval > 1000) return false;
  // The seasons of a date that comes once a year would be read as dates of their own.
  if (rule.seasons && freq === 'yearly') return false;
  const numbered = byDay.every((d) => d.nth !== 0 && d.nth <= 5 && d.nth >= -5);
  switch (freq) {
    case 'daily':
      return !byMonthDay.length && (!byDay.length || interval === 1);
    case 'weekly':
      return interval === 1 || byDay.length < 2 || rule.weekStart === weekStart;
    case 'monthly':
      return (!byMonth.length || interval === 1) && numbered && !(byDay.length && byMonthDay.length);
    case 'yearly':
      if (!byMonth.length) return !byDay.length && !byMonthDay.length;
      return numbered && !(byDay.length && byMonthDay.length);
    default:
      return false;
  }
}

/** `15 May – 20 September of every year` */
function seasonWords({ seasons }: Rule, style: Style): string {
  if (!seasons) return '';
  const at = (n: number): string => {
    return yearlyDay(MONTHS[Math.floor(n / 100) - 1] ?? '', n % 100, style);
  };
  return `, ${sayList(seasons.map(({ from, to }) => `${at(from)} – ${at(to)}`))} of every year`;
}

/** ` in March to October of every year`, `, except every August`: the months of a rule, in the shorter way. */
function yearsMonths({ byMonth }: Rule): string {
  if (!byMonth.length || byMonth.length === 12) return '';
  if (byMonth.length > 9) {
    const gone = MONTHS.filter((_, i) => !byMonth.includes(i + 1)).map((month) => `every ${month}`);
    return `, except ${sayList(gone)}`;
  }
  return ` in ${monthRunWords(byMonth)} of every year`;
}

/** "September to May", "January and June to August" */
function monthRunWords(months: readonly number[]): string {
  return sayList(
    monthRuns(months).map(([from, to]) => (from === to ? MONTHS[from - 1] : `${MONTHS[from - 1]} to ${MONTHS[to - 1]}`) ?? ''),
  );
}

/** "On the first and third Sunday of every month": a rule without its times and limit. */
export function sayRule(rule: Rule, startDay: EpochDay, style: Style): string {
  const workdays = rule.bySetPos && workdayPositions(rule);
  if (workdays) return `On the ${sayList(workdays.map(ordinalOf))} workday of ${everyWord(rule.interval, 'month')}`;
  if (hasRareParts(rule)) return 'By a rule of its own';
  switch (rule.freq) {
    case 'daily': {
      const days = rule.byDay.map((d) => d.weekday);
      if (days.length && rule.interval === 1 && !rule.byMonthDay.length) return weeklyWords(rule, startDay) + yearsMonths(rule);
      const on = days.length ? ` that is a ${sayList(days.map((x) => WEEKDAYS[x] as string)).replace(' and ', ' or ')}` : '';
      const of = rule.byMonthDay.length ? ` that is the ${monthDayWords(rule.byMonthDay)}` : '';
      const every = everyWord(rule.interval, 'day');
      return `${startOfSentence(every)}${on}${of}${yearsMonths(rule)}`;
    }
    case 'weekly':
      return weeklyWords(rule, startDay) + yearsMonths(rule);
    case 'monthly':
      if (rule.interval === 1) return monthlyWords(rule, startDay, 'every month') + yearsMonths(rule);
      return (
        monthlyWords(rule, startDay, rule.byMonth.length ? `${inMonths(rule.byMonth)}` : everyWord(rule.interval, 'month')) +
        (rule.byMonth.length ? `, ${everyWord(rule.interval, 'month')}` : '')
      );
    case 'yearly':
      return yearlyWords(rule, startDay, style);
    default:
      return 'By a rule of its own';
  }
}

/** `, 07:40–09:40`, `, 18:00–12:00 the next day`, `, all day`, `, 3 days each`. */
function timeWords(minute: number | null, length: Length | null, style: Style): string {
  if (minute === null) {
    return length && length.days > 1 ? `, ${sayCount(length.days, 'day')} each` : ', all day';
  }
  return `, ${sayTimes(minute, length?.minute ?? null, style)}${laterWords(minute, length)}`;
}

/** An evening that ends in the small hours says nothing of the day. */
function laterWords(minute: number, length: Length | null): string {
  if (!length || length.minute === null || length.days < 1) return '';
  const night = length.days === 1 && length.minute <= NIGHT_ENDS && minute >= 720;
  if (night) return '';
  return length.days === 1 ? ' the next day' : ` ${sayCount(length.days, 'day')} later`;
}

/** `, 18 minutes before sunset for 2 hours`, `, at sunset until 22:00`: a start by the sun, with its end. */
function sunWords({ start, length, sun }: RecurrencePart, style: Style): string {
  if (!sun) return timeWords(start.minute, length, style);
  const at = sun.minutes === 0 ? 'at' : `${sayDuration(Math.abs(sun.minutes))} ${sun.minutes < 0 ? 'before' : 'after'}`;
  const lasts = length && length.days * 1440 + (length.minute ?? 0) - (start.minute ?? 0);
  const until =
    length && sun.ends === 'clock' ? ` until ${sayTime(length.minute ?? 0, style)}${laterWords(start.minute ?? 0, length)}` : '';
  return `, ${at} ${sun.event}${until || (lasts ? ` for ${sayDuration(lasts)}` : '')}`;
}

/** `18 minutes`, `2 hours`, `1 hour 30 minutes` */
function sayDuration(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  return [hours ? sayCount(hours, 'hour') : '', rest ? sayCount(rest, 'minute') : ''].filter(Boolean).join(' ');
}

function limitWords(recurrencePart: RecurrencePart, style: Style): string {
  const { start, limit } = recurrencePart;
  if (limit.kind === 'until') {
    const sameYear = ymdOf(start.day).year === ymdOf(limit.day).year;
    return `, from ${sayDay(start.day, style, { year: !sameYear })} to ${sayDay(limit.day, style, { year: true })}`;
  }
  const from = `, from ${sayDay(start.day, style, { year: true })}`;
  return limit.kind === 'count' ? `${from}, ${limit.count === 1 ? 'once' : `${limit.count} times`}` : from;
}

/** How much is said. `whole`: everything, with years, so that it can be read again as the same dates. */
export interface Saying {
  whole?: boolean;
  /** the first weekday that a reader of the sentence takes for granted */
  weekStart?: Weekday;
}

function sayPart(recurrencePart: RecurrencePart, style: Style, zone: string, { whole = false, weekStart = 0 }: Saying): string {
  const { start, rule } = recurrencePart;
  if (!rule) return saySingle(recurrencePart, style, whole);
  if (whole && !isSayable(rule, weekStart)) {
    const from = `, from ${sayDay(start.day, style, { year: true })}`;
    return `By the rule ${ruleText(recurrencePart, zone)}${seasonWords(rule, style)}${sunWords(recurrencePart, style)}${from}`;
  }
  return sayRule(rule, start.day, style) + seasonWords(rule, style) + sunWords(recurrencePart, style) + limitWords(recurrencePart, style);
}

/** A single date has its time of the clock; said whole, what that hangs on. */
function saySingle(recurrencePart: RecurrencePart, style: Style, whole: boolean): string {
  const { start, length, sun } = recurrencePart;
  if (whole && sun) return sayWhen({ day: start.day, minute: null }, null, style) + sunWords(recurrencePart, style);
  return sayWhen(start, endOf(start, length), style);
}

/** Many single dates are said as a span, unless all is asked for. */
function saySingles(singles: RecurrencePart[], style: Style, also: boolean, whole: boolean, mixed: boolean): string[] {
  const say = (s: RecurrencePart): string => saySingle(s, style, whole) + (mixed && s.start.minute === null ? ', all day' : '');
  if (singles.length < 4 || whole) return singles.map((s) => (also ? `also on ${say(s)}` : say(s)));
  const first = singles[0] as RecurrencePart;
  const last = singles[singles.length - 1] as RecurrencePart;
  const span = sayDays(first.start.day, last.start.day, style, { year: true });
  return [`${also ? 'also on ' : ''}${singles.length} single dates, ${span}`];
}

/** So many left-out dates are named; of more, only how many. */
const NAMED_OUT = 4;

function exceptWords(exdates: PlainDateTime[], style: Style, whole: boolean): string {
  const days = [...new Set(exdates.map((wall) => wall.day))].sort((a, b) => a - b);
  if (!days.length) return '';
  if (days.length > NAMED_OUT && !whole) return `, except ${sayCount(days.length, 'date')}`;
  return `, except ${sayList(days.map((day) => sayDay(day, style, { year: whole })))}`;
}

/** The whole recurrence as one sentence (or two), without the number of dates. */
export function sayRecurrence(recurrence: Recurrence, style: Style, saying: Saying = {}): string {
  if (style.language === 'fr') return recurrenceInFrench(recurrence, style);
  const { whole = false } = saying;
  const ruled = recurrence.parts.filter((s) => s.rule);
  const singles = recurrence.parts.filter((s) => !s.rule).sort((a, b) => a.start.day - b.start.day);
  // A whole day among dates with times says that it is one, or it would be read with the times of the next.
  const mixed = whole && recurrence.parts.some((s) => s.start.minute !== null);
  const parts = [
    ...ruled.map((s) => sayPart(s, style, recurrence.zone, saying)),
    ...saySingles(singles, style, ruled.length > 0, whole, mixed),
  ];
  const joined = parts
    .map((p, i) => (i ? (p[0]?.toLowerCase() === 'o' || p.startsWith('E') ? (p[0] ?? '').toLowerCase() + p.slice(1) : p) : p))
    .join('; ');
  const breaks = recurrence.breaks.map((b) => sayDays(b.from, b.to, style, { year: whole }));
  const broken = breaks.length ? `, with ${breaks.length === 1 ? 'a break' : 'breaks'} ${sayList(breaks)}` : '';
  return `${joined}${exceptWords(recurrence.exdates, style, whole)}${broken}.`;
}

/** "14 dates." or "156 dates until March 2030, and on." */
export function sayTotal(recurrence: Recurrence, total: number, horizon: EpochDay): string {
  if (!isOpenEnded(recurrence)) return `${sayCount(total, 'date')}.`;
  const { year, month } = ymdOf(horizon);
  return `${sayCount(total, 'date')} until ${MONTHS[month - 1]} ${year}, and on.`;
}

/** What differs for one date: `Saturday 1 May 2027 moves to Sunday 2 May 2027, 10:00`, `… is cancelled`. */
export function sayChange({ original, movedTo, length, eventStatus, note, venueId }: DateChange, style: Style): string {
  const date = sayWhen(original, null, style);
  const parts: string[] = [];
  if (movedTo) parts.push(`moves to ${sayWhen(movedTo, null, style)}`);
  if (length) parts.push('is of another length');
  if (eventStatus === 'going-ahead') parts.push('goes ahead');
  else if (eventStatus) parts.push(`is ${eventStatus.replace('-', ' ')}`);
  if (venueId) parts.push('is elsewhere');
  const what = parts.length ? sayList(parts) : 'has a note';
  return `${date} ${what}${note ? `: ${note}` : ''}`;
}
