/**
 * A date as readers meet it: what its listing says and what is said of it alone, brought together by rules that stand here once. Sheets,
 * lists, the map, an event's page, feeds and files all show this. Days are integers since 1970-01-01 and minutes count from midnight, by
 * the clock that comes first (`zone`).
 */
import type { EpochDay } from '../day/day';
import type { Attendance, Cost, ListingContent } from '../listing/content';
import { SUMMARY_SHOWN } from '../listing/content';
import type { Translations } from '../listing/content';
import { translationOf, wordsIn } from '../listing/translation';
import type { Language } from '../phrase/language';
import type { EventStatus } from '../recurrence/model';
import { plainText, shorten } from '../text/text';

/** When a date is, and by which name it is found. */
export interface DateTimes {
  /** the original start, by the listing's own clock */
  original: string;
  startDay: EpochDay;
  /** null = the whole day */
  startMinute: number | null;
  /** exclusive; null = no end is given */
  endDay: EpochDay | null;
  endMinute: number | null;
  /** the last day it touches, included */
  lastDay: EpochDay;
  /** it is not at its original start */
  moved: boolean;
}

/** A date as readers meet it: what its listing says and what itself says, brought together. */
export interface EffectiveDate extends DateTimes {
  listingId: string;
  /** its listing's part of the address */
  listing: string;
  /** its own part of the address */
  date: string;
  title: string;
  shortTitle: string;
  summary: string;
  eventStatus: EventStatus;
  /** what is said of this date alone */
  note: string;
  headline: boolean;
  free: boolean;
  cost: Cost;
  categoryId: string;
  /** where it is, in the listing's order; empty = online or nowhere named */
  venueIds: string[];
  /** this date is in another place than the listing's others */
  elsewhere: boolean;
  /** the zone of its times; empty = the site's */
  zone: string;
  attendance: Attendance;
  pictureId: string | null;
  /** the last day on which its listing stands on top of lists */
  onTopUntil: EpochDay | null;
  /** its words in other languages */
  translations: Translations | null;
}

/** As much of a date as decides where it stands on a sheet: of thousands in a full month, a few hundred are shown and asked for whole. */
export interface DateGlance
  extends Pick<EffectiveDate, 'startDay' | 'startMinute' | 'endDay' | 'endMinute' | 'lastDay' | 'headline' | 'categoryId'> {
  whole: () => EffectiveDate;
}

/** Many days at a glance: how much is on each, and what goes on for several. */
export interface DaysGlance {
  /** of each day, from the first */
  counts: Uint32Array;
  /** dates whose last day is not their first, in order of their start */
  several: DateGlance[];
}

/** A listing's own status counts for all of its dates; while it goes ahead, a date has its own. */
export function effectiveStatus(listing: EventStatus, date: EventStatus | null): EventStatus {
  return listing !== 'going-ahead' ? listing : (date ?? 'going-ahead');
}

/** Where a listing is: nowhere while it is online only. */
export function listingVenues({ attendance, venueIds }: Pick<ListingContent, 'attendance' | 'venueIds'>): string[] {
  return attendance === 'online' ? [] : venueIds;
}

/** Where a date is: in its own place if it has one, else where its listing is. */
export function effectiveVenues(listing: Pick<ListingContent, 'attendance' | 'venueIds'>, own: string | null): string[] {
  return own ? [own] : listingVenues(listing);
}

/** A listing's summary, or the beginning of its text. */
export function effectiveSummary({ summary, text }: Pick<ListingContent, 'summary' | 'text'>): string {
  return summary || shorten(plainText(text).replace(/\n+/g, ' '), SUMMARY_SHOWN.list);
}

/** A date in the words of a language, as far as its listing has them. */
export function dateIn<T extends Pick<EffectiveDate, 'title' | 'shortTitle' | 'translations'>>(date: T, language: Language): T {
  const translation = translationOf(date.translations, language);
  return translation ? wordsIn({ summary: '', ...date }, translation) : date;
}
