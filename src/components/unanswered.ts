/** What an address asks and nobody can answer, in words: said on the page, since a link may be old or mistyped. */
import { type Filters, unreadFilters } from '@/core/filters/filters';
import { unknownChoices } from '@/server/public/filter-conditions';
import type { ReadersDates } from '@/server/public/readers-dates';
import type { ReferenceData } from '@/server/reference/read';
import type { ReadersWords } from '@/words/readers';
import type { Reader } from './reader';

/** Words that nothing has, and what was looked for instead. */
export function sayGuesses(guesses: ReadersDates['guesses'], { words: { filters: w }, language }: Reader): string[] {
  const list = new Intl.ListFormat(language, { type: 'disjunction' });
  return [...guesses].map(([word, others]) =>
    others.length ? w.guessed({ word, others: list.format(others.map((other) => w.other({ word: other }))) }) : w.unknown({ word }),
  );
}

/** Each thing that was asked in vain; none where all was understood. */
export function sayUnanswered(
  query: URLSearchParams,
  filters: Filters,
  reference: ReferenceData,
  { near }: Pick<ReadersDates, 'near'>,
  { filters: w }: ReadersWords,
): string[] {
  const unread = [...unreadFilters(query), ...unknownChoices(filters, reference).map(({ name, slug }) => `${name}=${slug}`)];
  return [
    ...(unread.length ? [w.unread({ what: unread.join(', ') })] : []),
    ...(filters.near && !near ? [w.unknownPlace({ place: filters.near.place })] : []),
  ];
}
