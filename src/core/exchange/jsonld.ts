/** schema.org Event as JSON-LD, one per date. Times carry their offset; all-day dates are plain dates. */
import type { Language } from '../phrase/language';
import type { Recurrence } from '../recurrence/model';
import { isoDay } from '../day/day';
import type { PlainDateTime } from '../day/plain-date-time';
import { isoIn } from '../day/zone';
import type { Attendance, Cost } from '../listing/content';
import type { EventStatus } from '../recurrence/model';
import { type OrganizationInput, organizationJsonLd, type PlaceInput, placeJsonLd } from './jsonld-places';
import { schedulesOf } from './jsonld-schedule';

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
  venues: PlaceInput[];
  organizers: OrganizationInput[];
  cost: Cost;
  /** of the site: what is free costs nothing of it */
  currency: string;
  language: Language;
  /** that of the page (BCP 47) */
  languageTag: string;
  /** the dates that it is one of, where there are several */
  series?: { name: string; url: string; recurrence: Recurrence } | undefined;
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
  const { zone, series } = input;
  const places: Record<string, unknown>[] = input.venues.map(placeJsonLd);
  if (input.attendance !== 'in-person' && input.onlineAddress) places.push({ '@type': 'VirtualLocation', url: input.onlineAddress });
  const moved = input.previousStart && input.eventStatus === 'going-ahead';
  return {
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
    ...(input.organizers.length ? { organizer: input.organizers.map(organizationJsonLd) } : {}),
    ...(input.images?.length ? { image: input.images } : {}),
    inLanguage: input.languageTag,
    ...offersOf(input),
    ...(series ? seriesOf(series) : {}),
  };
}

/** What it costs: a price of nought for what is free, since some look at prices alone; words are nothing that schema.org has a place for. */
function offersOf({ cost, currency, url }: JsonLdInput): Record<string, unknown> {
  if (cost.kind !== 'free' && cost.kind !== 'amount') return {};
  const price = cost.kind === 'free' ? { price: '0', priceCurrency: currency } : { price: cost.amount, priceCurrency: cost.currency };
  return { isAccessibleForFree: cost.kind === 'free', offers: { '@type': 'Offer', ...price, url } };
}

/** The series that a date is one of, with its rules as schedules. */
function seriesOf({ name, url, recurrence }: NonNullable<JsonLdInput['series']>): Record<string, unknown> {
  const schedules = schedulesOf(recurrence);
  return {
    superEvent: { '@type': 'EventSeries', name, url, ...(schedules.length ? { eventSchedule: schedules } : {}) },
  };
}

/** JSON that may stand inside a script element: nothing in it can close that element. */
export function scriptJson(value: unknown): string {
  return JSON.stringify(value)
    .replace(/</g, '\\u003c')
    .replace(/\u2028/g, '\\u2028')
    .replace(/\u2029/g, '\\u2029');
}
