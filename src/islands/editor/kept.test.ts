import { describe, expect, it } from 'vitest';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { dropKept, keep, readKept } from './kept';

const listing = (): ListingContent => ({ ...emptyContent(), title: 'Harbour Choir' });

describe('what is kept in the browser', () => {
  const store = new Map<string, string>();
  const storage = {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
    removeItem: (k: string) => void store.delete(k),
  };
  it('is found again by the same person for the same listing only', () => {
    keep(storage, 'ivo', 'a', { format: 1, revision: 2, content: listing(), at: 0 });
    expect(readKept(storage, 'ivo', 'a')?.revision).toBe(2);
    expect(readKept(storage, 'maud', 'a')).toBeUndefined();
    expect(readKept(storage, 'ivo', null)).toBeUndefined();
    dropKept(storage, 'ivo', 'a');
    expect(readKept(storage, 'ivo', 'a')).toBeUndefined();
  });
  it('of an unknown format, or spoiled, is left alone; a full store is said', () => {
    for (const text of ['{', 'null', '{"format":9}', '{"format":1}']) {
      store.set('almanac.draft.ivo.a', text);
      expect(readKept(storage, 'ivo', 'a')).toBeUndefined();
    }
    const full = {
      setItem: () => {
        throw new Error('full');
      },
    };
    expect(keep(full, 'ivo', 'a', { format: 1, revision: 1, content: listing(), at: 0 })).toBe(false);
  });
});
