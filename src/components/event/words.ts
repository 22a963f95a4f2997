/** Small words of the event page. */
import { addressLines } from '@/core/geo/postal-address';
import type { VenueView } from '@/server/reference/read';

/** `country`: the site's, for a venue that names none. */
export function addressWords(venue: VenueView, country: string): string {
  return [
    venue.hall?.name ?? '',
    ...addressLines(venue, venue.country || country),
    venue.island && venue.island !== venue.town ? venue.island : '',
  ]
    .filter(Boolean)
    .join(', ');
}
