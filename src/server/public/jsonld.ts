/** schema.org JSON-LD of readers' pages: a published listing's date, a venue, an organizer. */
import { tagOf } from '@/core/phrase/language';
import { effectiveVenues } from '@/core/dates/effective-date';
import { parseIsoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import { inZone } from '@/core/day/zone-words';
import { eventJsonLd, scriptJson } from '@/core/exchange/jsonld';
import { type OrganizationInput, organizationJsonLd, type PlaceInput, placeJsonLd } from '@/core/exchange/jsonld-places';
import { fromStored } from '@/core/recurrence/stored';
import { shownZone } from '../dates/date-index';
import type { Runtime } from '../runtime-type';
import type { ListingDate, PublishedRow } from './listing';
import type { PageReader } from './page-reader';
import type { OrganizerView, ReferenceData, VenueView } from '../reference/read';

/** What is told of a venue wherever it is named; of an area no street and no point. */
function placeOf(venue: VenueView, rt: Runtime, to: PageReader['to']): PlaceInput {
  const { name, slug, binnedAt, street, town, region, postcode, country, areaOnly, lat, lng, hall } = venue;
  const page = (at: string): string => rt.siteUrl() + to(`/at/${at}`);
  return {
    name,
    url: binnedAt ? undefined : page(slug),
    street,
    town,
    // An island stands for the region where none is given.
    region: region || venue.island,
    postcode,
    country: country || rt.settings().country,
    lat: areaOnly ? undefined : (lat ?? undefined),
    lng: areaOnly ? undefined : (lng ?? undefined),
    hall: hall && { name: hall.name, url: hall.binned ? undefined : page(hall.slug) },
  };
}

const organizationOf = ({ name, slug, binnedAt }: OrganizerView, rt: Runtime, to: PageReader['to']): OrganizationInput => ({
  name,
  url: binnedAt ? undefined : rt.siteUrl() + to(`/by/${slug}`),
});

/** A date of a listing, as one of its series where it has several. */
export function listingJsonLd(
  row: PublishedRow,
  date: ListingDate,
  reference: ReferenceData,
  rt: Runtime,
  { images, total, reader: { language, to } }: { images: readonly string[]; total: number; reader: PageReader },
): string {
  const { content } = row;
  const site = rt.siteUrl();
  const end: PlainDateTime | null = date.endDay === null ? null : { day: date.endDay, minute: date.endMinute };
  // Its times are those of the clock that is shown; the original start is kept by the listing's own.
  const zone = shownZone(content, rt.settings().zone);
  const was = date.moved ? parseIsoDateTime(date.original) : undefined;
  const venues = effectiveVenues(content, date.venueId).flatMap((id) => reference.venue.get(id) ?? []);
  const event = eventJsonLd({
    title: row.title,
    description: row.summary,
    url: site + to(`/what/${row.slug}/${date.slug}`),
    images: images.map((src) => `${site}${src}`),
    zone,
    start: { day: date.startDay, minute: date.startMinute },
    end,
    previousStart: was && inZone(was, content.recurrence?.zone ?? zone, zone),
    eventStatus: date.eventStatus,
    attendance: row.attendance,
    onlineAddress: content.onlineAddress,
    venues: venues.map((venue) => placeOf(venue, rt, to)),
    organizers: content.organizerIds.flatMap((id) => reference.organizer.get(id) ?? []).map((one) => organizationOf(one, rt, to)),
    cost: row.cost,
    currency: rt.settings().currency,
    language,
    languageTag: tagOf(language, rt.settings().english),
    series:
      total > 1 && content.recurrence
        ? { name: row.title, url: site + to(`/what/${row.slug}`), recurrence: fromStored(content.recurrence) }
        : undefined,
  });
  return scriptJson({ '@context': 'https://schema.org', ...event });
}

/** A venue's page: all that it tells. */
export function venueJsonLd(venue: VenueView, rt: Runtime, to: PageReader['to'], image: string | undefined): string {
  const { phone, website, features, capacity, hours } = venue;
  const place = placeJsonLd({ ...placeOf(venue, rt, to), phone, website, features, capacity, hours, image: image && rt.siteUrl() + image });
  return scriptJson({ '@context': 'https://schema.org', ...place });
}

/** An organizer's page: all that it tells. */
export function organizerJsonLd(organizer: OrganizerView, rt: Runtime, to: PageReader['to'], logo: string | undefined): string {
  const { text, phone, mail, website, profiles } = organizer;
  const elsewhere = [website, ...profiles.list.map(({ address }) => address)];
  const more = { text, phone, mail, elsewhere, logo: logo && rt.siteUrl() + logo };
  return scriptJson({ '@context': 'https://schema.org', ...organizationJsonLd({ ...organizationOf(organizer, rt, to), ...more }) });
}
