/** Names of places and people compared without regard to order, endings and slips: "Shore Street Hall" and "Hall, Shore Street". */
import { tellingWords, wordLikeness } from './word-likeness';

/** How much a word tells, by how many of the names have it: a word that all have tells little. Any positive number. */
export type WordWeight = (word: string) => number;

const even: WordWeight = () => 1;

/** Weights from a list of names: log(1 + all / those with the word), as inverse document frequency is usually smoothed. */
export function weightsFrom(names: readonly string[]): WordWeight {
  const count = new Map<string, number>();
  for (const name of names) for (const word of new Set(tellingWords(name))) count.set(word, (count.get(word) ?? 0) + 1);
  return (word) => Math.log(1 + (names.length + 1) / (1 + (count.get(word) ?? 0)));
}

/** 0 to 1: the share of both names' words, by weight, that find a like word in the other (Dice's coefficient over words). */
export function nameLikeness(a: string, b: string, weight: WordWeight = even): number {
  return wordsLikeness(tellingWords(a), tellingWords(b), weight);
}

/** The same of words that were taken apart already. */
export function wordsLikeness(mine: readonly string[], theirs: readonly string[], weight: WordWeight = even): number {
  if (!mine.length || !theirs.length) return 0;
  const pairs: { i: number; j: number; likeness: number }[] = [];
  for (const [i, a] of mine.entries())
    for (const [j, b] of theirs.entries()) {
      const likeness = wordLikeness(a, b);
      if (likeness) pairs.push({ i, j, likeness });
    }
  pairs.sort((x, y) => y.likeness - x.likeness || x.i - y.i || x.j - y.j);
  const [usedMine, usedTheirs] = [new Set<number>(), new Set<number>()];
  let shared = 0;
  for (const { i, j, likeness } of pairs) {
    if (usedMine.has(i) || usedTheirs.has(j)) continue;
    usedMine.add(i);
    usedTheirs.add(j);
    shared += likeness * (weight(mine[i] ?? '') + weight(theirs[j] ?? ''));
  }
  const all = [...mine, ...theirs].reduce((sum, word) => sum + weight(word), 0);
  return shared / all;
}

/** From here on two names of places or people are worth a question. */
export const LIKELY_SAME = 0.82;

/** Known names that are likely the same as a new one, likest first. */
export function likeNames<T extends { name: string }>(name: string, known: readonly T[]): { item: T; likeness: number }[] {
  if (!tellingWords(name).length) return [];
  const weight = weightsFrom(known.map((k) => k.name));
  return known
    .map((item) => ({ item, likeness: nameLikeness(name, item.name, weight) }))
    .filter(({ likeness }) => likeness >= LIKELY_SAME)
    .sort((a, b) => b.likeness - a.likeness || (a.item.name < b.item.name ? -1 : 1));
}
