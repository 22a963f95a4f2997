/** The words of all streets that are known, and which of them somebody may mean who types. */
import { slipsAllowed } from '../match/distance';
import { bitsIn, lettersOf } from '../match/letters';
import { beginningLikeness, wordLikeness } from '../match/word-likeness';

/** Distinct words, made once, asked often. */
export class WordBook {
  readonly #words: readonly string[];
  readonly #letters: Uint32Array;

  /** @param words folded, in any order */
  constructor(words: Iterable<string>) {
    this.#words = [...new Set(words)];
    this.#letters = Uint32Array.from(this.#words, lettersOf);
  }

  /**
   * The words that one that was typed may mean, likest first: the same, with an ending more, with a slip; when it is the last and half typed,
   * those that it begins, too.
   * @param open is it half typed, perhaps?
   * @param most no more than so many
   */
  like(typed: string, open: boolean, most = 60): string[] {
    const likeness = open ? beginningLikeness : wordLikeness;
    const found: [word: string, likeness: number][] = [];
    const slips = Math.max(slipsAllowed(typed.length), 1);
    const letters = lettersOf(typed);
    for (const [i, word] of this.#words.entries()) {
      const apart = word.length - typed.length;
      // Shorter than all slips can explain, or longer, unless it is only begun.
      if (apart < -slips || (!open && apart > Math.max(slips, 2))) continue;
      // Letters that were typed and are not there: each slip explains one.
      if (bitsIn(letters & ~(this.#letters[i] as number)) > slips) continue;
      const much = likeness(typed, word);
      if (much > 0) found.push([word, much]);
    }
    return found
      .sort(([a, x], [b, y]) => y - x || a.length - b.length || (a < b ? -1 : 1))
      .slice(0, most)
      .map(([word]) => word);
  }
}
