/** A working copy's dates and picture, as the event page takes them, without touching the index. */
import type { ListingContent } from '@/core/listing/content';
import { horizonOf, indexRows } from '@/server/listings/date-index';
import { type ListingPictures, readListingPictures } from '@/server/pictures/read';
import type { ListingDate } from '@/server/public/listing';
import { lookup } from '@/server/public/lookup';
import type { Runtime } from '@/server/runtime';

export interface Preview {
  dates: ListingDate[];
  total: number;
  pictures: ListingPictures;
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
  const found = await lookup(rt);
  const standIn = found.category.get(content.categoryIds[0] ?? '')?.pictureId;
  const pictures = await readListingPictures(rt.db, content, standIn);
  return { dates: dates.filter((d) => d.lastDay >= day), total: dates.length, pictures };
}
