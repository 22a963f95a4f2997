/** A working copy's dates and picture, as the event page takes them, without touching the index. */
import type { ListingContent } from '@/core/listing/content';
import { horizonOf, indexRows, shownZone, timesOfRow } from '@/server/dates/date-index';
import { type ListingPictures, readListingPictures } from '@/server/pictures/read';
import type { ListingDate } from '@/server/public/listing';
import { type EffectiveDate, effectiveStatus, effectiveSummary, effectiveVenues } from '@/core/dates/effective-date';
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
    (row): ListingDate => ({
      ...timesOfRow(row),
      slug: row.slug,
      eventStatus: effectiveStatus(content.eventStatus, row.event_status),
      note: row.note,
      venueId: row.venue_id,
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
): EffectiveDate {
  const categoryId = content.categoryIds[0] ?? reference.categories.find((c) => c.fallback)?.id ?? '';
  return {
    ...{ listingId: row.id, listing: row.slug, date: date.slug, original: date.original, summary: effectiveSummary(content) },
    ...{ title: content.title, shortTitle: content.shortTitle, headline: content.headline, cost: content.cost },
    ...{ startDay: date.startDay, startMinute: date.startMinute, endDay: date.endDay, endMinute: date.endMinute },
    ...{ lastDay: date.lastDay, note: date.note, moved: date.moved, elsewhere: date.venueId !== null },
    eventStatus: date.eventStatus,
    free: content.cost.kind === 'free',
    categoryId: categoryId,
    venueIds: effectiveVenues(content, date.venueId),
    zone: shownZone(content, ''),
    attendance: content.attendance,
    pictureId: content.pictureId,
    onTopUntil: null,
    translations: null,
  };
}
