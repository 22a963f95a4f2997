/** Venues, organizers and categories as other programs read them. */
import type { Language } from '@/core/phrase/language';
import { notFound } from '../problem';
import { countComingBy } from '../public/readers-dates';
import type { CategoryView, OrganizerView, VenueView } from '../reference/read';
import type { Runtime } from '../runtime-type';
import type { OpenQuery } from './query';
import type { OpenCategory, OpenOrganizer, OpenVenue } from './shapes';
import { linkTo, type OpenPage, positionOf, type Telling, tellingOf, webAddress } from './telling';

/** A page of what is in a list, in the order of slugs. */
function slice<T extends { slug: string }>(all: Iterable<T>, { cursor, limit }: OpenQuery): OpenPage<T, string> {
  const sorted = [...all].sort((a, b) => (a.slug < b.slug ? -1 : 1)).filter(({ slug }) => cursor === undefined || slug > cursor);
  return { data: sorted.slice(0, limit), next: sorted.length > limit ? sorted[limit - 1]?.slug : undefined };
}

async function venueOf(venue: VenueView, telling: Telling): Promise<OpenVenue> {
  const { rt, page, self } = telling;
  const { id, slug, name, hall, street, town, region, postcode, country, island, areaOnly, phone, access, features } = venue;
  return {
    id,
    slug,
    page: page(`/at/${slug}`),
    self: self(`/venues/${slug}`),
    name,
    hall: hall && !hall.binned ? linkTo(hall, '/venues', telling) : null,
    ...{ street, town, area: island, region, postcode, country: country || rt.settings().country },
    position: positionOf(venue),
    areaOnly,
    phone,
    website: webAddress(venue.website),
    access,
    features: [...features],
    coming: (await countComingBy(rt, 'venue')).get(slug) ?? 0,
  };
}

/** Venues and rooms, in the order of their slugs. */
export async function openVenues(rt: Runtime, query: OpenQuery): Promise<OpenPage<OpenVenue, string>> {
  const telling = await tellingOf(rt, query.language);
  const { data, next } = slice(telling.reference.venues, query);
  return { data: await Promise.all(data.map((venue) => venueOf(venue, telling))), next };
}

/** The venue at an address. @throws Problem "missing" */
export async function openVenue(rt: Runtime, slug: string, language: Language): Promise<OpenVenue> {
  const telling = await tellingOf(rt, language);
  const venue = telling.reference.venues.find((one) => one.slug === slug);
  if (!venue) throw notFound('venue');
  return venueOf(venue, telling);
}

async function organizerOf({ id, slug, name, text, website }: OrganizerView, { rt, page, self }: Telling): Promise<OpenOrganizer> {
  const coming = (await countComingBy(rt, 'by')).get(slug) ?? 0;
  return { id, slug, page: page(`/by/${slug}`), self: self(`/organizers/${slug}`), name, text, website: webAddress(website), coming };
}

/** Organizers, in the order of their slugs. */
export async function openOrganizers(rt: Runtime, query: OpenQuery): Promise<OpenPage<OpenOrganizer, string>> {
  const telling = await tellingOf(rt, query.language);
  const { data, next } = slice(telling.reference.organizers, query);
  return { data: await Promise.all(data.map((one) => organizerOf(one, telling))), next };
}

/** The organizer at an address. @throws Problem "missing" */
export async function openOrganizer(rt: Runtime, slug: string, language: Language): Promise<OpenOrganizer> {
  const telling = await tellingOf(rt, language);
  const organizer = telling.reference.organizers.find((one) => one.slug === slug);
  if (!organizer) throw notFound('organizer');
  return organizerOf(organizer, telling);
}

async function categoryOf({ id, slug, name, parentId, light }: CategoryView, telling: Telling): Promise<OpenCategory> {
  const parent = parentId ? telling.reference.category.get(parentId) : undefined;
  const coming = (await countComingBy(telling.rt, 'kind')).get(slug) ?? 0;
  return {
    id,
    slug,
    self: telling.self(`/categories/${slug}`),
    name,
    parent: parent ? linkTo(parent, '/categories', telling) : null,
    ink: light,
    coming,
  };
}

/** Categories, in the order of their slugs. */
export async function openCategories(rt: Runtime, query: OpenQuery): Promise<OpenPage<OpenCategory, string>> {
  const telling = await tellingOf(rt, query.language);
  const { data, next } = slice(telling.reference.categories, query);
  return { data: await Promise.all(data.map((one) => categoryOf(one, telling))), next };
}

/** The category at an address. @throws Problem "missing" */
export async function openCategory(rt: Runtime, slug: string, language: Language): Promise<OpenCategory> {
  const telling = await tellingOf(rt, language);
  const category = telling.reference.categories.find((one) => one.slug === slug);
  if (!category) throw notFound('category');
  return categoryOf(category, telling);
}
