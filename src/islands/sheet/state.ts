/** The Desk's sheets without React: what is held, where days lie, what is said. Days are integers, by the site's clock. */
import {
  type EpochDay,
  daysInMonth,
  firstDayOfMonth,
  type MonthNumber,
  monthNumberOf,
  weekdayOf,
  weekStart,
  yearMonthOf,
} from '@/core/day/day';
import type { DeskDate, DeskFilters, SheetView } from '@/core/sheet/desk-sheet';
import { STAGE_WORDS } from '@/core/listing/content';
import { HALF_YEAR } from '@/core/sheet/desk-sheet';
import { addTo } from '@/core/collections/add-to';
import { MONTHS, sayDay, sayDays, sayTime, type Style, WEEKDAYS } from '@/core/phrase/format';
import { monthSpan } from '@/core/sheet/month';
import { sheetWords } from '@/words/desk';

const w = sheetWords.state;

/** One date among all: listings share days and times. */
export const keyOf = (date: Pick<DeskDate, 'listingId' | 'original'>): string => `${date.listingId} ${date.original}`;

/**
 * What is under way: a date carried to another day, one of its ends drawn out, or days drawn for a new listing. `from` is
 * the day at which it was taken hold of.
 */
export interface Hold {
  kind: 'move' | 'copy' | 'start' | 'end' | 'span';
  from: EpochDay;
  date: DeskDate | undefined;
  byPointer: boolean;
}

/** The days that a view shows, both included. */
export function spanOf(view: SheetView, month: MonthNumber, firstWeekday: number): { from: EpochDay; to: EpochDay } {
  if (view === 'month') return monthSpan(month, firstWeekday);
  return { from: firstDayOfMonth(month), to: firstDayOfMonth(month + HALF_YEAR) - 1 };
}

/** Dates by each day that they touch, in the order that they came in. */
export function byDay(dates: readonly DeskDate[], { from, to }: { from: EpochDay; to: EpochDay }): Map<EpochDay, DeskDate[]> {
  const days = new Map<EpochDay, DeskDate[]>();
  for (const date of dates) {
    for (let day = Math.max(from, date.startDay); day <= Math.min(to, date.lastDay); day++) {
      addTo(days, day, date);
    }
  }
  return days;
}

export interface Step {
  day: EpochDay;
  /** the month to show first, so that the day is on the sheet */
  month: MonthNumber;
}

/** The month that a view must show first for a day to be on it. */
export function monthFor(view: SheetView, month: MonthNumber, day: EpochDay): MonthNumber {
  const own = monthNumberOf(day);
  if (view === 'month') return own;
  return own < month ? own : own >= month + HALF_YEAR ? own - HALF_YEAR + 1 : month;
}

/** The same day of another month, or its last. */
export function inMonth(day: EpochDay, by: number): EpochDay {
  const month = monthNumberOf(day) + by;
  const { year, month: m } = yearMonthOf(month);
  return firstDayOfMonth(month) + Math.min(day - firstDayOfMonth(monthNumberOf(day)), daysInMonth(year, m) - 1);
}

/** Where a key leads: on the month days run across, on the half year down. */
export function walk(view: SheetView, day: EpochDay, key: string, firstWeekday: number): EpochDay | undefined {
  const across = view === 'month';
  switch (key) {
    case 'ArrowLeft':
      return across ? day - 1 : inMonth(day, -1);
    case 'ArrowRight':
      return across ? day + 1 : inMonth(day, 1);
    case 'ArrowUp':
      return across ? day - 7 : day - 1;
    case 'ArrowDown':
      return across ? day + 7 : day + 1;
    case 'PageUp':
      return inMonth(day, -1);
    case 'PageDown':
      return inMonth(day, 1);
    case 'Home':
      return across ? weekStart(day, firstWeekday) : firstDayOfMonth(monthNumberOf(day));
    case 'End':
      return across ? weekStart(day, firstWeekday) + 6 : firstDayOfMonth(monthNumberOf(day) + 1) - 1;
    default:
      return undefined;
  }
}

const long = (day: EpochDay, style: Style): string => sayDay(day, style, { weekday: 'long' });

/** `Thursday 8 April: a Thursday, was a Tuesday`, while a date is carried and after. */
export function sayTarget(from: EpochDay, to: EpochDay, style: Style): string {
  const [a, b] = [WEEKDAYS[weekdayOf(from)] as string, WEEKDAYS[weekdayOf(to)] as string];
  return `${long(to, style)}${a === b ? '' : w.wasA({ weekday: a })}`;
}

/** What a hold would do on a day. */
export function sayHold(hold: Hold, day: EpochDay, style: Style): string {
  const title = hold.date ? `“${hold.date.title}”` : '';
  const by = day - hold.from;
  switch (hold.kind) {
    case 'span':
      return w.aNewListing({ days: sayDays(Math.min(hold.from, day), Math.max(hold.from, day), style, { weekday: 'long' }) });
    case 'move':
      return w.to({ title, target: sayTarget(hold.from, day, style) });
    case 'copy':
      return w.anExtraDateOf({ title, long: long(day, style) });
    case 'start':
      return w.begins({ title, long: long((hold.date?.startDay ?? day) + by, style) });
    case 'end':
      return w.ends({ title, long: long((hold.date?.lastDay ?? day) + by, style) });
  }
}

/** `draft`, or `published, changes wait`. */
export const sayStage = ({ stage, edited }: DeskDate): string => `${STAGE_WORDS[stage].toLowerCase()}${edited ? w.changesWait() : ''}`;

/** One date in a line for those who hear it: `19:00 Harbour Choir, draft, cancelled`. */
export function sayDate(date: DeskDate, style: Style): string {
  const time = date.startMinute === null ? '' : `${sayTime(date.startMinute, style)} `;
  const parts = [`${time}${date.title || w.withoutATitle()}`];
  if (date.stage !== 'published' || date.edited) parts.push(sayStage(date));
  if (date.eventStatus !== 'going-ahead') parts.push(date.eventStatus.replace('-', ' '));
  if (date.moved) parts.push(w.movedHere());
  return parts.join(', ');
}

/** How many are named before the rest is counted. */
const NAMED = 6;

export function sayDayCell(day: EpochDay, dates: readonly DeskDate[], names: readonly string[], style: Style): string {
  const named = dates.slice(0, NAMED).map((date) => sayDate(date, style));
  const more = dates.length > NAMED ? [w.andMore({ n: dates.length - NAMED })] : [];
  return [long(day, style), ...names, ...(dates.length ? [...named, ...more] : ['nothing'])].join('; ');
}

/** `March 2027`, `March – August 2027`. */
export function sayMonths(view: SheetView, month: MonthNumber): string {
  const name = (m: MonthNumber): { name: string; year: number } => {
    const { year, month: n } = yearMonthOf(m);
    return { name: MONTHS[n - 1] as string, year };
  };
  const first = name(month);
  if (view === 'month') return `${first.name} ${first.year}`;
  const last = name(month + HALF_YEAR - 1);
  return `${first.name}${first.year === last.year ? '' : ` ${first.year}`} – ${last.name} ${last.year}`;
}

/** The query of a sheet's address, always in one order. */
export function queryOf({ stages, kind, venue, words }: DeskFilters): string {
  const query = new URLSearchParams();
  if (stages.length) query.set('stage', stages.join(','));
  if (kind) query.set('kind', kind);
  if (venue) query.set('venue', venue);
  if (words) query.set('words', words);
  const text = query.toString().replaceAll('%2C', ',');
  return text ? `?${text}` : '';
}

/** Months of a year as the sheet names them in narrow places. */
export const shortMonth = (month: MonthNumber): string => (MONTHS[yearMonthOf(month).month - 1] as string).slice(0, 3);
