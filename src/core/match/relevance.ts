/** How well a title answers what was typed: what is called so comes before what only mentions it. */
import { fold } from '../text/text';

/** A title as it is compared: folded words, each between spaces. */
export const titleKey = (title: string): string => ` ${fold(title).replace(/[^\p{L}\p{N}]+/gu, ' ')} `;

/**
 * For each of the words: 2 where a word of the title begins with it, 1 where it stands inside one, else 0.
 * @param words folded; several words in one must stand together
 */
export function titleScore(key: string, words: readonly string[]): number {
  let score = 0;
  for (const word of words) if (key.includes(word)) score += key.includes(` ${word}`) ? 2 : 1;
  return score;
}

/** Puts what answers best in front; what answers alike stays in its order. */
export function bestFirst<T>(all: readonly T[], keyOf: (one: T) => string, words: readonly string[]): T[] {
  const byScore: T[][] = [];
  for (const one of all) {
    const score = titleScore(keyOf(one), words);
    const alike = byScore[score] ?? [];
    byScore[score] = alike;
    alike.push(one);
  }
  return byScore.reverse().flat();
}
