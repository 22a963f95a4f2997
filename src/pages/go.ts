/** A time to go to, as words or a day, as the address of a view: what is chosen goes along, and words that name no time are said there. */
import type { APIRoute } from 'astro';
import { parseIsoDay, ymdOf } from '@/core/day/day';
import { filterQuery, readFilters } from '@/core/filters/filters';
import { HOLIDAYS_AHEAD, MOST_TIME_WORDS, readTimeToGoTo } from '@/core/phrase/read/time-to-go-to';
import { inReach, isViewName, readViewAddress, viewChoices, viewPath, withParts } from '@/core/views/views';

export const GET: APIRoute = async ({ url, locals, redirect }) => {
  const { rt, now, settings, reader } = locals;
  const { firstWeekday } = settings;
  const asked = url.searchParams;
  const name = asked.get('view') ?? '';
  const view = isViewName(name) ? name : 'list';
  const words = (asked.get('when') ?? '').slice(0, MOST_TIME_WORDS).trim();
  const marks = words ? await rt.yearMarks.between(settings, { from: now.day, to: now.day + HOLIDAYS_AHEAD }, reader.language) : undefined;
  const holidays = new Map([...(marks ?? [])].map(([day, all]) => [day, all.map(({ name }) => name)]));
  const read = words
    ? readTimeToGoTo(words, { today: now.day, firstWeekday, holidays, language: reader.language })
    : parseIsoDay(asked.get('day') ?? '');
  const found = read !== undefined && inReach(ymdOf(read).year) ? read : undefined;
  const here = readViewAddress({ view, at: asked.get('at') ?? undefined, today: now.day, firstWeekday })?.day ?? now.day;
  const unread = words && found === undefined ? new URLSearchParams({ unread: words }).toString() : '';
  const query = withParts(filterQuery(readFilters(asked)), viewChoices(view, asked), unread);
  return redirect(reader.to(viewPath(view, found ?? here, firstWeekday)) + query);
};
