import { describe, expect, it } from 'vitest';
import { allOf, type DateFacts, type FactCondition, fitsGroup, holds } from './condition';

const choir: DateFacts = { categoryId: 'choirs', venueIds: ['net-loft', 'lamp-room'], online: false, free: true };

describe('a condition', () => {
  it.each<[FactCondition, boolean]>([
    [{ asks: 'category', ids: new Set(['music', 'choirs']) }, true],
    [{ asks: 'category', ids: new Set() }, false],
    [{ asks: 'venue', ids: new Set(['lamp-room']) }, true],
    [{ asks: 'venue', ids: new Set(['ropewalk']) }, false],
    [{ asks: 'online' }, false],
    [{ asks: 'free' }, true],
    [{ asks: 'any', of: [{ asks: 'online' }, { asks: 'free' }] }, true],
    [{ asks: 'any', of: [] }, false],
  ])('%j holds: %s', (condition, expected) => {
    expect(holds(condition, choir)).toBe(expected);
  });

  it('that nobody made leaves everything', () => {
    expect(fitsGroup(undefined, choir)).toBe(true);
    expect(allOf({ kinds: undefined, places: undefined, free: undefined, words: [] })).toEqual([]);
  });
});
