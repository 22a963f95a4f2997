/** Proof: what stops a listing from being published, and what is worth a look. Pure; `today` is a day of the site. */
import type { EpochDay } from '../day/day';
import { inSite } from '../dates/clashes';
import type { ListingContent } from '../listing/content';
import { expand } from '../recurrence/expand';
import type { Occurrence } from '../recurrence/model';
import { changesFromStored, fromStored, StoredDateError } from '../recurrence/stored';
import { type AroundContext, aroundNotes } from './neighbour-checks';
import { costNotes } from './cost-checks';
import { linkNotes } from './links';
import { type LookContext, lookNotes } from './picture-checks';
import { namedDateNotes } from './named-date-checks';
import type { ValidationNote } from './note';
import { type PlaceContext, placeNotes } from './place-checks';
import { daysAround, type WhenContext, whenNotes } from './date-checks';
import { wordNotes } from './text-checks';

/** All that Proof knows besides the content itself. */
export interface ValidationContext extends AroundContext, PlaceContext, LookContext {
  today: EpochDay;
  horizon: EpochDay;
  /** the site's zone: venues open and close by it */
  zone: string;
}

/** So many coming dates are looked at one by one: two years of a daily listing. */
const MOST_DATES = 750;

/** All notes on a content, what stops it first. */
export function validate(content: ListingContent, context: ValidationContext): ValidationNote[] {
  const coming = comingDates(content, context);
  const notes = [
    ...wordNotes(content),
    ...whenNotes(content, context),
    ...namedDateNotes(content, { ...context, days: daysAround(content, context) }),
    ...placeNotes(content, coming, context),
    ...costNotes(content),
    ...linkNotes(content),
    ...lookNotes(content, context),
    ...aroundNotes(coming, context),
  ];
  const order = { error: 0, warning: 1, good: 2 };
  return notes.sort((a, b) => order[a.severity] - order[b.severity]);
}

/**
 * What stops publishing, and nothing else: asked at each publication, so without the listing's dates being looked at one by one. A test
 * compares it with all notes.
 */
export function whatStopsOf(content: ListingContent, context: WhenContext): ValidationNote[] {
  const notes = [
    ...wordNotes(content),
    ...whenNotes(content, context),
    ...placeNotes(content, [], context),
    ...costNotes(content),
    ...linkNotes(content),
  ];
  return notes.filter((note) => note.severity === 'error');
}

/** Dates from today on, by the site's clock; none when they cannot be read. */
export function comingDates(
  content: ListingContent,
  { today, horizon, zone }: Pick<ValidationContext, 'today' | 'horizon' | 'zone'>,
): Occurrence[] {
  if (!content.recurrence) return [];
  try {
    const recurrence = fromStored(content.recurrence);
    const dates = expand(recurrence, changesFromStored(content.changes), today, horizon);
    return dates.slice(0, MOST_DATES).map((date) => inSite(date, recurrence.zone, zone));
  } catch (error) {
    if (error instanceof StoredDateError) return [];
    throw error;
  }
}
