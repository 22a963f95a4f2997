/** What bringing a file in did, or would do, as the server tells the command line. */

export interface ImportReport {
  items: {
    action: string;
    title: string;
    when: string;
    line: number;
    notes: string[];
    differences: { what: string; before: string; after: string }[];
  }[];
  unreadable: { line: number; title: string; reason: string }[];
  unknownZones: string[];
  made: number;
  changed: number;
  /** what Proof kept from being published */
  kept: { title: string; reason: string }[];
}
