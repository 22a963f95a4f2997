/** Weekdays: one, several, a span of them, and which weeks they are of. */
import type { Weekday } from '../../day/day';
import { ClauseState } from './clause-state';
import { readList } from './cursor';
import { isSpan, readDates } from './calendar-dates';
import { readAmount } from './times-of-day';
import { WEEKDAYS_WORDS, WEEKDAY_WORDS } from './vocabulary';

/** Reads weekdays: "Tuesdays", "Mon to Fri", "weekends". */
export class WeekdayReader extends ClauseState {
  protected weekday(plural: boolean): { weekday: Weekday; plural: boolean } | undefined {
    const { cursor } = this;
    const word = cursor.word();
    const single = WEEKDAY_WORDS.get(word);
    const weekday = single ?? (plural ? WEEKDAYS_WORDS.get(word) : undefined);
    if (weekday === undefined) return undefined;
    cursor.next();
    return { weekday, plural: single === undefined };
  }

  /** Weekdays after `every` or a number; singular or plural is the same there. */
  protected weekdays(): Weekday[] | undefined {
    const found = this.readWeekdays();
    return found?.list;
  }

  protected readWeekdays(): { list: Weekday[]; plural: boolean; span: boolean } | undefined {
    const { cursor } = this;
    return cursor.attempt(() => {
      let plural = false;
      let span = false;
      const list = readList(cursor, () => {
        const first = this.weekday(true);
        if (!first) return undefined;
        plural ||= first.plural;
        const last = cursor.attempt(() => (cursor.pass('-', 'to', 'through', 'thru') ? this.weekday(true) : undefined));
        if (!last) return [first.weekday];
        plural ||= last.plural;
        span = true;
        return Array.from({ length: ((last.weekday - first.weekday + 7) % 7) + 1 }, (_, i) => (first.weekday + i) % 7);
      }).flat();
      return list.length ? { list, plural, span: span && list.length > 1 } : undefined;
    });
  }

  protected setWeekdays(weekdays: Weekday[], repeats: boolean): void {
    const own = this.clause.every?.unit === 'day' || this.clause.every?.unit === 'week' ? this.clause : this.forDays();
    // `every Tuesday on Wednesdays`: what is said twice must be the same days.
    if (own.weekdays.length && own.repeats && repeats && !weekdays.every((day) => own.weekdays.includes(day)))
      this.ask('two-rules', this.cursor.place(Math.max(0, this.cursor.at - 1)));
    own.weekdays.push(...weekdays.filter((day) => !own.weekdays.includes(day)));
    own.repeats ||= repeats;
  }

  protected weekdayList(): boolean {
    const { cursor } = this;
    if (cursor.pass('weekdays', 'workdays') || cursor.passAll('working days')) {
      this.setWeekdays([0, 1, 2, 3, 4], true);
      this.ofWeeks();
      return true;
    }
    if (cursor.pass('weekends')) {
      this.setWeekdays([5, 6], true);
      return true;
    }
    if (this.otherWeekdays()) return true;
    // A weekday before a date belongs to the date.
    const dated = cursor.attempt(() => {
      const [date] = readDates(cursor);
      return date && (isSpan(date) || date.meaning.kind !== 'weekday') ? date : undefined;
    });
    if (dated) return false;
    const once = cursor.pass('this', 'coming');
    const found = this.readWeekdays();
    if (!found) return false;
    this.setWeekdays(found.list, found.plural);
    if (once) this.clause.once = true;
    this.clause.weekdaySpan ||= found.span;
    this.ofWeeks();
    return true;
  }

  /** `alternate Saturdays` */
  protected otherWeekdays(): boolean {
    const { cursor } = this;
    return Boolean(
      cursor.attempt(() => {
        const weekdays = cursor.pass('alternate', 'alternating') ? this.weekdays() : undefined;
        if (!weekdays) return undefined;
        this.setWeekdays(weekdays, true);
        this.clause.every = { unit: 'week', interval: 2 };
        return true;
      }),
    );
  }

  /** `of every three weeks` after weekdays. */
  protected ofWeeks(): void {
    const { cursor, clause } = this;
    const interval = cursor.attempt(() => {
      if (!cursor.pass('of')) return undefined;
      if (!cursor.pass('every', 'each')) return undefined;
      const every = cursor.pass('other', 'second') ? 2 : (readAmount(cursor) ?? 1);
      return cursor.pass('week', 'weeks') ? every : undefined;
    });
    if (interval === undefined) return;
    clause.every = { unit: 'week', interval };
    clause.repeats = true;
  }
}
