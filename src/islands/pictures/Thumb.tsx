/** A picture as small as it is useful, cut as a use shows it. */
import { siteAddress } from '@/client/site-root';
import type { PictureChoice } from '@/core/listing/editor';
import { pictureAddress } from '@/core/picture/picture-url';
import { nearestWidth, type PictureUse, sizeAt } from '@/core/picture/crop';
import { picturesWords } from '@/words/desk';

const w = picturesWords.thumb;

export function Thumb({ picture, use = 'square', width = 160 }: { picture: PictureChoice; use?: PictureUse; width?: number }) {
  const made = nearestWidth(use, picture, width * 2);
  const size = sizeAt(use, picture, width);
  return (
    <img
      className="block w-full h-auto bg-wash"
      src={siteAddress(pictureAddress(picture, { use, width: made, format: 'webp' }))}
      alt={picture.alt || w.withoutADescription({ name: picture.name || w.aPicture() })}
      width={size.width}
      height={size.height}
      loading="lazy"
      decoding="async"
    />
  );
}
