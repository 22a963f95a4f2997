/** Proof of what is seen: pictures, their descriptions, inks that can hardly be read. */
import { contrast, isHex, ON_GROUND, SURFACES } from '../colour/colour';
import { type ListingContent, picturesOf } from '../listing/content';
import { type Framing, pixelsOf } from '../picture/crop';
import { asWarning, type ValidationNote } from './note';
import { type Saying, says } from './saying';

/** Which dates of a list have a picture: headlines a wide one, or every line a small one too. */
export const LIST_PICTURES = ['headlines', 'every-line'] as const;
/** Which lines of lists have a picture. */
export type ListPictures = (typeof LIST_PICTURES)[number];

/** What the checks know of a picture. */
export interface PictureFacts extends Framing {
  alt: string;
  /** of its width, how much would hold all that is in it */
  detail: number;
}

/** What the checks of pictures and looks know besides the content. */
export interface LookContext {
  picture?: ((id: string) => PictureFacts | undefined) | undefined;
  /** the first category's own ink, as somebody chose it, and whether a picture of it stands in for listings without */
  category?: { name: string; ink: string; picture?: boolean } | undefined;
  /** which lines of lists have a picture on this site; headlines alone where nothing is said */
  listPictures?: ListPictures | undefined;
}

/** A cover is shown up to this wide; smaller ones are enlarged and blurred. */
export const COVER_WIDTH = 800;
/** Less detail than this in its pixels is seen. */
export const ENLARGED = 0.5;

/** What is wrong with what is seen: pictures, their descriptions, inks. */
export function lookNotes(content: ListingContent, { picture, category, listPictures }: LookContext): ValidationNote[] {
  const notes: ValidationNote[] = [];
  if (!content.categoryIds.length) notes.push(asWarning('category-missing', 'categories', says('categoryMissing')));
  else if (category && isHex(category.ink) && contrast(category.ink, SURFACES.light.sheet) < ON_GROUND)
    notes.push(asWarning('low-contrast', 'categories', says('lowContrast', { name: category.name })));
  return [...notes, ...pictureNotes(content, { picture, category, listPictures })];
}

/** Where readers miss a picture that is not there. */
function missingPicture({ headline }: ListingContent, listPictures: LookContext['listPictures']): Saying {
  if (headline) return says('pictureMissingHeadline');
  if (listPictures === 'every-line') return says('pictureMissingLine');
  return says('pictureMissing');
}

function pictureNotes(content: ListingContent, { picture, category, listPictures }: LookContext): ValidationNote[] {
  const notes: ValidationNote[] = [];
  if (!content.pictureId && !category?.picture) notes.push(asWarning('picture-missing', 'picture', missingPicture(content, listPictures)));
  if (!picture) return notes;
  const cover = content.pictureId ? picture(content.pictureId) : undefined;
  const mute = picturesOf(content).filter((id) => picture(id)?.alt.trim() === '');
  if (mute.length > 0) {
    const only = mute[0] === content.pictureId ? says('altMissingCover') : says('altMissingOther');
    notes.push(asWarning('alt-missing', 'picture', mute.length > 1 ? says('altMissing', { n: mute.length }) : only));
  }
  if (!cover) return notes;
  const shown = pixelsOf('wide', cover);
  if (shown.width < COVER_WIDTH)
    notes.push(asWarning('picture-small', 'picture', says('pictureSmall', { width: shown.width, height: shown.height })));
  else if (shown.width * cover.detail < COVER_WIDTH && cover.detail < ENLARGED)
    notes.push(
      asWarning(
        'picture-enlarged',
        'picture',
        says('pictureEnlarged', { width: shown.width, held: Math.round((shown.width * cover.detail) / 10) * 10 }),
      ),
    );
  return notes;
}
