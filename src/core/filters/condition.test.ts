import { describe, expect, it } from 'vitest';
import { allOf, type DateFacts, type FactCondition, holds, priceOf } from './condition';

const choir: DateFacts = {
  categoryId: 'choirs',
  venueIds: ['net-loft', 'lamp-room'],
  organizerIds: ['guild'],
  tagIds: ['kids'],
  attendance: 'in-person',
  free: true,
  price: '',
  parts: 0b100,
  off: false,
};

describe('a condition', () => {
  it.each<[FactCondition, boolean]>([
    [{ asks: 'category', ids: new Set(['music', 'choirs']) }, true],
    [{ asks: 'category', ids: new Set() }, false],
    [{ asks: 'venue', ids: new Set(['lamp-room']) }, true],
    [{ asks: 'venue', ids: new Set(['ropewalk']) }, false],
    [{ asks: 'online' }, false],
    [{ asks: 'free' }, true],
    [{ asks: 'in-person' }, true],
    [{ asks: 'organizer', ids: new Set(['guild']) }, true],
    [{ asks: 'tag', ids: new Set(['dark']) }, false],
    [{ asks: 'up-to', amount: 0, currency: 'CAD' }, true],
    [{ asks: 'part', parts: 0b110 }, true],
    [{ asks: 'part', parts: 0b011 }, false],
    [{ asks: 'going-ahead' }, true],
    [{ asks: 'any', of: [{ asks: 'online' }, { asks: 'free' }] }, true],
    [{ asks: 'any', of: [] }, false],
  ])('%j holds: %s', (condition, expected) => {
    expect(holds(condition, choir)).toBe(expected);
  });

  it('that nobody made leaves everything', () => {
    expect(allOf({ groups: { kind: [], cost: undefined as never }, words: [] })).toEqual([]);
  });

  it('compares amounts of one currency, and takes words for no amount', () => {
    const upTo = (cost: Parameters<typeof priceOf>[0], amount: number): boolean =>
      holds({ asks: 'up-to', amount, currency: 'CAD' }, { ...choir, free: false, price: priceOf(cost) });
    expect(upTo({ kind: 'amount', amount: '12.50', currency: 'CAD' }, 12.5)).toBe(true);
    expect(upTo({ kind: 'amount', amount: '12.50', currency: 'CAD' }, 12)).toBe(false);
    expect(upTo({ kind: 'amount', amount: '5', currency: 'EUR' }, 12)).toBe(false);
    expect(upTo({ kind: 'words', words: 'from 5' }, 12)).toBe(false);
    expect(upTo({ kind: 'unsaid' }, 12)).toBe(false);
  });
});
