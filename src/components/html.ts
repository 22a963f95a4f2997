/**
 * HTML as text that escapes by itself: html`<a href="${address}">${title}</a>`. What is put in is text unless it is Html itself; lists are put in one
 * after the other, nothing and false are left out. For what is built of hundreds of pieces, where components cost more than the query.
 */
import { escapeHtml } from '@/core/text/text';

/** Text that is HTML already; `text` is for templates' `set:html`. */
export class Html {
  constructor(readonly text: string) {}

  toString(): string {
    return this.text;
  }
}

export type Piece = Html | string | number | false | null | undefined | readonly Piece[];

function textOf(piece: Piece): string {
  if (typeof piece === 'string') return escapeHtml(piece);
  if (piece instanceof Html) return piece.text;
  if (typeof piece === 'number') return String(piece);
  if (!Array.isArray(piece)) return '';
  let text = '';
  for (const one of piece) text += textOf(one);
  return text;
}

export function html(strings: TemplateStringsArray, ...pieces: Piece[]): Html {
  let text = strings[0] ?? '';
  for (let i = 0; i < pieces.length; i++) text += textOf(pieces[i]) + strings[i + 1];
  return new Html(text);
}

/** HTML that comes from somewhere that made it safe: the sanitiser, our own drawings. */
export const safe = (text: string): Html => new Html(text);
export const NOTHING = new Html('');
