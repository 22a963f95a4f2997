/** How well a title answers what was typed: what is called so comes before what only mentions it. */
import { fold } from '../text/text';

/**
 * For each of the words: 2 where a word of the title begins with it, 1 where it stands inside one, else 0.
 * @param words folded; several words in one must stand together
 */
export function titleScore(title: string, words: readonly string[]): number {
  const folded = ` ${fold(title).replace(/[^\p{L}\p{N}]+/gu, ' ')} `;
  let score = 0;
  for (const word of words) {
    const at = folded.indexOf(word);
    if (at < 0) continue;
    score += folded.includes(` ${word}`) ? 2 : 1;
  }
  return score;
}

/** Puts what answers best in front; what answers alike stays in its order. */
export function bestFirst<T>(all: readonly T[], titleOf: (one: T) => string, words: readonly string[]): T[] {
  const scored = all.map((one) => ({ one, score: titleScore(titleOf(one), words) }));
  return scored.sort((a, b) => b.score - a.score).map(({ one }) => one);
}
