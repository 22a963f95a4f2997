/**
 * Titles by their words, for finding what somebody mistyped among ten thousand of them. A typed word is compared with the words that
 * occur, each once, not with every title.
 */
import type { WordWeight } from './names';
import { beginningLikeness, tellingWords, wordLikeness } from './word-likeness';

/** Titles by the words that occur in them, so that a typed word is compared with words and not with every title. */
export class TitleIndex {
  /** the words of each title */
  readonly #words = new Map<string, readonly string[]>();
  readonly #titles = new Map<string, string>();
  /** who has a word */
  readonly #having = new Map<string, Set<string>>();
  /** the words that occur, by their first letter and length: a word with a slip is nearly always in one of a few */
  readonly #byLength = new Map<number, Set<string>>();

  get size(): number {
    return this.#words.size;
  }

  /** Puts a title in, in the place of what its id had before. */
  set(id: string, title: string): void {
    this.delete(id);
    const words = [...new Set(tellingWords(title))];
    this.#words.set(id, words);
    this.#titles.set(id, title);
    for (const word of words) {
      const having = this.#having.get(word);
      if (having) having.add(id);
      else {
        this.#having.set(word, new Set([id]));
        // A slip in a number is another number: those are looked up as they are.
        if (/\d/.test(word)) continue;
        const same = this.#byLength.get(word.length);
        if (same) same.add(word);
        else this.#byLength.set(word.length, new Set([word]));
      }
    }
  }

  delete(id: string): void {
    for (const word of this.#words.get(id) ?? []) {
      const having = this.#having.get(word);
      having?.delete(id);
      if (having?.size === 0) {
        this.#having.delete(word);
        this.#byLength.get(word.length)?.delete(word);
      }
    }
    this.#words.delete(id);
    this.#titles.delete(id);
  }

  /** log(1 + all / those with the word) */
  weight: WordWeight = (word) => Math.log(1 + (this.#words.size + 1) / (1 + (this.#having.get(word)?.size ?? 0)));

  /** Words that occur and are like a word, with how much; `beginning`: it may be half typed. */
  #like(word: string, beginning: boolean): [string, number][] {
    const found: [string, number][] = [];
    if (/\d/.test(word)) return this.#having.has(word) ? [[word, 1]] : [];
    const [from, to] = [Math.max(1, word.length - 2), beginning ? Math.max(...this.#byLength.keys(), 0) : word.length + 2];
    for (let length = from; length <= to; length++)
      for (const other of this.#byLength.get(length) ?? []) {
        const likeness = beginning ? beginningLikeness(word, other) : wordLikeness(word, other);
        if (likeness > 0) found.push([other, likeness]);
      }
    return found;
  }

  /**
   * Ids whose titles have all words of what was typed, each allowed its slips, best first. The last word may be half typed.
   * Nothing typed finds nothing.
   */
  search(typed: string, most = 1000): string[] {
    const words = tellingWords(typed.slice(0, 200)).slice(0, 10);
    if (!words.length) return [];
    let scores: Map<string, number> | undefined;
    for (const [i, word] of words.entries()) {
      const best = new Map<string, number>();
      for (const [other, likeness] of this.#like(word, i === words.length - 1))
        for (const id of this.#having.get(other) ?? []) best.set(id, Math.max(best.get(id) ?? 0, likeness));
      const before: Map<string, number> | undefined = scores;
      scores = before ? new Map([...best].flatMap(([id, n]) => (before.has(id) ? [[id, n + (before.get(id) ?? 0)]] : []))) : best;
      if (!scores.size) return [];
    }
    const length = (id: string): number => this.#words.get(id)?.length ?? 0;
    return [...(scores ?? [])]
      .sort((a, b) => b[1] - a[1] || length(a[0]) - length(b[0]) || (a[0] < b[0] ? -1 : 1))
      .slice(0, most)
      .map(([id]) => id);
  }

  /** Ids whose titles share telling words with a title, those with the rarest first: what is worth a closer look. */
  near(title: string, most: number): string[] {
    const scores = new Map<string, number>();
    for (const word of new Set(tellingWords(title)))
      for (const [other, likeness] of this.#like(word, false)) {
        const gain = likeness * this.weight(other);
        for (const id of this.#having.get(other) ?? []) scores.set(id, (scores.get(id) ?? 0) + gain);
      }
    return [...scores]
      .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
      .slice(0, most)
      .map(([id]) => id);
  }

  title(id: string): string {
    return this.#titles.get(id) ?? '';
  }

  words(id: string): readonly string[] {
    return this.#words.get(id) ?? [];
  }
}
