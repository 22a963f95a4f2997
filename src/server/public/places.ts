/** Dates gathered by venue, for the chart and the list beside it. */
import { addTo } from '@/core/collections/add-to';
import type { EffectiveDate } from '@/core/dates/effective-date';
import type { ReferenceData, VenueView } from '../reference/read';

/** A venue with its dates. */
export interface PlaceDates {
  venue: VenueView;
  dates: EffectiveDate[];
  /** the category of most of its dates */
  categoryId: string;
}

/** Dates by venue, and those that cannot stand on the chart. */
export interface Gathered {
  /** venues with a position, most dates first; a date in several venues stands at each */
  places: PlaceDates[];
  /** dates that are not on the chart, with why */
  offChart: { date: EffectiveDate; why: 'online' | 'no-position' | 'no-venue' }[];
}

/** Gathers dates by venue, the ones with the most first. */
export function gatherPlaces(dates: readonly EffectiveDate[], reference: ReferenceData): Gathered {
  const byVenue = new Map<string, EffectiveDate[]>();
  const offChart: Gathered['offChart'] = [];
  for (const date of dates) {
    let known = false;
    let placed = false;
    for (const id of date.venueIds) {
      const venue = reference.venue.get(id);
      if (!venue) continue;
      known = true;
      if (venue.lat === null) continue;
      placed = true;
      addTo(byVenue, id, date);
    }
    if (!placed) offChart.push({ date, why: known ? 'no-position' : date.attendance === 'online' ? 'online' : 'no-venue' });
  }
  const places = [...byVenue].map(
    ([id, own]): PlaceDates => ({ venue: reference.venue.get(id) as VenueView, dates: own, categoryId: commonest(own) }),
  );
  places.sort((a, b) => b.dates.length - a.dates.length || (a.venue.name < b.venue.name ? -1 : 1));
  return { places, offChart };
}

function commonest(dates: readonly EffectiveDate[]): string {
  const tally = new Map<string, number>();
  for (const { categoryId } of dates) tally.set(categoryId, (tally.get(categoryId) ?? 0) + 1);
  return [...tally].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0]?.[0] ?? '';
}
