/** For whom something is made, as far as the server's floors know of readers. */
import type { Language } from '@/core/phrase/language';

/** A language, and where its pages are. */
export interface PageReader {
  language: Language;
  /** a path of readers' pages in it: `/list` as `/fr/list` */
  to: (path: string) => string;
}
