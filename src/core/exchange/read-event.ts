/** An event of a calendar file as it was read, and what reading needs to know. */
import type { DateChange, EventStatus, Recurrence } from '../recurrence/model';
import type { IcalMore } from './ical';

/** Where a single date is, in the file's words. */
export interface ReadPlace {
  location: string;
  point: { lat: number; lng: number } | undefined;
}

/** An event of a calendar file, its overrides brought together. */
export interface ReadEvent {
  uid: string;
  /** line of the file at which it begins */
  line: number;
  sequence: number;
  title: string;
  description: string;
  /** the description is HTML */
  html: boolean;
  location: string;
  point: { lat: number; lng: number } | undefined;
  organizer: { name: string; mail: string } | undefined;
  categories: string[];
  url: string;
  /** what else it says; only what is there */
  more: Partial<IcalMore>;
  eventStatus: EventStatus;
  /** addresses of pictures and papers, which are not fetched */
  attachments: string[];
  recurrence: Recurrence;
  changes: DateChange[];
  /** where single dates are that are elsewhere, by their original start */
  places: Map<string, ReadPlace>;
  /** what the file says that cannot be kept */
  notes: string[];
}

/** The site's zone, for times that name none, and how far open repeats are looked at. */
export interface ReadOptions {
  /** for floating times, and for single dates in UTC */
  siteZone: string;
  /** zones that somebody chose, by the file's names */
  chosen: ReadonlyMap<string, string>;
  candidates: readonly string[];
}
