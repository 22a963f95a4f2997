/** What bringing a file in did, or would do, as the server tells the command line. */

/** How many listings of a file did what, and what was left out. */
export interface ImportReport {
  /** the first of a large file */
  items: {
    action: string;
    title: string;
    when: string;
    line: number;
    notes: string[];
    /** why it may be a listing that is here; empty = it is known */
    doubt: string;
    differences: { what: string; before: string; after: string }[];
  }[];
  /** by what would happen, all of them */
  counts: Record<string, number>;
  /** the first of them */
  unreadable: { line: number; title: string; reason: string }[];
  unreadableCount: number;
  unknownZones: string[];
  /** words that mean nothing here, left out */
  open: { kind: 'venue' | 'organizer' | 'category'; said: string; mail: string; events: number }[];
  /** what was made of them, by kind */
  madeHere: Record<string, number>;
  made: number;
  changed: number;
  /** what Proof kept from being published */
  kept: { title: string; reason: string }[];
}
