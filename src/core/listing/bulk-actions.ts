/** What can be done with many listings at once, as values: what each does to a content, and why it cannot. */
import { sayList } from '../phrase/format';
import { differences } from './merge';
import type { ListingContent, Stage } from './content';
import { shiftListing } from '../dates/moves';

/** What can be done to many listings at once. */
export type BulkAction =
  | { kind: 'publish' }
  | { kind: 'withdraw' }
  | { kind: 'draft' }
  | { kind: 'bin' }
  /** put first; what was there stays behind it, or goes */
  | { kind: 'category'; id: string; instead: boolean }
  | { kind: 'venue'; id: string }
  | { kind: 'organizer'; id: string; instead: boolean }
  | { kind: 'tag'; ids: string[]; off: boolean }
  | { kind: 'shift'; days: number }
  | { kind: 'headline'; on: boolean };

/** Listings with which an action cannot be done, for one reason. */
export interface Stays {
  reason: string;
  count: number;
  /** the first of their titles */
  titles: string[];
}

/** What an action would do, said before it is done. */
export interface BulkPlan {
  can: number;
  /** those that cannot, by the first reasons that were met */
  cannot: Stays[];
  cannotCount: number;
}

/** “A”, “B” and 43 more: each is published as it stands */
export function sayStays({ reason, count, titles }: Stays): string {
  const quoted = titles.map((title) => `“${title}”`);
  const names = count > titles.length ? [...quoted, `${(count - titles.length).toLocaleString('en')} more`] : quoted;
  return `${sayList(names)}: ${count > 1 ? reason.replace(/^it (?=is |was |has |belongs )/, 'each ') : reason}`;
}

/** Dates are shifted by at most so many days. */
export const MOST_SHIFT_DAYS = 400;

/** The content as an action leaves it; a reason in words when it cannot be done or changes nothing. */
export function applied(content: ListingContent, action: BulkAction): ListingContent | string {
  const next = change(content, action);
  if (typeof next === 'string') return next;
  return differences(content, next).length ? next : 'it is so already';
}

function change(content: ListingContent, action: BulkAction): ListingContent | string {
  const first = (ids: readonly string[], id: string, instead: boolean): string[] => (instead ? [id] : [id, ...ids.filter((x) => x !== id)]);
  switch (action.kind) {
    case 'category':
      return { ...content, categoryIds: first(content.categoryIds, action.id, action.instead) };
    case 'venue':
      if (content.attendance === 'online') return 'it is online, so it has no venue';
      return { ...content, venueIds: [action.id] };
    case 'organizer':
      return { ...content, organizerIds: first(content.organizerIds, action.id, action.instead) };
    case 'tag': {
      const kept = content.tagIds.filter((id) => !action.ids.includes(id));
      return { ...content, tagIds: action.off ? kept : [...content.tagIds, ...action.ids.filter((id) => !content.tagIds.includes(id))] };
    }
    case 'shift':
      if (!content.recurrence) return 'it has no date';
      return shiftListing(content, action.days) ?? 'its rule cannot be moved by so many days';
    case 'headline':
      return { ...content, headline: action.on };
    default:
      return content;
  }
}

/** The stage that an action leads to, and why it cannot; undefined for those that change contents. */
export function staged(stage: Stage, edited: boolean, kind: BulkAction['kind']): { to: Stage } | { reason: string } | undefined {
  switch (kind) {
    case 'publish':
      return stage === 'published' && !edited
        ? { reason: 'it is published as it stands' }
        : stage === 'binned'
          ? { reason: 'it is in the bin' }
          : { to: 'published' };
    case 'withdraw':
      return stage === 'published' ? { to: 'withdrawn' } : { reason: 'readers do not see it' };
    case 'draft':
      return stage === 'draft' ? { reason: 'it is a draft already' } : { to: 'draft' };
    case 'bin':
      return stage === 'binned' ? { reason: 'it is in the bin already' } : { to: 'binned' };
    default:
      return undefined;
  }
}

/** What an action is called on its button, and when it is done. */
export const BULK_WORDS: Record<BulkAction['kind'], { verb: string; done: string }> = {
  publish: { verb: 'Publish', done: 'published' },
  withdraw: { verb: 'Withdraw', done: 'withdrawn' },
  draft: { verb: 'Make drafts', done: 'made drafts' },
  bin: { verb: 'Put in the bin', done: 'put in the bin' },
  category: { verb: 'Set the category', done: 'put under the category' },
  venue: { verb: 'Move to a venue', done: 'moved' },
  organizer: { verb: 'Set the organizer', done: 'given the organizer' },
  tag: { verb: 'Tag', done: 'tagged' },
  shift: { verb: 'Shift dates', done: 'shifted' },
  headline: { verb: 'Headline', done: 'changed' },
};
