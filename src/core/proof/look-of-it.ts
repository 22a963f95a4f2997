/** Proof of what is seen: pictures, their descriptions, inks that can hardly be read. */
import { contrast, isHex, ON_GROUND, SURFACES } from '../colour/colour';
import type { ListingContent } from '../listing/content';
import { look, type ProofNote } from './note';

export interface PictureFacts {
  alt: string;
  /** pixels of the original */
  width: number;
  height: number;
}

export interface LookContext {
  /** the chosen cover; undefined when there is none */
  picture?: PictureFacts | undefined;
  /** the first category's own ink, as somebody chose it */
  category?: { name: string; ink: string } | undefined;
}

/** A cover is shown up to this wide; smaller ones are enlarged and blurred. */
export const COVER_WIDTH = 800;

export function lookNotes(content: ListingContent, { picture, category }: LookContext): ProofNote[] {
  const notes: ProofNote[] = [];
  if (!content.categoryIds.length)
    notes.push(look('category-missing', 'categories', 'No category: it will stand under the site’s fallback.'));
  else if (category && isHex(category.ink) && contrast(category.ink, SURFACES.light.sheet) < ON_GROUND)
    notes.push(
      look(
        'low-contrast',
        'categories',
        `The ink of “${category.name}” can hardly be read on the sheet as it was chosen, so it is shown darker; choose another.`,
      ),
    );
  if (!content.pictureId) notes.push(look('picture-missing', 'picture', 'No picture: lists show the category mark instead.'));
  else {
    if (!picture?.alt.trim()) notes.push(look('alt-missing', 'picture', 'The picture has no description for those who cannot see it.'));
    if (picture && picture.width < COVER_WIDTH)
      notes.push(
        look(
          'picture-small',
          'picture',
          `The picture is ${picture.width} × ${picture.height}; on wide screens it is enlarged and blurred.`,
        ),
      );
  }
  return notes;
}
