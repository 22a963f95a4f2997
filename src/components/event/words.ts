/** Small words of the event page. */
import { addressLines } from '@/core/geo/address';
import type { PictureRow } from '@/server/public/listing';
import type { VenueView } from '@/server/public/lookup';

export function addressWords(venue: VenueView): string {
  return [venue.hall?.name ?? '', ...addressLines(venue, venue.country), venue.island && venue.island !== venue.town ? venue.island : '']
    .filter(Boolean)
    .join(', ');
}

/** An img's attributes: the browser takes the width it needs, and nothing moves when it comes. */
export function pictureSet(picture: PictureRow): { src: string; srcset: string; sizes: string; width: number; height: number } {
  const at = (width: number): string => `/picture/${picture.id}/${width}`;
  return {
    src: at(Math.min(1024, picture.width)),
    srcset: picture.sizes.widths.map((w) => `${at(w)} ${w}w`).join(', '),
    sizes: '(max-width: 900px) 100vw, 740px',
    width: picture.width,
    height: picture.height,
  };
}
