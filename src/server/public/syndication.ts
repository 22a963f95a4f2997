/**
 * A filtered view for other programs, beside its calendar file: as RSS 2.0, Atom (RFC 4287) and JSON Feed 1 for readers of news, as GeoJSON
 * (RFC 7946) and a table for maps and spreadsheets. An entry of a news feed is a listing, under an identifier that never changes.
 */
import { inArray } from 'drizzle-orm';
import { Feed } from 'feed';
import { type EpochDay, isoDay, parseIsoDay } from '@/core/day/day';
import { isoIn } from '@/core/day/zone';
import { CSV_DATE_COLUMNS, csvDateRow, writeCsv } from '@/core/exchange/csv';
import { dateIn, type EffectiveDate } from '@/core/dates/effective-date';
import { sayCost } from '@/core/listing/content';
import { sayWhen, type Style } from '@/core/phrase/format';
import { tagOf } from '@/core/phrase/language';
import { escapeHtml } from '@/core/text/text';
import { published } from '../db/schema';
import { namesOf, type ReferenceData, referenceData, type VenueView } from '../reference/read';
import type { Runtime } from '../runtime-type';
import { styleOf } from '../site/settings';
import { organizersOf } from './organizers-of';
import type { PageReader } from './page-reader';
import type { ReadersDates } from './readers-dates';

/** For whom a feed is, and what it is called. */
export interface SyndicationReader extends PageReader {
  /** the site's name and what is chosen: "Village Almanac: Music & dance, free" */
  title: string;
  /** the query of what is chosen, `?kind=music`, or nothing */
  query: string;
}

/** The forms of a news feed. */
export const FEED_KINDS = { rss: 'application/rss+xml', atom: 'application/atom+xml', json: 'application/feed+json' } as const;
/** One of {@link FEED_KINDS}. */
export type FeedKind = keyof typeof FEED_KINDS;

/** So many listings are in a news feed: the soonest. */
const ENTRIES = 60;

/** Listings with dates to come, the soonest first, as a news feed. */
export async function newsFeed(rt: Runtime, shown: ReadersDates, kind: FeedKind, reader: SyndicationReader): Promise<string> {
  const { language, to, title, query } = reader;
  const settings = rt.settings();
  const style = styleOf(settings, language);
  const reference = await referenceData(rt);
  const { results } = await shown.results({ from: rt.now().day, page: 1, length: ENTRIES });
  const ids = results.map(({ listingId }) => listingId);
  const rows = ids.length
    ? await rt.db
        .select({ id: published.listingId, changedAt: published.changedAt, publishedAt: published.publishedAt })
        .from(published)
        .where(inArray(published.listingId, ids))
    : [];
  const stamps = new Map(rows.map((row) => [row.id, row]));
  const site = rt.siteUrl();
  const feed = new Feed({
    // The same however it is reached; the query is a part of what it is a feed of.
    id: `${site}${to('/list')}${query}`,
    title,
    link: `${site}${to('/list')}${query}`,
    description: settings.about || title,
    language: tagOf(language, settings.english),
    generator: 'plain-almanac',
    // Of the newest in it, so that nothing changes while nothing changes.
    updated: new Date(rows.reduce((latest, row) => Math.max(latest, row.changedAt.getTime()), 0)),
    feedLinks: Object.fromEntries(Object.keys(FEED_KINDS).map((one) => [one, `${site}${to(`/feed.${one}`)}${query}`])),
  });
  for (const result of results) {
    const date = dateIn(result, language);
    const stamp = stamps.get(date.listingId);
    if (!stamp) continue;
    const line = [sayDateOf(date, style), namesOf(date.venueIds, reference.venue), sayCost(date.cost, language)]
      .filter(Boolean)
      .join(' · ');
    feed.addItem({
      title: date.title,
      id: `urn:uuid:${date.listingId}`,
      guid: `urn:uuid:${date.listingId}`,
      link: `${site}${to(`/what/${date.listing}`)}`,
      date: stamp.changedAt,
      published: stamp.publishedAt,
      description: [line, date.summary].filter(Boolean).join('\n'),
      content: `<p>${escapeHtml(line)}</p>${date.summary ? `<p>${escapeHtml(date.summary)}</p>` : ''}`,
      category: [{ name: reference.category.get(date.categoryId)?.name ?? '' }].filter(({ name }) => name),
    });
  }
  return { rss: () => feed.rss2(), atom: () => feed.atom1(), json: () => feed.json1() }[kind]();
}

function sayDateOf({ startDay, startMinute, endDay, endMinute }: EffectiveDate, style: Style): string {
  const end = endDay === null ? null : { day: endDay, minute: endMinute };
  return sayWhen({ day: startDay, minute: startMinute }, end, style);
}

/** So many dates are handed out at once, always whole days; where there are more, the answer says where they are. */
const MOST_DATES = 5_000;
const USUAL_DAYS = 92;
const MOST_DAYS = 366;

/** Dates of a view as plain values. */
export interface PlainDates {
  dates: {
    date: EffectiveDate;
    venues: VenueView[];
    organizer: string;
    /** the zone of its times */
    zone: string;
    start: string;
    end: string;
    url: string;
    kind: string;
    cost: string;
  }[];
  /** the first day of what is left out; undefined where nothing is */
  later: EpochDay | undefined;
  to: EpochDay;
}

/** The span that an address asks for: from today for three months where it says nothing, and never more than a year. */
export function spanAsked(query: URLSearchParams, today: EpochDay): { from: EpochDay; to: EpochDay } {
  const from = parseIsoDay(query.get('from') ?? '') ?? today;
  const to = parseIsoDay(query.get('to') ?? '') ?? from + USUAL_DAYS;
  return { from, to: Math.max(from, Math.min(to, from + MOST_DAYS)) };
}

/** Dates of a filtered view with what other programs ask of them. */
export async function plainDates(
  rt: Runtime,
  shown: ReadersDates,
  { from, to }: { from: EpochDay; to: EpochDay },
  reader: PageReader,
): Promise<PlainDates> {
  const reference: ReferenceData = await referenceData(rt);
  const settings = rt.settings();
  const page = await shown.listPage({ from, to }, MOST_DATES);
  const within = page.dates;
  const organizers = await organizersOf(rt.db, [...new Set(within.map(({ listingId }) => listingId))]);
  const dates = within.map((one) => {
    const date = dateIn(one, reader.language);
    const zone = date.zone || settings.zone;
    // A whole day ends on its last day; RFC 5545's exclusive end would be read wrongly by people.
    const end =
      date.startMinute === null
        ? isoDay(date.lastDay)
        : date.endDay === null
          ? ''
          : isoIn(zone, { day: date.endDay, minute: date.endMinute ?? 0 });
    return {
      date,
      venues: date.venueIds.flatMap((id) => reference.venue.get(id) ?? []),
      zone,
      organizer: namesOf(organizers.get(date.listingId) ?? [], reference.organizer),
      start: isoIn(zone, { day: date.startDay, minute: date.startMinute }),
      end,
      url: `${rt.siteUrl()}${reader.to(`/what/${date.listing}/${date.date}`)}`,
      kind: reference.category.get(date.categoryId)?.name ?? '',
      cost: sayCost(date.cost, reader.language),
    };
  });
  return { dates, later: page.later !== undefined && page.later <= to ? page.later : undefined, to };
}

/**
 * Dates as GeoJSON: a feature a date and place; what is online or nowhere named has no geometry.
 *
 * @param doubts what of the question was not understood, said in a member of our own (RFC 7946 6.1)
 */
export function geoJson({ dates }: PlainDates, doubts: readonly string[] = []): string {
  const features = dates.flatMap(({ date, venues, start, end, url, kind, cost }) =>
    (venues.length ? venues : [undefined]).map((venue) => ({
      type: 'Feature',
      id: `${date.listingId}/${date.date}${venues.length > 1 && venue ? `/${venue.id}` : ''}`,
      // Of an area nobody is led to a point.
      geometry:
        venue && !venue.areaOnly && venue.lat !== null && venue.lng !== null
          ? { type: 'Point', coordinates: [venue.lng, venue.lat] }
          : null,
      properties: {
        title: date.title,
        start,
        end: end || null,
        status: date.eventStatus,
        place: venue?.name ?? null,
        town: venue?.town || null,
        attendance: date.attendance,
        kind,
        cost,
        summary: date.summary,
        url,
      },
    })),
  );
  return JSON.stringify({ type: 'FeatureCollection', ...(doubts.length ? { notUnderstood: doubts } : {}), features });
}

/** Dates as a table: one row a date, in the columns of our own files. */
export function csvOf({ dates }: PlainDates): string {
  return writeCsv(
    CSV_DATE_COLUMNS,
    dates.map(({ date, venues, zone, organizer, url, kind, cost }) =>
      csvDateRow({ ...date, id: date.listingId, zone, venues, organizer, categories: kind, cost, page: url }),
    ),
  );
}
