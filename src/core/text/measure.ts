/** How wide words are in the text face, without a screen. Widths in pixels at a size in pixels. */
import { WIDTHS } from './widths';

/** Letters that were not measured are taken for a wide one. */
const OTHERWISE = 640;
const FIRST_BLOCK = 127 - 32;

/** A letter's width at a size of 1, from the face itself. */
export function letterWidth(letter: string): number {
  const code = letter.codePointAt(0) ?? 0;
  if (code >= 32 && code < 127) return WIDTHS[code - 32] ?? OTHERWISE;
  if (code >= 160 && code < 256) return WIDTHS[FIRST_BLOCK + code - 160] ?? OTHERWISE;
  // Typographic quotes and dashes, which titles are full of.
  return { '’': 210, '‘': 210, '“': 380, '”': 380, '–': 500, '—': 800, '…': 700 }[letter] ?? OTHERWISE;
}

/** A text's width in pixels at a size in pixels; pairs are not kerned. */
export function textWidth(text: string, size: number): number {
  let sum = 0;
  for (const letter of text) sum += letterWidth(letter);
  return (sum * size) / 1000;
}

/** How many lines a text takes, wrapped at words, and within them where a word alone is too wide. `lead`: taken on the first line. */
export function linesOf(text: string, { width, size, lead = 0 }: { width: number; size: number; lead?: number }): number {
  const space = textWidth(' ', size);
  let lines = 1;
  let used = lead;
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const wide = textWidth(word, size);
    const before = used > 0 ? space : 0;
    if (used + before + wide <= width) used += before + wide;
    else if (wide <= width) {
      lines++;
      used = wide;
    } else {
      // It begins a line of its own, and is broken where that is full.
      lines += (used > 0 ? 1 : 0) + Math.ceil(wide / width) - 1;
      used = wide % width || width;
    }
  }
  return lines;
}

/** An entry of the month sheet at the usual width: what is left of its cell beside the mark; its hour comes first. */
export const MONTH_ENTRY = { width: 100, size: 12.5, lead: textWidth('00:00', 12.5) + 3 } as const;
/** A title has so many lines in the month. */
export const MONTH_LINES = 2;
