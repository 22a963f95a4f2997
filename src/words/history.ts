/** What happened to something, in words: for versions and histories. */
import type { Language } from '@/core/phrase/language';
import en from './compiled/history.en.js';
import fr from './compiled/history.fr.js';

export type HistoryWords = typeof en;

export const HISTORY_WORDS: Record<Language, HistoryWords> = { en, fr };
