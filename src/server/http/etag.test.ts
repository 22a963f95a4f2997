import { describe, expect, it } from 'vitest';
import { isKept } from './etag';

describe('If-None-Match', () => {
  it('names an entity alone, weakly, in a list, or any', () => {
    for (const header of ['"a"', 'W/"a"', '"b", "a"', '"b,c" , W/"a"', '*', ' "a" ']) expect(isKept(header, '"a"'), header).toBe(true);
    for (const header of [null, '', '"b"', 'a', '"b, a"', '"A"']) expect(isKept(header, '"a"'), String(header)).toBe(false);
    expect(isKept('"a"', 'W/"a"')).toBe(true);
  });
});
