/** Dates as other programs read them. Asks what readers' views ask, so that it tells neither more nor less than they do. */
import { type EpochDay, parseIsoDay } from '@/core/day/day';
import { dateIn, type EffectiveDate } from '@/core/dates/effective-date';
import { readersDates } from '../public/readers-dates';
import type { Runtime } from '../runtime-type';
import type { OpenQuery } from './query';
import type { OpenDate } from './shapes';
import { costOf, linkTo, type OpenPage, refuseUnknown, takenFor, type Telling, tellingOf, timesOf, venuesOf } from './telling';

function dateOf(date: EffectiveDate, telling: Telling): OpenDate {
  const { language, reference, page, self, rt } = telling;
  const { title, summary } = dateIn(date, language);
  const zone = date.zone || rt.settings().zone;
  const category = reference.category.get(date.categoryId);
  return {
    id: `${date.listingId}/${date.original}`,
    listing: { id: date.listingId, slug: date.listing, self: self(`/listings/${date.listing}`) },
    page: page(`/what/${date.listing}/${date.date}`),
    title,
    summary,
    ...timesOf(date, zone),
    zone,
    status: date.eventStatus,
    moved: date.moved,
    note: date.note,
    attendance: date.attendance,
    venues: venuesOf(date.venueIds, telling),
    category: category ? linkTo(category, '/categories', telling) : null,
    ...costOf(date.cost, language),
  };
}

/**
 * Dates in order of their start, from today on where nothing else is asked. A page holds whole days, one at least. What began before the first day
 * and goes on is on the first page alone.
 */
export async function openDates(rt: Runtime, query: OpenQuery): Promise<OpenPage<OpenDate, EpochDay>> {
  const telling = await tellingOf(rt, query.language);
  const found = await readersDates(rt, query.filters);
  refuseUnknown(query, telling.reference, found);
  const from = found.days.from ?? rt.now().day;
  const at = parseIsoDay(query.cursor ?? '');
  const span = at === undefined ? { from } : { from: Math.max(at, from), starting: true };
  const { dates, later } = await found.listPage(span, query.limit);
  return { data: dates.map((date) => dateOf(date, telling)), next: later, taken: takenFor(found) };
}
