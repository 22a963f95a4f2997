/** What is gathered while a phrase is read: clauses of what is said together, and what belongs to all of them. */
import type { Weekday } from '../../day/day';
import type { Cursor } from './cursor';
import type { SaidDate, SaidSpan } from './calendar-dates';
import type { Offer, PhraseProblem } from './phrase-problem';
import type { SaidLength, SaidTime, SaidTimes } from './times-of-day';

/** What "every" counts. */
export type EveryUnit = 'day' | 'week' | 'month' | 'year';

/** A part of the day that a time without am or pm lies in. */
export type PartOfDay = 'morning' | 'afternoon' | 'evening' | 'night';

/** Where something stands in a phrase: from a character up to, not including, another. */
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
  /** months that are left out in every year */
  exceptMonths: number[];
  nths: { weekday: Weekday; nth: number }[];
  /** the first, last, … workday of each month */
  workdays: number[];
  monthDays: number[];
  /** a nth that can also mean each so many weeks */
  doubt?: Place & { nth: number };
  yearly?: { interval: number };
  months: (SaidDate | SaidSpan)[];
  dates: (SaidDate | SaidSpan)[];
  /** the dates are led by `and`, `also`, `plus`: they come on top of a rule */
  extra?: boolean;
  times?: SaidTimes;
  /** times on the same days besides the first */
  moreTimes: SaidTimes[];
  /** these dates stand for those of the rule on the same days */
  instead?: true;
  /** how many weekdays a week was said to have */
  perWeek?: Place & { times: number };
  /** `this Monday`: the next one, once */
  once?: true;
  length?: SaidLength;
  daysLater?: number;
  allDay: boolean;
  half?: 'am' | 'pm';
  /** the part of the day as it was said */
  part?: Place & { name: PartOfDay };
  start?: SaidDate;
  until?: SaidDate;
  /** when on its last day something ends that takes several */
  untilTime?: SaidTime;
  /** spans of each year in which the rule holds */
  seasons: SaidSpan[];
  count?: number;
  lasting?: SaidLength;
}

/** A date that is moved: its day, the new one, and a new time where one was said. */
export interface SaidMove {
  from: SaidDate;
  to: SaidDate;
  times?: SaidTimes | undefined;
}

/** Something that was said, with its place. */
export interface Said {
  clauses: Clause[];
  except: (SaidDate | SaidSpan)[];
  breaks: (SaidDate | SaidSpan)[];
  moved: SaidMove[];
  /** what contradicts itself already in its words */
  asked: (Place & { kind: PhraseProblem['kind']; offers: Offer[] })[];
  unread: Place[];
}

/** A clause of which nothing was read yet. */
export const newClause = (joined: boolean): Clause => ({
  joined,
  weekdays: [],
  repeats: false,
  weekdaySpan: false,
  exceptWeekdays: [],
  exceptMonths: [],
  nths: [],
  workdays: [],
  monthDays: [],
  months: [],
  dates: [],
  seasons: [],
  moreTimes: [],
  allDay: false,
});

/** Was it said on which days? */
export const hasDays = (c: Clause): boolean =>
  Boolean(c.rule ?? c.every) || c.weekdays.length + c.nths.length + c.monthDays.length + c.workdays.length + c.dates.length > 0;

/** The clause that is being read, and the words that it is read from. */
export class ClauseState {
  protected clause = newClause(false);
  protected readonly said: Said = { clauses: [this.clause], except: [], breaks: [], moved: [], asked: [], unread: [] };
  constructor(
    protected readonly cursor: Cursor,
    protected readonly phrase: string,
  ) {}

  /** A day after days and times begins the next clause: Tuesdays 19:00 and Saturdays 10:00. */
  protected forDays(): Clause {
    if (hasDays(this.clause) && this.clause.times) this.begin(true);
    return this.clause;
  }

  protected ask(kind: PhraseProblem['kind'], place: Place, offers: Offer[] = []): void {
    this.said.asked.push({ kind, ...place, offers });
  }

  protected begin(joined: boolean): void {
    this.clause = newClause(joined);
    this.said.clauses.push(this.clause);
  }
}
