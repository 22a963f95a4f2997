import { describe, expect, it } from 'vitest';
import { random as randomOf } from '../../../tests/support/generate';
import { slipsAllowed, slipsBetween } from './distance';
import { LIKELY_SAME, likeNames, nameLikeness } from './names';
import { beginningLikeness, tellingWords, wordLikeness, wordsOf } from './word-likeness';

/** The definition, written out: no band, no early end. */
function slowSlips(a: string, b: string): number {
  const table: number[][] = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_, j) => (i ? (j ? 0 : i) : j)),
  );
  const at = (i: number, j: number): number => table[i]?.[j] ?? Number.POSITIVE_INFINITY;
  for (let i = 1; i <= a.length; i++)
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let least = Math.min(at(i - 1, j) + 1, at(i, j - 1) + 1, at(i - 1, j - 1) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) least = Math.min(least, at(i - 2, j - 2) + 1);
      (table[i] as number[])[j] = least;
    }
  return at(a.length, b.length);
}

describe('slips between words', () => {
  it('are counted as the definition says, up to the most that is asked for', () => {
    const random = randomOf(20270317);
    let [near, far] = [0, 0];
    for (let n = 0; n < 4000; n++) {
      const word = (length: number): string => Array.from({ length }, () => 'abcd'[Math.floor(random() * 4)]).join('');
      const [a, b] = [word(Math.floor(random() * 9)), word(Math.floor(random() * 9))];
      const most = Math.floor(random() * 4);
      const slow = slowSlips(a, b);
      if (slow <= most) near++;
      else far++;
      expect([a, b, most, slipsBetween(a, b, most)]).toEqual([a, b, most, Math.min(slow, most + 1)]);
    }
    expect([near > 300, far > 300]).toEqual([true, true]);
  });
  it('are none in short words', () => expect([3, 4, 7, 8].map(slipsAllowed)).toEqual([0, 1, 1, 2]));
});

describe('words', () => {
  it('lose marks, apostrophes and punctuation', () => {
    expect(wordsOf('St Bride’s Hall (yard), 3 Chapel Bráe')).toEqual(['st', 'brides', 'hall', 'yard', '3', 'chapel', 'brae']);
    expect(tellingWords('The Hall at the Bay')).toEqual(['hall', 'bay']);
    expect(tellingWords('At the')).toEqual(['at', 'the']);
  });
  it('are alike with an ending or a slip, never with another number', () => {
    expect(wordLikeness('swap', 'swaps')).toBeGreaterThan(0.9);
    expect(wordLikeness('harbour', 'harbuor')).toBeGreaterThan(0.8);
    expect(wordLikeness('gannet', 'garnet')).toBeGreaterThan(0.8);
    expect(wordLikeness('bay', 'day')).toBe(0);
    expect(wordLikeness('2027', '2028')).toBe(0);
    expect(wordLikeness('choir', 'market')).toBe(0);
  });
  it('are known from their beginning, also when that has a slip', () => {
    expect(beginningLikeness('gan', 'gannet')).toBeGreaterThan(0.8);
    expect(beginningLikeness('ganet', 'gannet')).toBeGreaterThan(0.6);
    expect(beginningLikeness('x', 'gannet')).toBe(0);
  });
});

describe('names', () => {
  const known = [
    'Gannet Bay Hall',
    'Gannet Bay Net Loft',
    'Lantern Quay Workshop',
    'St Bride’s Hall',
    'Council Room',
    'Outer Skerry Hall',
  ].map((name) => ({ name }));
  const like = (name: string): string[] => likeNames(name, known).map(({ item }) => item.name);
  it('are the same in another order, with a slip, or with an article', () => {
    for (const name of ['Hall, Gannet Bay', 'Ganet Bay Hall', 'The Hall at Gannet Bay', 'GANNET BAY HALL'])
      expect([name, like(name)[0]]).toEqual([name, 'Gannet Bay Hall']);
    expect(like('St. Brides Hall')).toEqual(['St Bride’s Hall']);
  });
  it('are others when what tells them apart differs', () => {
    expect(like('Gannet Bay Surgery')).toEqual([]);
    expect(like('Lantern Quay')).toEqual([]);
    expect(like('Hall')).toEqual([]);
    expect(like('')).toEqual([]);
  });
  it('are as like one way as the other, and wholly like themselves', () => {
    for (const a of known)
      for (const b of known) {
        expect(nameLikeness(a.name, b.name)).toBeCloseTo(nameLikeness(b.name, a.name), 10);
        if (a === b) expect(nameLikeness(a.name, b.name)).toBe(1);
      }
    expect(LIKELY_SAME).toBeLessThan(1);
  });
});
