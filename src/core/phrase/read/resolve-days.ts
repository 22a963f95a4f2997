/** Days as people say them: which year, which week, and what else could be meant. */
import { type EpochDay, isoDay, weekdayOf, ymdOf, dayOf, daysInMonth } from '../../day/day';
import { isoTime, type PlainDateTime } from '../../day/plain-date-time';
import { instantToDateTime, MS_PER_MINUTE, MS_PER_UTC_DAY } from '../../day/zone';
import { type Style, sayDay, sayTime, sayTimes } from '../format';
import { type Bearings, type DaySpan, spanOf } from './calendar';
import type { Clause, PartOfDay, Place } from './clause-state';
import type { SaidDate, SaidSpan } from './calendar-dates';
import type { Offer, PhraseProblem } from './phrase-problem';
import { byValue, repeatOffers } from './clause-rules';

/** From which moment, in which zone and style, a phrase is read. */
export interface Setting {
  phrase: string;
  /** the moment that a phrase is read from, in the zone */
  now: { day: EpochDay; minute: number };
  zone: string;
  weekStart: number;
  style: Style;
  /** where the sun rises and sets, in degrees; not given = nobody has said where the site is */
  sunAt?: { lat: number; lng: number } | undefined;
  /** the day that a time standing alone is on, where something before it has said so; else it is asked */
  day?: EpochDay | undefined;
}

/** The hour that is offered for a part of the day, in minutes. */
const USUAL: Record<PartOfDay, number> = { morning: 540, afternoon: 840, evening: 1140, night: 1260 };
/** Until then it is still the night before. */
const SMALL_HOURS = 300;

/** Something in the phrase has two readings or none: no recurrence is made of it. */
export class Undecided extends Error {}

/** Which day is meant by a date that somebody said, and what is asked when that is not decided. */
export class DayResolver {
  protected readonly problems: PhraseProblem[] = [];
  protected readonly bearings: Pick<Bearings, 'today' | 'weekStart'>;
  constructor(protected readonly setting: Setting) {
    this.bearings = { today: setting.now.day, weekStart: setting.weekStart };
  }

  protected problem(kind: PhraseProblem['kind'], { from, to }: Place, offers: Offer[] = []): void {
    this.problems.push({ kind, text: this.setting.phrase.slice(from, to), from, to, offers });
  }

  protected undecided(kind: PhraseProblem['kind'], place: Place, offers: Offer[] = []): Undecided {
    this.problem(kind, place, offers);
    return new Undecided();
  }

  protected offerDay(day: EpochDay, weekday = false): Offer {
    return { value: isoDay(day), instead: sayDay(day, this.setting.style, { year: true, weekday: weekday ? 'long' : undefined }) };
  }

  protected noteTimes(clause: Clause, all: readonly Clause[]): void {
    const { times, doubt, daysLater, half } = clause;
    this.asShown(clause, all);
    this.notePart(clause);
    if (doubt) this.problem('ambiguous-repeat', doubt, repeatOffers(doubt.nth, this.setting.phrase.slice(doubt.from, doubt.to)));
    if (!times) return;
    if (times.endsBefore && daysLater === undefined) {
      const late = (times.end ?? 0) + 720;
      const quickFixes: Offer[] = [{ value: 'next-day', instead: `${sayTimes(times.start, times.end, this.setting.style)} the next day` }];
      if ((times.end ?? 0) < 720 && late > times.start) quickFixes.unshift(this.offerTimes(times.start, late));
      else if (times.end !== null) quickFixes.push(this.offerTimes(times.end, times.start));
      this.problem('end-before-start', times, quickFixes);
    }
    for (const more of clause.moreTimes)
      if (more.other)
        this.problem(
          'ambiguous-time',
          more,
          [this.offerTimes(more.start, more.end), this.offerTimes(more.other.start, more.other.end)].sort(byValue),
        );
    if (times.other && clause.instead) this.likeTheRule(clause, all);
    if (times.other && half) {
      // `every morning at 7`; the small hours are the night's too.
      const hour = Math.min(times.start, times.other.start);
      const pm = half === 'pm' && !(clause.part?.name === 'night' && hour < SMALL_HOURS);
      if (times.start >= 720 !== pm) Object.assign(times, { start: times.other.start, end: times.other.end });
    } else if (times.other)
      this.problem(
        'ambiguous-time',
        times,
        [this.offerTimes(times.start, times.end), this.offerTimes(times.other.start, times.other.end)].sort(byValue),
      );
  }

  /** `7:30` on a site of 24 hours is what it shows, unless another time is said by halves. */
  private asShown({ times, half }: Clause, all: readonly Clause[]): void {
    if (!times || times.shown === undefined || this.setting.style.hours !== '24' || half) return;
    const byHalves = all.some(
      (c) => c.times && !c.times.face && c.times !== times && /[ap]\.?m/i.test(this.setting.phrase.slice(c.times.from, c.times.to)),
    );
    if (byHalves || !times.other) return;
    const taken = times.start === times.shown ? times : times.other;
    Object.assign(times, { start: times.shown, end: taken.end });
    delete times.other;
  }

  /** `but 18 May at six instead` is in the half of the day that the rule is in. */
  private likeTheRule({ times }: Clause, all: readonly Clause[]): void {
    const rule = all.find((c) => c.times && !c.times.other && c.times !== times)?.times;
    if (!times?.other || !rule) return;
    if (times.start >= 720 !== rule.start >= 720) Object.assign(times, { start: times.other.start, end: times.other.end });
    delete times.other;
  }

  /** A part of the day tells the half of an hour that has none; without an hour it is asked, and where the two differ too. */
  private notePart({ part, times, allDay }: Clause): void {
    if (!part || allDay) return;
    const said = this.setting.phrase.slice(part.from, part.to);
    if (!times) {
      const at = USUAL[part.name];
      this.problem('no-hour', part, [{ value: isoTime(at), instead: `${said} at ${sayTime(at, this.setting.style)}` }]);
      return;
    }
    const small = part.name === 'night' && times.start < SMALL_HOURS;
    if (times.face && !times.other && part.name !== 'morning' && times.start < 720 && !small) {
      times.start += 720;
      if (times.end !== null && times.endDays === 0 && times.end < 720) times.end += 720;
    }
    const fits = part.name === 'morning' ? times.start <= 720 : times.start >= 720 || small;
    if (fits || times.other) return;
    const others = (['morning', 'afternoon', 'evening'] as const).filter((name) => (name === 'morning') !== (part.name === 'morning'));
    const plural = said.endsWith('s') ? 's' : '';
    this.problem(
      'part-mismatch',
      part,
      others.map((name) => ({ value: name, instead: `${name}${plural}` })),
    );
  }

  protected offerAt(before: string, minute: number): Offer {
    return { value: isoTime(minute), instead: `${before}${sayTime(minute, this.setting.style)}` };
  }

  /** A moment written with its offset from UTC, by the clock of the zone. */
  protected dateTimeOf({
    day,
    minute,
    offset,
  }: {
    day: EpochDay | undefined;
    minute: number | null;
    offset?: number | undefined;
  }): PlainDateTime {
    if (day === undefined || minute === null || offset === undefined) return { day: day ?? 0, minute };
    return instantToDateTime(this.setting.zone, day * MS_PER_UTC_DAY + (minute - offset) * MS_PER_MINUTE);
  }

  /** Letters of a zone behind a time must be those of the site on that day. */
  protected checkZone({ times }: Clause, day: EpochDay): void {
    const { zone, style } = this.setting;
    if (!times?.zone) return;
    const ms = day * MS_PER_UTC_DAY + (times.start - times.zone.offset) * MS_PER_MINUTE;
    const here = instantToDateTime(zone, ms);
    if (here.day === day && here.minute === times.start) return;
    const end = times.end === null ? null : (times.end + here.minute - times.start + 2880) % 1440;
    throw this.undecided('other-zone', times, [{ value: isoTime(here.minute), instead: `at ${sayTimes(here.minute, end, style)}` }]);
  }

  protected offerTimes(start: number, end: number | null): Offer {
    return {
      value: end === null ? isoTime(start) : `${isoTime(start)}-${isoTime(end)}`,
      instead: `at ${sayTimes(start, end, this.setting.style)}`,
    };
  }

  /** The days of a date that was said; throws when that is not decided. */
  protected days(date: SaidDate, floor: EpochDay, covering = true): DaySpan {
    const { meaning } = date;
    if (meaning.kind === 'either') throw this.eitherWay(date, floor);
    if (meaning.kind === 'weekday' && meaning.next) return this.nextWeekday(date, meaning.weekday);
    const span =
      meaning.kind === 'iso' && meaning.day !== undefined
        ? { first: this.dateTimeOf(meaning).day, last: this.dateTimeOf(meaning).day }
        : spanOf(meaning, floor, this.bearings, covering);
    if (!span) throw this.undecided('no-such-date', date, this.nearby(date));
    if (date.weekday !== undefined && weekdayOf(span.first) !== date.weekday) this.mismatch(date, span.first, date.weekday);
    if (date.edge === 'end') return { first: span.last, last: span.last };
    return date.edge === 'start' ? { first: span.first, last: span.first } : span;
  }

  protected eitherWay(date: SaidDate, floor: EpochDay): Undecided {
    const { meaning } = date;
    if (meaning.kind !== 'either') return new Undecided();
    const { first, second, year } = meaning;
    const readings = [
      spanOf({ kind: 'day', day: first, month: second, year }, floor, this.bearings),
      spanOf({ kind: 'day', day: second, month: first, year }, floor, this.bearings),
    ];
    return this.undecided(
      'ambiguous-date',
      date,
      readings.flatMap((span) => (span ? [this.offerDay(span.first)] : [])),
    );
  }

  /** `next Friday` inside this week may be this one or the one after. */
  protected nextWeekday(date: SaidDate, weekday: number): DaySpan {
    const { today, weekStart } = this.bearings;
    const first = today + 1 + ((weekday - weekdayOf(today + 1) + 7) % 7);
    const week = (day: EpochDay): number => Math.floor((day + 3 - weekStart) / 7);
    if (week(first) === week(today))
      throw this.undecided('ambiguous-date', date, [this.offerDay(first, true), this.offerDay(first + 7, true)]);
    return { first, last: first };
  }

  protected mismatch(date: SaidDate, day: EpochDay, weekday: number): void {
    const after = (weekday - weekdayOf(day) + 7) % 7;
    const near = after <= 3 ? day + after : day + after - 7;
    this.problem('weekday-mismatch', date, [this.offerDay(day, true), this.offerDay(near, true)]);
  }

  /** The last day that a month has, for 31 February. */
  protected nearby({ meaning }: SaidDate): Offer[] {
    if (meaning.kind !== 'day' || meaning.month < 1 || meaning.month > 12) return [];
    const year = meaning.year ?? ymdOf(this.setting.now.day).year;
    const last = dayOf(year, meaning.month, daysInMonth(year, meaning.month));
    return [this.offerDay(last), this.offerDay(last + 1)];
  }

  protected spanFrom({ from, to }: SaidSpan, floor: EpochDay): DaySpan {
    const first = this.days(from, floor).first;
    const last = this.days(to, first).last;
    if (last < first) throw this.undecided('end-before-start', { from: from.from, to: to.to });
    return { first, last };
  }
}
