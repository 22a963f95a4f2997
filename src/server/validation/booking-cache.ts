/**
 * What happens in halls and with people, remembered while nothing is changed: whoever types is answered many times in a row, and the job
 * that looks at everything comes to the same hall again and again.
 */
import { type Booking, bookingOf, mayMeet, nearTimes } from '@/core/dates/clashes';
import type { BookingRow } from '@/core/listing/editor';
import type { Db } from '../db/client';
import type { Asking } from '../site/content-cache';
import { type BookingQuery, type OrganizerQuery, readBookings, readOrganizerBookings } from '../dates/bookings';

/** Dates of one hall or person, a megabyte or two; of more, what may meet is asked each time. */
const MOST_DATES = 10_000;

type Remembered<T> = T & { answers: Asking | undefined };

/** Dates in venues that may meet some spans, and a few too many: what the comparison takes. */
export function bookingsIn(db: Db, { answers, venueIds, ...query }: Remembered<BookingQuery>): Promise<Booking[]> {
  const read = (id: string, part: Partial<BookingQuery>): Promise<BookingRow[]> => readBookings(db, { ...query, ...part, venueIds: [id] });
  return gather(answers, 'hall', venueIds, query, read);
}

/** The same of people. */
export function bookingsOf(db: Db, { answers, organizerIds, ...query }: Remembered<OrganizerQuery>): Promise<Booking[]> {
  const read = (id: string, part: Partial<OrganizerQuery>): Promise<BookingRow[]> =>
    readOrganizerBookings(db, { ...query, ...part, organizerIds: [id] });
  return gather(answers, 'person', organizerIds, query, read);
}

type Read = (id: string, part: { spans?: undefined; not?: null; most?: number }) => Promise<BookingRow[]>;

async function gather(
  answers: Asking | undefined,
  kind: string,
  ids: readonly string[],
  { not, from, spans }: Pick<BookingQuery, 'not' | 'from' | 'spans'>,
  read: Read,
): Promise<Booking[]> {
  const near = spans && nearTimes(spans);
  const all: Booking[] = [];
  for (const id of ids) {
    const whole = async (): Promise<Booking[] | undefined> => {
      const rows = await read(id, { spans: undefined, not: null, most: MOST_DATES + 1 });
      return rows.length > MOST_DATES ? undefined : rows.map(bookingOf);
    };
    const key = `${kind} ${from} ${id}`;
    const known = answers?.comesBack(key) ? await answers.of(key, whole) : undefined;
    const there = known ?? (await read(id, {})).map(bookingOf);
    all.push(...there.filter((booking) => booking.listingId !== not && (!near || mayMeet(booking, near))));
  }
  return all;
}
