/** Other listings' dates in the chosen venues, asked once for the whole horizon, and which of our dates they touch. */
import { useEffect, useMemo, useState } from 'react';
import { instantToWall, wallToInstant } from '@/core/day/zone';
import type { Wall } from '@/core/day/wall';
import { type ListingContent, venuesOf } from '@/core/listing/content';
import type { BookingRow } from '@/core/listing/editor';
import type { Occurrence } from '@/core/recurrence/model';
import { type Booking, clashesByVenue } from '@/core/listing/clashes';
import type { Rail } from '@/core/listing/rail';

export function useClashes(rail: Rail, content: ListingContent, id: string | null, siteZone: string): Map<string, Booking[]> {
  const [bookings, setBookings] = useState<Booking[]>([]);
  const venues = content.attendance === 'online' ? '' : venuesOf(content).join(',');
  useEffect(() => {
    if (!venues) {
      setBookings([]);
      return;
    }
    const leave = new AbortController();
    const query = new URLSearchParams({ venues, not: id ?? '' });
    fetch(`/api/v1/bookings?${query}`, { signal: leave.signal })
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
    return clashesByVenue(dates, content.venueIds, bookings);
  }, [rail, bookings, zone, siteZone, content.venueIds]);
}

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
  const turn = (wall: Wall): Wall => (wall.minute === null ? wall : instantToWall(siteZone, wallToInstant(zone, wall).ms));
  return { ...date, start: turn(date.start), end: date.end && turn(date.end) };
}
