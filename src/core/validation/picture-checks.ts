/** Proof of what is seen: pictures, their descriptions, inks that can hardly be read. */
import { contrast, isHex, ON_GROUND, SURFACES } from '../colour/colour';
import { type ListingContent, picturesOf } from '../listing/content';
import { type Framing, pixelsOf } from '../picture/crop';
import { asWarning, type ValidationNote } from './note';

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
  if (!content.categoryIds.length)
    notes.push(asWarning('category-missing', 'categories', 'No category: it will stand under the site’s fallback.'));
  else if (category && isHex(category.ink) && contrast(category.ink, SURFACES.light.sheet) < ON_GROUND)
    notes.push(
      asWarning(
        'low-contrast',
        'categories',
        `The ink of “${category.name}” can hardly be read on the sheet as it was chosen, so it is shown darker; choose another.`,
      ),
    );
  return [...notes, ...pictureNotes(content, { picture, category, listPictures })];
}

/** Where readers miss a picture that is not there. */
function sayMissing({ headline }: ListingContent, listPictures: LookContext['listPictures']): string {
  if (headline) return 'No picture: a headline has a wide one in lists, and on its page.';
  if (listPictures === 'every-line') return 'No picture: its line in lists has none, nor has its page.';
  return 'No picture on its page. Lists show one for headlines only.';
}

function pictureNotes(content: ListingContent, { picture, category, listPictures }: LookContext): ValidationNote[] {
  const notes: ValidationNote[] = [];
  if (!content.pictureId && !category?.picture) notes.push(asWarning('picture-missing', 'picture', sayMissing(content, listPictures)));
  if (!picture) return notes;
  const cover = content.pictureId ? picture(content.pictureId) : undefined;
  const mute = picturesOf(content).filter((id) => picture(id)?.alt.trim() === '');
  if (mute.length > 0) {
    const which =
      mute.length > 1
        ? `${mute.length} pictures have`
        : mute[0] === content.pictureId
          ? 'The picture has'
          : 'A picture beside the cover has';
    notes.push(asWarning('alt-missing', 'picture', `${which} no description for those who cannot see it.`));
  }
  if (!cover) return notes;
  const shown = pixelsOf('wide', cover);
  if (shown.width < COVER_WIDTH)
    notes.push(
      asWarning(
        'picture-small',
        'picture',
        `Of the cover ${shown.width} × ${shown.height} pixels are shown; on wide screens it is enlarged and blurred.`,
      ),
    );
  else if (shown.width * cover.detail < COVER_WIDTH && cover.detail < ENLARGED)
    notes.push(
      asWarning(
        'picture-enlarged',
        'picture',
        `The cover has ${shown.width} pixels across, but not more in it than ${Math.round((shown.width * cover.detail) / 10) * 10} would hold: it was enlarged, or is blurred. Send the original.`,
      ),
    );
  return notes;
}
