/** How it repeats: every other week, each day, monthly, mornings. */
import { type EveryUnit, hasDays, type PartOfDay } from './clause-state';
import { readList } from './cursor';
import { isSpan, readDates, readMonth } from './calendar-dates';
import { readAmount } from './times-of-day';
import { MONTH_WORDS, UNIT_WORDS, WEEKDAY_WORDS } from './vocabulary';
import { MonthDayReader } from './month-days';

const PARTS: readonly PartOfDay[] = ['morning', 'afternoon', 'evening', 'night'];
const PART_LEADS = new Set(['the', 'every', 'each', 'this', 'tomorrow', 'today', 'on']);

/** Reads how something repeats: "every other week", "twice a month". */
export class RepeatReader extends MonthDayReader {
  protected every(): boolean {
    const { cursor } = this;
    if (!cursor.pass('every', 'each')) return false;
    return (this.everyOther() || this.everyUnit() || this.everyNumbered() || this.everyWeekday() || this.everyDate()) && true;
  }

  /** `every other Wednesday`, `every second week`, `every alternate day`. */
  protected everyOther(): boolean {
    const { cursor } = this;
    return Boolean(
      cursor.attempt(() => {
        const at = cursor.at - 1;
        const token = cursor.peek();
        const second = token?.kind === 'number' && token.ordinal && token.value === 2;
        const other = !second && cursor.pass('other', 'alternate');
        if (second) cursor.next();
        else if (!other && !cursor.pass('second')) return undefined;
        const unit = this.unit();
        if (unit) return this.setEvery(unit, 2);
        const weekdays = this.weekdays();
        // `every second Sunday of the month`, or of every month, is another matter.
        if (!weekdays || cursor.word() === 'of' || (cursor.word() === 'in' && ['the', 'every', 'each', 'a'].includes(cursor.word(1))))
          return undefined;
        this.setWeekdays(weekdays, true);
        this.clause.every = { unit: 'week', interval: 2 };
        // `every second Tuesday` may be the month's.
        if (!other && weekdays.length === 1) this.clause.doubt = { nth: 2, ...cursor.place(at) };
        return true;
      }),
    );
  }

  protected everyUnit(): boolean {
    const { cursor } = this;
    return Boolean(
      cursor.attempt(() => {
        const amount = readAmount(cursor) ?? 1;
        if (cursor.pass('weekday', 'weekdays', 'workday', 'workdays') || cursor.passAll('working day')) {
          if (amount !== 1) return undefined;
          this.setWeekdays([0, 1, 2, 3, 4], true);
          return true;
        }
        if (amount === 1 && cursor.pass('weekend')) {
          this.setWeekdays([5, 6], true);
          return true;
        }
        const part = amount === 1 ? this.partOfDay() : undefined;
        if (part) return this.setEvery('day', 1);
        const unit = this.unit();
        return unit && Number.isInteger(amount) && amount >= 1 && amount <= 1000 ? this.setEvery(unit, amount) : undefined;
      }),
    );
  }

  /** A unit of days or longer, after `every`. */
  protected unit(): EveryUnit | undefined {
    const unit = UNIT_WORDS.get(this.cursor.word());
    if (unit !== 'day' && unit !== 'week' && unit !== 'month' && unit !== 'year') return undefined;
    this.cursor.next();
    this.cursor.attempt(() => this.cursor.passAll('that is a') || this.cursor.passAll('that is') || undefined);
    return unit;
  }

  protected setEvery(unit: EveryUnit, interval: number): true {
    const { clause } = this;
    this.twice(unit, interval);
    // A date or a numbered weekday comes back each year; the days of a span each are a date.
    if (unit === 'year') clause.yearly = { interval };
    else if (unit === 'month' && (clause.nths.length || clause.monthDays.length || clause.workdays.length))
      clause.every = { unit, interval };
    else if (clause.dates.length && !clause.every && (unit === 'day' || clause.dates.length === 1)) clause.every = { unit, interval };
    // `Mon 7pm, Wed 8pm every week`
    else if (unit === 'week' && clause.weekdays.length && !clause.every) clause.every = { unit, interval };
    else this.forDays().every = { unit, interval };
    this.daysOfEach();
    return true;
  }

  /** `weekly every month`: two rhythms that cannot both be. */
  protected twice(unit: EveryUnit, interval: number): void {
    const { every, times } = this.clause;
    if (!every || (times && hasDays(this.clause))) return;
    const same = every.unit === unit && every.interval === interval;
    if (!same && unit !== 'year' && every.unit !== 'year') this.ask('two-rules', this.cursor.place(this.cursor.at - 1));
  }

  /** `monthly on the 10th`: a day without a month, when each month is meant. */
  protected daysOfEach(): void {
    const { clause } = this;
    if (clause.every?.unit !== 'month') return;
    const days = clause.dates.flatMap((one) => (!isSpan(one) && one.meaning.kind === 'month-day' ? [one.meaning.day] : []));
    if (days.length !== clause.dates.length) return;
    clause.monthDays.push(...days);
    clause.dates = [];
  }

  protected everyNumbered(): boolean {
    const { cursor } = this;
    const at = cursor.at;
    const before = this.clause.nths.length;
    if (!this.numbered(true)) return false;
    const { nths, every } = this.clause;
    const only = nths[before];
    // `every third Tuesday` may be each three weeks.
    if (nths.length === before + 1 && only && only.nth > 2 && only.nth < 6 && !this.saidPeriod)
      this.clause.doubt = { nth: only.nth, ...cursor.place(at - 1) };
    if (!every && !this.clause.yearly) this.clause.every = { unit: 'month', interval: 1 };
    return true;
  }

  protected everyWeekday(): boolean {
    const weekdays = this.weekdays();
    if (!weekdays) return false;
    this.setWeekdays(weekdays, true);
    this.ofWeeks();
    return true;
  }

  /** `every 15th`, `every 4 July`, `every March`. */
  protected everyDate(): boolean {
    const { cursor } = this;
    const dates = readDates(cursor);
    if (dates.some((one) => !isSpan(one) && ['relative', 'weeks-on', 'months-on'].includes(one.meaning.kind))) return false;
    if (dates.length) {
      this.forDays().dates.push(...dates);
      this.clause.yearly = { interval: 1 };
      return true;
    }
    const token = cursor.peek();
    if (token?.kind === 'number' && token.ordinal && token.value <= 31) {
      cursor.next();
      const clause = this.forDays();
      clause.monthDays.push(token.value);
      if (!this.period(clause)) clause.every = { unit: 'month', interval: 1 };
      return true;
    }
    const at = cursor.at;
    const months = readList(cursor, () => readMonth(cursor));
    if (!months.length) return false;
    this.clause.months.push(...months.map((month) => ({ meaning: { kind: 'month' as const, month }, ...cursor.place(at) })));
    this.clause.yearly = { interval: 1 };
    return true;
  }

  protected adverb(): boolean {
    const { cursor } = this;
    if (cursor.pass('daily')) return this.setEvery('day', 1);
    if (cursor.pass('nightly')) return this.setEvery('day', 1);
    if (this.twiceAWeek() || this.ofTwoRhythms()) return true;
    if (cursor.passAll('once a quarter') || cursor.passAll('every quarter') || cursor.passAll('once every quarter'))
      return this.setEvery('month', 3);
    // `early on Saturday mornings`, where the hour is said too
    if (['early', 'late'].includes(cursor.word()) && (cursor.word(1) === 'on' || PARTS.some((part) => cursor.word(1) === part)))
      return cursor.pass('early', 'late');
    if (cursor.pass('weekly')) return this.setEvery('week', 1);
    if (cursor.pass('fortnightly')) return this.setEvery('week', 2);
    if (cursor.pass('monthly')) return this.setEvery('month', 1);
    if (cursor.pass('quarterly')) return this.setEvery('month', 3);
    if (cursor.passAll('once a week') || cursor.passAll('once every week')) return this.setEvery('week', 1);
    if (cursor.passAll('once a month')) return this.setEvery('month', 1);
    if (cursor.passAll('once a year')) return this.setEvery('year', 1);
    // `tonight` is a date too, which another reader takes.
    if (cursor.word() === 'tonight') this.clause.half = 'pm';
    if (this.partOfDay()) return true;
    if (cursor.pass('yearly', 'annually')) return this.setEvery('year', 1);
    if (cursor.passAll('all day') || cursor.passAll('all - day') || cursor.passAll('whole day')) {
      this.clause.allDay = true;
      return true;
    }
    return false;
  }

  /** `twice a week, Mondays and Thursdays`: how many weekdays have to be said. */
  protected twiceAWeek(): boolean {
    const { cursor } = this;
    const at = cursor.at;
    const times = cursor.attempt(() => {
      const n = cursor.pass('twice') ? 2 : readAmount(cursor);
      if (n === undefined || n < 2 || n > 7 || (cursor.word(-1) !== 'twice' && !cursor.pass('times'))) return undefined;
      return (cursor.pass('a', 'per', 'each', 'every') && cursor.pass('week')) || cursor.pass('weekly') ? n : undefined;
    });
    if (times === undefined) return false;
    this.setEvery('week', 1);
    this.clause.perWeek = { times, ...cursor.place(at) };
    return true;
  }

  /** `biweekly` is every two weeks to one and twice a week to another. */
  protected ofTwoRhythms(): boolean {
    const { cursor } = this;
    const unit = cursor.pass('biweekly') ? 'week' : cursor.pass('bimonthly') ? 'month' : undefined;
    if (!unit) return false;
    this.ask('ambiguous-repeat', cursor.place(cursor.at - 1), [
      { value: `every-2-${unit}s`, instead: `every two ${unit}s` },
      { value: `every-${unit}`, instead: `every ${unit}` },
    ]);
    return this.setEvery(unit, 2);
  }

  /** `morning`, `in the evening`: which half of the day an hour is in, when the hour alone does not say. */
  protected partOfDay(): boolean {
    const { cursor, clause } = this;
    const word = cursor.word();
    const name = PARTS.find((part) => word === part || word === `${part}s`);
    if (!name) return false;
    // `Bread Evening, 9:00` is a title: a part of the day belongs to the day or the article before it.
    const led = PART_LEADS.has(cursor.word(-1)) || WEEKDAY_WORDS.has(cursor.word(-1)) || MONTH_WORDS.has(cursor.word(-1));
    if (!led && cursor.peek(-1)?.kind !== 'number' && cursor.at > 0 && !['early', 'late'].includes(cursor.word(-1))) return false;
    clause.part = { name, ...cursor.place(cursor.at) };
    cursor.next();
    clause.half = name === 'morning' ? 'am' : 'pm';
    // `Tuesday evenings` come again as `Tuesdays` do.
    if (word !== name && clause.weekdays.length) clause.repeats = true;
    return true;
  }
}
