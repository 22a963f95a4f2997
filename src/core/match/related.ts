/**
 * Which listings are like another one, for readers who want more of it. One sum of what they share, so that anybody can say why one is there:
 * the same kind 3, a kind of the same parent 1, each tag in common 2 (two of them at most), a venue 2, an organizer 3, and up to 1 for a next date
 * that is soon. What shares nothing is not like it, however soon it is.
 */
import type { EpochDay } from '../day/day';

/** What is compared of a listing. */
export interface Relatable {
  listingId: string;
  categoryId: string;
  tagIds: readonly string[];
  venueIds: readonly string[];
  organizerIds: readonly string[];
}

/** What a likeness is worth. */
export const LIKENESS = { kind: 3, parent: 1, tag: 2, mostTags: 2, venue: 2, organizer: 3, soon: 1 } as const;
/** A next date within so many days counts as soon, the sooner the more. */
const SOON_DAYS = 60;

const shared = (a: readonly string[], b: readonly string[]): number => a.filter((id) => b.includes(id)).length;

/**
 * How like a listing is to another.
 * @param parentOf the kind that a kind is a part of
 * @param inDays how far away its next date is
 * @returns 0 for what shares nothing
 */
export function likeness(
  one: Relatable,
  other: Relatable,
  { parentOf, inDays }: { parentOf: (categoryId: string) => string | null | undefined; inDays: number },
): number {
  if (one.listingId === other.listingId) return 0;
  const family = (id: string): string => parentOf(id) ?? id;
  const kind =
    one.categoryId === other.categoryId ? LIKENESS.kind : family(one.categoryId) === family(other.categoryId) ? LIKENESS.parent : 0;
  const tags = LIKENESS.tag * Math.min(LIKENESS.mostTags, shared(one.tagIds, other.tagIds));
  const venue = shared(one.venueIds, other.venueIds) ? LIKENESS.venue : 0;
  const organizer = shared(one.organizerIds, other.organizerIds) ? LIKENESS.organizer : 0;
  const sum = kind + tags + venue + organizer;
  return sum && sum + LIKENESS.soon * Math.max(0, 1 - inDays / SOON_DAYS);
}

/** A listing that may be like another, with its next date. */
export interface RelatedCandidate<T> {
  listing: Relatable;
  next: EpochDay;
  of: T;
}

/** The likest first; those that are as like by their next date, then by id. */
export function likest<T>(
  one: Relatable,
  candidates: Iterable<RelatedCandidate<T>>,
  { today, most, parentOf }: { today: EpochDay; most: number; parentOf: (categoryId: string) => string | null | undefined },
): T[] {
  const found: { of: T; worth: number; next: EpochDay; id: string }[] = [];
  for (const { listing, next, of } of candidates) {
    const worth = likeness(one, listing, { parentOf, inDays: Math.max(0, next - today) });
    if (worth) found.push({ of, worth, next, id: listing.listingId });
  }
  found.sort((a, b) => b.worth - a.worth || a.next - b.next || (a.id < b.id ? -1 : 1));
  return found.slice(0, most).map(({ of }) => of);
}
