/** What a reader chose to see, as it stands in the address: kinds, places, free of charge, words. */
import { fold } from '@/core/text/text';

/** What a reader chose; an empty choice leaves nothing out. */
export interface Filters {
  /** addresses of categories; empty = all */
  kinds: string[];
  /** towns as written on venues, and `online`; empty = everywhere */
  places: string[];
  free: boolean;
  words: string;
  /** addresses of tags, all of which a listing has */
  tags: string[];
}

/** The name of "online" among the places. */
export const ONLINE = 'online';

/** Reads an address's query; unknown names stay harmless, lengths and numbers are bounded. */
export function readFilters(query: URLSearchParams): Filters {
  const several = (name: string): string[] =>
    [
      ...new Set(
        query
          .getAll(name)
          .flatMap((v) => v.split(','))
          .map((v) => v.trim().slice(0, 80))
          .filter(Boolean),
      ),
    ].slice(0, 60);
  return {
    kinds: several('kind'),
    places: several('place'),
    tags: several('tag').slice(0, 8),
    free: query.get('free') === '1',
    words: (query.get('words') ?? '').replace(/\s+/g, ' ').trim().slice(0, 80),
  };
}

/** The query of an address, `?kind=music&free=1`, or nothing; always in the same order, so that it caches. */
export function filterQuery(filters: Filters): string {
  const query = new URLSearchParams();
  if (filters.kinds.length) query.set('kind', [...filters.kinds].sort().join(','));
  if (filters.places.length) query.set('place', [...filters.places].sort().join(','));
  if (filters.free) query.set('free', '1');
  if (filters.tags.length) query.set('tag', [...filters.tags].sort().join(','));
  if (filters.words) query.set('words', filters.words);
  const text = query.toString().replaceAll('%2C', ',');
  return text ? `?${text}` : '';
}

/** Do these leave anything out? */
export function isFiltered({ kinds, places, free, words, tags }: Filters): boolean {
  return kinds.length > 0 || tags.length > 0 || places.length > 0 || free || words !== '';
}

/** The words folded for the search column, each of which must occur. */
export function searchWords(filters: Filters): string[] {
  return fold(filters.words).split(' ').filter(Boolean).slice(0, 8);
}

/** Escapes what LIKE would read as a pattern. */
export function likePattern(word: string): string {
  return `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
}
