/** The dates of a span of days as editors have them, for the Desk's sheets. */
import type { APIRoute } from 'astro';
import { parseIsoDay } from '@/core/day/day';
import { answer } from '@/server/http/endpoint';
import { invalid, refused } from '@/server/problem';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { readDeskDates, readDeskFilters } from '@/server/desk/sheet-dates';
import { referenceData } from '@/server/reference/read';
import { serverWords } from '@/words/desk';

const w = serverWords.dates;

/** Half a year with its edges. */
const MOST_DAYS = 220;

export const GET: APIRoute = async ({ url, locals: { rt, actor, settings } }) => {
  try {
    if (!actor) throw refused();
    const [from, to] = [parseIsoDay(url.searchParams.get('from') ?? ''), parseIsoDay(url.searchParams.get('to') ?? '')];
    if (from === undefined || to === undefined || to < from || to - from > MOST_DAYS)
      throw invalid('from', w.giveFromAndTo({ mostDays: MOST_DAYS }));
    const filters = readDeskFilters(url.searchParams);
    return answer(await readDeskDates(rt.db, { actor, from, to, filters, reference: await referenceData(rt), settings }));
  } catch (error) {
    return problemResponse(explain(error));
  }
};
