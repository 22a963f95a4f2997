/** A working copy's dates and picture, as the event page takes them, without touching the index. */
import type { ListingContent } from '@/core/listing/content';
import { horizonOf, indexRows } from '@/server/listings/date-index';
import { type ListingDate, type PictureRow, readPicture } from '@/server/public/listing';
import type { Runtime } from '@/server/runtime';

export interface Preview {
  dates: ListingDate[];
  total: number;
  picture: PictureRow | undefined;
}

export async function previewOf(rt: Runtime, content: ListingContent): Promise<Preview> {
  const settings = rt.settings();
  const { day } = rt.now();
  const rows = indexRows({ listingId: '', content, isPublic: false, settings, horizon: horizonOf(day, settings.horizonMonths) });
  const dates = rows.map(
    (r): ListingDate => ({
      original: r.original,
      address: r.address,
      startDay: r.start_day,
      startMinute: r.start_minute,
      endDay: r.end_day,
      endMinute: r.end_minute,
      lastDay: r.last_day,
      standing: r.standing,
      note: r.note,
      venueId: r.venue_id,
      moved: r.moved,
    }),
  );
  return { dates: dates.filter((d) => d.lastDay >= day), total: dates.length, picture: await readPicture(rt.db, content.pictureId) };
}
