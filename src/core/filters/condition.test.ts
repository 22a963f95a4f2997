import { describe, expect, it } from 'vitest';
import { allOf, type Condition, type DateFacts, fitsGroup, holds } from './condition';

const choir: DateFacts = {
  categoryId: 'choirs',
  venueIds: ['net-loft', 'lamp-room'],
  online: false,
  free: true,
  tags: ['children'],
  search: 'harbour choir evening',
};

describe('a condition', () => {
  it.each<[Condition, boolean]>([
    [{ asks: 'category', ids: new Set(['music', 'choirs']) }, true],
    [{ asks: 'category', ids: new Set() }, false],
    [{ asks: 'venue', ids: new Set(['lamp-room']) }, true],
    [{ asks: 'venue', ids: new Set(['ropewalk']) }, false],
    [{ asks: 'online' }, false],
    [{ asks: 'free' }, true],
    [{ asks: 'tag', slug: 'children' }, true],
    [{ asks: 'tag', slug: 'dark' }, false],
    [{ asks: 'word', word: 'choir' }, true],
    [{ asks: 'word', word: 'choirs' }, false],
    [{ asks: 'any', of: [{ asks: 'online' }, { asks: 'free' }] }, true],
    [{ asks: 'any', of: [] }, false],
  ])('%j holds: %s', (condition, expected) => {
    expect(holds(condition, choir)).toBe(expected);
  });

  it('that nobody made leaves everything', () => {
    expect(fitsGroup(undefined, choir)).toBe(true);
    expect(allOf({ kinds: undefined, places: undefined, free: undefined, words: [] })).toEqual([]);
  });

  it('asks of what a date has no word for, and finds nothing', () => {
    const { tags: _tags, search: _search, ...bare } = choir;
    expect(holds({ asks: 'tag', slug: 'children' }, bare)).toBe(false);
    expect(holds({ asks: 'word', word: 'choir' }, bare)).toBe(false);
  });
});
