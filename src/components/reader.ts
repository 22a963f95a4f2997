/** Who a page is for: the language, its words, and where its links lead. */
import { type Language, languagePrefix } from '@/core/phrase/language';
import type { SiteSettings } from '@/server/site/settings';
import { READERS_WORDS, type ReadersWords } from '@/words/readers';

export interface Reader {
  language: Language;
  words: ReadersWords;
  /** a path of readers' pages in this language: `/list` as `/fr/list` */
  to: (path: string) => string;
}

const readers = new Map<Language, Reader>();

/** A reader of a language; the site's own has no prefix in its addresses. */
export function readerOf(language: Language): Reader {
  const known = readers.get(language);
  if (known) return known;
  const prefix = languagePrefix(language);
  const reader: Reader = { language, words: READERS_WORDS[language], to: (path) => (prefix && path === '/' ? prefix : prefix + path) };
  readers.set(language, reader);
  return reader;
}

/** Readers of each language that a site's pages come in, its own first. */
export const readersOf = ({ secondLanguage }: Pick<SiteSettings, 'secondLanguage'>): Reader[] => [
  readerOf('en'),
  ...(secondLanguage ? [readerOf(secondLanguage)] : []),
];
