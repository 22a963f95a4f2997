/** Venues, organizers and categories as other programs read them. */
import type { Language } from '@/core/phrase/language';
import { readOldPlace } from '../places/slugs';
import { notFound } from '../problem';
import { countComingBy } from '../public/readers-dates';
import type { CategoryView, OrganizerView, ReferenceData, VenueView } from '../reference/read';
import type { Runtime } from '../runtime-type';
import type { OpenQuery } from './query';
import type { OpenCategory, OpenOrganizer, OpenVenue } from './shapes';
import { linkTo, type OpenPage, positionOf, type Telling, tellingOf, webAddress } from './telling';

/** What there is of a kind: a page of it in the order of slugs, and one by its slug. */
interface Told<T> {
  page: (rt: Runtime, query: OpenQuery) => Promise<OpenPage<T, string>>;
  /** @throws Problem "missing" */
  one: (rt: Runtime, slug: string, language: Language) => Promise<T>;
}

function told<View extends { slug: string }, T>(
  what: string,
  all: (reference: ReferenceData) => readonly View[],
  tell: (view: View, telling: Telling) => Promise<T>,
  /** where something of a former slug is now */
  former: (rt: Runtime, slug: string) => Promise<string | undefined> = async () => undefined,
): Told<T> {
  return {
    page: async (rt, { cursor, limit, language }) => {
      const telling = await tellingOf(rt, language);
      const after = [...all(telling.reference)]
        .sort((a, b) => (a.slug < b.slug ? -1 : 1))
        .filter(({ slug }) => cursor === undefined || slug > cursor);
      const data = await Promise.all(after.slice(0, limit).map((view) => tell(view, telling)));
      return { data, next: after.length > limit ? after[limit - 1]?.slug : undefined };
    },
    one: async (rt, slug, language) => {
      const telling = await tellingOf(rt, language);
      const called = (name: string | undefined) => all(telling.reference).find((one) => one.slug === name);
      const view = called(slug) ?? called(await former(rt, slug));
      if (!view) throw notFound(what);
      return tell(view, telling);
    },
  };
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

async function organizerOf({ id, slug, name, text, website }: OrganizerView, { rt, page, self }: Telling): Promise<OpenOrganizer> {
  const coming = (await countComingBy(rt, 'by')).get(slug) ?? 0;
  return { id, slug, page: page(`/by/${slug}`), self: self(`/organizers/${slug}`), name, text, website: webAddress(website), coming };
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

/** Venues and rooms. */
export const VENUES = told(
  'venue',
  ({ venues }) => venues,
  venueOf,
  ({ db }, slug) => readOldPlace(db, 'venue', slug),
);
/** Organizers. */
export const ORGANIZERS = told(
  'organizer',
  ({ organizers }) => organizers,
  organizerOf,
  ({ db }, slug) => readOldPlace(db, 'organizer', slug),
);
/** Categories. */
export const CATEGORIES = told('category', ({ categories }) => categories, categoryOf);
