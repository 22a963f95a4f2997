/** Proof: what stops a listing from being published, and what is worth a look. Pure; `today` is a day of the site. */
import type { Day } from '../day/day';
import { type ListingContent, SHORT_TITLE_FITS, SUMMARY_SHOWN } from '../listing/content';
import { type Style, sayDay } from '../phrase/format';
import { startsBetween } from '../recurrence/expand';
import type { Recurrence } from '../recurrence/model';
import { problemsOf, TOO_DENSE, type RecurrenceProblem } from '../recurrence/problems';
import { changesFromStored, fromStored, StoredDateError } from '../recurrence/stored';
import { plainText } from '../text/text';

/** Where a note leads: the editor's field. */
export type ProofField =
  | 'title'
  | 'shortTitle'
  | 'categories'
  | 'summary'
  | 'text'
  | 'when'
  | 'venues'
  | 'online'
  | 'organizers'
  | 'cost'
  | 'website'
  | 'contact'
  | 'picture';

export interface ProofNote {
  kind: string;
  /** stops: cannot be published; look: worth a look; good: said when it holds */
  severity: 'stops' | 'look' | 'good';
  field: ProofField;
  sentence: string;
}

export interface ProofContext {
  today: Day;
  horizon: Day;
  style: Style;
  /** the chosen picture's description; undefined when there is no picture */
  pictureAlt?: string | undefined;
}

const WEB = /^https?:\/\/[^\s/]+\.[^\s]+$/i;
const MAIL = /^[^\s@]+@[^\s@]+\.[^\s@]+$/;

export function isWebAddress(text: string): boolean {
  return WEB.test(text);
}

export function isMail(text: string): boolean {
  return MAIL.test(text);
}

/** All notes on a content, what stops it first. */
export function proofOf(content: ListingContent, context: ProofContext): ProofNote[] {
  const notes = [
    ...wordNotes(content),
    ...whenNotes(content, context),
    ...placeNotes(content),
    ...linkNotes(content),
    ...pictureNotes(content, context),
  ];
  const order = { stops: 0, look: 1, good: 2 };
  return notes.sort((a, b) => order[a.severity] - order[b.severity]);
}

export function stopsPublishing(notes: readonly ProofNote[]): boolean {
  return notes.some((n) => n.severity === 'stops');
}

const stops = (kind: string, field: ProofField, sentence: string): ProofNote => ({ kind, severity: 'stops', field, sentence });
const look = (kind: string, field: ProofField, sentence: string): ProofNote => ({ kind, severity: 'look', field, sentence });
const good = (kind: string, field: ProofField, sentence: string): ProofNote => ({ kind, severity: 'good', field, sentence });

function wordNotes(content: ListingContent): ProofNote[] {
  const notes: ProofNote[] = [];
  const title = content.title.trim();
  if (!title) notes.push(stops('title-missing', 'title', 'The title is missing.'));
  else if (title.length > 3 && title === title.toUpperCase() && /\p{L}/u.test(title)) {
    notes.push(look('title-capitals', 'title', 'The title is all in capitals; sentence case reads better.'));
  }
  const short = content.shortTitle.trim() || title;
  if (short.length > SHORT_TITLE_FITS * 2) {
    notes.push(
      look(
        'short-title-long',
        'shortTitle',
        `Two lines of the month sheet hold about ${SHORT_TITLE_FITS * 2} characters; give a short title.`,
      ),
    );
  } else if (title) notes.push(good('title-fits', 'title', 'The title fits the month sheet.'));
  if (!content.categoryIds.length)
    notes.push(look('category-missing', 'categories', 'No category: it will stand under the site’s fallback.'));
  const summary = content.summary.trim();
  if (!summary) {
    const sentence = plainText(content.text)
      ? 'No summary: lists will show the first words of the text.'
      : 'Neither summary nor text: lists will show the title alone.';
    notes.push(look('summary-missing', 'summary', sentence));
  } else if (summary.length > SUMMARY_SHOWN.search) {
    notes.push(
      look('summary-long', 'summary', `The summary has ${summary.length} characters; search engines show about ${SUMMARY_SHOWN.search}.`),
    );
  }
  return notes;
}

function whenNotes(content: ListingContent, context: ProofContext): ProofNote[] {
  if (!content.recurrence) return [stops('when-missing', 'when', 'No date yet.')];
  let recurrence: Recurrence;
  try {
    recurrence = fromStored(content.recurrence);
    changesFromStored(content.changes);
  } catch (error) {
    if (error instanceof StoredDateError) return [stops('date-unknown', 'when', `${error.message}.`)];
    throw error;
  }
  if (!recurrence.stretches.length) return [stops('when-missing', 'when', 'No date yet.')];
  const notes = problemsOf(recurrence, context.horizon).map((problem) => problemNote(problem, context.style));
  if (notes.some((n) => n.severity === 'stops')) return notes;
  return [...notes, ...comingNotes(recurrence, context)];
}

/** A problem of the recurrence, said to the editor. */
function problemNote(problem: RecurrenceProblem, style: Style): ProofNote {
  switch (problem.kind) {
    case 'end-before-start':
      return stops(problem.kind, 'when', 'It ends before it starts.');
    case 'never':
      return stops(problem.kind, 'when', 'This rule never gives a date.');
    case 'limit-before-start':
      return stops(problem.kind, 'when', 'The last day lies before the first date.');
    case 'no-dates':
      return stops(problem.kind, 'when', 'Nothing is left: every date is left out or falls in a break.');
    case 'too-dense':
      return stops(problem.kind, 'when', TOO_DENSE);
    case 'break-reversed':
      return stops(problem.kind, 'when', 'A break ends before it begins.');
    case 'start-not-in-rule':
      return look(
        problem.kind,
        'when',
        `The first date is not one that the rule names; its first is ${sayDay(problem.fits, style, { weekday: 'long', year: true })}.`,
      );
    case 'start-in-gap':
      return look(problem.kind, 'when', `The clocks go forward then: it is read ${problem.minutes} minutes later.`);
    case 'dates-in-gap':
      return look(
        problem.kind,
        'when',
        `No such time on ${problem.days
          .slice(0, 3)
          .map((day) => sayDay(day, style, { year: true }))
          .join(', ')}: the clocks go forward, so there is no date.`,
      );
  }
}

function comingNotes(recurrence: Recurrence, { today, horizon, style }: ProofContext): ProofNote[] {
  const coming = startsBetween(recurrence, today, horizon);
  const first = coming[0];
  if (first)
    return [good('coming', 'when', `Next date ${sayDay(first.wall.day, style, { weekday: 'short', month: 'short', year: true })}.`)];
  const later = recurrence.stretches.some((s) => s.start.day > horizon);
  return [look('no-coming-date', 'when', later ? 'All dates lie beyond the horizon, so no view shows them yet.' : 'All dates are past.')];
}

function placeNotes(content: ListingContent): ProofNote[] {
  const notes: ProofNote[] = [];
  const online = content.attendance !== 'in-person';
  if (online && !content.onlineAddress.trim())
    notes.push(stops('online-address-missing', 'online', 'It is online, but the online address is missing.'));
  if (content.attendance !== 'online' && !content.venueIds.length)
    notes.push(look('venue-missing', 'venues', 'No venue: it will not be on the chart.'));
  if (!content.organizerIds.length) notes.push(look('organizer-missing', 'organizers', 'Nobody is named as its organizer.'));
  if (content.cost.kind === 'unsaid') notes.push(look('cost-missing', 'cost', 'Nothing is said about the cost.'));
  if (content.cost.kind === 'amount' && !/^\d{1,7}([.]\d{1,2})?$/.test(content.cost.amount)) {
    notes.push(stops('cost-unreadable', 'cost', 'The amount is not a number such as 8 or 12.50.'));
  }
  return notes;
}

function linkNotes(content: ListingContent): ProofNote[] {
  const notes: ProofNote[] = [];
  if (content.website.trim() && !isWebAddress(content.website.trim())) {
    notes.push(stops('website-unsafe', 'website', 'The website must begin with http:// or https://.'));
  }
  if (content.onlineAddress.trim() && !isWebAddress(content.onlineAddress.trim())) {
    notes.push(stops('online-unsafe', 'online', 'The online address must begin with http:// or https://.'));
  }
  const mail = content.contact.mail.trim();
  if (mail && !isMail(mail)) notes.push(stops('mail-unreadable', 'contact', 'The mail address needs a name, an @ and a domain.'));
  return notes;
}

function pictureNotes(content: ListingContent, { pictureAlt }: ProofContext): ProofNote[] {
  if (!content.pictureId) return [look('picture-missing', 'picture', 'No picture: lists show the category mark instead.')];
  if (!pictureAlt?.trim()) return [look('alt-missing', 'picture', 'The picture has no description for those who cannot see it.')];
  return [];
}
