import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { beginningLikeness, wordLikeness } from '../match/word-likeness';
import { WordBook } from './address-words';

const LETTERS = 'abcdeo'.split('');

describe('the words of streets', () => {
  it('that one may mean are all that are like it, and no others: as if each were looked at', () => {
    const r = random(seedOf());
    const word = (): string =>
      Array.from({ length: between(r, 1, 10) }, () => pick(r, LETTERS)).join('') + (r() < 0.1 ? between(r, 1, 99) : '');
    for (let round = 0; round < rounds(30); round++) {
      const words = [...new Set(Array.from({ length: 300 }, word))];
      const book = new WordBook(words);
      for (let n = 0; n < 20; n++) {
        const typed = r() < 0.5 ? word() : pick(r, words).slice(0, between(r, 1, 8));
        for (const open of [false, true]) {
          const slow = words.filter((one) => (open ? beginningLikeness(typed, one) : wordLikeness(typed, one)) > 0);
          expect([typed, open, book.like(typed, open, 1000).sort()]).toEqual([typed, open, slow.sort()]);
        }
      }
    }
  });
  it('come likest first, and no more than are asked for', () => {
    const book = new WordBook(['harbour', 'harbours', 'barbour', 'hart', 'amble']);
    expect(book.like('harbour', false)).toEqual(['harbour', 'harbours', 'barbour']);
    expect(book.like('har', true, 2)).toEqual(['hart', 'harbour']);
    expect(new WordBook([]).like('a', true)).toEqual([]);
  });
});
