/** The parts of a phrase that say when: read one after another, gathered in clauses, what is not understood kept aside. */
import { hasDays, type Said } from './clause-state';
import { readList, type Cursor } from './cursor';
import { isSpan, readDate, readDates, readMonth, readMonthSpan, type SaidDate, type SaidSpan } from './dates';
import { readAmount, readLength, readTimes } from './times';
import { FILLERS } from './words';
import { LimitReader } from './limits';
import { boundBySpans } from './span-bounds';

/** What leads a date that comes on top. */
const ADDED = new Set(['and', '&', '+', 'also', 'plus']);

/** Reads a whole phrase. */
export class ClauseReader extends LimitReader {
  read(): Said {
    const { cursor } = this;
    const readers = [
      this.ruleText,
      this.separator,
      this.exception,
      this.lastly,
      this.firstly,
      this.counted,
      this.lasting,
      this.every,
      this.adverb,
    ];
    readers.push(this.numbered, this.daysOfMonth, this.weekdayList, this.inMonths, this.datesOf, this.times, this.lengths, this.filler);
    while (!cursor.done) {
      const read = readers.some((reader) => cursor.attempt(() => reader.call(this) || undefined));
      if (!read) this.skip();
    }
    const telling = this.said.clauses.filter((c) => hasDays(c) || c.times || c.yearly || c.start || c.months.length > 0);
    this.said.clauses = boundBySpans(telling);
    return this.said;
  }

  /** Words side by side that nothing reads make one fragment. */
  protected skip(): void {
    const at = this.cursor.at;
    this.cursor.next();
    const place = this.cursor.place(at);
    const last = this.said.unread.at(-1);
    const before = this.cursor.tokens[at - 1];
    if (last && before && last.to === before.to) last.to = place.to;
    else this.said.unread.push(place);
  }

  protected ruleText(): boolean {
    const { cursor } = this;
    const at = cursor.at;
    cursor.passAll('by the rule');
    const token = cursor.peek();
    if (token?.kind !== 'rule') return false;
    cursor.next();
    this.forDays().rule = { text: token.rule, ...cursor.place(at) };
    return true;
  }

  protected separator(): boolean {
    const { cursor } = this;
    const also = cursor.pass(';') || (cursor.word() === 'also' && cursor.word(1) === 'on' && hasDays(this.clause));
    if (!also) return false;
    cursor.pass('also');
    if (hasDays(this.clause)) this.begin(false);
    return true;
  }

  /** `in July and August`, `March to October`, `during May`, with `of every year` when it comes back. */
  protected inMonths(): boolean {
    const { cursor, clause } = this;
    const led = cursor.pass('in', 'during', 'throughout', 'over');
    const at = cursor.at;
    const found = readList(cursor, (): SaidDate | SaidSpan | undefined => {
      const span = readMonthSpan(cursor);
      if (span) return span;
      const from = cursor.at;
      const month = readMonth(cursor);
      const after = cursor.peek();
      if (month === undefined || (!led && after?.kind === 'number' && !/^(19|20|21)\d\d$/.test(after.text))) return undefined;
      return { meaning: { kind: 'month', month, year: this.year() }, ...cursor.place(from) };
    });
    if (!found.length) return false;
    // A month alone, without `in`, is no time of anything that happens once.
    if (!led && !found.some(isSpan) && !hasDays(clause)) {
      cursor.at = at;
      return false;
    }
    clause.months.push(...found);
    const yearly = this.yearlyHere();
    if (yearly) clause.yearly = { interval: yearly };
    return true;
  }

  protected year(): number | undefined {
    const token = this.cursor.peek();
    if (token?.kind !== 'number' || !/^(19|20|21)\d\d$/.test(token.text)) return undefined;
    this.cursor.next();
    return token.value;
  }

  protected datesOf(): boolean {
    const { cursor } = this;
    const added = ADDED.has(cursor.word(-1));
    const span = cursor.attempt(() => (cursor.pass('between') ? readSpanAnd(cursor) : undefined));
    const dates = span ? [span] : readDates(cursor);
    if (!dates.length) return false;
    const yearly = this.yearlyHere();
    const { clause } = this;
    const repeating =
      Boolean(clause.every ?? clause.rule) || clause.repeats || clause.nths.length + clause.monthDays.length + clause.workdays.length > 0;
    if (yearly === 1 && repeating && dates.every(isSpan)) {
      clause.seasons.push(...dates);
      return true;
    }
    const clauseOfDates = this.forDays();
    clauseOfDates.dates.push(...dates);
    if (added) clauseOfDates.extra = true;
    if (yearly) this.clause.yearly = { interval: yearly };
    this.daysOfEach();
    return true;
  }

  protected times(): boolean {
    const { cursor } = this;
    const times = readTimes(cursor);
    if (!times || this.clause.times) return false;
    this.clause.times = times;
    this.later();
    // Said to be on another day, the end needs no half of the day from its start.
    if (this.clause.daysLater !== undefined && times.ownEnd !== undefined) times.end = times.ownEnd;
    return true;
  }

  /** `the next day`, `2 days later`: the day on which the end lies. */
  protected later(): void {
    const { cursor, clause } = this;
    if (cursor.passAll('the next day') || cursor.passAll('next day')) clause.daysLater = 1;
    else {
      const days = cursor.attempt(() => {
        cursor.pass('(');
        const amount = readAmount(cursor);
        return amount !== undefined && cursor.pass('day', 'days') && cursor.pass('later') ? amount : undefined;
      });
      if (days !== undefined) clause.daysLater = days;
    }
  }

  /** `2 hours`, `3 days each`. */
  protected lengths(): boolean {
    const { cursor, clause } = this;
    const length = readLength(cursor);
    if (!length) return false;
    if (length.unit !== 'minute' && !(length.unit === 'day' && cursor.pass('each', 'long'))) return false;
    clause.length = length;
    cursor.pass('long', 'each');
    return true;
  }

  protected filler(): boolean {
    if (!FILLERS.has(this.cursor.word())) return false;
    this.cursor.next();
    return true;
  }
}

/** `3 July and 10 July`, after `between`. */
function readSpanAnd(cursor: Cursor): SaidSpan | undefined {
  const from = readDate(cursor);
  if (!from || !cursor.pass('and', '-', 'to')) return undefined;
  const to = readDate(cursor);
  return to ? { from, to } : undefined;
}
