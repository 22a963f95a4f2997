/** What the finder is given, what it is asked, and what it answers. */
import type { EffectiveDate } from '../dates/effective-date';
import type { EpochDay } from '../day/day';
import type { Condition } from '../filters/condition';
import type { EventStatus } from '../recurrence/model';

/** What a listing says of all of its dates. */
export type FoundListing = Pick<
  EffectiveDate,
  | 'listingId'
  | 'listing'
  | 'title'
  | 'shortTitle'
  | 'summary'
  | 'headline'
  | 'onTopUntil'
  | 'free'
  | 'cost'
  | 'categoryId'
  | 'venueIds'
  | 'zone'
  | 'attendance'
  | 'pictureId'
  | 'translations'
> & {
  /** its own, which goes before its dates' */
  eventStatus: EventStatus;
  tagIds: readonly string[];
  organizerIds: readonly string[];
  /** its texts, folded, in which words are looked for */
  search: string;
};

/** What is said of one date alone. */
export type FoundDate = Pick<
  EffectiveDate,
  'original' | 'startDay' | 'startMinute' | 'endDay' | 'endMinute' | 'lastDay' | 'note' | 'moved'
> & {
  /** its part of the address has the time too, since its day has several */
  timed: boolean;
  eventStatus: EventStatus | null;
  /** where it is when that is elsewhere than its listing */
  venueId: string | null;
};

/** A listing with all of its dates, or that readers have it no more. */
export interface FoundChange {
  listingId: string;
  /** undefined = it goes */
  is: { listing: FoundListing; dates: readonly FoundDate[] } | undefined;
}

/** Days from one to another, both included; without an end, all from the first on. */
export interface FoundSpan {
  from: EpochDay;
  to?: EpochDay;
  /** only what begins in it, not what has begun before and goes on */
  starting?: boolean;
}

/** What listings like another one are looked for by. */
export interface RelatedInput {
  today: EpochDay;
  /** so many days ahead */
  within: number;
  most: number;
  /** the kind that a kind is a part of */
  parentOf: (categoryId: string) => string | null | undefined;
}

/** What is asked of the finder. */
export interface Asked {
  span: FoundSpan;
  /** all of these hold */
  conditions: readonly Condition[];
}

/** What matches outside of a span. */
export interface Around {
  earlier: number;
  /** the first day of the last date before; undefined when there is none */
  last: EpochDay | undefined;
  later: number;
  next: EpochDay | undefined;
}

/** A listing that was found, by its dates in the span. */
export interface FoundRows {
  listingId: string;
  /** its title as what was typed is compared with it (`match/relevance.ts`) */
  titleKey: string;
  dates: number;
  /** the first days of the first of them, made when they are asked for */
  days(): EpochDay[];
  /** the last day of all of them */
  until: EpochDay;
  /** its first date there, made when it is asked for */
  first(): EffectiveDate;
}
