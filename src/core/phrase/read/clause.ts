/** The parts of a phrase that say when: read one after another, gathered in clauses, what is not understood kept aside. */
import type { Weekday } from '../../day/day';
import { type Cursor, readList } from './cursor';
import { isSpan, readDate, readDates, readMonth, readMonthSpan, readNth, readSpan, type SaidDate, type SaidSpan } from './dates';
import { endingAt, readAmount, readLength, readTime, readTimes, type SaidLength, type SaidTime, type SaidTimes } from './times';
import { COUNTED, EXCEPT, FILLERS, FROM, NO_WHAT, ORDINAL_WORDS, UNIT_WORDS, UNTIL, WEEKDAY_WORDS, WEEKDAYS_WORDS } from './words';

export type EveryUnit = 'day' | 'week' | 'month' | 'year';

export interface Place {
  from: number;
  to: number;
}

/** One rule, or dates that share their times. */
export interface Clause {
  /** joined to the one before so that what is said at the end goes for both */
  joined: boolean;
  rule?: Place & { text: string };
  every?: { unit: EveryUnit; interval: number };
  weekdays: Weekday[];
  /** said so that they repeat: every Tuesday, Tuesdays */
  repeats: boolean;
  /** Monday to Friday, which without a repeat is one span */
  weekdaySpan: boolean;
  exceptWeekdays: Weekday[];
  nths: { weekday: Weekday; nth: number }[];
  /** the first, last, … workday of each month */
  workdays: number[];
  monthDays: number[];
  /** a nth that can also mean each so many weeks */
  doubt?: Place & { nth: number };
  yearly?: { interval: number };
  months: (SaidDate | SaidSpan)[];
  dates: (SaidDate | SaidSpan)[];
  times?: SaidTimes;
  length?: SaidLength;
  daysLater?: number;
  allDay: boolean;
  half?: 'am' | 'pm';
  start?: SaidDate;
  until?: SaidDate;
  /** when on its last day something ends that takes several */
  untilTime?: SaidTime;
  /** spans of each year in which the rule holds */
  seasons: SaidSpan[];
  count?: number;
  lasting?: SaidLength;
}

export interface Said {
  clauses: Clause[];
  except: (SaidDate | SaidSpan)[];
  breaks: (SaidDate | SaidSpan)[];
  unread: Place[];
}

const newClause = (joined: boolean): Clause => ({
  joined,
  weekdays: [],
  repeats: false,
  weekdaySpan: false,
  exceptWeekdays: [],
  nths: [],
  workdays: [],
  monthDays: [],
  months: [],
  dates: [],
  seasons: [],
  allDay: false,
});

const hasDays = (c: Clause): boolean =>
  Boolean(c.rule ?? c.every) || c.weekdays.length + c.nths.length + c.monthDays.length + c.workdays.length + c.dates.length > 0;

/** Reads a whole phrase. */
export class ClauseReader {
  private clause = newClause(false);
  private readonly said: Said = { clauses: [this.clause], except: [], breaks: [], unread: [] };
  constructor(private readonly cursor: Cursor) {}

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
    this.said.clauses = this.said.clauses.filter((c) => hasDays(c) || c.times || c.yearly || c.start || c.months.length > 0);
    return this.said;
  }

  /** Words side by side that nothing reads make one fragment. */
  private skip(): void {
    const at = this.cursor.at;
    this.cursor.next();
    const place = this.cursor.place(at);
    const last = this.said.unread.at(-1);
    const before = this.cursor.tokens[at - 1];
    if (last && before && last.to === before.to) last.to = place.to;
    else this.said.unread.push(place);
  }

  /** A day after days and times begins the next clause: Tuesdays 19:00 and Saturdays 10:00. */
  private forDays(): Clause {
    if (hasDays(this.clause) && this.clause.times) this.begin(true);
    return this.clause;
  }

  private begin(joined: boolean): void {
    this.clause = newClause(joined);
    this.said.clauses.push(this.clause);
  }

  private ruleText(): boolean {
    const { cursor } = this;
    const at = cursor.at;
    cursor.passAll('by the rule');
    const token = cursor.peek();
    if (token?.kind !== 'rule') return false;
    cursor.next();
    this.forDays().rule = { text: token.rule, ...cursor.place(at) };
    return true;
  }

  private separator(): boolean {
    const { cursor } = this;
    const also = cursor.pass(';') || (cursor.word() === 'also' && cursor.word(1) === 'on' && hasDays(this.clause));
    if (!also) return false;
    cursor.pass('also');
    if (hasDays(this.clause)) this.begin(false);
    return true;
  }

  /** `except 5 May`, `not in August`, `with breaks 1-7 August and 3 September`, `but not on Sundays`. */
  private exception(): boolean {
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

  private lastly(): boolean {
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
  private endTime(): boolean {
    const { clause } = this;
    if (!clause.times || clause.times.end !== null) return false;
    const end = readTime(this.cursor, true);
    if (end) clause.times = endingAt(clause.times, end);
    return Boolean(end);
  }

  private firstly(): boolean {
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
  private counted(): boolean {
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
  private lasting(): boolean {
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

  private every(): boolean {
    const { cursor } = this;
    if (!cursor.pass('every', 'each')) return false;
    return (this.everyOther() || this.everyUnit() || this.everyNumbered() || this.everyWeekday() || this.everyDate()) && true;
  }

  /** `every other Wednesday`, `every second week`, `every alternate day`. */
  private everyOther(): boolean {
    const { cursor } = this;
    return Boolean(
      cursor.attempt(() => {
        const token = cursor.peek();
        const second = token?.kind === 'number' && token.ordinal && token.value === 2;
        if (second) cursor.next();
        else if (!cursor.pass('other', 'second', 'alternate')) return undefined;
        const unit = this.unit();
        if (unit) return this.setEvery(unit, 2);
        const weekdays = this.weekdays();
        // `every second Sunday of the month` is another matter.
        if (!weekdays || (cursor.word() === 'of' && cursor.word(1) !== 'every')) return undefined;
        if (['in', 'of'].includes(cursor.word()) && cursor.word(1) === 'the') return undefined;
        this.setWeekdays(weekdays, true);
        this.clause.every = { unit: 'week', interval: 2 };
        return true;
      }),
    );
  }

  private everyUnit(): boolean {
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
  private unit(): EveryUnit | undefined {
    const unit = UNIT_WORDS.get(this.cursor.word());
    if (unit !== 'day' && unit !== 'week' && unit !== 'month' && unit !== 'year') return undefined;
    this.cursor.next();
    this.cursor.attempt(() => this.cursor.passAll('that is a') || this.cursor.passAll('that is') || undefined);
    return unit;
  }

  private setEvery(unit: EveryUnit, interval: number): true {
    const { clause } = this;
    // A date or a numbered weekday comes back each year; the days of a span each are a date.
    if (unit === 'year') clause.yearly = { interval };
    else if (unit === 'month' && (clause.nths.length || clause.monthDays.length || clause.workdays.length))
      clause.every = { unit, interval };
    else if (unit === 'day' && clause.dates.length && !clause.every) clause.every = { unit, interval };
    else this.forDays().every = { unit, interval };
    this.daysOfEach();
    return true;
  }

  /** `monthly on the 10th`: a day without a month, when each month is meant. */
  private daysOfEach(): void {
    const { clause } = this;
    if (clause.every?.unit !== 'month') return;
    const days = clause.dates.flatMap((one) => (!isSpan(one) && one.meaning.kind === 'month-day' ? [one.meaning.day] : []));
    if (days.length !== clause.dates.length) return;
    clause.monthDays.push(...days);
    clause.dates = [];
  }

  private everyNumbered(): boolean {
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

  private everyWeekday(): boolean {
    const weekdays = this.weekdays();
    if (!weekdays) return false;
    this.setWeekdays(weekdays, true);
    this.ofWeeks();
    return true;
  }

  /** `every 15th`, `every 4 July`, `every March`. */
  private everyDate(): boolean {
    const { cursor } = this;
    const dates = readDates(cursor);
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

  private adverb(): boolean {
    const { cursor } = this;
    if (cursor.pass('daily')) return this.setEvery('day', 1);
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

  /** `morning`, `in the evening`: which half of the day an hour is in, when the hour alone does not say. */
  private partOfDay(): boolean {
    const { cursor, clause } = this;
    if (cursor.pass('morning', 'mornings')) clause.half = 'am';
    else if (cursor.pass('afternoon', 'afternoons', 'evening', 'evenings', 'night', 'nights')) clause.half = 'pm';
    else return false;
    return true;
  }

  private saidPeriod = false;

  /** `the first and third Sunday of every month`, `first Monday and last Friday of June and July, every year`, `last workday of the month`. */
  private numbered(every = false): boolean {
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
      if (this.saidPeriod || every || clause.yearly || groups.length > 1 || (groups[0]?.nths.length ?? 0) > 1) return true;
      // `last Friday in June` alone is a date, which others read.
      Object.assign(clause, before);
      return undefined;
    });
    return found ?? false;
  }

  private nthGroup(): { nths: number[]; weekdays: Weekday[] | undefined } | undefined {
    const { cursor } = this;
    const nths = readList(cursor, () => readNth(cursor));
    if (!nths.length) return undefined;
    if (cursor.pass('workday', 'weekday') || cursor.passAll('working day')) return { nths, weekdays: undefined };
    const weekdays = this.weekdays();
    return weekdays ? { nths, weekdays } : undefined;
  }

  /** `of every month`, `of the month`, `monthly`, `of every second month`, `in June and July[, every year]`. */
  private period(clause: Clause): boolean {
    const { cursor } = this;
    const months = cursor.attempt(() => {
      cursor.pass('of', 'in', 'on');
      if (cursor.passAll('the month') || cursor.pass('monthly')) return { interval: 1 };
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
  private yearlyHere(): number | undefined {
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
  private daysOfMonth(): boolean {
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

  private monthDay(): number | undefined {
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

  private weekday(plural: boolean): { weekday: Weekday; plural: boolean } | undefined {
    const { cursor } = this;
    const word = cursor.word();
    const single = WEEKDAY_WORDS.get(word);
    const weekday = single ?? (plural ? WEEKDAYS_WORDS.get(word) : undefined);
    if (weekday === undefined) return undefined;
    cursor.next();
    return { weekday, plural: single === undefined };
  }

  /** Weekdays after `every` or a number; singular or plural is the same there. */
  private weekdays(): Weekday[] | undefined {
    const found = this.readWeekdays();
    return found?.list;
  }

  private readWeekdays(): { list: Weekday[]; plural: boolean; span: boolean } | undefined {
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

  private setWeekdays(weekdays: Weekday[], repeats: boolean): void {
    const own = this.clause.every?.unit === 'day' || this.clause.every?.unit === 'week' ? this.clause : this.forDays();
    own.weekdays.push(...weekdays);
    own.repeats ||= repeats;
  }

  private weekdayList(): boolean {
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
    // A weekday before a date belongs to the date.
    const dated = cursor.attempt(() => {
      const date = readDate(cursor);
      return date && date.meaning.kind !== 'weekday' ? date : undefined;
    });
    if (dated) return false;
    cursor.pass('this', 'coming');
    const found = this.readWeekdays();
    if (!found) return false;
    this.setWeekdays(found.list, found.plural);
    this.clause.weekdaySpan ||= found.span;
    this.ofWeeks();
    return true;
  }

  /** `of every three weeks` after weekdays. */
  private ofWeeks(): void {
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

  /** `in July and August`, `March to October`, `during May`, with `of every year` when it comes back. */
  private inMonths(): boolean {
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

  private year(): number | undefined {
    const token = this.cursor.peek();
    if (token?.kind !== 'number' || !/^(19|20|21)\d\d$/.test(token.text)) return undefined;
    this.cursor.next();
    return token.value;
  }

  private datesOf(): boolean {
    const { cursor } = this;
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
    this.forDays().dates.push(...dates);
    if (yearly) this.clause.yearly = { interval: yearly };
    this.daysOfEach();
    return true;
  }

  private times(): boolean {
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
  private later(): void {
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
  private lengths(): boolean {
    const { cursor, clause } = this;
    const length = readLength(cursor);
    if (!length) return false;
    if (length.unit !== 'minute' && !(length.unit === 'day' && cursor.pass('each', 'long'))) return false;
    clause.length = length;
    cursor.pass('long', 'each');
    return true;
  }

  private filler(): boolean {
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
