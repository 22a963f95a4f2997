/** schema.org Event as JSON-LD, one per date. Times carry their offset; all-day dates are plain dates. */
import { isoDay } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import { isoIn } from '../day/zone';
import type { Attendance, Cost } from '../listing/content';
import type { EventStatus } from '../recurrence/model';

/** What the structured data of a date's page is made of (schema.org/Event). */
export interface JsonLdInput {
  title: string;
  description: string;
  url: string;
  /** whole addresses, the same picture in several shapes */
  images?: readonly string[] | undefined;
  zone: string;
  start: PlainDateTime;
  end: PlainDateTime | null;
  /** where it stood before it was moved */
  previousStart?: PlainDateTime | undefined;
  eventStatus: EventStatus;
  attendance: Attendance;
  onlineAddress: string;
  venues: { name: string; address: string; url: string | undefined; lat?: number | undefined; lng?: number | undefined }[];
  organizers: { name: string; url: string | undefined }[];
  cost: Cost;
}

const STATUS: Record<EventStatus, string> = {
  'going-ahead': 'EventScheduled',
  postponed: 'EventPostponed',
  'moved-online': 'EventMovedOnline',
  rescheduled: 'EventRescheduled',
  cancelled: 'EventCancelled',
};
const MODE: Record<Attendance, string> = {
  'in-person': 'OfflineEventAttendanceMode',
  online: 'OnlineEventAttendanceMode',
  both: 'MixedEventAttendanceMode',
};

/** An end as schema.org says it: the last day itself for all-day dates. */
function lastTime(zone: string, end: PlainDateTime): string {
  return end.minute === null ? isoDay(end.day - 1) : isoIn(zone, end);
}

/** One date as a schema.org Event. */
export function eventJsonLd(input: JsonLdInput): Record<string, unknown> {
  const { zone, cost } = input;
  const places: Record<string, unknown>[] = input.venues.map((venue) => ({
    '@type': 'Place',
    name: venue.name,
    address: venue.address,
    ...(venue.url ? { url: venue.url } : {}),
    ...(venue.lat === undefined ? {} : { geo: { '@type': 'GeoCoordinates', latitude: venue.lat, longitude: venue.lng } }),
  }));
  if (input.attendance !== 'in-person' && input.onlineAddress) places.push({ '@type': 'VirtualLocation', url: input.onlineAddress });
  const moved = input.previousStart && input.eventStatus === 'going-ahead';
  return {
    '@context': 'https://schema.org',
    '@type': 'Event',
    name: input.title,
    ...(input.description ? { description: input.description } : {}),
    url: input.url,
    startDate: isoIn(zone, input.start),
    ...(input.end ? { endDate: lastTime(zone, input.end) } : {}),
    ...(input.previousStart ? { previousStartDate: isoIn(zone, input.previousStart) } : {}),
    eventStatus: `https://schema.org/${moved ? STATUS.rescheduled : STATUS[input.eventStatus]}`,
    eventAttendanceMode: `https://schema.org/${MODE[input.attendance]}`,
    ...(places.length ? { location: places.length === 1 ? places[0] : places } : {}),
    ...(input.organizers.length ? { organizer: input.organizers.map((o) => ({ '@type': 'Organization', ...o })) } : {}),
    ...(input.images?.length ? { image: input.images } : {}),
    ...(cost.kind === 'free' ? { isAccessibleForFree: true } : {}),
    ...(cost.kind === 'amount'
      ? { isAccessibleForFree: false, offers: { '@type': 'Offer', price: cost.amount, priceCurrency: cost.currency, url: input.url } }
      : {}),
  };
}

/** JSON that may stand inside a script element: nothing in it can close that element. */
export function scriptJson(value: unknown): string {
  return JSON.stringify(value)
    .replace(/</g, '\\u003c')
    .replace(/\u2028/g, '\\u2028')
    .replace(/\u2029/g, '\\u2029');
}
