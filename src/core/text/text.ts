/** Text for addresses, search and short places. Lengths are counted in UTF-16 units unless said otherwise. */

const EXTRA: Record<string, string> = { ß: 'ss', æ: 'ae', œ: 'oe', ø: 'o', ð: 'd', þ: 'th', ł: 'l', đ: 'd' };

/** Lower case without marks, for comparing and searching: "Fête à l’École" becomes "fete a l'ecole". */
export function fold(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[ßæœøðþłđ]/g, (c) => EXTRA[c] ?? c)
    .replace(/[\u2018\u2019]/g, "'")
    .replace(/\s+/g, ' ')
    .trim();
}

/** A web address part made from a title: letters a-z, digits and single hyphens, at most 80 long; "listing" if nothing is left. */
export function slugOf(title: string, otherwise = 'listing'): string {
  const slug = fold(title)
    .replace(/['.]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 80)
    .replace(/-+$/, '');
  return slug || otherwise;
}

/** The first free address of `wanted`, `wanted-2`, `wanted-3` … */
export function freeSlug(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted;
  for (let n = 2; ; n++) if (!taken.has(`${wanted}-${n}`)) return `${wanted}-${n}`;
}

/** Cuts at a word's end and adds an ellipsis when `text` is longer than `most`. */
export function shorten(text: string, most: number): string {
  if (text.length <= most) return text;
  const space = text.slice(0, most).lastIndexOf(' ');
  return `${text.slice(0, space > most * 0.6 ? space : most - 1).replace(/[\s,.;:–-]+$/, '')}…`;
}

const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** A text as it may stand in HTML, between tags and in attributes. */
export function escapeHtml(text: string): string {
  // Most of what is written has none of them: looking is less work than replacing nothing.
  return /[&<>"']/.test(text) ? text.replace(/[&<>"']/g, (c) => ENTITIES[c] as string) : text;
}

/** Entities of sanitised HTML as their letters; the ampersand last, so that `&amp;lt;` stays the words `&lt;`. */
export const unescapeHtml = (html: string): string =>
  html
    .replace(/&nbsp;/g, ' ')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .replace(/&amp;/g, '&');

const withoutTags = (html: string): string => unescapeHtml(html.replace(/<[^>]*>/g, ''));

/** The words of sanitised HTML, for summaries, feeds and search. */
export function plainText(html: string): string {
  return withoutTags(html.replace(/<(br|\/p|\/li|\/h[1-6]|\/blockquote)[^>]*>/gi, '\n'))
    .replace(/[ \t]+/g, ' ')
    .replace(/ *\n */g, '\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** Paragraphs of plain text as HTML: a blank line begins a new one. */
export function paragraphs(text: string): string {
  return text
    .split(/\n\s*\n/)
    .map((p) => p.trim())
    .filter(Boolean)
    .map((p) => `<p>${escapeHtml(p).replace(/\n/g, '<br>')}</p>`)
    .join('');
}

/**
 * Sanitised HTML as the plain text of a form. For what `paragraphs` made it is the inverse: `paragraphs(formText(html)) === html`. Of richer
 * texts it gives the words, so whoever shows it must keep the HTML where nobody changed them.
 */
export function formText(html: string): string {
  const lines = html
    .replace(/<br[^>]*>/gi, '\n')
    .replace(/<\/(p|h[1-6]|blockquote|ul|ol)>/gi, '\n\n')
    .replace(/<\/li>/gi, '\n')
    .replace(/<li[^>]*>/gi, '– ');
  return withoutTags(lines)
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** With a capital, as a sentence or a heading begins: French writes days and months small. */
export const startOfSentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
