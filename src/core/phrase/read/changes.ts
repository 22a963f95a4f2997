/** Dates that differ from the rule said with them: added, moved, at another time, cancelled. */
import { hasDays } from './clause-state';
import { isSpan, readDate, readDates } from './calendar-dates';
import { LimitReader } from './rule-limits';
import { readTimes } from './times-of-day';

const CANCELLED = ['cancelled', 'canceled'];

/** Reads what changes single dates: "not on the 3rd", "the one in May at noon". */
export class ChangeReader extends LimitReader {
  /** `plus Saturday 15 May at 6pm`, `extra date 15 May`, `as well as 15 May`: on top of the rule, with times of its own if any are said. */
  protected added(): boolean {
    const { cursor } = this;
    const lead = (): boolean =>
      cursor.pass('plus', 'additionally') ||
      (cursor.pass('extra') && (cursor.pass('date', 'dates', 'session', 'sessions', 'day', 'days') || true)) ||
      cursor.passAll('as well as') ||
      ((cursor.word() === 'also' || cursor.passAll('and also')) && hasDays(this.clause) && (cursor.pass('also') || true));
    if (!hasDays(this.clause)) return false;
    const at = cursor.at;
    if (!lead()) return false;
    cursor.pass('on', ':');
    const from = cursor.at;
    if (!readDates(cursor).length) {
      cursor.at = at;
      return false;
    }
    cursor.at = from;
    this.begin(false);
    this.clause.extra = true;
    return true;
  }

  /** `4 May moved to 5 May[, 6pm]` */
  protected moved(): boolean {
    const { cursor, said, clause } = this;
    const repeats = clause.repeats || clause.every || clause.nths.length || clause.monthDays.length || clause.dates.length;
    if (!repeats && said.clauses.length < 2) return false;
    cursor.pass('but', 'except');
    const from = readDate(cursor);
    if (!from || isSpan(from)) return false;
    cursor.pass('is', 'was');
    if (!cursor.pass('moved', 'moves', 'move', 'postponed', 'rescheduled', 'brought')) return false;
    cursor.pass('forward');
    if (!cursor.pass('to', 'until')) return false;
    const to = readDate(cursor);
    if (!to) return false;
    const times = cursor.attempt(() => {
      cursor.pass(',');
      return readTimes(cursor);
    });
    said.moved.push({ from, to, times });
    return true;
  }

  /** `but 18 May at six instead`: that date of the rule, at another time; `4 and 11 May cancelled` takes them out. */
  protected instead(): boolean {
    const { cursor, said, clause } = this;
    if (!hasDays(clause)) return false;
    const but = cursor.pass('but');
    cursor.pass('on');
    const one = cursor.attempt(() => {
      const date = readDate(cursor);
      return date && CANCELLED.includes(cursor.word()) ? date : undefined;
    });
    const dates = one ? [one] : readDates(cursor);
    if (!dates.length) return false;
    cursor.pass('is', 'are');
    if (cursor.pass(...CANCELLED) || cursor.passAll('called off')) {
      said.except.push(...dates);
      return true;
    }
    cursor.pass('starts', 'begins');
    const times = readTimes(cursor);
    const closed = cursor.pass('instead', 'only');
    if (!times || !(closed || but)) return false;
    this.begin(false);
    Object.assign(this.clause, { dates, times, instead: true });
    return true;
  }
}
