/** Readers' dates for pages and feeds: from the finder, or from the database until there is one. Both say the same. */
import type { DateGlance, DaysGlance, EffectiveDate } from '@/core/dates/effective-date';
import type { EpochDay } from '@/core/day/day';
import { allOf, type Condition } from '@/core/filters/condition';
import type { Filters } from '@/core/filters/filters';
import type { Finder } from '@/core/finder/finder';
import type { Around } from '@/core/finder/found';
import type { SiteFinder } from '../finder/site-finder';
import { type ContentSource, type ReferenceData, referenceData } from '../reference/read';
import { countFacets, type Facets } from './facets';
import { type Described, describeFilters } from './filter-conditions';
import {
  type ComingQuery,
  countComing,
  countOn,
  earlierDay,
  type ListPage,
  MOST_ON_TOP,
  pageOf,
  readComing,
  readDates,
  readFacets,
  readListingIds,
  readListPage,
  readOnTop,
  readPerDay,
  type Span,
} from './public-dates';
import { readElsewhere, readResults, type ResultPage } from './results';

/** Which listings a search asks for. */
export interface ResultQuery {
  from: EpochDay;
  /** from 1 */
  page: number;
  length: number;
}

/** What readers may see and their choices leave. */
export interface ReadersDates {
  /** dates that touch a span, in order of their start */
  dates: (span: Span) => Promise<EffectiveDate[]>;
  /** the same, each as far as a sheet must know it */
  glance: (span: Span) => Promise<DateGlance[]>;
  /** how many touch each day of a span, and those that go on for days */
  perDay: (span: Span) => Promise<DaysGlance>;
  /** how many each box would show */
  facets: (span: Span) => Promise<Facets>;
  /** so many dates from a day on, always whole days */
  listPage: (from: EpochDay, count: number) => Promise<ListPage>;
  /** where the page before begins */
  earlierDay: (from: EpochDay, count: number) => Promise<EpochDay | undefined>;
  /** the next date of each listing that is kept on top of lists today */
  onTop: (today: EpochDay) => Promise<EffectiveDate[]>;
  /** listings with a date from a day on, by their next date */
  results: (query: ResultQuery) => Promise<ResultPage>;
  /** what lies before and after a span that shows nothing */
  elsewhere: (span: Span) => Promise<Around>;
  /** the listings that have a date in a span */
  listingIds: (span: Span) => Promise<string[]>;
  /** typed words that nothing has, each with those that were taken for it; none = there is nothing like it */
  guesses: ReadonlyMap<string, readonly string[]>;
}

/** Where readers' dates come from. */
export interface DateSource extends ContentSource {
  finder: Pick<SiteFinder, 'current'>;
}

/** What readers may see now and their choices leave. */
export async function readersDates(rt: DateSource, filters: Filters): Promise<ReadersDates> {
  const finder = await rt.finder.current();
  const reference = await referenceData(rt);
  return finder ? foundDates(finder, filters, reference) : storedDates(rt, filters, reference);
}

/** From the database. */
export function storedDates({ db }: Pick<DateSource, 'db'>, filters: Filters, reference: ReferenceData): ReadersDates {
  return {
    dates: (span) => readDates(db, span, filters, reference),
    glance: async (span) => (await readDates(db, span, filters, reference)).map(glanceOf),
    perDay: async (span) => {
      const { counts, several } = await readPerDay(db, span, filters, reference);
      return { counts, several: several.map(glanceOf) };
    },
    facets: (span) => readFacets(db, span, filters, reference),
    listPage: (from, count) => readListPage(db, from, count, filters, reference),
    earlierDay: (from, count) => earlierDay(db, from, count, filters, reference),
    onTop: (today) => readOnTop(db, today, filters, reference),
    results: (query) => readResults(db, query, filters, reference),
    elsewhere: (span) => readElsewhere(db, span, filters, reference),
    listingIds: (span) => readListingIds(db, span, filters, reference),
    guesses: new Map(),
  };
}

const glanceOf = (date: EffectiveDate): DateGlance => {
  const { startDay, startMinute, endDay, endMinute, lastDay, headline, categoryId } = date;
  return { startDay, startMinute, endDay, endMinute, lastDay, headline, categoryId, whole: () => date };
};

/** From the finder, without a query. */
export function foundDates(finder: Finder, filters: Filters, reference: ReferenceData): ReadersDates {
  const groups: Described = describeFilters(filters, reference, finder.words);
  const conditions = allOf(groups);
  return {
    dates: async (span) => finder.find({ span, conditions }),
    glance: async (span) => finder.glance({ span, conditions }),
    perDay: async (span) => finder.perDay({ span, conditions }),
    facets: async (span) => countFacets(finder.groups({ span, conditions: groups.words }), groups, reference),
    listPage: async (from, count) =>
      pageOf(from, count, finder.find({ span: { from }, conditions }, count + 1), async (to) =>
        finder.find({ span: { from, to }, conditions }),
      ),
    earlierDay: async (from, count) => finder.dayBefore(from, count, conditions),
    onTop: async (today) => finder.onTop(today, conditions).slice(0, MOST_ON_TOP),
    results: async ({ from, page, length }) => {
      const all = finder.findListings({ span: { from }, conditions });
      const results = all
        .slice((page - 1) * length, page * length)
        .map(({ first, dates, days, until }) => ({ ...first.whole(), dates, days, until }));
      return { results, total: all.length };
    },
    elsewhere: async ({ from, to }) => finder.around(from, to, conditions),
    listingIds: async (span) => finder.findListings({ span, conditions }).map(({ listingId }) => listingId),
    guesses: groups.guesses,
  };
}

/** Coming dates of a venue or an organizer, and how many there are in all. */
export interface Coming {
  dates: EffectiveDate[];
  total: number;
}

/** What a venue or an organizer has from a day on. */
export async function readersComing(rt: DateSource, { limit, offset = 0, ...query }: ComingQuery): Promise<Coming> {
  const finder = await rt.finder.current();
  if (!finder) {
    const [dates, total] = await Promise.all([readComing(rt.db, { limit, offset, ...query }), countComing(rt.db, query)]);
    return { dates, total };
  }
  const { from, venueIds, organizerId = '' } = query;
  const whose: Condition = venueIds ? { asks: 'venue', ids: new Set(venueIds) } : { asks: 'organizer', ids: new Set([organizerId]) };
  const asked = { span: { from }, conditions: [whose] };
  return { dates: finder.find(asked, limit, offset), total: finder.count(asked) };
}

/** Listings like another, so many days ahead; none until everything is at hand, for a few seconds after a start. */
const RELATED_DAYS = 120;

/** Listings like one of readers', the likest first, each with its next date. */
export async function readersRelated(
  rt: DateSource,
  listingId: string,
  { today, most }: { today: EpochDay; most: number },
): Promise<EffectiveDate[]> {
  const finder = most ? await rt.finder.current() : undefined;
  if (!finder) return [];
  const { category } = await referenceData(rt);
  return finder.related(listingId, { today, most, within: RELATED_DAYS, parentOf: (id) => category.get(id)?.parentId });
}

/** How many dates touch today, counted once for each state of the content and day. */
export function countToday(rt: DateSource, today: EpochDay): Promise<number> {
  return rt.cache.ofReaders().of(`dates on ${today}`, async () => {
    const finder = await rt.finder.current();
    return finder ? finder.count({ span: { from: today, to: today }, conditions: [] }) : countOn(rt.db, today);
  });
}
