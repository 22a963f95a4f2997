/** What a phrase said, made into a recurrence: which year is meant, where a rule begins and ends, what is left out. */
import { type EpochDay, ymdOf } from '../../day/day';
import type { PlainDateTime } from '../../day/plain-date-time';
import { firstFittingDay } from '../../recurrence/days';
import { shiftedLength, startsBetween } from '../../recurrence/expand';
import type { Limit, Recurrence, Rule, RecurrencePart } from '../../recurrence/model';
import { atSun } from '../../recurrence/stored';
import { readRuleText } from '../../recurrence/rule-text';
import { inYear, spanOf, yearOf } from './calendar';
import type { Clause, EveryUnit, Place, Said, SaidMove } from './clause-state';
import { contradictionsOf } from './contradictions';
import { inMonthsOnly, isOfEveryYear, monthsBut, monthsOfEveryYear, onlyOnce } from './each-year';
import { isSpan, type SaidDate, type SaidSpan } from './calendar-dates';
import type { Aside, PhraseProblem } from './phrase-problem';
import {
  byValue,
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
import { Undecided } from './resolve-days';
import type { SaidTimes } from './times-of-day';
import { LONGEST, SinglesResolver } from './resolve-singles';

export type { Setting } from './resolve-days';

const FREQ: Record<EveryUnit, Rule['freq']> = { day: 'daily', week: 'weekly', month: 'monthly', year: 'yearly' };

/** The recurrence that clauses make, with what is to be asked. */
export interface Resolved {
  recurrence: Recurrence | null;
  problems: PhraseProblem[];
  /** what was decided, and can be said otherwise */
  asides: Aside[];
}

/** `Tuesday 13 April, then every week`: the one date is where the rhythm begins. */
function startingDate({ dates, every, yearly, weekdays, nths, monthDays, start, extra }: Clause): SaidDate | undefined {
  const [date] = dates;
  const alone = every && !yearly && !weekdays.length && !nths.length && !monthDays.length && !start && !extra && dates.length === 1;
  return alone && date && !isSpan(date) ? date : undefined;
}

/** Makes parts of a recurrence of clauses; decides which year is meant. */
export class Resolver extends SinglesResolver {
  private said: Said | undefined;
  private readonly asides: Aside[] = [];
  /** months that narrow the rule instead of being breaks */
  private readonly everyYears = new Set<SaidDate | SaidSpan>();

  resolve(said: Said): Resolved {
    const { problems } = this;
    this.said = said;
    share(said.clauses);
    for (const { kind, offers, ...place } of said.asked) this.problem(kind, place, offers);
    const made: { clause: Clause; parts: RecurrencePart[] }[] = [];
    let decided = !said.asked.length;
    for (const clause of said.clauses) {
      const parts = this.attempt(() => {
        this.noteTimes(clause, said.clauses);
        const asked = contradictionsOf(clause, this.setting.now.day, wholeOf(clause, this.setting.phrase));
        for (const { kind, offers, ...place } of asked) this.problem(kind, place, offers);
        if (asked.length) throw new Undecided();
        return [clause.times, ...clause.moreTimes].flatMap((times) =>
          this.bySun(times, this.recurrencePartsOf(times ? { ...clause, times } : clause)),
        );
      });
      if (parts) made.push({ clause, parts });
      else decided = false;
    }
    const parts = made.flatMap((one) => one.parts);
    const none = { recurrence: null, problems, asides: this.asides };
    if (!decided || !parts.length) return none;
    const recurrence: Recurrence = { zone: this.setting.zone, parts, exdates: [], breaks: [] };
    const whole = this.attempt(() => {
      this.leaveOut(
        recurrence,
        said.except.filter((one) => !this.everyYears.has(one)),
      );
      const begins = Math.min(...parts.map((s) => s.start.day));
      for (const one of this.withYears(said.breaks)) {
        const { first, last } = isSpan(one) ? this.spanFrom(one, begins) : this.days(one, begins);
        recurrence.breaks.push({ from: first, to: last });
      }
      for (const { clause, parts: own } of made) if (!clause.extra) this.standIn(recurrence, clause, own);
      for (const move of said.moved) this.move(recurrence, move);
      return true;
    });
    if (!whole) return none;
    parts.sort((x, y) => Number(x.rule === null) - Number(y.rule === null));
    return { recurrence, problems, asides: this.asides };
  }

  /** Undefined where something was not decided. */
  private attempt<T>(make: () => T): T | undefined {
    try {
      return make();
    } catch (error) {
      if (error instanceof Undecided) return undefined;
      throw error;
    }
  }

  /** `Tuesdays 19:00 …; on 18 May at 18:00`: a single date on a day of the rule stands for the rule's date there. */
  private standIn(recurrence: Recurrence, clause: Clause, own: readonly RecurrencePart[]): void {
    const rules = recurrence.parts.filter((s) => s.rule);
    for (const { rule, start } of own) {
      if (rule || !rules.length) continue;
      const there = this.datesOn({ ...recurrence, parts: rules }, start.day);
      if (!there.length && clause.instead)
        this.problem(
          'exception-without-date',
          clause.dates[0] && !isSpan(clause.dates[0]) ? clause.dates[0] : wholeOf(clause, this.setting.phrase),
        );
      recurrence.exdates.push(
        ...there.filter((wall) => !recurrence.exdates.some((out) => out.day === wall.day && out.minute === wall.minute)),
      );
    }
  }

  /** `4 May moved to 5 May`: the rule's date goes, and comes on the other day, at its time or the one that is said. */
  private move(recurrence: Recurrence, { from, to, times }: SaidMove): void {
    const begins = Math.min(...recurrence.parts.map((s) => s.start.day));
    const day = this.days(from, begins).first;
    const there = this.datesOn(recurrence, day);
    if (!there.length) throw this.undecided('exception-without-date', from);
    const rule = recurrence.parts.find((s) => s.rule) ?? recurrence.parts[0];
    if (times?.other)
      throw this.undecided(
        'ambiguous-time',
        times,
        [this.offerTimes(times.start, times.end), this.offerTimes(times.other.start, times.other.end)].sort(byValue),
      );
    const moved = this.days(to, day - 183).first;
    recurrence.exdates.push(...there);
    for (const wall of there) {
      const start = { day: moved, minute: times ? times.start : wall.minute };
      const asLong = rule ? shiftedLength(rule.length, rule.start, start) : null;
      const length = times ? (times.end === null ? null : { days: times.endDays, minute: times.end }) : asLong;
      recurrence.parts.push({ start, length, rule: null, limit: { kind: 'open' } });
    }
  }

  private datesOn(recurrence: Recurrence, day: EpochDay): PlainDateTime[] {
    return startsBetween({ ...recurrence, exdates: [], breaks: [] }, day, day).map(({ wall }): PlainDateTime => wall);
  }

  /** Parts that begin by the sun, each at that of its first day. */
  private bySun(times: SaidTimes | undefined, parts: RecurrencePart[]): RecurrencePart[] {
    if (!times?.sun) return parts;
    const { sunAt, zone } = this.setting;
    if (!sunAt) throw this.undecided('no-sun', times);
    const sun = { ...times.sun, ...sunAt, ends: times.end === null ? ('length' as const) : ('clock' as const) };
    return parts.map((part) => (part.start.minute === times.start ? atSun(part, sun, zone) : part));
  }

  private recurrencePartsOf(clause: Clause): RecurrencePart[] {
    if (clause.rule) return [this.writtenRule(clause, clause.rule)];
    const from = startingDate(clause);
    if (from) return this.recurrencePartsOf({ ...clause, start: from, dates: [] });
    if (clause.yearly && clause.dates.length) return this.yearlyDates(clause, clause.yearly.interval);
    const each = this.ruleOf(clause) ? monthsOfEveryYear(clause) : undefined;
    const rest = each?.rest ?? clause;
    const plain = this.ruleOf(rest) ?? (each ? this.ruleOf({ ...rest, repeats: true }) : undefined);
    if (!plain) return this.singles(clause, clause.dates);
    const rule = each ? inMonthsOnly(plain, each.months) : plain;
    for (const one of each?.said ?? []) this.noteEachYear(one);
    const spanning = rest.dates.length > 0 && rest.dates.every(isSpan) && !rest.weekdays.length && rule.freq === 'daily';
    if (spanning)
      return rest.dates.filter(isSpan).map((span) => this.repeating({ ...rest, start: span.from, until: span.to, dates: [] }, rule));
    const extra = rest.dates.length ? this.singles({ ...rest, weekdays: [] }, rest.dates) : [];
    return [this.withoutMonths(rest, rule), ...extra];
  }

  /** A rule with the months that are left out every year; where it ends within a year they are breaks, which come later. */
  private withoutMonths(clause: Clause, rule: Rule): RecurrencePart {
    const out = (this.said?.except ?? []).filter(isOfEveryYear);
    const always = clause.exceptMonths;
    if (!out.length && !always.length) return this.repeating(clause, rule);
    if (out.length) {
      const whole = this.repeating(clause, always.length ? inMonthsOnly(rule, monthsBut([], always)) : rule);
      if (whole.limit.kind === 'until' && whole.limit.day - whole.start.day < 366) return whole;
    }
    for (const one of out) {
      if (!this.everyYears.has(one)) this.noteEachYear(one);
      this.everyYears.add(one);
    }
    const less = inMonthsOnly(rule, monthsBut(out, always));
    if (!less.byMonth.length) throw this.undecided('no-dates', wholeOf(clause, this.setting.phrase));
    return this.repeating(clause, less);
  }

  /** Said beside the dates: these months come every year; with a year they would come once. */
  private noteEachYear(one: SaidDate | SaidSpan): void {
    const once = onlyOnce(one, this.setting.now.day);
    if (!once || this.asides.some(({ from }) => from === once.place.from)) return;
    const { from, to } = once.place;
    this.asides.push({
      kind: 'each-year',
      text: this.setting.phrase.slice(from, to),
      from,
      to,
      offers: [{ value: String(once.year), instead: once.instead }],
    });
  }

  /** The rule that a clause says, without its limit; undefined when it happens once, or on some days. */
  private ruleOf(clause: Clause): Rule | undefined {
    const { every, weekdays, nths, workdays, monthDays, yearly, months } = clause;
    const ends =
      Boolean(clause.until ?? clause.count ?? clause.lasting ?? clause.start) || months.length > 0 || clause.exceptWeekdays.length > 0;
    const weekly = weekdays.length > 0 && (clause.repeats || ends || this.severalWeekdays(clause) || Boolean(every) || Boolean(yearly));
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
    if (clause.exceptWeekdays.length && !rule.byDay.length) throw this.undecided('no-dates', wholeOf(clause, this.setting.phrase));
    return rule;
  }

  /** `Mon, Wed & Fri at 9`: three weekdays are a rhythm; of two it is asked. */
  private severalWeekdays(clause: Clause): boolean {
    if (clause.once || clause.weekdaySpan || clause.dates.length) return false;
    return clause.weekdays.length > 2;
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

  private writtenRule(clause: Clause, { text, ...place }: Place & { text: string }): RecurrencePart {
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
  private repeating(clause: Clause, rule: Rule): RecurrencePart {
    const minute = startMinute(clause);
    const { base, implied, last } = this.bounds(clause);
    const passed = implied && minute !== null && minute <= this.setting.now.minute;
    const floor = passed && base === this.setting.now.day ? base + 1 : base;
    const start = this.firstDay(rule, floor, minute);
    if (start === undefined || (last !== undefined && start > last)) throw this.undecided('no-dates', wholeOf(clause, this.setting.phrase));
    this.checkEnds(clause, rule, start, last);
    this.checkZone(clause, start);
    return { start: { day: start, minute }, length: lengthOf(clause, minute, 1), rule, limit: this.limitOf(clause, start, last) };
  }

  /** `3 times` and `until 29 June` must be the same end. */
  private checkEnds(clause: Clause, rule: Rule, start: EpochDay, last: EpochDay | undefined): void {
    const { count } = clause;
    if (count === undefined || last === undefined) return;
    const recurrencePart: RecurrencePart = {
      start: { day: start, minute: startMinute(clause) },
      length: null,
      rule,
      limit: { kind: 'until', day: last },
    };
    const many = startsBetween({ zone: this.setting.zone, parts: [recurrencePart], exdates: [], breaks: [] }, start, last).length;
    if (many !== count) throw this.undecided('two-ends', wholeOf(clause, this.setting.phrase));
  }

  /** The first day that a rule names from a day on, whatever its interval is counted from. */
  private firstDay(rule: Rule, floor: EpochDay, minute: number | null): EpochDay | undefined {
    return firstFittingDay({ start: { day: floor, minute }, length: null, rule: { ...rule, interval: 1 }, limit: { kind: 'open' } });
  }

  /** Where a rule may begin and must end; `implied` when nothing says where it begins. */
  private bounds(clause: Clause): { base: EpochDay; implied: boolean; last: EpochDay | undefined } {
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
  private between(from: SaidDate, to: SaidDate): { base: EpochDay; last: EpochDay } {
    const { today } = this.bearings;
    const [fromYear, toYear] = [yearOf(from), yearOf(to)];
    if (fromYear === undefined && toYear !== undefined && from.meaning.kind !== 'either') {
      // The last such day before the end.
      const last = this.days(to, today).last;
      const same = this.days(inYear(from, toYear), today).first;
      const base = same <= last ? same : this.days(inYear(from, toYear - 1), today).first;
      // `25 June to 7 May 2027` would have begun long ago: likelier its days are turned round.
      if (same > last && base < today && last - base > LONGEST && from.meaning.kind === 'day')
        throw this.reversed({ from, to }, base, last);
      return { base, last };
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
      if (ends && ends.last >= today && ends.last - begun.first < 366)
        return { base: from.meaning.kind === 'day' ? begun.first : today, last: ends.last };
    }
    const base = this.days(from, today, false).first;
    return { base, last: this.days(to, base).last };
  }

  private limitOf(clause: Clause, start: EpochDay, last: EpochDay | undefined): Limit {
    if (clause.count !== undefined) return { kind: 'count', count: clause.count };
    const { lasting } = clause;
    if (last !== undefined) return { kind: 'until', day: last };
    if (!lasting) return { kind: 'open' };
    return { kind: 'until', day: after(start, lasting.amount, lasting.unit) - 1 };
  }

  /** `4 July every year`, `3 to 5 July every year`. */
  private yearlyDates(clause: Clause, interval: number): RecurrencePart[] {
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

  /** Single dates that are excepted are left out where there is one; spans and months are breaks. */
  private leaveOut(recurrence: Recurrence, except: (SaidDate | SaidSpan)[]): void {
    const begins = Math.min(...recurrence.parts.map((s) => s.start.day));
    for (const one of this.withYears(except)) {
      const span = isSpan(one) ? this.spanFrom(one, begins) : this.days(one, begins);
      if (span.last > span.first || isSpan(one)) {
        recurrence.breaks.push({ from: span.first, to: span.last });
        continue;
      }
      const there = startsBetween({ ...recurrence, exdates: [], breaks: [] }, span.first, span.first).map(
        ({ wall }): PlainDateTime => wall,
      );
      if (!there.length) this.problem('exception-without-date', isSpan(one) ? one.from : one);
      recurrence.exdates.push(...there);
    }
  }
}
