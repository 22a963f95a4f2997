import { describe, expect, it } from 'vitest';
import { pick, random, rounds, seedOf, some } from '../../../tests/support/generate';
import { markWords } from './found-words';

const marked = (text: string, ...words: string[]): string =>
  markWords(text, words)
    .map((piece) => (piece.found ? `[${piece.text}]` : piece.text))
    .join('');

describe('words that were found', () => {
  it.each([
    ['Harbour Choir', ['cho'], 'Harbour [Cho]ir'],
    ['Le Chœur du port', ['choeur'], 'Le [Chœur] du port'],
    ['Fe\u0302te a\u0300 l’E\u0301cole', ['fete', "l'ecole"], '[Fe\u0302te] a\u0300 [l’E\u0301cole]'],
    ['Net Loft, net loft', ['net loft'], '[Net Loft], [net loft]'],
    ['Tea', ['coffee', ''], 'Tea'],
    ['', ['tea'], ''],
    ['\u{1f41f} Fish', ['fish'], '\u{1f41f} [Fish]'],
  ])('in “%s” %j: %s', (text, words, expected) => {
    expect(marked(text, ...words)).toBe(expected);
  });

  it('leave the text as it is', () => {
    const r = random(seedOf());
    for (let i = 0; i < rounds(300); i++) {
      const text = some(r, ['Chœur', ' ', 'é', 'e\u0301', '\u{1f41f}', 'ß', 'İ', 'ﬁ', '\n', 'x'], 9).join('');
      const words = some(r, ['c', 'oe', 'e', 'ss', 'i', 'fi', pick(r, ['x', 'ch'])], 3);
      expect(
        markWords(text, words)
          .map((piece) => piece.text)
          .join(''),
      ).toBe(text);
    }
  });
});
