/**
 * What else happens in a venue, remembered while nothing is changed: whoever types is answered many times in a row, and the job that
 * looks at everything comes to the same hall again and again.
 */
import type { Day } from '@/core/day/day';
import { type Booking, bookingOf } from '@/core/listing/clashes';
import type { Db } from '../db/client';
import { type BookingQuery, readBookings } from '../listings/bookings';

/** Venues that are remembered at once, and dates of one; a hall with more is asked for what may meet, each time. */
const MOST_VENUES = 40;
const MOST_DATES = 4000;

interface Kept {
  revision: string;
  from: Day;
  venues: Map<string, Promise<Booking[] | undefined>>;
}
let kept: Kept | undefined;

export interface HallQuery extends BookingQuery {
  /** the state of the content that the answer is for; undefined = it is being changed right now */
  revision: string | undefined;
}

/** Dates that may meet some spans, and a few too many: what the comparison takes. */
export async function bookingsIn(db: Db, { revision, ...query }: HallQuery): Promise<Booking[]> {
  const { venueIds, not, from } = query;
  if (revision === undefined) return (await readBookings(db, query)).map(bookingOf);
  if (kept?.revision !== revision || kept.from !== from) kept = { revision, from, venues: new Map() };
  const { venues } = kept;
  const all: Booking[] = [];
  for (const venueId of venueIds) {
    const known = await (venues.get(venueId) ?? remember(venues, venueId, db, from));
    const there = known ?? (await readBookings(db, { ...query, venueIds: [venueId] })).map(bookingOf);
    all.push(...there.filter((booking) => booking.listingId !== not));
  }
  return all;
}

/** Undefined for a hall with too many. */
function remember(venues: Kept['venues'], venueId: string, db: Db, from: Day): Promise<Booking[] | undefined> {
  const asked = readBookings(db, { venueIds: [venueId], not: null, from }).then((rows) =>
    rows.length > MOST_DATES ? undefined : rows.map(bookingOf),
  );
  venues.set(venueId, asked);
  asked.catch(() => venues.delete(venueId));
  const [oldest] = venues.keys();
  if (venues.size > MOST_VENUES && oldest !== undefined) venues.delete(oldest);
  return asked;
}
