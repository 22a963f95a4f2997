import { describe, expect, it } from 'vitest';
import { sayStays, staged } from './bulk-actions';

describe('why an action cannot be done', () => {
  it.each([
    [{ reason: 'it is published as it stands', count: 1, titles: ['A'] }, '“A”: it is published as it stands'],
    [{ reason: 'it is published as it stands', count: 2, titles: ['A', 'B'] }, '“A” and “B”: each is published as it stands'],
    [{ reason: 'no date yet', count: 1203, titles: ['A', 'B', 'C'] }, '“A”, “B”, “C” and 1,200 more: no date yet'],
    [
      { reason: 'its rule cannot be moved by so many days', count: 2, titles: ['A'] },
      '“A” and 1 more: its rule cannot be moved by so many days',
    ],
  ])('is said once for all of one reason: %j', (stays, said) => {
    expect(sayStays(stays)).toBe(said);
  });
  it('follows from the stage', () => {
    expect(staged('published', false, 'publish')).toEqual({ reason: 'it is published as it stands' });
    expect(staged('published', true, 'publish')).toEqual({ to: 'published' });
    expect(staged('draft', false, 'withdraw')).toEqual({ reason: 'readers do not see it' });
    expect(staged('binned', false, 'bin')).toEqual({ reason: 'it is in the bin already' });
    expect(staged('draft', false, 'venue')).toBeUndefined();
  });
});
