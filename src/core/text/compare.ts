/** Two texts compared by their words, for showing what a version changed. */
import { diffWordsWithSpace } from 'diff';

/** A piece of a comparison: in both, or in one alone. */
export interface Piece {
  text: string;
  /** in both, only before, only after */
  kind: 'same' | 'before' | 'after';
}

/** So long texts are compared word by word; longer ones by what stands at their ends. */
const LONGEST = 20_000;

/** The pieces of both texts in order: those of kind `before` and `same` make the first, those of kind `after` and `same` the second. */
export function compareWords(before: string, after: string): Piece[] {
  if (before === after) return before ? [{ text: before, kind: 'same' }] : [];
  if (before.length + after.length > LONGEST) return byEnds(before, after);
  return diffWordsWithSpace(before, after).map(({ value, added, removed }) => ({
    text: value,
    kind: added ? 'after' : removed ? 'before' : 'same',
  }));
}

function byEnds(before: string, after: string): Piece[] {
  const most = Math.min(before.length, after.length);
  let start = 0;
  while (start < most && before[start] === after[start]) start++;
  let end = 0;
  while (end < most - start && before[before.length - 1 - end] === after[after.length - 1 - end]) end++;
  const pieces: Piece[] = [
    { text: before.slice(0, start), kind: 'same' },
    { text: before.slice(start, before.length - end), kind: 'before' },
    { text: after.slice(start, after.length - end), kind: 'after' },
    { text: before.slice(before.length - end), kind: 'same' },
  ];
  return pieces.filter((piece) => piece.text !== '');
}
