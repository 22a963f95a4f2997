/** The calendar feed of any filtered view: the same query as the view's address. */
import type { APIRoute } from 'astro';
import { filterQuery, readFilters } from '@/core/filters/filters';
import { feedText, icalResponse } from '@/server/public/feed';

export const GET: APIRoute = async ({ url, locals }) => {
  const filters = readFilters(url.searchParams);
  return icalResponse(
    await feedText(locals.rt, filters, locals.rt.siteUrl() + locals.reader.to(`/list${filterQuery(filters)}`), locals.reader),
  );
};
