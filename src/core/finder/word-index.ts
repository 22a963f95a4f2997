/**
 * Which texts have a word: each word that occurs, once, with those who have it. A typed word is looked for among the words, not in the
 * texts. Texts are folded, and words are what stands between spaces.
 */
import { slipsAllowed, slipsBetween } from '../match/distance';

/** Letters and digits, without what leans on a word: `evening,` is `evening`. */
const bare = (word: string): string => (/^[a-z0-9]+$/.test(word) ? word : word.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, ''));

/** A set of letters, for passing by words that cannot be a few slips away: one bit for a letter. */
function lettersOf(word: string): number {
  let letters = 0;
  for (let i = 0; i < word.length; i++) letters |= 1 << (word.charCodeAt(i) & 31);
  return letters;
}

function bitsOf(n: number): number {
  let bits = 0;
  for (let rest = n; rest; rest &= rest - 1) bits++;
  return bits;
}

/** Texts, by a number of their owner, and the words that stand in them. */
export class WordIndex {
  readonly #words: string[] = [];
  readonly #numberOf = new Map<string, number>();
  /** who has a word, by its number; in no order */
  readonly #having: number[][] = [];
  readonly #wordsOf = new Map<number, Int32Array>();
  /** all words in one text, each between line ends, and where each begins: a search in it is one of the engine's own */
  #text = '\n';
  readonly #starts: number[] = [];
  readonly #letters: number[] = [];

  /** How many different words there are or were. */
  get size(): number {
    return this.#words.length;
  }

  /** Puts a folded text in the place of what its owner had. */
  set(owner: number, text: string): void {
    this.delete(owner);
    const words = [...new Set(text.split(' '))].filter(Boolean);
    const numbers = new Int32Array(words.length);
    for (const [i, word] of words.entries()) {
      let number = this.#numberOf.get(word);
      if (number === undefined) {
        number = this.#words.push(word) - 1;
        this.#numberOf.set(word, number);
        this.#having.push([]);
        this.#starts.push(this.#text.length);
        this.#letters.push(lettersOf(bare(word)));
        this.#text += `${word}\n`;
      }
      this.#having[number]?.push(owner);
      numbers[i] = number;
    }
    this.#wordsOf.set(owner, numbers);
  }

  delete(owner: number): void {
    for (const number of this.#wordsOf.get(owner) ?? []) {
      const having = this.#having[number] as number[];
      const at = having.indexOf(owner);
      having[at] = having.at(-1) as number;
      having.pop();
    }
    this.#wordsOf.delete(owner);
  }

  /** The word in which a place of the text lies. */
  #wordAt(place: number): number {
    let low = 0;
    let high = this.#starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.#starts[middle] as number) <= place) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** Marks those who have a word that contains this one, with 1 at their number. */
  mark(word: string, marks: Uint8Array): void {
    this.#each(word, (number) => {
      for (const owner of this.#having[number] as number[]) marks[owner] = 1;
      return false;
    });
  }

  /** Does anybody have a word that contains this one? */
  has(word: string): boolean {
    let found = false;
    this.#each(word, (number) => {
      found = (this.#having[number] as number[]).length > 0;
      return found;
    });
    return found;
  }

  /** Hands on each word that contains this one, until it is enough. */
  #each(word: string, enough: (number: number) => boolean): void {
    if (!word) return;
    const text = this.#text;
    for (let place = text.indexOf(word); place >= 0; ) {
      const number = this.#wordAt(place);
      if (enough(number)) return;
      // On with the next word: one that holds it twice counts once.
      place = text.indexOf(word, (this.#starts[number] as number) + (this.#words[number] as string).length);
    }
  }

  /** Words that somebody has and that are this one but for a few slips, the nearest first, at most so many. */
  near(word: string, most: number): string[] {
    const allowed = slipsAllowed(word.length);
    if (!allowed) return [];
    const letters = lettersOf(word);
    const found = new Map<string, { slips: number; having: number }>();
    for (let number = 0; number < this.#words.length; number++) {
      const raw = this.#words[number] as string;
      // What leans on a word makes it longer, never shorter.
      if (raw.length < word.length - allowed) continue;
      // One slip takes a letter out and puts another in.
      if (bitsOf(letters ^ (this.#letters[number] as number)) > 2 * allowed) continue;
      const having = (this.#having[number] as number[]).length;
      if (!having) continue;
      const plain = bare(raw);
      const slips = slipsBetween(word, plain, allowed);
      if (slips > allowed) continue;
      found.set(plain, { slips, having: having + (found.get(plain)?.having ?? 0) });
    }
    return [...found]
      .sort(([a, x], [b, y]) => x.slips - y.slips || y.having - x.having || (a < b ? -1 : 1))
      .slice(0, most)
      .map(([plain]) => plain);
  }
}
