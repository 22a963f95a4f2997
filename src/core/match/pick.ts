/** Which of a list's choices somebody means by a few letters: the best first, and whether the first is plainly meant. */
import { beginningLikeness, wordsOf } from './word-likeness';

/** What can be found by typing. */
export interface Pickable {
  name: string;
  /** what else tells it apart: a town, a parent */
  more: string;
}

/** How well a choice fits, best first: its name begins with what was typed, words of its name do, it stands inside, its area does, slips. */
export const RANKS = ['whole', 'begins', 'words', 'inside', 'area', 'slips'] as const;
/** One of {@link RANKS}. */
export type Rank = (typeof RANKS)[number];

/** How a choice fits what was typed; undefined when it does not. */
export function rankOf(typed: string, { name, more }: Pickable): Rank | undefined {
  const asked = wordsOf(typed);
  if (!asked.length) return 'area';
  const [own, area] = [wordsOf(name), wordsOf(more)];
  const [phrase, whole] = [asked.join(' '), own.join(' ')];
  if (whole === phrase) return 'whole';
  if (whole.startsWith(phrase)) return 'begins';
  const begins = (words: readonly string[]): boolean => asked.every((one) => words.some((word) => word.startsWith(one)));
  if (begins(own)) return 'words';
  // One or two letters stand inside of nearly everything: they have to begin a word.
  if (asked.every((one) => (one.length < 3 ? own.some((word) => word.startsWith(one)) : whole.includes(one)))) return 'inside';
  if (begins([...own, ...area])) return 'area';
  // What is being typed may be unfinished and have a slip in it; single letters forgive nothing.
  const slipped = asked.every((one) => own.some((word) => beginningLikeness(one, word) >= LEAST_LIKE));
  return slipped ? 'slips' : undefined;
}

const LEAST_LIKE = 0.6;

/** What typed words find. */
export interface Picked<T> {
  /** at most so many as asked for, the best first */
  shown: T[];
  /** all that fit */
  total: number;
  /** the first is plainly meant: Enter may take it. Otherwise somebody has to choose. */
  clear: boolean;
}

/** The choices that fit, by rank; of equals the order stays. */
export function pick<T extends Pickable>(typed: string, choices: readonly T[], most: number): Picked<T> {
  const asked = wordsOf(typed).length > 0;
  const fits = choices
    .map((choice, at) => ({ choice, at, rank: rankOf(typed, choice) }))
    .flatMap(({ choice, at, rank }) => (rank ? [{ choice, at, rank: RANKS.indexOf(rank) }] : []))
    .sort((a, b) => a.rank - b.rank || a.at - b.at);
  const [first, second] = fits;
  // The area and slips are guesses: alone they are offered, never taken by themselves.
  const sure = first !== undefined && first.rank < RANKS.indexOf('area');
  const clear = asked && sure && (second === undefined || second.rank > first.rank);
  return { shown: fits.slice(0, most).map(({ choice }) => choice), total: fits.length, clear };
}
