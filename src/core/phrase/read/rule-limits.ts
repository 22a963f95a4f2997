/** Where it begins and ends, how often it is, and what is left out. */
import { hasDays } from './clause-state';
import { readList } from './cursor';
import { isSpan, monthsOf, readDate, readDates, readMonth, readMonthSpan, readSpan } from './calendar-dates';
import { endingAt, readAmount, readLength, readTime } from './times-of-day';
import { COUNTED, EXCEPT, FROM, NO_WHAT, UNTIL, WEEKDAYS_WORDS, WEEKDAY_WORDS } from './vocabulary';
import { RepeatReader } from './repeat-phrases';

/** Reads where repeats begin and end: "until June", "for ten weeks". */
export class LimitReader extends RepeatReader {
  /** `except 5 May`, `not in August`, `with breaks 1-7 August and 3 September`, `but not on Sundays`. */
  protected exception(): boolean {
    const { cursor, said, clause } = this;
    const broken =
      cursor.passAll('with a break') || cursor.passAll('with breaks') || cursor.passAll('with break') || cursor.pass('break', 'breaks');
    let led = broken;
    while (EXCEPT.has(cursor.word())) {
      cursor.next();
      led = true;
    }
    if (led && (COUNTED.has(cursor.word()) || NO_WHAT.has(cursor.word()))) cursor.next();
    if (cursor.passAll('apart from') || cursor.passAll('other than')) led = true;
    if (!led) return false;
    cursor.pass('for', 'from', 'between');
    cursor.pass('on', 'in', 'during');
    const over = cursor.at;
    const vague = cursor.pass('over');
    cursor.pass('all', 'any');
    const weekend = cursor.pass('weekends', 'weekend') ? [5, 6] : cursor.pass('weekdays', 'workdays') ? [0, 1, 2, 3, 4] : undefined;
    if (weekend) {
      clause.exceptWeekdays.push(...weekend);
      return true;
    }
    if (this.exceptEachYear()) return true;
    const weekdays = cursor.attempt(() => {
      const list = readList(cursor, () => this.weekday(true)?.weekday);
      return list.length ? list : undefined;
    });
    if (weekdays) {
      clause.exceptWeekdays.push(...weekdays);
      return true;
    }
    const dates = readDates(cursor, { months: true });
    // `over Christmas` is some days around one.
    if (vague && dates.length === 1 && dates[0] && !isSpan(dates[0]) && dates[0].meaning.kind !== 'month')
      this.ask('vague', cursor.place(over));
    else (broken ? said.breaks : said.except).push(...dates);
    return dates.length > 0;
  }

  /** `every August`, `July and August of every year`: left out whenever they come. */
  protected exceptEachYear(): boolean {
    const { cursor, clause } = this;
    return Boolean(
      cursor.attempt(() => {
        const led = cursor.pass('every', 'each');
        const months = readList(cursor, () => {
          cursor.pass('every', 'each');
          const span = readMonthSpan(cursor);
          if (span) return monthsOf(span);
          const month = readMonth(cursor);
          return month === undefined || cursor.peek()?.kind === 'number' ? undefined : [month];
        });
        const of = months.length > 0 && this.yearlyHere() === 1;
        if (!months.length || !(led || of)) return undefined;
        clause.exceptMonths.push(...months.flat());
        return true;
      }),
    );
  }

  protected lastly(): boolean {
    const { cursor, clause } = this;
    this.weekdayAsDate();
    // `Friday 5 March, 18:00 – Sunday 7 March, 12:00`
    const goesOn = clause.dates.length === 1 && clause.times !== undefined && clause.times.end === null && !clause.every && !clause.yearly;
    const led = UNTIL.has(cursor.word()) || (goesOn && cursor.word() === '-');
    if (led) cursor.next();
    else if (!cursor.passAll('up to')) return false;
    cursor.pass('on', 'by');
    // `until 2 pm`: an hour is none of a month's days.
    const until = cursor.attempt(() => readDate(cursor, { months: true, weekdays: true }));
    if (!until) return this.endTime();
    cursor.pass('inclusive', 'incl');
    clause.until = until;
    if (goesOn) {
      const time = cursor.attempt(() => {
        cursor.pass(',');
        const at = cursor.pass('at');
        return readTime(cursor, at);
      });
      if (time) clause.untilTime = time;
    }
    return true;
  }

  /** `Fri 8pm – Sun 4pm`: with an end on another weekday it is one date. */
  protected weekdayAsDate(): void {
    const { cursor, clause } = this;
    const [weekday] = clause.weekdays;
    if (clause.weekdays.length !== 1 || weekday === undefined || clause.repeats || clause.every || clause.dates.length) return;
    if (
      !clause.times ||
      clause.times.end !== null ||
      !['-', 'to', 'until', 'till'].includes(cursor.word()) ||
      !WEEKDAY_WORDS.has(cursor.word(1))
    )
      return;
    const { from } = clause.times;
    clause.dates.push({ meaning: { kind: 'weekday', weekday, next: false }, from, to: from });
    clause.weekdays = [];
  }

  /** `10pm Saturday until 2am`: the end of the times said before. */
  protected endTime(): boolean {
    const { clause } = this;
    if (!clause.times || clause.times.end !== null) return false;
    const end = readTime(this.cursor, true);
    if (end) clause.times = endingAt(clause.times, end);
    return Boolean(end);
  }

  protected firstly(): boolean {
    const { cursor, clause } = this;
    const asOf = cursor.passAll('as of');
    if (!asOf) {
      if (!FROM.has(cursor.word())) return false;
      cursor.next();
    }
    cursor.pass('on', 'from', 'in');
    if (!asOf && this.fromTimeToTime()) return true;
    // `from 1 to 7 May`
    const span = readSpan(cursor);
    if (span) {
      clause.start = span.from;
      clause.until = span.to;
      return true;
    }
    const start = readDate(cursor, { months: true, weekdays: true });
    if (!start || start.meaning.kind === 'year') return false;
    clause.start = start;
    cursor.attempt(() => {
      if (!cursor.pass('-', 'to', 'until', 'till', 'til', 'through', 'thru')) return undefined;
      const until = readDate(cursor, { months: true, weekdays: true });
      if (until) clause.until = until;
      return until;
    });
    return true;
  }

  /** `from 9am 3 May to 4pm 5 May`: something that takes several days. */
  protected fromTimeToTime(): boolean {
    const { cursor } = this;
    return Boolean(
      cursor.attempt(() => {
        const start = cursor.at;
        const from = readTime(cursor, true);
        cursor.pass('on', ',');
        const first = from && readDate(cursor);
        if (!from || !first || !cursor.pass('-', 'to', 'until', 'till', 'til')) return undefined;
        const at = cursor.at;
        const to = readTime(cursor, true);
        cursor.pass('on', ',');
        const last = to && readDate(cursor);
        if (!to || !last) return undefined;
        const clause = this.forDays();
        clause.dates.push(first);
        clause.times = { start: from.minute, end: null, endDays: 0, endsBefore: false, ...cursor.place(start) };
        clause.until = last;
        clause.untilTime = to;
        if (from.open || to.open) this.ask('ambiguous-time', from.open ? from : { ...to, from: cursor.place(at).from });
        return true;
      }),
    );
  }

  /** `10 times`, `for six evenings`, `once`. */
  protected counted(): boolean {
    const { cursor, clause } = this;
    if (hasDays(clause) && cursor.pass('once')) {
      clause.count = 1;
      return true;
    }
    const at = cursor.at;
    cursor.pass('for');
    const amount = readAmount(cursor);
    if (amount === undefined || !Number.isInteger(amount)) return false;
    // `8 Thursdays from 1 April`
    const weekdays = WEEKDAYS_WORDS.has(cursor.word());
    if (!weekdays && !COUNTED.has(cursor.word())) return false;
    if (!weekdays) cursor.next();
    if (amount < 1) this.ask('no-dates', cursor.place(at));
    cursor.passAll('in all');
    cursor.passAll('in total');
    clause.count = amount;
    return true;
  }

  /** `for 2 hours` is how long; `for 3 weeks` is how long it goes on. */
  protected lasting(): boolean {
    const { cursor, clause } = this;
    if (!cursor.pass('for', 'lasting')) return false;
    cursor.pass('the', 'about');
    cursor.pass('next');
    const length = readLength(cursor);
    if (!length) return false;
    if (length.unit === 'minute') clause.length = length;
    else clause.lasting = length;
    return true;
  }
}
