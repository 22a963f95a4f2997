/** Words for comparing: folded, without marks and punctuation; digits are words of their own. */
import { fold } from '../text/text';
import { slipsAllowed, slipsBetween } from './distance';

/** Words that tell nothing apart. */
const EMPTY = new Set(['the', 'a', 'an', 'of', 'at', 'in', 'on', 'to', 'and', 'for', 'with', 'by']);

/** The words of a text in their order; "St Anne’s Hall" gives st, annes, hall. */
export function wordsOf(text: string): string[] {
  return fold(text)
    .replace(/'/g, '')
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
}

/** The words that tell something apart; all of them where nothing else is left. */
export function tellingWords(text: string): string[] {
  const words = wordsOf(text);
  const telling = words.filter((word) => !EMPTY.has(word));
  return telling.length ? telling : words;
}

/**
 * How much a word looks like another, 0 to 1: the same, one with an ending more ("swap", "swaps"), or a few slips apart. Words with
 * digits are the same or they are not: a slip in a number is another number.
 */
export function wordLikeness(a: string, b: string): number {
  if (a === b) return 1;
  if (/\d/.test(a) || /\d/.test(b)) return 0;
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (short.length >= 3 && (long === `${short}s` || long === `${short}es`)) return 0.97;
  const allowed = slipsAllowed(short.length);
  if (!allowed) return 0;
  const slips = slipsBetween(a, b, allowed);
  return slips > allowed ? 0 : 1 - slips / (short.length + 1);
}

/** How well what somebody is typing begins a word, 0 to 1; slips are forgiven in what is typed. */
export function beginningLikeness(typed: string, word: string): number {
  const whole = wordLikeness(typed, word);
  if (typed.length >= word.length || whole === 1) return whole;
  if (word.startsWith(typed)) return 0.9;
  return Math.max(whole, wordLikeness(typed, word.slice(0, typed.length)) * 0.85);
}
