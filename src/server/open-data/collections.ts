/** The collections that other programs read, each told once: the endpoints answer by this, and the OpenAPI document is made from it. */
import type { z } from 'zod';
import type { Language } from '@/core/phrase/language';
import { notFound } from '../problem';
import type { Runtime } from '../runtime-type';
import { openDates } from './dates';
import { openListing, openListings } from './listings';
import { CATEGORIES, ORGANIZERS, VENUES } from './places';
import { type CursorKind, nextAddress, type OpenQuery, readOpenQuery } from './query';
import * as shapes from './shapes';
import type { Taken } from './shapes';
import type { OpenPage } from './telling';

/** A collection: what it holds, and how it is asked. */
export interface Collection {
  says: string;
  /** may the filters of readers' views be asked? */
  filtered: boolean;
  cursor: CursorKind;
  shape: z.ZodType;
  page: (rt: Runtime, query: OpenQuery) => Promise<OpenPage<unknown, string | number>>;
  /** one of it by its slug; undefined where none has one */
  one: ((rt: Runtime, slug: string, language: Language) => Promise<unknown>) | undefined;
}

/** All collections, by their names in addresses. */
export const COLLECTIONS = {
  dates: {
    says: 'Dates to come, in order of their start. A page holds whole days, so it may hold more than `limit` where one day does; what began earlier and goes on is on the first page.',
    filtered: true,
    cursor: 'day',
    shape: shapes.openDate,
    page: openDates,
    one: undefined,
  },
  listings: {
    says: 'Listings with a date to come, each with its text and its next date, in the order of their ids.',
    filtered: true,
    cursor: 'id',
    shape: shapes.openListing,
    page: openListings,
    one: openListing,
  },
  venues: {
    says: 'Venues and their rooms, in the order of their slugs.',
    filtered: false,
    cursor: 'slug',
    shape: shapes.openVenue,
    ...VENUES,
  },
  organizers: {
    says: 'Organizers, in the order of their slugs. Their telephone numbers and mail addresses stay on their pages.',
    filtered: false,
    cursor: 'slug',
    shape: shapes.openOrganizer,
    ...ORGANIZERS,
  },
  categories: {
    says: 'Categories, in the order of their slugs.',
    filtered: false,
    cursor: 'slug',
    shape: shapes.openCategory,
    ...CATEGORIES,
  },
} as const satisfies Record<string, Collection>;
/** One of {@link COLLECTIONS}. */
export type CollectionName = keyof typeof COLLECTIONS;

const collectionOf = (name: string | undefined): Collection => {
  if (!name || !Object.hasOwn(COLLECTIONS, name)) throw notFound('collection');
  return COLLECTIONS[name as CollectionName];
};

const languagesOf = (rt: Runtime): Language[] => {
  const { secondLanguage } = rt.settings();
  return ['en', ...(secondLanguage ? [secondLanguage] : [])];
};

/** The page of a collection that an address asks for. @throws Problem "missing" or "invalid", which names what is not understood */
export async function collectionPage(
  rt: Runtime,
  name: string | undefined,
  url: URL,
): Promise<{ data: unknown[]; next: string | null; taken: Taken[] }> {
  const { filtered, cursor, page } = collectionOf(name);
  const { data, next, taken = [] } = await page(rt, readOpenQuery(url.searchParams, { filtered, cursor, languages: languagesOf(rt) }));
  return { data, next: next === undefined ? null : nextAddress(url, rt.siteUrl(), next), taken };
}

/** One of a collection, by its slug. @throws Problem "missing", or "invalid" for a language that the site does not have */
export async function collectionItem(rt: Runtime, name: string | undefined, slug: string | undefined, url: URL): Promise<unknown> {
  const { one } = collectionOf(name);
  if (!one || !slug) throw notFound('collection');
  const { language } = readOpenQuery(url.searchParams, { filtered: false, cursor: 'slug', languages: languagesOf(rt) });
  return one(rt, slug, language);
}
