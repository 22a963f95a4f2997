/** A form's chosen day, or today, as the address of a view. */
import type { APIRoute } from 'astro';
import { isoDay, isoMonth, monthNumberOf, parseIsoDay } from '@/core/day/day';
import { filterQuery, readFilters } from '@/core/filters/filters';

export const GET: APIRoute = ({ url, locals, redirect }) => {
  const day = parseIsoDay(url.searchParams.get('day') ?? '') ?? locals.now.day;
  const query = filterQuery(readFilters(url.searchParams));
  const view = url.searchParams.get('view');
  const { to } = locals.reader;
  if (view === 'map') return redirect(to(`/map/${isoDay(day)}${query}`));
  return redirect(to(view === 'month' ? `/month/${isoMonth(monthNumberOf(day))}${query}` : `/list/${isoDay(day)}${query}`));
};
