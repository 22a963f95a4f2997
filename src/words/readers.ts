/** The words of readers' pages, in every language that these come in. Messages are in `en/` and `fr/`; scripts/words.mjs compiles them. */
import type { Language } from '@/core/phrase/language';
import en from './compiled/readers.en.js';
import fr from './compiled/readers.fr.js';

export type ReadersWords = typeof en;

export const READERS_WORDS: Record<Language, ReadersWords> = { en, fr };
