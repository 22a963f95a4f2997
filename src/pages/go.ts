/** A form's chosen day, or today, as the address of a view. */
import type { APIRoute } from 'astro';
import { parseIsoDay } from '@/core/day/day';
import { filterQuery, readFilters } from '@/core/filters/filters';
import { isViewName, viewPath } from '@/core/views/views';

export const GET: APIRoute = ({ url, locals, redirect }) => {
  const day = parseIsoDay(url.searchParams.get('day') ?? '') ?? locals.now.day;
  const query = filterQuery(readFilters(url.searchParams));
  const view = url.searchParams.get('view') ?? '';
  return redirect(locals.reader.to(viewPath(isViewName(view) ? view : 'list', day) + query));
};
