/** Published listings as iCalendar. */
import { inArray, sql } from 'drizzle-orm';
import type { PlainDateTime } from '@/core/day/plain-date-time';
import { type IcalListing, type IcalMore, type IcalPlace, IcalFile } from '@/core/exchange/ical';
import { changesFromStored, fromStored } from '@/core/recurrence/stored';
import { type ListingContent, sayCost, SUMMARY_SHOWN } from '@/core/listing/content';
import { plainText, shorten } from '@/core/text/text';
import { listing, published } from '../db/schema';
import type { Runtime } from '../runtime-type';
import { inTurns } from '../worker/turns';
import { horizonOf } from '../dates/date-index';
import type { PageReader } from './page-reader';
import type { ReadersDates } from './readers-dates';
import { type PublishedRow, rowIn } from './listing';
import { type ReferenceData, referenceData, type VenueView } from '../reference/read';

/** "Old Hall, 4 Shore Lane, Bay Town, Bay" without repeating a town that the name holds. */
export function placeLine(venue: VenueView): string {
  return [...new Set([venue.name, venue.hall?.name, venue.street, venue.town, venue.island].filter(Boolean))].join(', ');
}

function icalPlace(venue: VenueView): IcalPlace {
  return {
    location: placeLine(venue),
    // Of an area nobody is led to a point.
    point: venue.lat !== null && venue.lng !== null && !venue.areaOnly ? { lat: venue.lat, lng: venue.lng } : undefined,
  };
}

/** RFC 5545 has one LOCATION: several venues stand in it one behind the other, and the first that has a position gives GEO. */
function icalPlaces(venues: readonly VenueView[]): IcalPlace {
  const all = venues.map(icalPlace);
  return { location: all.map((place) => place.location).join('; '), point: all.find((place) => place.point)?.point };
}

/** A listing as it is given out: the published copy, or for editors the working one. */
export interface GivenListing {
  id: string;
  /** its web address; empty while readers have no page of it */
  slug: string;
  content: ListingContent;
  sequence: number;
  createdAt: Date;
  changedAt: Date;
}

/** A published listing as calendar files have it. */
export function icalListing(
  row: PublishedRow,
  createdAt: Date,
  reference: ReferenceData,
  rt: Runtime,
  given: IcalGiven = {},
): IcalListing | undefined {
  const { listingId: id, slug, content, sequence, changedAt } = row;
  return icalOf({ id, slug, content, sequence, createdAt, changedAt }, reference, rt, given);
}

/** For whom a listing is given out. */
export interface IcalGiven {
  /** one date alone */
  only?: PlainDateTime;
  /** a path in the reader's language */
  to?: (path: string) => string;
}

/** Listings as one calendar file. */
export function icalOf(
  listing: GivenListing,
  reference: ReferenceData,
  rt: Runtime,
  { only, to = (path) => path }: IcalGiven = {},
): IcalListing | undefined {
  const { id, slug, content, sequence, createdAt, changedAt } = listing;
  if (!content.recurrence) return undefined;
  const venues = content.venueIds.flatMap((id) => reference.venue.get(id) ?? []);
  const organizer = content.organizerIds[0] ? reference.organizer.get(content.organizerIds[0]) : undefined;
  const online = content.attendance === 'in-person' ? '' : content.onlineAddress;
  const text = plainText(content.text);
  const summary = content.summary || shorten(text.replace(/\n+/g, ' '), SUMMARY_SHOWN.list);
  return {
    uid: `${id}@${rt.host()}`,
    sequence,
    created: createdAt.getTime(),
    changed: changedAt.getTime(),
    title: content.title,
    description: [content.eventStatusNote, summary, text, online].filter(Boolean).join('\n\n').slice(0, 6000),
    url: slug ? rt.siteUrl() + to(`/what/${slug}`) : '',
    ...(venues.length && content.attendance !== 'online' ? icalPlaces(venues) : { location: online, point: undefined }),
    placeOf: (venueId) => {
      const elsewhere = reference.venue.get(venueId);
      return elsewhere && icalPlace(elsewhere);
    },
    organizer: organizer ? { name: organizer.name, mail: organizer.mail } : undefined,
    categories: content.categoryIds.map((categoryId) => reference.category.get(categoryId)?.name ?? '').filter(Boolean),
    more: moreOf(content),
    eventStatus: content.eventStatus,
    recurrence: fromStored(content.recurrence),
    changes: changesFromStored(content.changes),
    only,
  };
}

/** What else a listing says, for calendars that read it and for our own. */
function moreOf({
  contact,
  attendance,
  onlineAddress,
  cost,
  access,
  eventStatusNote,
  website,
  callAddress,
  callKind,
}: ListingContent): IcalMore {
  const { name, phone, mail } = contact;
  return {
    contact: [name, phone, mail].filter(Boolean).join(', '),
    onlineAddress: attendance === 'in-person' ? '' : onlineAddress,
    cost: cost.kind === 'amount' ? `${cost.amount} ${cost.currency}` : sayCost(cost),
    access,
    note: eventStatusNote,
    website,
    call: callAddress && `${callKind} ${callAddress}`,
  };
}

/** A calendar file as an answer, to be opened or kept under a name. */
export function icalResponse(text: string, fileName?: string): Response {
  const headers: Record<string, string> = { 'content-type': 'text/calendar; charset=utf-8' };
  if (fileName) headers['content-disposition'] = `attachment; filename="${fileName}.ics"`;
  return new Response(text, { headers });
}

/** How far back a feed reaches, in days: last month's dates are still worth having in a calendar. */
const FEED_PAST = 31;

/** So many listings are read at once: a long feed leaves readers their turns at the database and the thread. */
const AT_ONCE = 50;

/** Any number of listings: as one value, since a statement takes 65,535 at most. */
const oneOf = (ids: readonly string[]) =>
  sql`${published.listingId} in (select value::uuid from json_array_elements_text(${JSON.stringify(ids)}::json))`;

/** For whom a feed is. */
interface FeedReader extends PageReader {
  /** how it is called; the site's name where nothing is said */
  name?: string;
}
const ENGLISH: FeedReader = { language: 'en', to: (path) => path };

/** The feed of a filtered view: every listing with a date in reach, whole, with its rules. Words and addresses are in the reader's language. */
export async function feedText(
  rt: Runtime,
  shown: ReadersDates,
  url: string,
  { language, to, name }: FeedReader = ENGLISH,
): Promise<string> {
  const reference = await referenceData(rt);
  const settings = rt.settings();
  const today = rt.now().day;
  const horizon = horizonOf(today, settings.horizonMonths);
  const ids = await shown.listingIds({ from: today - FEED_PAST, to: horizon });
  const rows = ids.length ? await rt.db.select({ id: published.listingId }).from(published).where(oneOf(ids)).orderBy(published.slug) : [];
  const file = new IcalFile(horizon);
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    const some = rows.slice(at, at + AT_ONCE).map((row) => row.id);
    const found = await rt.db
      .select({ row: published, createdAt: listing.createdAt })
      .from(published)
      .innerJoin(listing, sql`${listing.id} = ${published.listingId}`)
      .where(inArray(published.listingId, some))
      .orderBy(published.slug);
    await inTurns(found, ({ row, createdAt }) => {
      const given = icalListing(rowIn(row, language), createdAt, reference, rt, { to });
      if (given) file.add(given);
    });
  }
  return file.text({ name: name ?? settings.name, url });
}
