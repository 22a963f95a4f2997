/** What other programs may ask: the filters of readers' views, how many at once, in which language. What nobody understands is refused by name. */
import { z } from 'zod';
import { isoDay, parseIsoDay } from '@/core/day/day';
import {
  DISTANCES,
  FILTER_NAMES,
  type FilterName,
  type Filters,
  NAMED_DAYS,
  readFilters,
  unreadFilters,
  WAYS,
} from '@/core/filters/filters';
import { PARTS_OF_DAY } from '@/core/filters/part-of-day';
import { LANGUAGES, type Language } from '@/core/phrase/language';
import { FEATURES } from '@/core/venue/features';
import { isId } from '../db/ids';
import { type FieldError, invalidFields } from '../problem';

/** How many of something come at once where nothing is said, and at most. */
export const LIMIT = { usual: 50, most: 200 } as const;

/** What each filter means, as the document says it; the same names as in the address of a view. */
export const FILTER_MEANINGS: Record<FilterName, { says: string; among?: readonly string[] }> = {
  kind: { says: 'Slugs of categories, with those below them.' },
  place: { says: 'Towns as written on venues, or `online`.' },
  area: { says: 'Islands or other parts of the country, as written on venues.' },
  venue: { says: 'Slugs of venues; a hall with its rooms.' },
  by: { says: 'Slugs of organizers.' },
  near: { says: 'Around a town, a venue or a landmark by its name, or around `latitude,longitude`.' },
  within: { says: 'Kilometres around `near`; 5 where nothing is said.', among: DISTANCES.map(String) },
  on: { says: 'Days by name, from today on.', among: NAMED_DAYS },
  from: { says: 'The first day, `2027-03-17`; today where nothing is said.' },
  to: { says: 'The last day, included.' },
  part: { says: 'Parts of the day.', among: PARTS_OF_DAY },
  free: { says: '`1`: what costs nothing.', among: ['1'] },
  upto: { says: 'What costs no more than so much of the site’s currency.' },
  access: { says: 'What a venue has; all of them.', among: FEATURES },
  how: { says: 'Ways to take part.', among: WAYS },
  ahead: { says: '`1`: without what is called off.', among: ['1'] },
  tag: { says: 'Slugs of tags.' },
  words: { says: 'Words of the title, the text, names of places, people and tags; what stands in quotation marks stands together.' },
};

/** Names beside the filters, by what they page through. */
const PAGING = ['limit', 'cursor', 'language'] as const;

/** What is asked of a collection. */
export interface OpenQuery {
  filters: Filters;
  limit: number;
  /** where the page begins, as the page before said; undefined = the first page */
  cursor: string | undefined;
  language: Language;
}

/** Of which form a collection's cursors are. */
export const CURSORS = {
  day: (text: string) => parseIsoDay(text) !== undefined,
  id: isId,
  slug: (text: string) => /^[a-z0-9-]{1,120}$/.test(text),
} as const;
/** One of {@link CURSORS}. */
export type CursorKind = keyof typeof CURSORS;

const limitOf = z.coerce.number().int().min(1).max(LIMIT.most);

/**
 * Reads a question. @throws Problem "invalid" that names what is not understood: a name that nobody knows, a value that is none
 *
 * @param options.filtered may filters stand in it?
 * @param options.languages those that the site has
 */
export function readOpenQuery(
  query: URLSearchParams,
  options: { filtered: boolean; cursor: CursorKind; languages: readonly Language[] },
): OpenQuery {
  const known: readonly string[] = [...(options.filtered ? FILTER_NAMES : []), ...PAGING];
  const wrong: FieldError[] = [];
  const refuse = (field: string, message: string): void => {
    wrong.push({ field, message });
  };
  for (const name of new Set(query.keys()))
    if (!known.includes(name)) refuse(name.slice(0, 40), `Nothing is called that here. Known: ${known.join(', ')}.`);
  if (options.filtered)
    for (const one of unreadFilters(query)) {
      const name = one.split('=')[0] as FilterName;
      const { says, among } = FILTER_MEANINGS[name];
      refuse(name, among ? `One of ${among.join(', ')}.` : says);
    }
  const limit = limitOf.safeParse(query.get('limit') ?? LIMIT.usual);
  if (!limit.success) refuse('limit', `A whole number from 1 to ${LIMIT.most}.`);
  const cursor = query.get('cursor') ?? undefined;
  if (cursor !== undefined && !CURSORS[options.cursor](cursor)) refuse('cursor', 'Take it from the `next` of the page before.');
  const asked = query.get('language') ?? options.languages[0] ?? 'en';
  const language = LANGUAGES.find((one) => one === asked && options.languages.includes(one));
  if (!language) refuse('language', `One of ${options.languages.join(', ')}.`);
  if (wrong.length) throw invalidFields(wrong);
  return { filters: readFilters(query), limit: limit.data ?? LIMIT.usual, cursor, language: language ?? 'en' };
}

/** The address of the next page: the same question from another place. */
export function nextAddress(url: URL, site: string, cursor: string | number): string {
  const query = new URLSearchParams(url.searchParams);
  query.set('cursor', typeof cursor === 'number' ? isoDay(cursor) : cursor);
  return `${site}${url.pathname}?${query.toString().replaceAll('%2C', ',')}`;
}
