/** The words of all streets that are known, and which of them somebody may mean who types. */
import { slipsAllowed } from '../match/distance';
import { beginningLikeness, wordLikeness } from '../match/word-likeness';

/** Which letters a text has, one bit each: a slip changes two of them at most. */
function lettersOf(text: string): number {
  let bits = 0;
  for (let i = 0; i < text.length; i++) bits |= 1 << (text.charCodeAt(i) % 31);
  return bits;
}

function bitsIn(n: number): number {
  let bits = n - ((n >>> 1) & 0x55555555);
  bits = (bits & 0x33333333) + ((bits >>> 2) & 0x33333333);
  return (((bits + (bits >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

/** A sorted list of distinct words, made once, asked often. */
export class WordBook {
  readonly #words: readonly string[];
  readonly #letters: Uint32Array;

  /** @param words folded, in any order */
  constructor(words: Iterable<string>) {
    this.#words = [...new Set(words)].sort();
    this.#letters = Uint32Array.from(this.#words, lettersOf);
  }

  /** How many there are. */
  get size(): number {
    return this.#words.length;
  }

  has(word: string): boolean {
    return this.#words[this.#from(word)] === word;
  }

  /** The place of the first word that does not stand before this one. */
  #from(word: string): number {
    let [low, high] = [0, this.#words.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.#words[middle] as string) < word) low = middle + 1;
      else high = middle;
    }
    return low;
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
    const seen = new Set<string>();
    const take = (word: string): void => {
      const much = likeness(typed, word);
      if (much > 0 && !seen.has(word)) {
        seen.add(word);
        found.push([word, much]);
      }
    };
    if (open)
      for (let i = this.#from(typed); i < this.#words.length && this.#words[i]?.startsWith(typed); i++) take(this.#words[i] as string);
    const slips = Math.max(slipsAllowed(typed.length), 1);
    const letters = lettersOf(typed);
    for (let i = 0; i < this.#words.length; i++) {
      const word = this.#words[i] as string;
      const apart = word.length - typed.length;
      // Shorter than all slips can explain, or longer, unless it is only begun.
      if (apart < -slips || (!open && apart > Math.max(slips, 2))) continue;
      const there = this.#letters[i] as number;
      // Letters that were typed and are not there: each slip explains one.
      if (bitsIn(letters & ~there) > slips) continue;
      take(word);
    }
    return found
      .sort(([a, x], [b, y]) => y - x || a.length - b.length || (a < b ? -1 : 1))
      .slice(0, most)
      .map(([word]) => word);
  }
}
