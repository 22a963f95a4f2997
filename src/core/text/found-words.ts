/** Where typed words stand in a text that was found by them, so that it can be marked. */
import { fold } from './text';

/** A piece of a text: found, or what stands between. */
export interface TextPiece {
  text: string;
  found: boolean;
}

/** A text folded letter by letter, and which letter each place of it came from. */
/** ASCII but for control characters, which folds to itself in small letters. */
const isPlain = (letter: string): boolean => letter.length === 1 && letter >= ' ' && letter <= '~';

function foldedLetter(letter: string): string {
  if (isPlain(letter)) return letter.toLowerCase();
  // A space by itself would be trimmed away.
  return /^\s$/u.test(letter) ? ' ' : fold(letter);
}

function foldedWithPlaces(text: string): { folded: string; places: number[] } {
  let folded = '';
  const places: number[] = [];
  let at = 0;
  for (const letter of text) {
    const own = foldedLetter(letter);
    folded += own;
    for (let i = 0; i < own.length; i++) places.push(at);
    at += letter.length;
  }
  places.push(text.length);
  return { folded, places };
}

/** A text in pieces; joined they are the text again. @param words folded, as they were looked for */
export function markWords(text: string, words: readonly string[]): TextPiece[] {
  const { folded, places } = foldedWithPlaces(text);
  const marked = new Uint8Array(text.length);
  for (const word of words) {
    if (!word) continue;
    for (let at = folded.indexOf(word); at >= 0; at = folded.indexOf(word, at + word.length)) {
      // Marks that lean on the last letter have no place of their own: they go with it.
      marked.fill(1, places[at], places[at + word.length]);
    }
  }
  const pieces: TextPiece[] = [];
  for (let from = 0; from < text.length; ) {
    let to = from + 1;
    while (to < text.length && marked[to] === marked[from]) to++;
    pieces.push({ text: text.slice(from, to), found: marked[from] === 1 });
    from = to;
  }
  return pieces;
}
