/** Proof of where and who: venues that are closed, too small or gone, nobody named, nothing said about access. */
import { type EpochDay, ymdOf } from '../day/day';
import type { ListingContent } from '../listing/content';
import { type Style, sayDay, sayList } from '../phrase/format';
import type { Occurrence } from '../recurrence/model';
import { type OpeningHours, openFor } from '../venue/hours';
import { good, asWarning, type ValidationNote, asError } from './note';

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
  if (online && !content.onlineAddress.trim())
    notes.push(asError('online-address-missing', 'online', 'It is online, but the online address is missing.'));
  if (content.attendance !== 'online' && !content.venueIds.length)
    notes.push(asWarning('venue-missing', 'venues', 'No venue: it will not be on the map.'));
  if (!content.organizerIds.length) notes.push(asWarning('organizer-missing', 'organizers', 'Nobody is named as its organizer.'));
  for (const venue of venues) notes.push(...venueNotes(content, venue, coming, context));
  for (const id of content.organizerIds) {
    const organizer = context.organizer?.(id);
    if (organizer?.binned)
      notes.push(
        asWarning('organizer-binned', 'organizers', `“${organizer.name}” is in the bin.`, {
          quickFix: { words: 'Take it off', content: { organizerIds: content.organizerIds.filter((o) => o !== id) } },
        }),
      );
  }
  if (venues.length && !content.access.trim() && !venues.some((v) => v.access))
    notes.push(asWarning('access-missing', 'access', 'Nothing is said about how people get in, neither here nor at the venue.'));
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
    const quickFix = { words: 'Take it off', content: { venueIds: content.venueIds.filter((id) => id !== venue.id) } };
    notes.push(asWarning('venue-binned', 'venues', `“${venue.name}” is in the bin.`, { quickFix }));
  }
  if (!venue.placed) notes.push(asWarning('venue-unplaced', 'venues', `${venue.name} has no position yet: it will not be on the map.`));
  if (venue.capacity !== null && content.expected !== null && content.expected > venue.capacity)
    notes.push(asWarning('room-small', 'expected', `${venue.name} holds ${venue.capacity}; ${content.expected} are expected.`));
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
    const more = shut.length > 3 ? [...days, `${shut.length - 3} more`] : days;
    notes.push(asWarning('venue-closed', 'venues', `${venue.name} is ${partly ? 'not open all the time' : 'closed'} on ${sayList(more)}.`));
  } else if (here.length) notes.push(good('venue-open', 'venues', `${venue.name} is open then.`));
  return notes;
}
