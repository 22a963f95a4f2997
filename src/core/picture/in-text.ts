/** How a picture stands in a text: at which side, how wide, where it leads. Kept as data attributes of its `img`. */
import { readWebAddress } from '../validation/links';

/** Where a picture stands in a text. */
export const SIDES = ['middle', 'left', 'right'] as const;
/** One of {@link SIDES}. */
export type Side = (typeof SIDES)[number];
/** How much of a text's width a picture takes. */
export const WIDTHS = ['full', 'half', 'third'] as const;
/** One of {@link WIDTHS}. */
export type Width = (typeof WIDTHS)[number];

/** How a picture stands in a text. */
export interface TextPicture {
  side: Side;
  width: Width;
  /** a web, mail or telephone address, or a page of this site; empty = it leads nowhere */
  link: string;
}

const oneOf = <T extends string>(all: readonly T[], text: string | null | undefined): T => all.find((one) => one === text) ?? (all[0] as T);

/** An address that a picture may lead to, as it is kept; undefined for what must not stand in a page. */
export function pictureLink(text: string): string | undefined {
  const typed = text.trim();
  if (/^\/(?![/\\])[^\s"<>]*$/.test(typed)) return typed;
  if (/^(mailto:[^\s"<>@]+@[^\s"<>@]+|tel:[+\d][\d\s()-]*)$/i.test(typed)) return typed;
  // Two slashes in front lead to whatever site stands behind them.
  return /^[/\\]/.test(typed) ? undefined : readWebAddress(typed);
}

/** Reads the attributes of an `img`; whatever is unknown has its usual value. */
export function readTextPicture(attributes: Readonly<Record<string, string | null | undefined>>): TextPicture {
  return {
    side: oneOf(SIDES, attributes['data-side']),
    width: oneOf(WIDTHS, attributes['data-width']),
    link: pictureLink(attributes['data-link'] ?? '') ?? '',
  };
}

/** The attributes that say it; what is usual is left out. */
export function textPictureAttributes({ side, width, link }: TextPicture): Record<string, string> {
  return {
    ...(side === SIDES[0] ? {} : { 'data-side': side }),
    ...(width === WIDTHS[0] ? {} : { 'data-width': width }),
    ...(link ? { 'data-link': link } : {}),
  };
}
