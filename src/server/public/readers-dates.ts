/** Readers' dates for pages and feeds: from the finder, or from the database until there is one. Both say the same. */
import type { DateGlance, DaysGlance, EffectiveDate } from '@/core/dates/effective-date';
import type { EpochDay } from '@/core/day/day';
import { allOf, type Condition } from '@/core/filters/condition';
import { clip, daysOf, type OpenSpan } from '@/core/filters/days';
import { type Filters, NAMED_DAYS, NO_FILTERS, searchWords } from '@/core/filters/filters';
import type { Finder } from '@/core/finder/finder';
import type { Around } from '@/core/finder/found';
import type { Tally } from '@/core/finder/tally';
import { type FoundPlace, placeNamed } from '@/core/match/near';
import { bestFirst } from '@/core/match/relevance';
import type { ShownFacts } from '@/core/venue/shown-facts';
import type { SiteFinder } from '../finder/site-finder';
import { type ContentSource, referenceData } from '../reference/read';
import type { Now } from '../site/clock';
import { readGazetteer } from '../site/read';
import type { SiteSettings } from '../site/settings';
import { countFacets, type Facets } from './facets';
import { describeFilters, type FilterContext } from './filter-conditions';
import {
  type ComingQuery,
  countComing,
  countDates,
  earlierDay,
  type ListPage,
  MOST_ON_TOP,
  type OpenDays,
  pageOf,
  readComing,
  readDates,
  readListingIds,
  readListPage,
  readOnTop,
  readPerDay,
  readTally,
  type Span,
} from './public-dates';
import { readElsewhere, readResults, type ResultPage } from './results';

/** Which listings a search asks for. */
export interface ResultQuery extends OpenDays {
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
  /** how many touch a span */
  count: (span: Span) => Promise<number>;
  /** how many each box would show */
  facets: (span: Span) => Promise<Facets>;
  /** so many dates from a day on, always whole days */
  listPage: (span: OpenDays, count: number) => Promise<ListPage>;
  /** where the page before begins */
  earlierDay: (from: EpochDay, count: number) => Promise<EpochDay | undefined>;
  /** the next date of each listing that is kept on top of lists today */
  onTop: (today: EpochDay) => Promise<EffectiveDate[]>;
  /** listings with a date in a span: what is called as asked for first, then by their next date */
  results: (query: ResultQuery) => Promise<ResultPage>;
  /** what lies before and after a span that shows nothing, whatever days are chosen */
  elsewhere: (span: Span) => Promise<Around>;
  /** the listings that have a date in a span */
  listingIds: (span: Span) => Promise<string[]>;
  /** typed words that nothing has, each with those that were taken for it; none = there is nothing like it */
  guesses: ReadonlyMap<string, readonly string[]>;
  /** the place that something is asked to be near to; undefined where nothing is, or where nobody knows it */
  near: FoundPlace | undefined;
  /** the days that were chosen; open ends where none were */
  days: OpenSpan;
}

/** Where readers' dates come from. */
export interface DateSource extends ContentSource {
  finder: Pick<SiteFinder, 'current' | 'made'>;
  now: () => Pick<Now, 'day'>;
  settings: () => Pick<SiteSettings, 'currency' | 'firstWeekday'> & ShownFacts;
}

/** What choices are read against, and on which day. */
export interface ReaderContext extends Omit<FilterContext, 'around'> {
  near: FoundPlace | undefined;
  today: EpochDay;
  firstWeekday: number;
}

/** What choices are read against now. */
export async function readerContext(rt: DateSource, { near }: Pick<Filters, 'near'>): Promise<ReaderContext> {
  const reference = await referenceData(rt);
  const { currency, firstWeekday } = rt.settings();
  const found = async (): Promise<FoundPlace | undefined> => {
    if (!near) return undefined;
    if (near.at) return { name: '', at: near.at };
    return placeNamed(near.place, reference.venues, await rt.cache.ofReaders().of('gazetteer', () => readGazetteer(rt.db)));
  };
  return { reference, currency, firstWeekday, near: await found(), today: rt.now().day };
}

/** Words are forgiven their slips by the finder alone: for so long they wait for it after a start, in milliseconds. */
const WORDS_WAIT = 5_000;

/** What readers may see now and their choices leave. */
export async function readersDates(rt: DateSource, filters: Filters): Promise<ReadersDates> {
  const finder = await (filters.words ? rt.finder.made(WORDS_WAIT) : rt.finder.current());
  const context = await readerContext(rt, filters);
  return finder ? foundDates(finder, filters, context) : storedDates(rt, filters, context);
}

/** Where dates are looked for: as one of the two says, before the days that a reader chose. */
type AnyDay = Omit<ReadersDates, 'facets' | 'near' | 'days'> & {
  /** dates counted by what filters ask of them */
  tally: (span: Span) => Promise<Tally>;
};

/** From the database. */
export function storedDates({ db }: Pick<DateSource, 'db'>, filters: Filters, context: ReaderContext): ReadersDates {
  const against = { ...context, around: context.near?.at };
  const all: AnyDay = {
    dates: (span) => readDates(db, span, filters, against),
    glance: async (span) => (await readDates(db, span, filters, against)).map(glanceOf),
    perDay: async (span) => {
      const { counts, several } = await readPerDay(db, span, filters, against);
      return { counts, several: several.map(glanceOf) };
    },
    count: (span) => countDates(db, span, filters, against),
    tally: (span) => readTally(db, span, filters, against),
    listPage: (span, count) => readListPage(db, span, count, filters, against),
    earlierDay: (from, count) => earlierDay(db, from, count, filters, against),
    onTop: (today) => readOnTop(db, today, filters, against),
    results: (query) => readResults(db, query, filters, against),
    elsewhere: (span) => readElsewhere(db, span, filters, against),
    listingIds: (span) => readListingIds(db, span, filters, against),
    guesses: new Map(),
  };
  return onDays(all, filters, context);
}

const glanceOf = (date: EffectiveDate): DateGlance => {
  const { startDay, startMinute, endDay, endMinute, lastDay, headline, categoryId } = date;
  return { startDay, startMinute, endDay, endMinute, lastDay, headline, categoryId, whole: () => date };
};

/** From the finder, without a query. */
export function foundDates(finder: Finder, filters: Filters, context: ReaderContext): ReadersDates {
  const groups = describeFilters(filters, { ...context, around: context.near?.at }, finder.words);
  const conditions = allOf(groups);
  const words = searchWords(filters);
  const all: AnyDay = {
    dates: async (span) => finder.find({ span, conditions }),
    glance: async (span) => finder.glance({ span, conditions }),
    perDay: async (span) => finder.perDay({ span, conditions }),
    count: async (span) => finder.count({ span, conditions }),
    tally: async (span) => finder.tally(span, groups),
    listPage: async (span, count) =>
      pageOf(span.from, count, finder.find({ span, conditions }, count + 1), async (to) =>
        finder.find({ span: { ...span, to }, conditions }),
      ),
    earlierDay: async (from, count) => finder.dayBefore(from, count, conditions),
    onTop: async (today) => finder.onTop(today, conditions).slice(0, MOST_ON_TOP),
    results: async ({ page, length, ...span }) => {
      const all = bestFirst(finder.findListings({ span, conditions }), (found) => found.titleKey, words);
      const results = all
        .slice((page - 1) * length, page * length)
        .map((found) => ({ ...found.first(), dates: found.dates, days: found.days(), until: found.until }));
      return { results, total: all.length };
    },
    elsewhere: async ({ from, to }) => finder.around(from, to, conditions),
    listingIds: async (span) => finder.findListings({ span, conditions }).map(({ listingId }) => listingId),
    guesses: groups.guesses,
  };
  return onDays(all, filters, context);
}

/** The same on the days that a reader chose, with how many there are on those that have names. */
function onDays(all: AnyDay, { days }: Pick<Filters, 'days'>, { reference, near, today, firstWeekday }: ReaderContext): ReadersDates {
  const open: OpenSpan = days ? daysOf(days, today, firstWeekday) : { from: undefined, to: undefined };
  const named = async (span: Span): Promise<ReadonlyMap<string, number>> => {
    const counts = NAMED_DAYS.map(async (name): Promise<[string, number]> => {
      const part = clip(span, daysOf({ named: name }, today, firstWeekday));
      return [name, part ? await all.count(part) : 0];
    });
    return new Map(await Promise.all(counts));
  };
  // On no day there is nothing: a span that ends before it begins touches none.
  const part = <T extends OpenDays>(span: T): T => clip(span, open) ?? { ...span, to: span.from - 1 };
  const none = (span: OpenDays): boolean => clip(span, open) === undefined;
  return {
    ...all,
    near,
    days: open,
    dates: async (span) => (none(span) ? [] : all.dates(part(span))),
    glance: async (span) => (none(span) ? [] : all.glance(part(span))),
    perDay: async (span) => {
      const counts = new Uint32Array(span.to - span.from + 1);
      if (none(span)) return { counts, several: [] };
      const own = part(span);
      const found = await all.perDay(own);
      counts.set(found.counts, own.from - span.from);
      return { ...found, counts };
    },
    count: async (span) => (none(span) ? 0 : all.count(part(span))),
    facets: async (span) => countFacets(span, await all.tally(part(span)), reference, await named(span)),
    listPage: async (span, count) => (none(span) ? { dates: [], later: undefined } : all.listPage(part(span), count)),
    earlierDay: async (from, count) => {
      const before = open.from === undefined || from > open.from ? await all.earlierDay(from, count) : undefined;
      return before === undefined ? undefined : Math.max(before, open.from ?? before);
    },
    onTop: async (day) =>
      (await all.onTop(day)).filter(({ startDay, lastDay }) => lastDay >= (open.from ?? lastDay) && startDay <= (open.to ?? startDay)),
    results: async (query) => (none(query) ? { results: [], total: 0 } : all.results(part(query))),
    listingIds: async (span) => (none(span) ? [] : all.listingIds(part(span))),
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

/** Further ahead than any horizon, in days. */
const AGES = 40_000;

/** Listings like another, so many days ahead; none until everything is at hand, for a few seconds after a start. */
const RELATED_DAYS = 120;

/** Listings like one of readers', each with its next date: those that are most alike, in the order that is asked for. */
export async function readersRelated(
  rt: DateSource,
  listingId: string,
  { today, most, order }: { today: EpochDay; most: number; order: SiteSettings['relatedOrder'] },
): Promise<EffectiveDate[]> {
  const finder = most ? await rt.finder.current() : undefined;
  if (!finder) return [];
  const { category } = await referenceData(rt);
  const found = finder.related(listingId, { today, most, within: RELATED_DAYS, parentOf: (id) => category.get(id)?.parentId });
  const minuteOf = ({ startDay, startMinute }: EffectiveDate): number => startDay * 1440 + (startMinute ?? 0);
  return order === 'soonest' ? found.sort((a, b) => minuteOf(a) - minuteOf(b)) : found;
}

/** How many dates touch today, counted once for each state of the content and day. */
export function countToday(rt: DateSource, today: EpochDay): Promise<number> {
  return rt.cache.ofReaders().of(`dates on ${today}`, async () => {
    const shown = await readersDates(rt, NO_FILTERS);
    return shown.count({ from: today, to: today });
  });
}

/** How many coming dates each category, venue, organizer or tag has, by its address: those that readers may see, from today on. */
export function countComingBy(rt: DateSource, name: 'kind' | 'venue' | 'by' | 'tag'): Promise<ReadonlyMap<string, number>> {
  const { day } = rt.now();
  return rt.cache.ofReaders().of(`coming by ${name} from ${day}`, async () => {
    const shown = await readersDates(rt, NO_FILTERS);
    return (await shown.facets({ from: day, to: day + AGES })).of(name);
  });
}
