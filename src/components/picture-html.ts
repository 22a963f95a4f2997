/** Pictures as HTML text: three formats in the widths that there are, the browser takes what it needs, and nothing moves when it comes. */
import { html, type Html } from './html';
import { readTextPicture, type Side, type Width } from '@/core/picture/in-text';
import { FORMATS, MIME, pictureAddress, type PictureFormat } from '@/core/picture/picture-url';
import { nearestWidth, type PictureUse, sizeAt, widthsOf } from '@/core/picture/crop';
import { unescapeHtml } from '@/core/text/text';
import { framingOf, type PictureRow } from '@/server/pictures/read';

interface PictureLook {
  /** the sizes attribute: how wide it is shown, by the window */
  sizes: string;
  /** the first thing that is seen; all others wait until they come near */
  first?: boolean;
  /** instead of the picture's own description */
  alt?: string;
}

export function pictureHtml(picture: PictureRow, use: PictureUse, { sizes, first, alt = picture.alt }: PictureLook): Html {
  const framing = framingOf(picture);
  const widths = widthsOf(use, framing);
  const set = (format: PictureFormat): string =>
    widths.map((width) => `${pictureAddress(picture, { use, width, format })} ${width}w`).join(', ');
  const sources = FORMATS.filter((f) => f !== 'jpeg').map((f) => html`<source type="${MIME[f]}" srcset="${set(f)}" sizes="${sizes}">`);
  const size = sizeAt(use, framing, widths.at(-1) as number);
  const src = pictureAddress(picture, { use, width: nearestWidth(use, framing, 1024), format: 'jpeg' });
  const urgency = first ? html` fetchpriority="high"` : html` loading="lazy" decoding="async"`;
  return html`<picture>${sources}<img src="${src}" srcset="${set('jpeg')}" sizes="${sizes}" alt="${alt}" width="${size.width}" height="${size.height}"${urgency}></picture>`;
}

/** A picture no larger than the words beside it, which say what it is. `size`: a class for its width and height. */
export const smallPictureHtml = (picture: PictureRow, size = 'size-5.5'): Html =>
  html`<span class="shrink-0 ${size} rounded-xs overflow-hidden [&_img]:block [&_img]:size-full [&_img]:object-cover" aria-hidden="true">${pictureHtml(picture, 'square', { sizes: '40px', alt: '' })}</span>`;

const SIDE_CLASS: Record<Side, string> = { middle: 'mx-auto', left: 'float-left mr-5 mb-3', right: 'float-right ml-5 mb-3' };
const WIDTH_CLASS: Record<Width, string> = { full: 'w-full', half: 'w-1/2', third: 'w-1/3' };
const WIDTH_SIZES: Record<Width, string> = { full: '100vw, 740px', half: '100vw, 370px', third: '100vw, 250px' };

/** The pictures of a sanitised text as they are shown: their sizes are known before they come, and on a phone each has the whole width. */
export function withPictures(text: string, pictures: ReadonlyMap<string, PictureRow>): string {
  return text.replace(/<img\b[^>]*\bsrc="\/picture\/([0-9a-f-]{36})[^"]*"[^>]*>/g, (tag, id: string) => {
    const picture = pictures.get(id);
    if (!picture) return '';
    const attributes = Object.fromEntries([...tag.matchAll(/([a-z-]+)="([^"]*)"/g)].map((m) => [m[1] ?? '', unescapeHtml(m[2] ?? '')]));
    const { side, width, link } = readTextPicture(attributes);
    const sizes = `(max-width: 600px) ${WIDTH_SIZES[width]}`;
    const shown = pictureHtml(picture, 'whole', { sizes, alt: attributes.alt || picture.alt });
    const led = link ? html`<a href="${link}" rel="nofollow noopener">${shown}</a>` : shown;
    return html`<span class="block ${SIDE_CLASS[side]} ${WIDTH_CLASS[width]} max-[600px]:float-none max-[600px]:mx-0 max-[600px]:w-full">${led}</span>`
      .text;
  });
}
export const TEXT_SIZES = '(max-width: 900px) 100vw, 740px';
