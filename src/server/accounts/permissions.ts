/**
 * What whoever asks may do with a listing: one matrix of role, action, whose it is, and its stage. Every write and every read of a single
 * listing asks it; which routes are open to a role at all stands in `http/access.ts`.
 */
import type { Stage } from '@/core/listing/content';
import { serverWords } from '@/words/desk';
import { refused } from '../problem';
import { type Actor, editsAll } from './roles';

const w = serverWords.accountsPermissions;

/** What can be done with a listing. */
export const LISTING_ACTIONS = [
  /** its working copy, its versions, its preview */
  'see',
  /** its working copy changed */
  'save',
  /** to Intake, for an editor to decide */
  'send',
  'publish',
  /** set to go out, or to come down, by itself */
  'schedule',
  /** withdrawn, binned, or made a draft again */
  'take-down',
  /** out of the bin, or again a draft after it was withdrawn */
  'restore',
  /** given another web address */
  'readdress',
  /** made part of another listing */
  'merge',
] as const;
/** One of {@link LISTING_ACTIONS}. */
export type ListingAction = (typeof LISTING_ACTIONS)[number];

/** What the matrix asks of a listing. */
export interface Owned {
  ownerId: string | null;
  stage: Stage;
  /** when it, or its changes, go out by themselves */
  publishAt: Date | null;
}

/** What it is to give a listing another stage: one that readers do not have, and on which nobody is to decide, comes back as a draft. */
export function actionOf(to: 'draft' | 'in-review' | 'withdrawn' | 'binned', { stage }: Pick<Owned, 'stage'>): ListingAction {
  if (to === 'in-review') return 'send';
  return to === 'draft' && (stage === 'withdrawn' || stage === 'binned') ? 'restore' : 'take-down';
}

/** Why something may not be done: it is somebody else's, or an editor has to decide on it. */
export type Refusal = 'others' | 'needs-editor';

/** What readers see, or will see without anybody deciding again, is no longer its author's alone. */
const isOut = ({ stage, publishAt }: Owned): boolean => stage === 'published' || stage === 'scheduled' || publishAt !== null;

/** What contributors may do with their own, by whether an editor has decided on it. */
const OWN: Record<ListingAction, (listing: Owned) => boolean> = {
  see: () => true,
  // Changes to what is published wait for “Publish changes”; what goes out by itself would take them along.
  save: ({ stage, publishAt }) => stage !== 'scheduled' && publishAt === null,
  send: () => true,
  publish: () => false,
  schedule: () => false,
  'take-down': (listing) => !isOut(listing),
  restore: (listing) => !isOut(listing),
  readdress: (listing) => !isOut(listing),
  merge: (listing) => !isOut(listing),
};

/** Why `actor` may not do something with a listing; undefined when they may. */
export function whyRefused(actor: Actor, action: ListingAction, listing: Owned): Refusal | undefined {
  if (editsAll(actor)) return undefined;
  if (actor.role !== 'contributor' || actor.id === null || listing.ownerId !== actor.id) return 'others';
  return OWN[action](listing) ? undefined : 'needs-editor';
}

/** Throws a Problem unless `actor` may do this with the listing. */
export function authorize(actor: Actor, action: ListingAction, listing: Owned): void {
  const why = whyRefused(actor, action, listing);
  if (why) throw refused(sayRefusal(why, action, listing));
}

/** A refusal in words, with what would be right. */
export function sayRefusal(why: Refusal, action: ListingAction, listing: Owned): string {
  if (why === 'others') return w.others();
  if (action === 'save') return w.goesOut();
  if (action === 'publish' || action === 'schedule') return w.publishing();
  return listing.stage === 'published' ? w.published() : w.goesOut();
}
