/** Where somebody wants to go, from a few letters: names that begin so, that have such words, or nearly such. */
import { wordLikeness, wordsOf } from './word-likeness';

/** A page of the Desk that "Go to" leads to, with the words that find it. */
export interface Place {
  /** what it is called, and what else it is found by */
  name: string;
  also?: string;
}

/** 0 = not meant; a name that begins with what was typed is 1, one whose words do in any order less, slips less again. */
export function meant(typed: string, place: Place): number {
  const asked = wordsOf(typed);
  if (!asked.length) return 0;
  const name = wordsOf(place.name);
  if (name.join(' ').startsWith(asked.join(' '))) return 1;
  const [own, all] = [bestOf(asked, name), bestOf(asked, [...name, ...wordsOf(place.also ?? '')])];
  return Math.max(own * 0.9, all * 0.75);
}

/** How well each typed word is met by one of some, the worst of them counts; the last word may be unfinished. */
function bestOf(asked: readonly string[], words: readonly string[]): number {
  let worst = 1;
  for (const one of asked) {
    const met = Math.max(
      0,
      ...words.map((word) => (word.startsWith(one) ? 1 - 0.1 * (word.length > one.length ? 1 : 0) : wordLikeness(one, word) * 0.8)),
    );
    worst = Math.min(worst, met);
  }
  return worst < LEAST ? 0 : worst;
}
const LEAST = 0.5;

/** The best first, at most so many; of equals the order stays. */
export function ranked<T extends Place>(typed: string, places: readonly T[], most: number): T[] {
  return places
    .map((place, i) => ({ place, i, score: meant(typed, place) }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score || a.i - b.i)
    .slice(0, most)
    .map(({ place }) => place);
}
