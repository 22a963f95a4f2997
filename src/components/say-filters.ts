/** What a reader chose, in words: "Music & dance, Gannet Bay, free". */
import { type Filters, ONLINE } from '@/core/filters/filters';
import type { ReferenceData } from '@/server/reference/read';
import type { ReadersWords } from '@/words/readers';

/** Each choice, in the order of the form; empty when nothing is chosen. */
export function sayFilters(filters: Filters, reference: ReferenceData, { filters: w }: ReadersWords): string[] {
  const kinds = filters.kinds.map((slug) => reference.categories.find((c) => c.slug === slug)?.name ?? slug);
  const places = filters.places.map((place) => (place === ONLINE ? w.saidOnline() : place));
  const tags = filters.tags.map((slug) => reference.tags.find((tag) => tag.slug === slug)?.name ?? slug);
  return [...kinds, ...places, ...tags, filters.free ? w.saidFree() : '', filters.words ? `“${filters.words}”` : ''].filter(Boolean);
}
