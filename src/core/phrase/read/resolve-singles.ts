/** Dates that do not repeat: which they are, how long, and what has to be asked before one is made. */
import { type EpochDay, isoDay, weekdayOf, ymdOf } from '../../day/day';
import type { RecurrencePart } from '../../recurrence/model';
import { sayDay, sayTime, sayTimes, WEEKDAYS } from '../format';
import { inYear, spanOf, yearOf } from './calendar';
import type { Clause } from './clause-state';
import { annual, lengthOf, startMinute } from './clause-rules';
import { isSpan, type SaidDate, type SaidSpan } from './calendar-dates';
import { DayResolver, Undecided } from './resolve-days';
import type { SaidTimes } from './times-of-day';
import { WEEKDAY_WORDS } from './vocabulary';

/** What happens once takes no longer, in days: a longer span is one that was turned round. */
export const LONGEST = 183;

/** Do the times begin and end on one day? */
const hoursOfADay = ({ times, daysLater, until }: Clause): boolean =>
  times !== undefined &&
  times.end !== null &&
  times.endDays === 0 &&
  daysLater === undefined &&
  until === undefined &&
  times.end > times.start;

/** Makes single dates and spans of what a clause names. */
export class SinglesResolver extends DayResolver {
  /** Dates that do not repeat. */
  protected singles(clause: Clause, dates: (SaidDate | SaidSpan)[]): RecurrencePart[] {
    const minute = startMinute(clause);
    const { day: today, minute: now } = this.setting.now;
    const floor = minute !== null && minute <= now ? today + 1 : today;
    const make = (day: EpochDay, days = 1, at = minute): RecurrencePart => ({
      start: { day, minute: at },
      length: lengthOf(clause, at, days),
      rule: null,
      limit: { kind: 'open' },
    });
    const given = this.withYears(dates).map((one) => {
      if (!isSpan(one))
        return make(
          this.days(one, today).first,
          1,
          one.meaning.kind === 'iso' && one.meaning.minute !== null ? this.dateTimeOf(one.meaning).minute : minute,
        );
      const first = this.days(one.from, today).first;
      const last = this.days(one.to, yearOf(one.to) === undefined ? Math.max(first, 0) : first).last;
      if (last < first || last - first > LONGEST) throw this.reversed(one, first, last);
      if (last > first && hoursOfADay(clause)) throw this.eachDayOrThrough(clause, one);
      return make(first, last - first + 1);
    });
    const [only] = given;
    if (only && clause.until && given.length === 1) return [this.endingOn(only, clause, clause.until)];
    if (clause.start && !given.length)
      given.push(make(this.days(clause.start, today).first, clause.until ? this.daysUntil(clause.start, clause.until) : 1));
    if (clause.weekdays.length) given.push(...this.weekdaySingles(clause, floor, make));
    if (!given.length && clause.times) given.push(make(this.dayMeant(clause.times)));
    for (const one of given) {
      this.checkSingle(clause, one);
      this.checkZone(clause, one.start.day);
    }
    return given;
  }

  /** A span of dates whose end comes first, as `16 to 14 May`. */
  protected reversed({ from, to }: SaidSpan, first: EpochDay, last: EpochDay): Undecided {
    const { style } = this.setting;
    const end = last < first ? last : last - 365;
    const turned = `${sayDay(Math.min(first, end), style, { year: true })} to ${sayDay(Math.max(first, end), style, { year: true })}`;
    return this.undecided('end-before-start', { from: from.from, to: Math.max(from.to, to.to) }, [
      { value: isoDay(Math.min(first, end)), instead: turned },
    ]);
  }

  /** Something that takes several days, with the hour at which its last one ends. */
  protected endingOn(one: RecurrencePart, clause: Clause, until: SaidDate): RecurrencePart {
    const { day, minute } = one.start;
    const last = this.days(until, day).last;
    if (last < day) throw this.undecided('end-before-start', until);
    if (minute === null || !clause.untilTime) return { ...one, length: lengthOf(clause, minute, last - day + 1) };
    return { ...one, length: { days: last - day, minute: clause.untilTime.minute } };
  }

  /** The day of a time that stands alone: that of the line before it, or it is asked. */
  protected dayMeant(times: SaidTimes): EpochDay {
    const { day, now, phrase } = this.setting;
    if (day !== undefined) return day;
    const said = phrase.slice(times.from, times.to);
    const offers = ['today', 'tomorrow'].filter((word) => word === 'tomorrow' || times.start > now.minute);
    throw this.undecided(
      'no-day',
      times,
      offers.map((word) => ({ value: word, instead: `${word} ${said}` })),
    );
  }

  /** What a single date cannot be without a question: over already, at a midnight of two, in a year that may be a time. */
  protected checkSingle({ times, dates, allDay }: Clause, { start }: RecurrencePart): void {
    const { phrase, now } = this.setting;
    const said = dates.find((one): one is SaidDate => !isSpan(one));
    if (times && said?.meaning.kind === 'relative' && said.meaning.days === 0 && (start.minute ?? 0) < now.minute)
      throw this.undecided('past-time', { from: Math.min(said.from, times.from), to: Math.max(said.to, times.to) }, [
        { value: isoDay(now.day + 1), instead: `tomorrow ${phrase.slice(times.from, times.to)}` },
      ]);
    if (times && start.minute === 0 && /midnight/i.test(phrase.slice(times.from, times.to)))
      throw this.undecided('which-midnight', times, [
        { value: '00:00', instead: 'at 00:00' },
        { value: '23:59', instead: 'at 23:59' },
      ]);
    if (!times && !allDay && dates.length === 1 && said) this.yearOrTime(said, start.day);
  }

  /** `20 March 2030` may be half past eight, unless its weekday tells. */
  protected yearOrTime(date: SaidDate, day: EpochDay): void {
    const year = yearOf(date);
    const written = this.setting.phrase.slice(date.from, date.to);
    if (year === undefined || date.weekday !== undefined || date.meaning.kind !== 'day' || year % 100 > 59 || year > 2359) return;
    if (year < ymdOf(this.setting.now.day).year + 2 || !written.endsWith(String(year))) return;
    const minute = Math.floor(year / 100) * 60 + (year % 100);
    const without = written.slice(0, -String(year).length).replace(/[\s,]+$/, '');
    throw this.undecided('year-or-time', date, [
      { value: isoDay(day), instead: `${written}, all day` },
      this.offerAt(`${without} at `, minute),
    ]);
  }

  protected daysUntil(from: SaidDate, until: SaidDate): number {
    const first = this.days(from, this.bearings.today).first;
    const last = this.days(until, first).last;
    if (last < first || last - first > LONGEST) throw this.reversed({ from, to: until }, first, last);
    return last - first + 1;
  }

  protected weekdaySingles(clause: Clause, floor: EpochDay, make: (day: EpochDay, days?: number) => RecurrencePart): RecurrencePart[] {
    const on = (weekday: number, from: EpochDay): EpochDay => from + ((weekday - weekdayOf(from) + 7) % 7);
    if (clause.weekdays.length > 1 && !clause.weekdaySpan && !clause.once && !clause.dates.length) throw this.onceOrWeekly(clause);
    if (clause.weekdaySpan && !clause.once && !clause.dates.length) throw this.onceOrWeekly(clause);
    if (!clause.weekdaySpan) return clause.weekdays.map((weekday) => make(on(weekday, floor)));
    const first = on(clause.weekdays[0] ?? 0, floor);
    // `this Monday to Thursday 9–5` has its hours on each of them.
    if (hoursOfADay(clause)) return clause.weekdays.map((_, i) => make(first + i));
    return [make(first, clause.weekdays.length)];
  }

  /** `12–14 May 10am–4pm`: hours of each day, or from the first day's to the last day's? */
  protected eachDayOrThrough({ times }: Clause, { from, to }: SaidSpan): Undecided {
    const { phrase, style } = this.setting;
    if (!times) return new Undecided();
    const place = { from: Math.min(from.from, times.from), to: Math.max(to.to, times.to) };
    const said = phrase.slice(Math.min(from.from, to.from), Math.max(from.to, to.to));
    const day = (date: SaidDate): string => {
      const { first } = this.days(date, this.bearings.today);
      return sayDay(first, style, { year: true });
    };
    return this.undecided('each-day-or-through', place, [
      { value: 'each-day', instead: `${said}, each day ${sayTimes(times.start, times.end, style)}` },
      { value: 'through', instead: `${day(from)} ${sayTime(times.start, style)} to ${day(to)} ${sayTime(times.end ?? 0, style)}` },
    ]);
  }

  /** `Sat and Sun 10am`, `Mon–Thu 9–5` */
  protected onceOrWeekly({ weekdays, weekdaySpan }: Clause): Undecided {
    const { phrase } = this.setting;
    const words = [...phrase.matchAll(/\p{L}+\.?/gu)].filter(([word]) => WEEKDAY_WORDS.has(word.toLowerCase().replace('.', '')));
    const [first, last] = [words[0], words.at(-1)];
    const place = first && last ? { from: first.index, to: last.index + last[0].length } : { from: 0, to: phrase.length };
    const names = weekdays.map((day) => WEEKDAYS[day] ?? '');
    const said = weekdaySpan ? `${names[0]} to ${names.at(-1)}` : names.join(' and ');
    // Several clauses each have weekdays of their own, and none can be rewritten alone.
    const offers =
      words.length > 2
        ? []
        : ['every', 'this'].map((word) => ({ value: word === 'every' ? 'weekly' : 'once', instead: `${word} ${said}` }));
    return this.undecided('once-or-weekly', place, offers);
  }

  /** A year said at the end of a list goes for the dates before it. */
  protected withYears(dates: (SaidDate | SaidSpan)[]): (SaidDate | SaidSpan)[] {
    let later: EpochDay | undefined;
    const result: (SaidDate | SaidSpan)[] = [];
    for (const one of [...dates].reverse()) {
      const to = this.beforeLater(isSpan(one) ? one.to : one, later);
      const lastDay = yearOf(to) === undefined ? undefined : spanOf(to.meaning, this.bearings.today, this.bearings)?.last;
      if (isSpan(one)) {
        const from = this.beforeLater(one.from, lastDay);
        result.unshift({ from, to });
        later = yearOf(from) === undefined ? undefined : spanOf(from.meaning, this.bearings.today, this.bearings)?.first;
      } else {
        result.unshift(to);
        later = lastDay;
      }
    }
    return result;
  }

  protected beforeLater(date: SaidDate, later: EpochDay | undefined): SaidDate {
    if (later === undefined || yearOf(date) !== undefined || !annual(date)) return date;
    const { year } = ymdOf(later);
    const same = inYear(date, year);
    const day = spanOf(same.meaning, this.bearings.today, this.bearings)?.first;
    return day !== undefined && day > later ? inYear(date, year - 1) : same;
  }
}
