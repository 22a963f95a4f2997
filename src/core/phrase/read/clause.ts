/** The parts of a phrase that say when: read one after another, gathered in clauses, what is not understood kept aside. */
import { hasDays, type Said } from './clause-state';
import { readList, type Cursor } from './cursor';
import { isSpan, readDate, readDates, readMonth, readMonthSpan, type SaidDate, type SaidSpan } from './calendar-dates';
import { readAmount, readLength, readTimes, readTimesOfDay } from './times-of-day';
import { FILLERS, VAGUE } from './vocabulary';
import { ChangeReader } from './changes';
import { type Fate, fragmentsOf } from './fragments';
import { datesOfWeekdays } from './weekday-lists';
import { boundBySpans } from './span-bounds';

/** What leads a date that comes on top. */
const ADDED = new Set(['and', '&', '+', 'also', 'plus']);

/** Reads a whole phrase. */
export class ClauseReader extends ChangeReader {
  read(): Said {
    const { cursor, said } = this;
    const readers = [
      this.ruleText,
      this.noTime,
      this.separator,
      this.moved,
      this.added,
      this.instead,
      this.exception,
      this.lastly,
      this.firstly,
      this.counted,
      this.lasting,
      this.every,
      this.adverb,
    ];
    readers.push(this.numbered, this.daysOfMonth, this.weekdayList, this.inMonths, this.datesOf, this.times, this.lengths, this.filler);
    const fates: Fate[] = [];
    while (!cursor.done) {
      const at = cursor.at;
      const reader = readers.find((one) => cursor.attempt(() => one.call(this) || undefined));
      if (!reader) cursor.next();
      fates.push(...Array<Fate>(cursor.at - at).fill(!reader ? 'unread' : reader === this.filler ? 'filler' : 'read'));
      if (reader && reader !== this.exception) this.eitherOr(at);
    }
    said.unread = fragmentsOf(cursor.tokens, fates, this.phrase);
    this.vague(fates);
    const telling = said.clauses.filter((c) => hasDays(c) || c.times || c.yearly || c.start || c.months.length > 0);
    said.clauses = boundBySpans(datesOfWeekdays(telling));
    return said;
  }

  /** `Monday or Tuesday`: which of them is not said. */
  protected eitherOr(at: number): void {
    const { cursor } = this;
    const or = cursor.tokens.slice(at, cursor.at).some((token) => token.kind === 'word' && token.word === 'or');
    if (or) this.ask('either-or', cursor.place(at));
  }

  /** `around Easter`, `most Tuesdays`: a word that nobody understood makes what stands behind it uncertain. */
  protected vague(fates: readonly Fate[]): void {
    const { tokens } = this.cursor;
    for (const [i, token] of tokens.entries()) {
      if (fates[i] !== 'unread' || token.kind !== 'word' || !VAGUE.has(token.word)) continue;
      const last = tokens.findIndex((_, j) => j > i && fates[j] !== 'filler');
      const said = tokens[last];
      if (said && fates[last] === 'read') this.ask('vague', { from: token.from, to: said.to });
    }
  }

  /** `25:00` */
  protected noTime(): boolean {
    const { cursor } = this;
    if (cursor.peek()?.kind !== 'no-time') return false;
    cursor.next();
    this.ask('no-such-time', cursor.place(cursor.at - 1));
    return true;
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
    const extra = cursor.pass('also');
    if (hasDays(this.clause)) this.begin(false);
    if (extra) this.clause.extra = true;
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
    const added = ADDED.has(cursor.word(-1)) || this.clause.extra;
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
    const at = cursor.at;
    let all = readTimesOfDay(cursor);
    const first = all[0];
    if (!first) return false;
    if (all.length > 1 && this.daysFollow()) {
      // `7pm and 10am on Saturdays`: the last belongs to the days behind it.
      cursor.at = at;
      const alone = readTimes(cursor);
      if (!alone) return false;
      all = [alone];
    }
    if (this.clause.times) {
      // `Tuesdays 19:00 and 10:00 on Saturdays`; a second time of the same days needs its join.
      if (!hasDays(this.clause) || !this.daysFollow()) return false;
      this.begin(true);
    }
    const [times, ...more] = all;
    this.clause.times = times ?? first;
    this.clause.moreTimes = more;
    this.later();
    // Said to be on another day, the end needs no half of the day from its start.
    if (this.clause.daysLater !== undefined && times?.ownEnd !== undefined) times.end = times.ownEnd;
    return true;
  }

  /** Do weekdays or a date stand here, which times before them belong to? */
  protected daysFollow(): boolean {
    const { cursor } = this;
    if (!hasDays(this.clause)) return false;
    const at = cursor.at;
    cursor.pass('on');
    cursor.pass('every', 'each');
    const day = this.weekday(true) ?? readDate(cursor);
    cursor.at = at;
    return day !== undefined;
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
    const each = length.unit === 'day' && cursor.pass('each', 'long');
    if (length.unit !== 'minute' && !each) {
      // `(10 weeks)` behind a rhythm is how long it goes on.
      if (!(clause.repeats || clause.every) || !['week', 'month', 'year'].includes(length.unit)) return false;
      clause.lasting = length;
      return true;
    }
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
