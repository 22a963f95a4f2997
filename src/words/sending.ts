/** The words of whoever sends an event in: the form, what is wrong in it, the receipt, the mails. */
import type { Language } from '@/core/phrase/language';
import en from './compiled/sending.en.js';
import fr from './compiled/sending.fr.js';

export type SendingWords = typeof en;

export const SENDING_WORDS: Record<Language, SendingWords> = { en, fr };
