/** One date of a listing for a calendar program. */
import type { APIRoute } from 'astro';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { writeIcal } from '@/core/exchange/ical';
import { notFound } from '@/server/problem';
import { horizonOf } from '@/server/dates/date-index';
import { findMovedDate } from '@/server/dates/date-names';
import { icalListing, icalResponse } from '@/server/public/feed';
import { rowIn, findPublished, readDate } from '@/server/public/listing';
import { referenceData } from '@/server/reference/read';

export const GET: APIRoute = async ({ params, locals, redirect }) => {
  const { rt, now, settings } = locals;
  const hit = await findPublished(rt.db, params.listing ?? '');
  if (!hit) throw notFound('listing');
  if ('movedTo' in hit) return redirect(locals.reader.to(`/what/${hit.movedTo}/${params.date}/date.ics`), 301);
  const found = await readDate(rt.db, hit.row.listingId, params.date ?? '');
  const moved = found ? undefined : await findMovedDate(rt.db, hit.row.listingId, params.date ?? '');
  if (moved) return redirect(locals.reader.to(`/what/${hit.row.slug}/${moved}/date.ics`), 302);
  const only = found && parseIsoDateTime(found.date.original);
  const one =
    only &&
    icalListing(rowIn(hit.row, locals.reader.language), hit.row.publishedAt, await referenceData(rt), rt, { only, to: locals.reader.to });
  if (!one) throw notFound('date');
  const url = `${rt.siteUrl()}${locals.reader.to('/what')}/${hit.row.slug}/${params.date}`;
  return icalResponse(
    writeIcal({
      name: rowIn(hit.row, locals.reader.language).title,
      url,
      listings: [one],
      horizon: horizonOf(now.day, settings.horizonMonths),
    }),
    `${hit.row.slug}-${params.date}`,
  );
};
