/** What bringing a file in did, or would do, as the server tells the command line. */

export interface ImportReport {
  /** the first of a large file */
  items: {
    action: string;
    title: string;
    when: string;
    line: number;
    notes: string[];
    differences: { what: string; before: string; after: string }[];
  }[];
  /** by what would happen, all of them */
  counts: Record<string, number>;
  /** the first of them */
  unreadable: { line: number; title: string; reason: string }[];
  unreadableCount: number;
  unknownZones: string[];
  made: number;
  changed: number;
  /** what Proof kept from being published */
  kept: { title: string; reason: string }[];
}
