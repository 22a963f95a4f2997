/**
 * A recurrence said in French, as `say.ts` says it in English: `Tous les mardis, 19 h–21 h, du 23 mars au 25 mai 2027.` What two recurrences
 * differ in when said in English they differ in here.
 */
import { addTo } from '../collections/add-to';
import { type EpochDay, type Weekday, weekdayOf, ymdOf } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import { startOfSentence } from '../text/text';
import { endOf } from '../recurrence/expand';
import { type ByDay, hasRareParts, type Length, type Recurrence, type RecurrencePart, type Rule } from '../recurrence/model';
import { NIGHT_ENDS, sayDay, sayDays, sayTime, sayTimes, sayWhen, type Style } from './format';
import { dayNumberInFrench, listInFrench } from './format-french';
import { FRENCH_MONTHS, FRENCH_WEEKDAYS } from './language';
import { isWorkdays, monthRuns, workdayPositions } from './rule-words';

const ORDINALS = ['', 'premier', 'deuxième', 'troisième', 'quatrième', 'cinquième'];
const NUMBERS = ['', 'un', 'deux', 'trois', 'quatre', 'cinq', 'six', 'sept', 'huit', 'neuf', 'dix', 'onze', 'douze'];

const number = (n: number): string => NUMBERS[n] ?? String(n);
const month = (n: number): string => FRENCH_MONTHS.long[n - 1] ?? '';
const weekday = (n: Weekday | number): string => FRENCH_WEEKDAYS.long[n] ?? '';
/** `de mars`, `d’avril` */
const of = (word: string): string => (/^[aeiouéèâêôh]/.test(word) ? `d’${word}` : `de ${word}`);

/** `chaque semaine`, `une semaine sur deux`, `toutes les trois semaines` */
function everyWeek(n: number): string {
  return n === 1 ? 'chaque semaine' : n === 2 ? 'une semaine sur deux' : `toutes les ${number(n)} semaines`;
}
function everyMonth(n: number): string {
  return n === 1 ? 'chaque mois' : n === 2 ? 'un mois sur deux' : `tous les ${number(n)} mois`;
}
function everyYear(n: number): string {
  return n === 1 ? 'chaque année' : n === 2 ? 'une année sur deux' : `tous les ${number(n)} ans`;
}

/** `premier`, `avant-dernier`; undefined for what is counted from the end and has no word. */
function ordinal(nth: number): string | undefined {
  if (nth === -1) return 'dernier';
  if (nth === -2) return 'avant-dernier';
  return nth < 0 ? undefined : (ORDINALS[nth] ?? `${nth}e`);
}

/** `le premier`, `l’avant-dernier`; what has no word is said with what follows it. */
function theNth(nth: number, what: string): string {
  const word = ordinal(nth);
  if (!word) return `le ${ORDINALS[-nth] ?? `${-nth}e`} ${what} avant la fin`;
  return `${nth === -2 ? 'l’' : 'le '}${word} ${what}`;
}

/** `le premier dimanche`, `les premier et troisième dimanches`, `le troisième mardi avant la fin` */
function nths(list: readonly number[], what: string): string {
  const sorted = [...new Set(list)].sort(fromFront);
  const ordinals = sorted.map(ordinal);
  if (sorted.length > 1 && ordinals.every((word) => word !== undefined))
    return `les ${listInFrench(ordinals)} ${what.replace(/(\w+)/g, '$1s')}`;
  return listInFrench(sorted.map((nth) => theNth(nth, what)));
}

const fromFront = (a: number, b: number): number => (a < 0 ? 100 + a : a) - (b < 0 ? 100 + b : b);

function nthWeekdays(byDay: readonly ByDay[]): string {
  const groups = new Map<Weekday, number[]>();
  for (const { weekday: day, nth } of byDay) addTo(groups, day, nth);
  return listInFrench([...groups].map(([day, list]) => (list.includes(0) ? `tous les ${weekday(day)}s` : nths(list, weekday(day)))));
}

/** `le 1er et le 15`, `le dernier jour`, `l’avant-dernier jour` */
function monthDays(days: readonly number[]): string {
  const sorted = [...days].sort((a, b) => (a < 0 ? 100 - a : a) - (b < 0 ? 100 - b : b));
  return listInFrench(
    sorted.map((n) => {
      if (n === -1) return 'le dernier jour';
      if (n === -2) return 'l’avant-dernier jour';
      return n < 0 ? `le ${ORDINALS[-n] ?? `${-n}e`} jour avant la fin` : `le ${dayNumberInFrench(n)}`;
    }),
  );
}

function weekly(rule: Rule, startDay: EpochDay): string {
  const days = rule.byDay.length ? [...new Set(rule.byDay.map((d) => d.weekday))] : [weekdayOf(startDay)];
  days.sort((a, b) => a - b);
  const { interval } = rule;
  if (days.length === 7 && interval === 1) return 'Tous les jours';
  if (isWorkdays(days)) return interval === 1 ? 'Du lundi au vendredi' : `Du lundi au vendredi, ${everyWeek(interval)}`;
  if (interval > 1 && days.length === 1) return `Un ${weekday(days[0] ?? 0)} sur ${number(interval)}`;
  const names = listInFrench(days.map((day) => `${weekday(day)}s`));
  return interval === 1 ? `Tous les ${names}` : `Les ${names}, ${everyWeek(interval)}`;
}

/** The days of a period: `Le premier mardi de chaque mois`. */
function inPeriod(rule: Rule, startDay: EpochDay, period: string): string {
  const { byDay, byMonthDay } = rule;
  if (byMonthDay.length && byDay.length) {
    const names = listInFrench(
      byDay.map((d) => weekday(d.weekday)),
      'ou',
    );
    return `${startOfSentence(monthDays(byMonthDay))} ${period}, si c’est un ${names}`;
  }
  if (byDay.length) return `${startOfSentence(nthWeekdays(byDay))} ${period}`;
  return `${startOfSentence(monthDays(byMonthDay.length ? byMonthDay : [ymdOf(startDay).day]))} ${period}`;
}

function monthly(rule: Rule, startDay: EpochDay): string {
  const { interval, byMonth } = rule;
  if (interval === 1) return inPeriod(rule, startDay, 'de chaque mois') + yearsMonths(rule);
  if (!byMonth.length) return `${inPeriod(rule, startDay, 'du mois')}, ${everyMonth(interval)}`;
  return `${inPeriod(rule, startDay, inMonths(byMonth))}, ${everyMonth(interval)}`;
}

/** `de mars et d’avril` */
const inMonths = (months: readonly number[]): string => listInFrench([...months].sort((a, b) => a - b).map((m) => of(month(m))));

function yearly(rule: Rule, startDay: EpochDay): string {
  const { byMonth, byMonthDay, byDay, interval } = rule;
  const { month: m, day } = ymdOf(startDay);
  const years = everyYear(interval);
  if (!byMonth.length && !byMonthDay.length && !byDay.length) return `Le ${dayNumberInFrench(day)} ${month(m)}, ${years}`;
  if (!byMonth.length && byMonthDay.length) return `${inPeriod(rule, startDay, 'de chaque mois')}, ${years}`;
  if (!byMonth.length) return `${inPeriod(rule, startDay, 'de l’année')}, ${years}`;
  // A day of one month is said as it is everywhere: le 24 décembre.
  const plain = !byDay.length && byMonth.length === 1 && byMonthDay.every((n) => n > 0);
  if (plain) {
    const days = byMonthDay.length ? [...byMonthDay].sort((a, b) => a - b) : [day];
    return `Le ${listInFrench(days.map(dayNumberInFrench))} ${month(byMonth[0] ?? 1)}, ${years}`;
  }
  return `${inPeriod(rule, startDay, inMonths(byMonth))}, ${years}`;
}

/** `, de mars à octobre chaque année`, `, sauf en août`: the months of a rule, in the shorter way. */
function yearsMonths({ byMonth }: Rule): string {
  if (!byMonth.length || byMonth.length === 12) return '';
  if (byMonth.length > 9) {
    const gone = FRENCH_MONTHS.long.filter((_, i) => !byMonth.includes(i + 1));
    return `, sauf en ${listInFrench(gone)}`;
  }
  const runs = monthRuns(byMonth).map(([from, to]) => (from === to ? `en ${month(from)}` : `${of(month(from))} à ${month(to)}`));
  return `, ${listInFrench(runs)} chaque année`;
}

function daily(rule: Rule, startDay: EpochDay): string {
  const days = rule.byDay.map((d) => d.weekday);
  if (days.length && rule.interval === 1 && !rule.byMonthDay.length) return weekly(rule, startDay) + yearsMonths(rule);
  // Not “tous les quinze jours”, which is every other week.
  const every = rule.interval === 1 ? 'Tous les jours' : `Un jour sur ${number(rule.interval)}`;
  const on = days.length ? `, si c’est un ${listInFrench(days.map(weekday), 'ou')}` : '';
  const at = rule.byMonthDay.length ? `, si c’est ${monthDays(rule.byMonthDay)} du mois` : '';
  return `${every}${on}${at}${yearsMonths(rule)}`;
}

/** A rule without its times and limit. */
function ruleInFrench(rule: Rule, startDay: EpochDay): string {
  const workdays = rule.bySetPos && workdayPositions(rule);
  if (workdays) {
    const period = rule.interval === 1 ? 'de chaque mois' : `du mois, ${everyMonth(rule.interval)}`;
    return `${startOfSentence(nths(workdays, 'jour ouvrable'))} ${period}`;
  }
  if (hasRareParts(rule)) return 'Selon une règle particulière';
  switch (rule.freq) {
    case 'daily':
      return daily(rule, startDay);
    case 'weekly':
      return weekly(rule, startDay) + yearsMonths(rule);
    case 'monthly':
      return monthly(rule, startDay);
    case 'yearly':
      return yearly(rule, startDay);
    default:
      return 'Selon une règle particulière';
  }
}

/** `, du 15 mai au 20 septembre de chaque année` */
function seasons({ seasons: spans }: Rule): string {
  if (!spans) return '';
  const at = (n: number): string => `${dayNumberInFrench(n % 100)} ${month(Math.floor(n / 100))}`;
  return `, ${listInFrench(spans.map(({ from, to }) => `du ${at(from)} au ${at(to)}`))} de chaque année`;
}

function times(minute: number | null, length: Length | null, style: Style): string {
  if (minute === null) return length && length.days > 1 ? `, ${length.days} jours chaque fois` : ', toute la journée';
  return `, ${sayTimes(minute, length?.minute ?? null, style)}${later(minute, length)}`;
}

/** `, 18 minutes avant le coucher du soleil, pendant 2 heures` */
function sunTimes({ start, length, sun }: RecurrencePart, style: Style): string {
  if (!sun) return times(start.minute, length, style);
  const event = sun.event === 'sunset' ? 'coucher du soleil' : 'lever du soleil';
  const at = sun.minutes === 0 ? `au ${event}` : `${duration(Math.abs(sun.minutes))} ${sun.minutes < 0 ? 'avant' : 'après'} le ${event}`;
  if (!length) return `, ${at}`;
  if (sun.ends === 'clock') return `, ${at}, jusqu’à ${sayTime(length.minute ?? 0, style)}${later(start.minute ?? 0, length)}`;
  return `, ${at}, pendant ${duration(length.days * 1440 + (length.minute ?? 0) - (start.minute ?? 0))}`;
}

/** `18 minutes`, `2 heures`, `1 heure 30 minutes` */
function duration(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  const count = (n: number, unit: string): string => (n ? `${n} ${unit}${n > 1 ? 's' : ''}` : '');
  return [count(hours, 'heure'), count(rest, 'minute')].filter(Boolean).join(' ');
}

/** An evening that ends in the small hours says nothing of the day. */
function later(minute: number, length: Length | null): string {
  if (!length || length.minute === null || length.days < 1) return '';
  if (length.days === 1 && length.minute <= NIGHT_ENDS && minute >= 720) return '';
  return length.days === 1 ? ' le lendemain' : `, ${length.days} jours plus tard`;
}

/** `du 1er au 15 août`, `du 23 mars 2027 au 21 mars 2028` */
function span(from: EpochDay, to: EpochDay, style: Style, { year, bothYears }: { year: boolean; bothYears: boolean }): string {
  const [a, b] = [ymdOf(from), ymdOf(to)];
  const last = sayDay(to, style, { year });
  if (from !== to && a.year === b.year && a.month === b.month && style.date !== 'iso') return `du ${dayNumberInFrench(a.day)} au ${last}`;
  return `du ${sayDay(from, style, { year: bothYears })} au ${last}`;
}

function limits({ start, limit }: RecurrencePart, style: Style): string {
  if (limit.kind === 'until') {
    const sameYear = ymdOf(start.day).year === ymdOf(limit.day).year;
    return `, ${span(start.day, limit.day, style, { year: true, bothYears: !sameYear })}`;
  }
  const from = `, à partir du ${sayDay(start.day, style, { year: true })}`;
  return limit.kind === 'count' ? `${from}, ${limit.count === 1 ? 'une fois' : `${limit.count} fois`}` : from;
}

const single = ({ start, length }: RecurrencePart, style: Style): string => sayWhen(start, endOf(start, length), style);

function singles(parts: readonly RecurrencePart[], style: Style, also: boolean): string[] {
  if (parts.length < 4) return parts.map((part) => (also ? `aussi le ${single(part, style)}` : single(part, style)));
  const [first, last] = [parts[0] as RecurrencePart, parts[parts.length - 1] as RecurrencePart];
  const span = sayDays(first.start.day, last.start.day, style, { year: true });
  return [`${also ? 'aussi ' : ''}${parts.length} dates, ${span}`];
}

/** So many left-out dates are named; of more, only how many. */
const NAMED_OUT = 4;

function except(exdates: readonly PlainDateTime[], style: Style): string {
  const days = [...new Set(exdates.map((start) => start.day))].sort((a, b) => a - b);
  if (!days.length) return '';
  if (days.length > NAMED_OUT) return `, sauf ${days.length} dates`;
  return `, sauf ${listInFrench(days.map((day) => `le ${sayDay(day, style)}`))}`;
}

/** The whole recurrence as one sentence (or two), without the number of dates. `style` is a French one. */
export function recurrenceInFrench(recurrence: Recurrence, style: Style): string {
  const ruled = recurrence.parts.filter((part) => part.rule);
  const alone = recurrence.parts.filter((part) => !part.rule).sort((a, b) => a.start.day - b.start.day);
  const parts = [
    ...ruled.map((part) => {
      const { rule, start } = part;
      return rule ? ruleInFrench(rule, start.day) + seasons(rule) + sunTimes(part, style) + limits(part, style) : '';
    }),
    ...singles(alone, style, ruled.length > 0),
  ];
  const joined = parts.map((part, i) => (i ? `${(part[0] ?? '').toLowerCase()}${part.slice(1)}` : startOfSentence(part))).join('; ');
  const breaks = recurrence.breaks.map(({ from, to }) =>
    from === to ? `le ${sayDay(from, style)}` : span(from, to, style, { year: false, bothYears: false }),
  );
  const broken = breaks.length ? `, avec ${breaks.length === 1 ? 'une pause' : 'des pauses'} ${listInFrench(breaks)}` : '';
  return `${joined}${except(recurrence.exdates, style)}${broken}.`;
}
