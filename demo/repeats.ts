/** What a demo's listing is made of, and short words for saying when it happens. */
import { dayOf, type EpochDay, daysInMonth, firstDayOfMonth, isoDay, monthNumberOf, weekdayOf, ymdOf } from '@/core/day/day';
import { isoTime } from '@/core/day/plain-date-time';
import type { Cost, ListingContent } from '@/core/listing/content';
import type { Length, Rule, EventStatus } from '@/core/recurrence/model';
import type { StoredChange, StoredLimit, StoredRecurrencePart } from '@/core/recurrence/stored';

export interface DemoListing {
  title: string;
  short?: string;
  cat: string;
  tags?: string[];
  venue?: string[];
  org?: string[];
  pic?: string;
  /** pictures beside it */
  more?: string[];
  summary: string;
  text: string;
  when: StoredRecurrencePart[];
  breaks?: { from: string; to: string }[];
  exdates?: string[];
  changes?: StoredChange[];
  cost?: Cost;
  rest?: Partial<ListingContent>;
}

export const [MON, TUE, WED, THU, FRI, SAT, SUN] = [0, 1, 2, 3, 4, 5, 6];
export const open: StoredLimit = { kind: 'open' };
export const at = (text: string): number => Number(text.slice(0, 2)) * 60 + Number(text.slice(3));

/** The first such weekday on or after a day. */
export const next = (day: EpochDay, weekday: number): EpochDay => day + ((weekday - weekdayOf(day) + 7) % 7);
export const lengthTo = (from: string, to: string | null): Length | null =>
  to === null ? null : { days: at(to) <= at(from) ? 1 : 0, minute: at(to) };

export function timed(
  day: EpochDay,
  from: string,
  to: string | null,
  r: Rule | null = null,
  limit: StoredLimit = open,
): StoredRecurrencePart {
  return { start: `${isoDay(day)}T${isoTime(at(from))}`, length: lengthTo(from, to), rule: r, limit };
}
export function whole(day: EpochDay, days = 1, r: Rule | null = null, limit: StoredLimit = open): StoredRecurrencePart {
  return { start: isoDay(day), length: { days, minute: null }, rule: r, limit };
}
export const on = (...weekdays: number[]): Partial<Rule> => ({ byDay: weekdays.map((weekday) => ({ weekday, nth: 0 })) });
export const nths = (weekday: number, ...list: number[]): Partial<Rule> => ({ byDay: list.map((nth) => ({ weekday, nth })) });
export const until = (day: EpochDay): StoredLimit => ({ kind: 'until', day: isoDay(day) });
export const times = (count: number): StoredLimit => ({ kind: 'count', count });

/** The first day on or after `day` that is the nth weekday of its month. */
export function nthFrom(day: EpochDay, weekday: number, nth: number): EpochDay {
  for (let month = monthNumberOf(day); ; month++) {
    const first = firstDayOfMonth(month);
    const { year, month: m } = ymdOf(first);
    const ones = Array.from({ length: daysInMonth(year, m) }, (_, i) => first + i).filter((d) => weekdayOf(d) === weekday);
    const found = nth > 0 ? ones[nth - 1] : ones[ones.length + nth];
    if (found !== undefined && found >= day) return found;
  }
}
/** The nth day of a month, on or after a day. */
export function monthDayFrom(day: EpochDay, n: number): EpochDay {
  const { year, month, day: d } = ymdOf(day);
  return d <= n ? dayOf(year, month, n) : firstDayOfMonth(year * 12 + month) + n - 1;
}
export const paid = (amount: string): Cost => ({ kind: 'amount', amount, currency: 'CAD' });
export const free: Cost = { kind: 'free' };
export const words = (text: string): Cost => ({ kind: 'words', words: text });
export const change = (original: EpochDay, time: string | null, rest: Partial<StoredChange>): StoredChange => ({
  original: time ? `${isoDay(original)}T${time}` : isoDay(original),
  movedTo: null,
  length: null,
  eventStatus: null,
  note: '',
  ...rest,
});
export const cancelled = (original: EpochDay, time: string | null, note: string): StoredChange =>
  change(original, time, { eventStatus: 'cancelled' as EventStatus, note });

/** The Saturday with nine dates: the third of the month in which the reader is. */
export function regattaDay(today: EpochDay): EpochDay {
  const first = firstDayOfMonth(monthNumberOf(today));
  return next(first, SAT) + 14;
}
