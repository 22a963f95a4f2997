/** Said wherever somebody is about to send an address that nobody else can open. */
import { pagesWords } from '@/words/desk';

const w = pagesWords.onlyHere;

export const ONLY_HERE = w.mailsAndCalendarFiles();
