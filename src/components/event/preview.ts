/** A working copy's dates and picture, as the event page takes them, without touching the index. */
import { type ListingContent, SUMMARY_SHOWN } from '@/core/listing/content';
import type { EventStatus } from '@/core/recurrence/model';
import { plainText, shorten } from '@/core/text/text';
import { horizonOf, indexRows, shownZone } from '@/server/dates/date-index';
import { publishedVenues } from '@/server/listings/published-copy';
import { type ListingPictures, readListingPictures } from '@/server/pictures/read';
import type { ListingDate } from '@/server/public/listing';
import type { PublicDate } from '@/server/public/public-dates';
import { type ReferenceData, referenceData } from '@/server/reference/read';
import type { Runtime } from '@/server/runtime-type';

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
      slug: r.slug,
      startDay: r.start_day,
      startMinute: r.start_minute,
      endDay: r.end_day,
      endMinute: r.end_minute,
      lastDay: r.last_day,
      eventStatus: r.event_status,
      note: r.note,
      venueId: r.venue_id,
      moved: r.moved,
    }),
  );
  const reference = await referenceData(rt);
  const standIn = reference.category.get(content.categoryIds[0] ?? '')?.pictureId;
  const pictures = await readListingPictures(rt.db, content, standIn);
  return { dates: dates.filter((d) => d.lastDay >= day), total: dates.length, pictures };
}

/** One date of a working copy as the sheets and lists of readers would have it. */
export function publicDateOf(
  row: { id: string; slug: string },
  content: ListingContent,
  date: ListingDate,
  reference: ReferenceData,
): PublicDate {
  const categoryId = content.categoryIds[0] ?? reference.categories.find((c) => c.fallback)?.id ?? '';
  const summary = content.summary || shorten(plainText(content.text).replace(/\n+/g, ' '), SUMMARY_SHOWN.list);
  return {
    ...{ listing_id: row.id, listing: row.slug, date: date.slug, original: date.original, summary },
    ...{ title: content.title, short_title: content.shortTitle, headline: content.headline, cost: content.cost },
    ...{ start_day: date.startDay, start_minute: date.startMinute, end_day: date.endDay, end_minute: date.endMinute },
    ...{ last_day: date.lastDay, note: date.note, moved: date.moved, elsewhere: date.venueId !== null },
    event_status: content.eventStatus !== 'going-ahead' ? content.eventStatus : ((date.eventStatus as EventStatus | null) ?? 'going-ahead'),
    free: content.cost.kind === 'free',
    category_id: categoryId,
    venue_ids: date.venueId ? [date.venueId] : publishedVenues(content).venueIds,
    zone: shownZone(content, ''),
    attendance: content.attendance,
    picture_id: content.pictureId,
    on_top_until: null,
  };
}
