/** Small words of the event page. */
import { addressLines } from '@/core/geo/address';
import type { VenueView } from '@/server/public/lookup';

export function addressWords(venue: VenueView): string {
  return [venue.hall?.name ?? '', ...addressLines(venue, venue.country), venue.island && venue.island !== venue.town ? venue.island : '']
    .filter(Boolean)
    .join(', ');
}
