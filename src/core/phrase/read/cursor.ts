/** A place among the tokens of a phrase, moved by what reads them. Readers that fail leave it where it was. */
import type { Token } from './tokens';

/** The words of texts that are passed together, each split once. */
const split = new Map<string, readonly string[]>();
function wordsOf(text: string): readonly string[] {
  const known = split.get(text);
  if (known) return known;
  const words = text.split(' ');
  split.set(text, words);
  return words;
}

/** Walks through the tokens of a phrase. */
export class Cursor {
  private readonly cached = new Map<string, { found: unknown; at: number }>();
  at = 0;
  constructor(readonly tokens: readonly Token[]) {}

  get done(): boolean {
    return this.at >= this.tokens.length;
  }
  peek(ahead = 0): Token | undefined {
    return this.tokens[this.at + ahead];
  }
  /** the word that stands here, in small letters; a mark's own character; empty for anything else */
  word(ahead = 0): string {
    const token = this.peek(ahead);
    if (token?.kind === 'word') return token.word;
    return token?.kind === 'mark' ? token.mark : '';
  }
  next(): Token | undefined {
    return this.tokens[this.at++];
  }
  /** Passes one of these words, when it stands here. */
  pass(...words: string[]): boolean {
    const here = this.word();
    if (!here || !words.includes(here)) return false;
    this.at++;
    return true;
  }
  /** Passes several words in a row, all or none. */
  passAll(text: string): boolean {
    const words = wordsOf(text);
    if (this.word() !== words[0] || !words.every((word, i) => this.word(i) === word)) return false;
    this.at += words.length;
    return true;
  }
  /** Goes back when `read` finds nothing. */
  attempt<T>(read: () => T | undefined): T | undefined {
    const before = this.at;
    const found = read();
    if (found === undefined) this.at = before;
    return found;
  }
  /** The same as `read` gives here, which several readers ask for in turn: it may depend on nothing but what stands here. */
  once<T>(name: string, read: () => T): T {
    const key = `${name} ${this.at}`;
    const known = this.cached.get(key);
    if (known) {
      this.at = known.at;
      return known.found as T;
    }
    const found = read();
    this.cached.set(key, { found, at: this.at });
    return found;
  }
  /** What was typed from one token to the one before the cursor. */
  place(from: number): { from: number; to: number } {
    const first = this.tokens[from];
    const last = this.tokens[Math.max(from, this.at - 1)];
    return { from: first?.from ?? 0, to: last?.to ?? 0 };
  }
}

/** Reads a list, `a, b and c`; the joins are passed only when another item follows. */
export function readList<T>(cursor: Cursor, item: () => T | undefined): T[] {
  const found: T[] = [];
  for (;;) {
    const before = cursor.at;
    if (found.length) {
      let joined = false;
      while (cursor.pass(',', 'and', '&', '+', 'or', '/')) joined = true;
      if (!joined) break;
    }
    const one = cursor.attempt(item);
    if (one === undefined) {
      cursor.at = before;
      break;
    }
    found.push(one);
  }
  return found;
}
