/** Small steps from a clause to its rule: what its parts narrow, how long it lasts, which offers it has. */
import { type EpochDay, ymdOf, dayOf, daysInMonth } from '../../day/day';
import type { ByDay, Length, Rule } from '../../recurrence/model';
import type { Clause, Place } from './clause-state';
import { isSpan, type SaidDate, type SaidSpan } from './calendar-dates';
import type { Offer } from './phrase-problem';

/** Puts numbered weekdays and days of the month into a rule. */
export function numberedRule(rule: Rule, { nths, monthDays, workdays, yearly, every }: Clause): void {
  rule.freq = yearly && !every ? 'yearly' : 'monthly';
  if (yearly && !every) rule.interval = yearly.interval;
  rule.byDay = sortedDays(nths);
  rule.byMonthDay = [...new Set(monthDays)];
  if (!workdays.length) return;
  rule.freq = 'monthly';
  rule.byDay = [0, 1, 2, 3, 4].map(everyOne);
  rule.bySetPos = workdays;
}

/** Puts the seasons that a clause names into a rule; those without a day at either end stay out. */
export function withSeasons(rule: Rule, { seasons }: Clause): void {
  const at = ({ meaning }: SaidDate): number => (meaning.kind === 'day' ? meaning.month * 100 + meaning.day : 0);
  const known = seasons.filter(({ from, to }) => at(from) > 0 && at(to) > 0);
  if (known.length) rule.seasons = known.map(({ from, to }) => ({ from: at(from), to: at(to) }));
}

/** A weekday without a number: each of them. */
export const everyOne = (weekday: number): ByDay => ({ weekday, nth: 0 });
/** Offers in the order of what they say, for a steady list. */
export const byValue = (a: Offer, b: Offer): number => (a.value < b.value ? -1 : 1);

/** Weekdays in the order of a week that begins on Monday, numbered ones in their order. */
export function sortedDays(days: ByDay[]): ByDay[] {
  const seen = new Map(days.map((d) => [d.weekday * 200 + d.nth, d]));
  return [...seen.values()].sort((a, b) => a.weekday - b.weekday || a.nth - b.nth);
}

/** May a year be added to it? */
export const annual = ({ meaning: { kind } }: SaidDate): boolean =>
  kind === 'day' || kind === 'month' || kind === 'nth' || kind === 'easter';

/** Does each of these months follow the one before? */
export function contiguous(months: (SaidDate | SaidSpan)[]): boolean {
  const numbers = months.map((one) => (isSpan(one) || one.meaning.kind !== 'month' ? -1 : one.meaning.month));
  return numbers.every((m, i) => i === 0 || m === ((numbers[i - 1] ?? 0) % 12) + 1);
}

/** Takes weekdays out of a rule. */
export function withoutWeekdays(rule: Rule, except: number[]): void {
  if (!except.length) return;
  const days = rule.byDay.length ? rule.byDay : rule.freq === 'daily' ? [0, 1, 2, 3, 4, 5, 6].map(everyOne) : [];
  rule.byDay = days.filter((d) => !except.includes(d.weekday));
  if (rule.freq === 'daily' && rule.interval === 1) rule.freq = 'weekly';
}

/** When it begins, in minutes since midnight; null = all day, or nothing is said. */
export const startMinute = ({ allDay, times }: Clause): number | null => (allDay || !times ? null : times.start);

/** How long each date is: `days` is how many days it covers. */
export function lengthOf(clause: Clause, minute: number | null, days: number): Length | null {
  const { times, length, lasting, daysLater } = clause;
  const repeats = Boolean(clause.every ?? clause.yearly) || clause.repeats || clause.nths.length > 0 || clause.monthDays.length > 0;
  const more =
    length && length.unit !== 'minute'
      ? spanDays(length.amount, length.unit)
      : lasting && !repeats
        ? spanDays(lasting.amount, lasting.unit)
        : 1;
  const covers = Math.max(days, more);
  if (minute === null) return { days: covers, minute: null };
  if (times && times.end !== null) {
    const shift = daysLater ?? times.endDays;
    return { days: Math.max(shift, covers - 1), minute: times.end };
  }
  if (length?.unit === 'minute') {
    const ends = minute + Math.round(length.amount) + (covers - 1) * 1440;
    return { days: Math.floor(ends / 1440), minute: ends % 1440 };
  }
  // Several days, but no hour at which the last one ends: to its midnight.
  return covers > 1 ? { days: covers, minute: 0 } : null;
}

/** So many days, weeks or fortnights, in days. */
export function spanDays(amount: number, unit: string): number {
  return unit === 'day' ? amount : unit === 'week' ? 7 * amount : unit === 'fortnight' ? 14 * amount : 1;
}

/** The day so many days, weeks, months or years after another. */
export function after(day: EpochDay, amount: number, unit: string): EpochDay {
  if (unit !== 'month' && unit !== 'year') return day + spanDays(amount, unit);
  const { year, month, day: d } = ymdOf(day);
  const months = year * 12 + month - 1 + amount * (unit === 'year' ? 12 : 1);
  const [y, m] = [Math.floor(months / 12), (months % 12) + 1];
  return dayOf(y, m, Math.min(d, daysInMonth(y, m)));
}

/** The two ways in which "every second Tuesday" may be meant: in each month, or in weeks. */
export function repeatOffers(nth: number, text: string): Offer[] {
  const weekday = text.split(/\s+/).at(-1) ?? '';
  const ordinal = ['', 'first', 'second', 'third', 'fourth', 'fifth'][nth] ?? `${nth}th`;
  return [
    { value: `monthly-${nth}`, instead: `${ordinal} ${weekday} of every month` },
    { value: `weeks-${nth}`, instead: `${weekday}s of every ${nth} weeks` },
  ];
}

/** The words that a problem of a whole clause is about. */
export function wholeOf(clause: Clause, phrase: string): Place {
  const place = clause.until ?? clause.start ?? clause.rule;
  return place ? { from: place.from, to: place.to } : { from: 0, to: phrase.length };
}

const onlyDates = (c: Clause): boolean => c.dates.length > 0 && !c.weekdays.length && !c.every && !c.yearly && !c.allDay;

/** `1 May; 12 June at 10am`: the time goes for both. `Tuesdays 19:00, extra date 15 May`: it has the rule's. */
function shareTimes(before: Clause, here: Clause): void {
  if (onlyDates(before) && !before.times && !before.length && onlyDates(here) && here.times && !here.extra && !here.instead) {
    before.times = here.times;
    before.moreTimes = here.moreTimes;
    if (here.length) before.length = here.length;
  }
  if (!here.extra || !onlyDates(here) || here.times || here.length || !before.times || here.dates.some(isSpan)) return;
  here.times = before.times;
  here.moreTimes = before.moreTimes;
  if (before.length) here.length = before.length;
}

/** What is said at the end goes for the clauses before it that are joined by `and`. */
export function share(clauses: Clause[]): void {
  for (let i = clauses.length - 1; i > 0; i--) {
    const [before, here] = [clauses[i - 1], clauses[i]] as [Clause, Clause];
    shareTimes(before, here);
    if (!here.joined) continue;
    if (here.exceptMonths.length && !before.exceptMonths.length) before.exceptMonths = here.exceptMonths;
    // `Mon 7pm, Wed 8pm, Sat 10am every week`
    if (here.every?.unit === 'week' && here.weekdays.length && before.weekdays.length && !before.every && !before.repeats)
      before.every = here.every;
    const ends = before.until ?? before.count ?? before.lasting ?? before.start;
    if (ends !== undefined || before.months.length) continue;
    if (here.until) before.until = here.until;
    if (here.start) before.start = here.start;
    if (here.count !== undefined) before.count = here.count;
    if (here.lasting) before.lasting = here.lasting;
    before.months = here.months;
    if (here.yearly && !here.dates.length) before.yearly = here.yearly;
  }
}
