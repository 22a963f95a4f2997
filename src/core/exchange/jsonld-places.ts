/** Venues and organizers as schema.org Place and Organization. */
import { isoTime } from '../day/plain-date-time';
import { WEEKDAYS } from '../phrase/format';
import { FEATURE_WORDS, type Feature } from '../venue/features';
import type { OpeningHours } from '../venue/hours';

/** What the structured data of a venue is made of (schema.org/Place). */
export interface PlaceInput {
  name: string;
  /** its page here; undefined where it has none */
  url?: string | undefined;
  street?: string;
  town?: string;
  region?: string;
  postcode?: string;
  /** ISO 3166-1 alpha-2, or empty */
  country?: string;
  /** undefined where readers are led to no point */
  lat?: number | undefined;
  lng?: number | undefined;
  phone?: string;
  website?: string;
  image?: string | undefined;
  features?: readonly Feature[];
  capacity?: number | null;
  hours?: OpeningHours | null;
  /** the hall that it is a room of */
  hall?: { name: string; url: string | undefined } | undefined;
}

/** Only what is there: an empty text says nothing, and a checker would complain of it. */
const said = (values: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined && value !== null && value !== ''));

/** A venue as a schema.org Place. */
export function placeJsonLd(place: PlaceInput): Record<string, unknown> {
  const address = said({
    streetAddress: place.street,
    addressLocality: place.town,
    addressRegion: place.region,
    postalCode: place.postcode,
    addressCountry: place.country,
  });
  return {
    '@type': 'Place',
    name: place.name,
    ...(Object.keys(address).length ? { address: { '@type': 'PostalAddress', ...address } } : {}),
    ...said({ url: place.url, telephone: place.phone, sameAs: place.website, image: place.image, maximumAttendeeCapacity: place.capacity }),
    ...(place.lat === undefined ? {} : { geo: { '@type': 'GeoCoordinates', latitude: place.lat, longitude: place.lng } }),
    ...(place.hall ? { containedInPlace: { '@type': 'Place', ...said(place.hall) } } : {}),
    ...(place.features?.length
      ? {
          amenityFeature: place.features.map((one) => ({ '@type': 'LocationFeatureSpecification', name: FEATURE_WORDS[one], value: true })),
        }
      : {}),
    ...(place.hours ? { openingHoursSpecification: hoursJsonLd(place.hours) } : {}),
  };
}

/** Hours by weekday; what goes past midnight ends before it begins, as schema.org has it. A day on which it is closed is not said. */
function hoursJsonLd({ week }: OpeningHours): Record<string, unknown>[] {
  return week.flatMap((spans, weekday) =>
    spans.map(([from, to]) => ({
      '@type': 'OpeningHoursSpecification',
      dayOfWeek: `https://schema.org/${WEEKDAYS[weekday]}`,
      opens: isoTime(from),
      closes: to === 1440 ? '23:59' : isoTime(to % 1440),
    })),
  );
}

/** What the structured data of an organizer is made of (schema.org/Organization). */
export interface OrganizationInput {
  name: string;
  url?: string | undefined;
  text?: string;
  phone?: string;
  mail?: string;
  logo?: string | undefined;
  /** its own website and pages elsewhere */
  elsewhere?: readonly string[];
}

/** An organizer as a schema.org Organization. */
export function organizationJsonLd({ name, url, text, phone, mail, logo, elsewhere = [] }: OrganizationInput): Record<string, unknown> {
  const sameAs = elsewhere.filter(Boolean);
  return {
    '@type': 'Organization',
    name,
    ...said({ url, description: text, telephone: phone, email: mail, logo }),
    ...(sameAs.length ? { sameAs } : {}),
  };
}
