import { describe, expect, it } from 'vitest';
import { defaultsOf } from '@/core/listing/defaults';
import { moved } from './order';

describe('an order', () => {
  it('has things moved before and after others, as they were among each other', () => {
    const list = ['a', 'b', 'c', 'd'];
    expect(moved(list, ['c'], 'a', false)).toEqual(['c', 'a', 'b', 'd']);
    expect(moved(list, ['a'], 'd', true)).toEqual(['b', 'c', 'd', 'a']);
    expect(moved(list, ['d', 'a'], 'c', false)).toEqual(['b', 'a', 'd', 'c']);
    expect(moved(list, ['a'], 'a', true)).toEqual(list);
    expect(moved(list, ['a'], 'gone', true)).toEqual(list);
  });
});

describe('what an organizer gives to a new listing', () => {
  const none = { name: '', phone: '', mail: '' };
  const theirs = { categoryId: 'choirs', contact: { name: 'Hester Quill', phone: '', mail: '' } };
  it('fills what is empty and leaves what somebody chose', () => {
    expect(defaultsOf({ categoryIds: [], contact: none }, theirs)).toEqual({ categoryIds: ['choirs'], contact: theirs.contact });
    expect(defaultsOf({ categoryIds: ['talks'], contact: { ...none, phone: '555-0101' } }, theirs)).toEqual({});
    expect(defaultsOf({ categoryIds: [], contact: none }, { categoryId: null, contact: none })).toEqual({});
    expect(defaultsOf({ categoryIds: [], contact: none }, undefined)).toEqual({});
  });
});
