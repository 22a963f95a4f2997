import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { slipsAllowed, slipsBetween } from '../match/distance';
import { WordIndex } from './word-index';

const seed = seedOf();
const LETTERS = ['a', 'b', 'c', 'd'];
const word = (r: () => number): string => Array.from({ length: between(r, 1, 9) }, () => pick(r, LETTERS)).join('');

describe(`an index of words, seed ${seed}`, () => {
  it('marks those whose text has a word with a part, as a look at all texts does', () => {
    const r = random(seed);
    const index = new WordIndex();
    const texts = new Map<number, string>();
    for (let round = 0; round < rounds(600); round++) {
      const owner = between(r, 0, 40);
      if (r() < 0.2) {
        texts.delete(owner);
        index.delete(owner);
      } else {
        const text = Array.from({ length: between(r, 0, 6) }, () => word(r)).join(' ');
        texts.set(owner, text);
        index.set(owner, text);
      }
      const part = r() < 0.3 ? pick(r, LETTERS) : word(r).slice(0, 3);
      const marks = new Uint8Array(50);
      index.mark(part, marks);
      const expected = [...texts].filter(([, text]) => text.includes(part)).map(([number]) => number);
      expect(
        [...marks.keys()].filter((number) => marks[number]),
        part,
      ).toEqual(expected.sort((a, b) => a - b));
      expect(index.has(part)).toBe(expected.length > 0);
    }
  });

  it('finds the words that a slip leads to, as a comparison with each does', () => {
    const r = random(seed + 1);
    for (let round = 0; round < rounds(60); round++) {
      const index = new WordIndex();
      const words = Array.from({ length: 60 }, () => word(r));
      for (const [owner, one] of words.entries()) index.set(owner, `${pick(r, ['', '(', '“'])}${one}${pick(r, ['', ',', '.', ')'])}`);
      const typed = word(r);
      const allowed = slipsAllowed(typed.length);
      const expected = [...new Set(words)].filter((one) => allowed > 0 && slipsBetween(typed, one, allowed) <= allowed);
      const found = index.near(typed, 100);
      expect([...found].sort(), typed).toEqual(expected.sort());
      const slips = found.map((one) => slipsBetween(typed, one, 3));
      expect(slips).toEqual([...slips].sort());
      expect(index.near(typed, 1)).toEqual(found.slice(0, 1));
    }
  });

  it('reads what people mistype', () => {
    const index = new WordIndex();
    for (const [owner, text] of ['harbour choir evening,', 'lantern walk', 'the ropewalk'].entries()) index.set(owner, text);
    expect(['chior', 'harbor', 'lanterm', 'evning', 'rop', 'xyzzy'].map((typed) => index.near(typed, 3))).toEqual([
      ['choir'],
      ['harbour'],
      ['lantern'],
      ['evening'],
      [],
      [],
    ]);
    index.delete(0);
    expect(index.near('chior', 3)).toEqual([]);
  });
});
