/** schema.org JSON-LD of a published listing's date. */
import { effectiveVenues } from '@/core/dates/effective-date';
import { parseIsoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import { inZone } from '@/core/day/zone-words';
import { eventJsonLd, scriptJson } from '@/core/exchange/jsonld';
import { shownZone } from '../dates/date-index';
import type { Runtime } from '../runtime-type';
import { placeLine } from './feed';
import type { ListingDate, PublishedRow } from './listing';
import type { ReferenceData } from '../reference/read';

/** `to`: a path in the reader's language. */
export function listingJsonLd(
  row: PublishedRow,
  date: ListingDate,
  reference: ReferenceData,
  rt: Runtime,
  images: readonly string[],
  to: (path: string) => string = (path) => path,
): string {
  const { content } = row;
  const site = rt.siteUrl();
  const end: PlainDateTime | null = date.endDay === null ? null : { day: date.endDay, minute: date.endMinute };
  // Its times are those of the clock that is shown; the original start is kept by the listing's own.
  const zone = shownZone(content, rt.settings().zone);
  const was = date.moved ? parseIsoDateTime(date.original) : undefined;
  const venues = effectiveVenues(content, date.venueId).flatMap((id) => reference.venue.get(id) ?? []);
  return scriptJson(
    eventJsonLd({
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
      venues: venues.map((v) => ({
        name: v.name,
        address: placeLine(v),
        url: v.binnedAt ? undefined : site + to(`/at/${v.slug}`),
        lat: v.areaOnly ? undefined : (v.lat ?? undefined),
        lng: v.areaOnly ? undefined : (v.lng ?? undefined),
      })),
      organizers: content.organizerIds
        .flatMap((id) => reference.organizer.get(id) ?? [])
        .map((o) => ({ name: o.name, url: o.binnedAt ? undefined : site + to(`/by/${o.slug}`) })),
      cost: row.cost,
    }),
  );
}
