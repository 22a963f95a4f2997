/** All dates of a listing for a calendar program. */
import type { APIRoute } from 'astro';
import { writeIcal } from '@/core/exchange/ical';
import { notFound } from '@/server/problem';
import { horizonOf } from '@/server/dates/date-index';
import { icalListing, icalResponse } from '@/server/public/feed';
import { findPublished, rowIn } from '@/server/public/listing';
import { referenceData } from '@/server/reference/read';

export const GET: APIRoute = async ({ params, locals, redirect }) => {
  const { rt, now, settings } = locals;
  const hit = await findPublished(rt.db, params.listing ?? '');
  if (!hit) throw notFound('listing');
  if ('movedTo' in hit) return redirect(locals.reader.to(`/what/${hit.movedTo}/dates.ics`), 301);
  const one = icalListing(rowIn(hit.row, locals.reader.language), hit.row.publishedAt, await referenceData(rt), rt, {
    to: locals.reader.to,
  });
  if (!one) throw notFound('listing');
  const url = rt.siteUrl() + locals.reader.to(`/what/${hit.row.slug}`);
  return icalResponse(
    writeIcal({
      name: rowIn(hit.row, locals.reader.language).title,
      url,
      listings: [one],
      horizon: horizonOf(now.day, settings.horizonMonths),
    }),
    hit.row.slug,
  );
};
