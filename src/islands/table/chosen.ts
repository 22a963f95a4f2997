/** What the table begins with, and which rows are chosen, kept while the page is made anew. */
import type { Style } from '@/core/phrase/format';

export interface Named {
  id: string;
  name: string;
}

export interface TableStart {
  /** what the table shows, as it stands in the address */
  query: string;
  total: number;
  mayPublish: boolean;
  /** may make tags that are not there yet */
  mayMake: boolean;
  currency: string;
  style: Style;
  /** the site's day, `2027-03-17` */
  today: string;
  /** the action that this page reports on; empty = none */
  run: string;
  categories: Named[];
  venues: Named[];
  organizers: Named[];
  tags: Named[];
}

const KEY = 'almanac.chosen';

/** Remembers what is chosen while the page is made anew. */
export function keepChosen(ids: readonly string[]): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify(ids));
  } catch {
    // Without storage the choice is made again by hand.
  }
}

export function takeChosen(): ReadonlySet<string> {
  try {
    return new Set(JSON.parse(sessionStorage.getItem(KEY) ?? '[]') as string[]);
  } catch {
    return new Set();
  }
}
