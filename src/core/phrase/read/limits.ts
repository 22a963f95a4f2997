/** Where it begins and ends, how often it is, and what is left out. */
import { hasDays } from './clause-state';
import { readList } from './cursor';
import { readDate, readDates, readSpan } from './dates';
import { endingAt, readAmount, readLength, readTime } from './times';
import { COUNTED, EXCEPT, FROM, NO_WHAT, UNTIL, WEEKDAYS_WORDS } from './words';
import { RepeatReader } from './repeats';

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
    cursor.pass('on', 'in', 'during', 'over');
    cursor.pass('all', 'any');
    const weekdays = cursor.attempt(() => {
      const list = readList(cursor, () => this.weekday(true)?.weekday);
      return list.length ? list : undefined;
    });
    if (weekdays) {
      clause.exceptWeekdays.push(...weekdays);
      return true;
    }
    const dates = readDates(cursor, { months: true });
    (broken ? said.breaks : said.except).push(...dates);
    return dates.length > 0;
  }

  protected lastly(): boolean {
    const { cursor, clause } = this;
    // `Friday 5 March, 18:00 – Sunday 7 March, 12:00`
    const goesOn = clause.dates.length === 1 && clause.times !== undefined && clause.times.end === null && !clause.every && !clause.yearly;
    const led = UNTIL.has(cursor.word()) || (goesOn && cursor.word() === '-');
    if (led) cursor.next();
    else if (!cursor.passAll('up to')) return false;
    cursor.pass('on', 'by');
    const until = readDate(cursor, { months: true, weekdays: true });
    if (!until) return this.endTime();
    cursor.pass('inclusive');
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

  /** `10 times`, `for six evenings`, `once`. */
  protected counted(): boolean {
    const { cursor, clause } = this;
    if (hasDays(clause) && cursor.pass('once')) {
      clause.count = 1;
      return true;
    }
    cursor.pass('for');
    const amount = readAmount(cursor);
    if (amount === undefined || !Number.isInteger(amount) || amount < 1) return false;
    // `8 Thursdays from 1 April`
    const weekdays = WEEKDAYS_WORDS.has(cursor.word());
    if (!weekdays && !COUNTED.has(cursor.word())) return false;
    if (!weekdays) cursor.next();
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
