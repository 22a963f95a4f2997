/** What a phrase said, made into a recurrence: which year is meant, where a rule begins and ends, what is left out. */
import { type Day, isoDay, weekdayOf, ymdOf } from '../../day/day';
import type { Wall } from '../../day/wall';
import { firstFittingDay } from '../../recurrence/days';
import { startsBetween } from '../../recurrence/expand';
import type { Limit, Recurrence, Rule, Stretch } from '../../recurrence/model';
import { readRuleText } from '../../recurrence/rule-text';
import { sayDay } from '../format';
import { inYear, spanOf, yearOf } from './calendar';
import type { Clause, EveryUnit, Place, Said } from './clause-state';
import { isSpan, type SaidDate, type SaidSpan } from './dates';
import type { PhraseProblem } from './problem';
import {
  numberedRule,
  withSeasons,
  everyOne,
  sortedDays,
  annual,
  contiguous,
  withoutWeekdays,
  startMinute,
  lengthOf,
  after,
  wholeOf,
  share,
} from './clause-rules';
import { DayResolver, Undecided } from './resolve-days';

export type { Setting } from './resolve-days';

/** What happens once takes no longer, in days: a longer span is one that was turned round. */
const LONGEST = 183;

const FREQ: Record<EveryUnit, Rule['freq']> = { day: 'daily', week: 'weekly', month: 'monthly', year: 'yearly' };

export interface Resolved {
  recurrence: Recurrence | null;
  problems: PhraseProblem[];
}

export class Resolver extends DayResolver {
  resolve(said: Said): Resolved {
    const { problems } = this;
    share(said.clauses);
    const stretches: Stretch[] = [];
    let decided = true;
    for (const clause of said.clauses) {
      try {
        this.noteTimes(clause);
        stretches.push(...this.stretchesOf(clause));
      } catch (error) {
        if (!(error instanceof Undecided)) throw error;
        decided = false;
      }
    }
    if (!decided || !stretches.length) return { recurrence: null, problems };
    stretches.sort((a, b) => Number(a.rule === null) - Number(b.rule === null));
    const recurrence: Recurrence = { zone: this.setting.zone, stretches, leftOut: [], breaks: [] };
    try {
      this.leaveOut(recurrence, said.except);
      const begins = Math.min(...stretches.map((s) => s.start.day));
      for (const one of this.withYears(said.breaks)) {
        const { first, last } = isSpan(one) ? this.spanFrom(one, begins) : this.days(one, begins);
        recurrence.breaks.push({ from: first, to: last });
      }
    } catch (error) {
      if (!(error instanceof Undecided)) throw error;
      return { recurrence: null, problems };
    }
    return { recurrence, problems };
  }

  private stretchesOf(clause: Clause): Stretch[] {
    if (clause.rule) return [this.writtenRule(clause, clause.rule)];
    if (clause.yearly && clause.dates.length) return this.yearlyDates(clause, clause.yearly.interval);
    const rule = this.ruleOf(clause);
    if (!rule) return this.singles(clause, clause.dates);
    const spanning = clause.dates.length > 0 && clause.dates.every(isSpan) && !clause.weekdays.length && rule.freq === 'daily';
    if (spanning)
      return clause.dates.filter(isSpan).map((span) => this.repeating({ ...clause, start: span.from, until: span.to, dates: [] }, rule));
    const extra = clause.dates.length ? this.singles({ ...clause, weekdays: [] }, clause.dates) : [];
    return [this.repeating(clause, rule), ...extra];
  }

  /** The rule that a clause says, without its limit; undefined when it happens once, or on some days. */
  private ruleOf(clause: Clause): Rule | undefined {
    const { every, weekdays, nths, workdays, monthDays, yearly, months } = clause;
    const ends =
      Boolean(clause.until ?? clause.count ?? clause.lasting ?? clause.start) || months.length > 0 || clause.exceptWeekdays.length > 0;
    const weekly = weekdays.length > 0 && (clause.repeats || ends || Boolean(every) || Boolean(yearly));
    const rule: Rule = {
      freq: 'weekly',
      interval: every?.interval ?? 1,
      byMonth: [],
      byMonthDay: [],
      byDay: [],
      weekStart: this.setting.weekStart,
    };
    if (nths.length || monthDays.length || workdays.length) numberedRule(rule, clause);
    else if (every) {
      rule.freq = FREQ[every.unit];
      if (every.unit === 'month' && weekdays.length) return undefined;
      if (weekdays.length && every.unit === 'day' && every.interval === 1) rule.freq = 'weekly';
      rule.byDay = sortedDays(weekdays.map(everyOne));
    } else if (weekly) rule.byDay = sortedDays(weekdays.map(everyOne));
    else if (yearly && !clause.dates.length) rule.freq = 'yearly';
    else return undefined;
    this.withMonths(rule, clause);
    withSeasons(rule, clause);
    withoutWeekdays(rule, clause.exceptWeekdays);
    return rule;
  }

  /** Months that come back each year narrow the rule; months said once bound it, which comes later. */
  private withMonths(rule: Rule, { months, yearly, nths, monthDays }: Clause): void {
    if (!yearly && !(rule.freq === 'monthly' && (nths.length || monthDays.length) && months.length > 1 && !contiguous(months))) return;
    const named = new Set<number>();
    for (const one of months) {
      const [from, to] = isSpan(one) ? [one.from.meaning, one.to.meaning] : [one.meaning, one.meaning];
      if (from.kind !== 'month' || to.kind !== 'month') continue;
      for (let m = from.month; ; m = (m % 12) + 1) {
        named.add(m);
        if (m === to.month) break;
      }
    }
    rule.byMonth = [...named].sort((a, b) => a - b);
  }

  private writtenRule(clause: Clause, { text, ...place }: Place & { text: string }): Stretch {
    const minute = startMinute(clause);
    try {
      const { rule, limit } = readRuleText(text, this.setting.zone, minute === null ? null : minute * 60);
      withSeasons(rule, clause);
      const made = this.repeating(clause, rule);
      return limit.kind === 'open' ? made : { ...made, limit };
    } catch (error) {
      if (error instanceof Undecided) throw error;
      throw this.undecided('bad-rule', place);
    }
  }

  /** A rule from its first date on. */
  private repeating(clause: Clause, rule: Rule): Stretch {
    const minute = startMinute(clause);
    const { base, implied, last } = this.bounds(clause);
    const passed = implied && minute !== null && minute <= this.setting.now.minute;
    const floor = passed && base === this.setting.now.day ? base + 1 : base;
    const start = this.firstDay(rule, floor, minute);
    if (start === undefined || (last !== undefined && start > last)) throw this.undecided('no-dates', wholeOf(clause, this.setting.phrase));
    return { start: { day: start, minute }, length: lengthOf(clause, minute, 1), rule, limit: this.limitOf(clause, start, last) };
  }

  /** The first day that a rule names from a day on, whatever its interval is counted from. */
  private firstDay(rule: Rule, floor: Day, minute: number | null): Day | undefined {
    return firstFittingDay({ start: { day: floor, minute }, length: null, rule: { ...rule, interval: 1 }, limit: { kind: 'open' } });
  }

  /** Where a rule may begin and must end; `implied` when nothing says where it begins. */
  private bounds(clause: Clause): { base: Day; implied: boolean; last: Day | undefined } {
    const { today } = this.bearings;
    const { start, until, months, yearly } = clause;
    if (start && until) return { ...this.between(start, until), implied: false };
    if (start)
      return { base: this.days(start, today, start.meaning.kind !== 'month' || this.inside(start)).first, implied: false, last: undefined };
    if (months.length && !yearly) {
      const [first, final] = [months[0], months.at(-1)] as [SaidDate | SaidSpan, SaidDate | SaidSpan];
      const span = this.between(isSpan(first) ? first.from : first, isSpan(final) ? final.to : final);
      return { base: Math.max(span.base, today), implied: span.base <= today, last: span.last };
    }
    return { base: today, implied: true, last: until ? this.days(until, today).last : undefined };
  }

  private inside({ meaning }: SaidDate): boolean {
    return meaning.kind === 'month' && meaning.year === undefined && meaning.month === ymdOf(this.bearings.today).month;
  }

  /** From one date to another. Without years it is the span that is running, or the next one. */
  private between(from: SaidDate, to: SaidDate): { base: Day; last: Day } {
    const { today } = this.bearings;
    const [fromYear, toYear] = [yearOf(from), yearOf(to)];
    if (fromYear === undefined && toYear !== undefined && from.meaning.kind !== 'either') {
      // The last such day before the end.
      const last = this.days(to, today).last;
      const base = this.days(inYear(from, toYear), today).first;
      return { base: base <= last ? base : this.days(inYear(from, toYear - 1), today).first, last };
    }
    if (fromYear !== undefined || !annual(from)) {
      const base = this.days(from, today).first;
      return { base, last: this.days(to, base).last };
    }
    const { year } = ymdOf(today);
    for (const y of [year - 1, year]) {
      const begun = spanOf(inYear(from, y).meaning, today, this.bearings);
      if (!begun || begun.first > today) continue;
      const ends = spanOf(to.meaning, begun.first, this.bearings);
      if (ends && ends.last >= today && ends.last - begun.first < 366) return { base: today, last: ends.last };
    }
    const base = this.days(from, today, false).first;
    return { base, last: this.days(to, base).last };
  }

  private limitOf(clause: Clause, start: Day, last: Day | undefined): Limit {
    if (clause.count !== undefined) return { kind: 'count', count: clause.count };
    const { lasting } = clause;
    if (last !== undefined) return { kind: 'until', day: last };
    if (!lasting) return { kind: 'open' };
    return { kind: 'until', day: after(start, lasting.amount, lasting.unit) - 1 };
  }

  /** `4 July every year`, `3 to 5 July every year`. */
  private yearlyDates(clause: Clause, interval: number): Stretch[] {
    const minute = startMinute(clause);
    const { base, last } = this.bounds({ ...clause, months: [] });
    return clause.dates.map((one) => {
      const from = isSpan(one) ? one.from : one;
      const start = this.days(from, base).first;
      const days = isSpan(one) ? this.days(one.to, start).last - start + 1 : 1;
      const rule: Rule = { freq: 'yearly', interval, byMonth: [], byMonthDay: [], byDay: [], weekStart: this.setting.weekStart };
      if (from.meaning.kind === 'nth')
        Object.assign(rule, { byMonth: [from.meaning.month], byDay: [{ weekday: from.meaning.weekday, nth: from.meaning.nth }] });
      return { start: { day: start, minute }, length: lengthOf(clause, minute, days), rule, limit: this.limitOf(clause, start, last) };
    });
  }

  /** Dates that do not repeat. */
  private singles(clause: Clause, dates: (SaidDate | SaidSpan)[]): Stretch[] {
    const minute = startMinute(clause);
    const { day: today, minute: now } = this.setting.now;
    const floor = minute !== null && minute <= now ? today + 1 : today;
    const make = (day: Day, days = 1, at = minute): Stretch => ({
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
          one.meaning.kind === 'iso' && one.meaning.minute !== null ? one.meaning.minute : minute,
        );
      const first = this.days(one.from, today).first;
      const last = this.days(one.to, yearOf(one.to) === undefined ? Math.max(first, 0) : first).last;
      if (last < first || last - first > LONGEST) throw this.reversed(one, first, last);
      return make(first, last - first + 1);
    });
    const [only] = given;
    if (only && clause.until && given.length === 1) return [this.endingOn(only, clause, clause.until)];
    if (clause.start && !given.length)
      given.push(make(this.days(clause.start, today).first, clause.until ? this.daysUntil(clause.start, clause.until) : 1));
    if (clause.weekdays.length) given.push(...this.weekdaySingles(clause, floor, make));
    if (!given.length && clause.times) given.push(make(floor));
    return given;
  }

  /** A span of dates whose end comes first, as `16 to 14 May`. */
  private reversed({ from, to }: SaidSpan, first: Day, last: Day): Undecided {
    const { style } = this.setting;
    const end = last < first ? last : last - 365;
    const turned = `${sayDay(Math.min(first, end), style, { year: true })} to ${sayDay(Math.max(first, end), style, { year: true })}`;
    return this.undecided('end-before-start', { from: from.from, to: Math.max(from.to, to.to) }, [
      { value: isoDay(Math.min(first, end)), instead: turned },
    ]);
  }

  /** Something that takes several days, with the hour at which its last one ends. */
  private endingOn(one: Stretch, clause: Clause, until: SaidDate): Stretch {
    const { day, minute } = one.start;
    const last = this.days(until, day).last;
    if (last < day) throw this.undecided('end-before-start', until);
    if (minute === null || !clause.untilTime) return { ...one, length: lengthOf(clause, minute, last - day + 1) };
    return { ...one, length: { days: last - day, minute: clause.untilTime.minute } };
  }

  private daysUntil(from: SaidDate, until: SaidDate): number {
    const first = this.days(from, this.bearings.today).first;
    const last = this.days(until, first).last;
    if (last < first) throw this.undecided('end-before-start', { from: from.from, to: until.to });
    return last - first + 1;
  }

  private weekdaySingles(clause: Clause, floor: Day, make: (day: Day, days?: number) => Stretch): Stretch[] {
    const on = (weekday: number, from: Day): Day => from + ((weekday - weekdayOf(from) + 7) % 7);
    if (!clause.weekdaySpan) return clause.weekdays.map((weekday) => make(on(weekday, floor)));
    const first = on(clause.weekdays[0] ?? 0, floor);
    return [make(first, clause.weekdays.length)];
  }

  /** A year said at the end of a list goes for the dates before it. */
  private withYears(dates: (SaidDate | SaidSpan)[]): (SaidDate | SaidSpan)[] {
    let later: Day | undefined;
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

  private beforeLater(date: SaidDate, later: Day | undefined): SaidDate {
    if (later === undefined || yearOf(date) !== undefined || !annual(date)) return date;
    const { year } = ymdOf(later);
    const same = inYear(date, year);
    const day = spanOf(same.meaning, this.bearings.today, this.bearings)?.first;
    return day !== undefined && day > later ? inYear(date, year - 1) : same;
  }

  /** Single dates that are excepted are left out where there is one; spans and months are breaks. */
  private leaveOut(recurrence: Recurrence, except: (SaidDate | SaidSpan)[]): void {
    const begins = Math.min(...recurrence.stretches.map((s) => s.start.day));
    for (const one of this.withYears(except)) {
      const span = isSpan(one) ? this.spanFrom(one, begins) : this.days(one, begins);
      if (span.last > span.first || isSpan(one)) {
        recurrence.breaks.push({ from: span.first, to: span.last });
        continue;
      }
      const there = startsBetween({ ...recurrence, leftOut: [], breaks: [] }, span.first, span.first).map(({ wall }): Wall => wall);
      if (!there.length) this.problem('exception-without-date', isSpan(one) ? one.from : one);
      recurrence.leftOut.push(...there);
    }
  }
}
