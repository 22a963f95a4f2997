/** What else happens in some venues, for the editor's Dates rail. */
import type { APIRoute } from 'astro';
import { isId } from '@/server/db/ids';
import { answer } from '@/server/http/endpoint';
import { explain } from '@/server/explain';
import { knownTo } from '@/server/listings/read';
import { refused } from '@/server/problem';
import { problemResponse } from '@/server/http/problem';
import { readBookings } from '@/server/dates/bookings';

const MOST_VENUES = 10;

export const GET: APIRoute = async ({ url, locals: { rt, actor, now } }) => {
  try {
    const venueIds = (url.searchParams.get('venues') ?? '').split(',').filter(isId).slice(0, MOST_VENUES);
    const not = url.searchParams.get('not') ?? '';
    if (!actor) throw refused();
    const bookings = await readBookings(rt.db, { venueIds, not: isId(not) ? not : null, from: now.day });
    const known = await knownTo(
      rt.db,
      actor,
      bookings.map(([, id]) => id),
    );
    return answer(bookings.filter(([, id]) => known.has(id)));
  } catch (error) {
    return problemResponse(explain(error));
  }
};
