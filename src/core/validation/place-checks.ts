/** Proof of where and who: venues that are closed, too small or gone, nobody named, nothing said about access. */
import { type EpochDay, ymdOf } from '../day/day';
import type { ListingContent } from '../listing/content';
import { type Style, sayDay, sayList } from '../phrase/format';
import type { Occurrence } from '../recurrence/model';
import { type OpeningHours, openFor } from '../venue/hours';
import { good, asWarning, type ValidationNote, asError } from './note';
import { says } from './saying';

/** What Proof must know of a venue. */
export interface VenueFacts {
  id: string;
  name: string;
  capacity: number | null;
  hours: OpeningHours | null;
  /** is anything said about how people get in? */
  access: boolean;
  /** has it a position, so that it stands on the chart? */
  placed: boolean;
  binned: boolean;
}

/** What the checks of places know besides the content. */
export interface PlaceContext {
  style: Style;
  today: EpochDay;
  venue?: ((id: string) => VenueFacts | undefined) | undefined;
  organizer?: ((id: string) => { name: string; binned: boolean } | undefined) | undefined;
}

/** `coming`: dates from today on, by the site's clock. */
export function placeNotes(content: ListingContent, coming: readonly Occurrence[], context: PlaceContext): ValidationNote[] {
  const notes: ValidationNote[] = [];
  const online = content.attendance !== 'in-person';
  const venues = content.attendance === 'online' ? [] : content.venueIds.flatMap((id) => context.venue?.(id) ?? []);
  if (online && !content.onlineAddress.trim()) notes.push(asError('online-address-missing', 'online', says('onlineAddressMissing')));
  if (content.attendance !== 'online' && !content.venueIds.length) notes.push(asWarning('venue-missing', 'venues', says('venueMissing')));
  if (!content.organizerIds.length) notes.push(asWarning('organizer-missing', 'organizers', says('organizerMissing')));
  for (const venue of venues) notes.push(...venueNotes(content, venue, coming, context));
  for (const id of content.organizerIds) {
    const organizer = context.organizer?.(id);
    if (organizer?.binned)
      notes.push(
        asWarning('organizer-binned', 'organizers', says('inTheBin', { name: organizer.name }), {
          quickFix: { says: says('takeItOff'), content: { organizerIds: content.organizerIds.filter((o) => o !== id) } },
        }),
      );
  }
  if (venues.length && !content.access.trim() && !venues.some((v) => v.access))
    notes.push(asWarning('access-missing', 'access', says('accessMissing')));
  return notes;
}

function venueNotes(
  content: ListingContent,
  venue: VenueFacts,
  coming: readonly Occurrence[],
  { style, today }: PlaceContext,
): ValidationNote[] {
  const notes: ValidationNote[] = [];
  if (venue.binned) {
    const quickFix = { says: says('takeItOff'), content: { venueIds: content.venueIds.filter((id) => id !== venue.id) } };
    notes.push(asWarning('venue-binned', 'venues', says('inTheBin', { name: venue.name }), { quickFix }));
  }
  if (!venue.placed) notes.push(asWarning('venue-unplaced', 'venues', says('venueUnplaced', { name: venue.name })));
  if (venue.capacity !== null && content.expected !== null && content.expected > venue.capacity)
    notes.push(
      asWarning('room-small', 'expected', says('roomSmall', { name: venue.name, capacity: venue.capacity, expected: content.expected })),
    );
  const { hours } = venue;
  if (!hours) return notes;
  const here = coming.filter((d) => (d.venueId ?? venue.id) === venue.id && d.eventStatus !== 'cancelled' && d.eventStatus !== 'postponed');
  const shut = here.filter((d) => openFor(hours, d.start, d.end) !== 'open');
  const first = shut[0];
  if (first) {
    const partly = openFor(hours, first.start, first.end) === 'partly';
    const named = shut.slice(0, 3);
    const year = named.some((d) => ymdOf(d.start.day).year !== ymdOf(today).year);
    const days = named.map((d) => sayDay(d.start.day, style, { weekday: 'short', month: 'short', year }));
    const more = shut.length - named.length;
    notes.push(
      asWarning(
        'venue-closed',
        'venues',
        says('venueClosed', { name: venue.name, partly: partly ? 'yes' : 'no', days: more ? days.join(', ') : sayList(days), more }),
      ),
    );
  } else if (here.length) notes.push(good('venue-open', 'venues', says('venueOpen', { name: venue.name })));
  return notes;
}
