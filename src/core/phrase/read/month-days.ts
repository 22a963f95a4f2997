/** Days that are counted: the 5th, the last Friday, the first workday of each month or year. */
import type { Weekday } from '../../day/day';
import type { Clause } from './clause-state';
import { readList } from './cursor';
import { readMonth, readNth } from './calendar-dates';
import { readAmount } from './times-of-day';
import { ORDINAL_WORDS } from './vocabulary';
import { WeekdayReader } from './weekdays';

/** Reads days of the month and numbered weekdays: "the 1st and 15th", "last Friday". */
export class MonthDayReader extends WeekdayReader {
  protected saidPeriod = false;

  /** `the first and third Sunday of every month`, `first Monday and last Friday of June and July, every year`, `last workday of the month`. */
  protected numbered(every = false): boolean {
    const { cursor } = this;
    this.saidPeriod = false;
    const found = cursor.attempt(() => {
      const groups = readList(cursor, () => this.nthGroup());
      if (!groups.length) return undefined;
      const clause = this.forDays();
      const before = { nths: [...clause.nths], workdays: [...clause.workdays] };
      for (const { nths, weekdays } of groups) {
        if (weekdays) clause.nths.push(...weekdays.flatMap((weekday) => nths.map((nth) => ({ weekday, nth }))));
        else clause.workdays.push(...nths);
      }
      this.saidPeriod = this.period(clause);
      // `every other month on the second Friday`: the months were said before.
      const monthly = clause.every?.unit === 'month';
      if (this.saidPeriod || every || monthly || clause.yearly || groups.length > 1 || (groups[0]?.nths.length ?? 0) > 1) return true;
      // `last Friday in June` alone is a date, which others read.
      Object.assign(clause, before);
      return undefined;
    });
    return found ?? false;
  }

  protected nthGroup(): { nths: number[]; weekdays: Weekday[] | undefined } | undefined {
    const { cursor } = this;
    const nths = readList(cursor, () => readNth(cursor));
    if (!nths.length) return undefined;
    if (cursor.pass('workday', 'weekday') || cursor.passAll('working day')) return { nths, weekdays: undefined };
    const weekdays = this.weekdays();
    return weekdays ? { nths, weekdays } : undefined;
  }

  /** `of every month`, `of the month`, `monthly`, `of every second month`, `in June and July[, every year]`. */
  protected period(clause: Clause): boolean {
    const { cursor } = this;
    const months = cursor.attempt(() => {
      cursor.pass('of', 'in', 'on');
      if (cursor.passAll('the month') || cursor.passAll('a month') || cursor.pass('month', 'monthly')) return { interval: 1 };
      if (!cursor.pass('every', 'each')) return undefined;
      const token = cursor.peek();
      const second =
        cursor.pass('other', 'second') || (token?.kind === 'number' && token.ordinal && token.value === 2 && Boolean(cursor.next()));
      const interval = second ? 2 : (readAmount(cursor) ?? 1);
      return cursor.pass('month', 'months') ? { interval } : undefined;
    });
    if (months) {
      clause.every = { unit: 'month', interval: months.interval };
      return true;
    }
    return Boolean(
      cursor.attempt(() => {
        if (!cursor.pass('of', 'in')) return undefined;
        const at = cursor.at;
        const list = readList(cursor, () => readMonth(cursor));
        const yearly = list.length ? this.yearlyHere() : undefined;
        if (!yearly && !(list.length > 1)) return undefined;
        clause.months.push(...list.map((month) => ({ meaning: { kind: 'month' as const, month }, ...cursor.place(at) })));
        if (yearly) clause.yearly = { interval: yearly };
        else clause.every = { unit: 'month', interval: 1 };
        return true;
      }),
    );
  }

  /** `, every year`, `each year`, `of every second year`: the interval. */
  protected yearlyHere(): number | undefined {
    const { cursor } = this;
    return cursor.attempt(() => {
      cursor.pass(',');
      cursor.pass('of', 'in');
      if (cursor.pass('yearly', 'annually')) return 1;
      if (!cursor.pass('every', 'each')) return undefined;
      const interval = cursor.pass('other', 'second') ? 2 : (readAmount(cursor) ?? 1);
      return cursor.pass('year', 'years') ? interval : undefined;
    });
  }

  /** `the 1st and 15th of every month`, `the last day of the month`, `on the 5th of March and April, every year`. */
  protected daysOfMonth(): boolean {
    const { cursor } = this;
    return Boolean(
      cursor.attempt(() => {
        const days = readList(cursor, () => this.monthDay());
        if (!days.length) return undefined;
        const clause = this.forDays();
        const before = [...clause.monthDays];
        clause.monthDays.push(...days);
        if (this.period(clause)) return true;
        clause.monthDays = before;
        return undefined;
      }),
    );
  }

  protected monthDay(): number | undefined {
    const { cursor } = this;
    return cursor.attempt(() => {
      cursor.pass('the');
      if (cursor.passAll('last day')) return -1;
      const token = cursor.peek();
      const day = token?.kind === 'number' && (token.ordinal || cursor.word(1) === 'of') ? token.value : ORDINAL_WORDS.get(cursor.word());
      if (day === undefined || day < 1 || day > 31 || !Number.isInteger(day)) return undefined;
      cursor.next();
      if (cursor.passAll('to last day') || cursor.passAll('last day')) return -day;
      cursor.attempt(() => cursor.pass('day') || undefined);
      return day;
    });
  }
}
