import { describe, expect, it } from 'vitest';
import { likeness, likest, type Relatable } from './related';

const one: Relatable = {
  listingId: 'choir',
  categoryId: 'choirs',
  tagIds: ['song', 'evening', 'kids'],
  venueIds: ['loft'],
  organizerIds: ['st-brides'],
};
const other = (more: Partial<Relatable>): Relatable => ({
  listingId: 'x',
  categoryId: 'walks',
  tagIds: [],
  venueIds: [],
  organizerIds: [],
  ...more,
});
const parents: Record<string, string> = { choirs: 'music', dances: 'music' };
const parentOf = (id: string): string | undefined => parents[id];
const worth = (more: Partial<Relatable>, inDays = 60): number => likeness(one, other(more), { parentOf, inDays });

describe('listings like another', () => {
  it.each([
    ['the same kind', { categoryId: 'choirs' }, 3],
    ['a sister kind', { categoryId: 'dances' }, 1],
    ['the kind that its own is a part of', { categoryId: 'music' }, 1],
    ['one tag', { tagIds: ['song'] }, 2],
    ['three tags, of which two count', { tagIds: ['song', 'evening', 'kids'] }, 4],
    ['a venue', { venueIds: ['quay', 'loft'] }, 2],
    ['an organizer', { organizerIds: ['st-brides'] }, 3],
    ['all of it', { categoryId: 'choirs', tagIds: ['song', 'evening'], venueIds: ['loft'], organizerIds: ['st-brides'] }, 12],
    ['nothing', {}, 0],
  ])('%s', (_, more, expected) => {
    expect(worth(more)).toBe(expected);
  });

  it('soon counts only where something else does, and never as much as anything shared', () => {
    expect(worth({}, 0)).toBe(0);
    expect(worth({ categoryId: 'dances' }, 0)).toBe(2);
    expect(worth({ categoryId: 'choirs' }, 30)).toBe(3.5);
    expect(worth({ categoryId: 'choirs' }, 400)).toBe(3);
  });

  it('are the likest first and then the soonest, never itself', () => {
    const candidates = [
      { listing: one, next: 100, of: 'itself' },
      { listing: other({ listingId: 'a', venueIds: ['loft'] }), next: 300, of: 'same hall' },
      { listing: other({ listingId: 'b', categoryId: 'choirs' }), next: 300, of: 'late choir' },
      { listing: other({ listingId: 'c', categoryId: 'choirs' }), next: 200, of: 'earlier choir' },
      { listing: other({ listingId: 'd' }), next: 100, of: 'a walk' },
    ];
    expect(likest(one, candidates, { today: 100, most: 3, parentOf })).toEqual(['earlier choir', 'late choir', 'same hall']);
    expect(likest(one, candidates, { today: 100, most: 1, parentOf })).toEqual(['earlier choir']);
  });
});
