/**
 * What a file says of one listing, whatever kind of file it is: the fields that it speaks of, and places, people and categories
 * in its own words. Kept as JSON between looking at a file and bringing it in, so it has a format number: 2 names the parts of a recurrence as the field does.
 */
import { isoDateTime } from '../day/plain-date-time';
import { CALLS, type ListingContent } from '../listing/content';
import { MOST_IN, mostOf } from '../listing/fields';
import { toStored } from '../recurrence/stored';
import type { ReadEvent } from './read-event';

/** The format of what is kept between looking at a file and importing it. */
export const INCOMING_FORMAT = 2;

/** A place or an organizer as a file names it. */
export interface Named {
  name: string;
  mail?: string;
  point?: { lat: number; lng: number };
}

/** What can come as it is; what points to something here comes by its words. */
export type IncomingContent = Partial<
  Omit<ListingContent, 'format' | 'venueIds' | 'organizerIds' | 'categoryIds' | 'pictureId' | 'galleryIds' | 'tagIds'>
>;

/** What a file says of one listing, in the fields that it speaks of. */
export interface Incoming {
  format: typeof INCOMING_FORMAT;
  /** the same in every version of the file */
  uid: string;
  /** line of the file at which it begins */
  line: number;
  sequence: number;
  /** fields that the file does not speak of are absent */
  content: IncomingContent;
  /** the text is HTML, to be cleaned; else it is plain */
  html: boolean;
  venues?: Named[];
  organizers?: Named[];
  categories?: string[];
  /** where single dates are that are elsewhere, by their original start */
  places: Record<string, Named>;
  /** what the file says that cannot be kept */
  notes: string[];
  /** the listing's id where the file was given out here */
  ownId?: string;
}

/** A part of a file that could not be read: where it stands and why. */
export interface Unreadable {
  line: number;
  title: string;
  reason: string;
}

/** A file read to its end. */
export interface IncomingFile {
  items: Incoming[];
  unreadable: Unreadable[];
  /** zones that neither name nor rules tell */
  unknownZones: string[];
}

/** UIDs of listings of a site end in its host. */
const OWN_UID = /^([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})@(.+)$/;

/** Where it is online: by the standard's word, else where the place is a web address. */
const onlineOf = ({ more, location }: ReadEvent): string | undefined =>
  more.onlineAddress ?? (/^https?:\/\/\S+$/i.test(location) ? location.slice(0, mostOf('onlineAddress')) : undefined);

/** Is there a place that one can go to? */
const hasPlace = (event: ReadEvent): boolean => event.point !== undefined || (event.location !== '' && event.location !== onlineOf(event));

/** Contact, cost and the like as a listing holds them; only what the file says. */
function moreOf(event: ReadEvent): IncomingContent {
  const { more } = event;
  const online = onlineOf(event);
  const { contact, cost, access, note, website, call } = more;
  const called = call?.split(' ') ?? [];
  const callKind = CALLS.find((kind) => kind === called[0]);
  const parts = (contact ?? '').split(/\s*,\s*/);
  const mail = parts.find((part) => part.includes('@')) ?? '';
  const phone = parts.find((part) => /^[+\d][\d ()/.-]{3,}$/.test(part)) ?? '';
  const name = parts.filter((part) => part && part !== mail && part !== phone).join(', ');
  const price = cost === undefined ? undefined : /^(\d+(?:\.\d{1,2})?) ([A-Z]{3})$/.exec(cost);
  return {
    ...(contact === undefined
      ? {}
      : { contact: { name: name.slice(0, MOST_IN.contactName), phone: phone.slice(0, MOST_IN.phone), mail: mail.slice(0, MOST_IN.mail) } }),
    ...(online ? { onlineAddress: online, attendance: hasPlace(event) ? ('both' as const) : ('online' as const) } : {}),
    ...(cost === undefined
      ? {}
      : {
          cost: price
            ? { kind: 'amount' as const, amount: price[1] ?? '', currency: price[2] ?? '' }
            : cost === 'free'
              ? { kind: 'free' as const }
              : { kind: 'words' as const, words: cost.slice(0, MOST_IN.costWords) },
        }),
    ...(access === undefined ? {} : { access: access.slice(0, mostOf('access')) }),
    ...(note === undefined ? {} : { eventStatusNote: note.slice(0, mostOf('eventStatusNote')) }),
    ...(website === undefined ? {} : { website }),
    ...(callKind ? { callKind, callAddress: (called[1] ?? '').slice(0, mostOf('callAddress')) } : {}),
  };
}

/** An event of a calendar file. `host` is this site's: its own events are known again. */
export function fromIcal(event: ReadEvent, host: string): Incoming {
  const own = OWN_UID.exec(event.uid);
  const named = (location: string, point: ReadEvent['point']): Named => ({ name: location, ...(point ? { point } : {}) });
  return {
    format: INCOMING_FORMAT,
    uid: event.uid,
    line: event.line,
    sequence: event.sequence,
    html: event.html,
    content: {
      title: event.title,
      text: event.description,
      recurrence: toStored(event.recurrence),
      changes: event.changes.map((change) => ({
        ...change,
        original: isoDateTime(change.original),
        movedTo: change.movedTo && isoDateTime(change.movedTo),
      })),
      eventStatus: event.eventStatus,
      website: event.url,
      ...moreOf(event),
    },
    venues: hasPlace(event) ? [named(event.location, event.point)] : [],
    organizers: event.organizer ? [event.organizer] : [],
    categories: event.categories,
    places: Object.fromEntries([...event.places].map(([original, place]) => [original, named(place.location, place.point)])),
    notes: [...event.notes, ...event.attachments.map((address) => `Not fetched: ${address}`)],
    ...(own && own[2] === host ? { ownId: own[1] as string } : {}),
  };
}
