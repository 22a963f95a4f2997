/** Other listings' dates in the chosen venues, asked once for the whole horizon, and which of our dates they touch. */
import { siteAddress } from '@/client/site-root';
import { useEffect, useMemo, useState } from 'react';
import { type ListingContent, venuesOf } from '@/core/listing/content';
import type { BookingRow, VenueChoice } from '@/core/listing/editor';
import { type Booking, bookingOf, clashesByVenue, inSite } from '@/core/dates/clashes';
import type { Rail } from '@/core/dates/rail';

export function useClashes(
  rail: Rail,
  content: ListingContent,
  id: string | null,
  siteZone: string,
  choices: readonly VenueChoice[],
): Map<string, Booking[]> {
  const [bookings, setBookings] = useState<Booking[]>([]);
  const venues = content.attendance === 'online' ? '' : venuesOf(content).join(',');
  useEffect(() => {
    if (!venues) {
      setBookings([]);
      return;
    }
    const leave = new AbortController();
    const query = new URLSearchParams({ venues, not: id ?? '' });
    fetch(siteAddress(`/api/v1/bookings?${query}`), { signal: leave.signal })
      .then((response) => (response.ok ? (response.json() as Promise<BookingRow[]>) : []))
      .then((rows) => setBookings(rows.map(bookingOf)))
      // Without a connection there is simply nothing to compare with; saving says so.
      .catch(() => undefined);
    return () => leave.abort();
  }, [venues, id]);
  const zone = content.recurrence?.zone ?? siteZone;
  return useMemo(() => {
    if (!bookings.length) return new Map();
    const dates = rail.months.flatMap(({ dates: rows }) =>
      rows.flatMap((d) => (d.occurrence && !d.out ? [inSite(d.occurrence, zone, siteZone)] : [])),
    );
    return clashesByVenue(dates, content.venueIds, bookings, new Map(choices.map((c) => [c.id, c.setUp])));
  }, [rail, bookings, zone, siteZone, content.venueIds, choices]);
}
