/** Dates that need the same venue at the same time. Walls are the site's. */
import type { EpochDay } from '../day/day';
import { isoDateTime, sameDateTime, type PlainDateTime } from '../day/plain-date-time';
import { instantToDateTime, dateTimeToInstant } from '../day/zone';
import type { Occurrence } from '../recurrence/model';
import type { BookingRow } from '../listing/editor';
import { addTo } from '../collections/add-to';

/** Another listing's date in a venue, by the site's clock. */
export interface Booking {
  title: string;
  listingId: string;
  start: PlainDateTime;
  end: PlainDateTime | null;
  venueId: string;
}

/** minutes */
const DAY = 1440;

/** [from, to) in minutes since 1970-01-01 */
export type Minutes = readonly [from: number, to: number];

/** The span of a date in minutes since 1970-01-01, [from, to); a date whose end is not said takes a minute, a whole day all of it. */
function spanOf(start: PlainDateTime, end: PlainDateTime | null): Minutes {
  const at = (wall: PlainDateTime): number => wall.day * DAY + (wall.minute ?? 0);
  if (start.minute === null) return [at(start), end ? at(end) : at(start) + DAY];
  return [at(start), Math.max(at(start) + 1, end ? at(end) : 0)];
}

const widened = ([from, to]: Minutes, margin: number): Minutes => [from - margin, to + margin];

/** The time that dates need, with a margin on both sides. */
export function spansOf(dates: readonly Occurrence[], margin: number): Minutes[] {
  return dates.map(({ start, end }) => widened(spanOf(start, end), margin));
}

/** Days, and minutes of a day from the earliest to the latest, that some spans touch. */
export interface NearTimes {
  days: ReadonlySet<EpochDay>;
  early: number;
  late: number;
}

/** Of something that takes longer, so many days are compared. */
const MOST_SPAN = 62;

/** What is near spans: a coarse sieve, so that few need to be compared exactly. */
export function nearTimes(spans: readonly Minutes[]): NearTimes {
  const days = new Set<EpochDay>();
  let [early, late] = [DAY, 0];
  for (const [from, to] of spans) {
    const [first, last] = [Math.floor(from / DAY), Math.floor((to - 1) / DAY)];
    for (let day = first; day <= Math.min(last, first + MOST_SPAN); day++) days.add(day);
    early = Math.min(early, last > first ? 0 : from - first * DAY);
    late = Math.max(late, last > first ? DAY : to - first * DAY);
  }
  return { days, early, late };
}

/** May a booking meet them? What takes a night, a whole day or several always may. */
export function mayMeet({ start, end }: Booking, { days, early, late }: NearTimes): boolean {
  if (start.minute === null || (end && end.day > start.day)) return true;
  return days.has(start.day) && start.minute < late && (end?.minute ?? start.minute + 1) > early;
}

/**
 * The bookings that each date clashes with, by its key. Both lists may be long: one pass over each, in order of their start.
 * `margin`: minutes that have to be free between two dates, to clear away and set up.
 */
export function clashesOf(dates: readonly Occurrence[], bookings: readonly Booking[], margin = 0): Map<string, Booking[]> {
  const found = new Map<string, Booking[]>();
  const spans = bookings.map((booking) => ({ booking, span: spanOf(booking.start, booking.end) })).sort((a, b) => a.span[0] - b.span[0]);
  const longest = Math.max(0, ...spans.map(({ span }) => span[1] - span[0]));
  for (const date of dates) {
    if (date.eventStatus === 'cancelled' || date.eventStatus === 'postponed') continue;
    const [from, to] = widened(spanOf(date.start, date.end), margin);
    for (let i = firstFrom(spans, from - longest); i < spans.length; i++) {
      const one = spans[i];
      if (!one || one.span[0] >= to) break;
      if (one.span[1] > from) addTo(found, isoDateTime(date.original), one.booking);
    }
  }
  return found;
}

/**
 * The same where several venues are asked about: a date is in all venues of its listing, or in the one that it alone goes to.
 * A booking of two of them is named once.
 */
export function clashesByVenue(
  dates: readonly Occurrence[],
  own: readonly string[],
  bookings: readonly Booking[],
  margins: ReadonlyMap<string, number> = new Map(),
): Map<string, Booking[]> {
  const all = new Map<string, Booking[]>();
  for (const venueId of new Set(bookings.map((booking) => booking.venueId))) {
    const there = dates.filter((date) => (date.venueId ? date.venueId === venueId : own.includes(venueId)));
    const found = clashesOf(
      there,
      bookings.filter((booking) => booking.venueId === venueId),
      margins.get(venueId),
    );
    for (const [key, here] of found) {
      const known = all.get(key) ?? [];
      const isNew = (b: Booking): boolean => !known.some((k) => k.listingId === b.listingId && sameDateTime(k.start, b.start));
      all.set(key, [...known, ...here.filter(isNew)]);
    }
  }
  return all;
}

/** The first of sorted spans that begins at or after a minute. */
function firstFrom(spans: readonly { span: Minutes }[], minute: number): number {
  let low = 0;
  let high = spans.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((spans[middle]?.span[0] ?? 0) < minute) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** A booking as it is sent. */
export function bookingOf([title, listingId, startDay, startMinute, endDay, endMinute, venueId]: BookingRow): Booking {
  return {
    title,
    listingId,
    venueId,
    start: { day: startDay, minute: startMinute },
    end: endDay === null ? null : { day: endDay, minute: endMinute },
  };
}

/** The same date by the site's clock: that is how bookings are kept. */
export function inSite(date: Occurrence, zone: string, siteZone: string): Occurrence {
  if (zone === siteZone) return date;
  const turn = (wall: PlainDateTime): PlainDateTime =>
    wall.minute === null ? wall : instantToDateTime(siteZone, dateTimeToInstant(zone, wall).ms);
  return { ...date, start: turn(date.start), end: date.end && turn(date.end) };
}
