/** A filtered view's feeds as answers: what each is called, and where the rest of it is. */
import { isoDay } from '@/core/day/day';
import { filterQuery, readFilters } from '@/core/filters/filters';
import { referenceData } from '@/server/reference/read';
import { csvOf, FEED_KINDS, type FeedKind, geoJson, newsFeed, plainDates, spanAsked } from '@/server/public/syndication';
import { styleOf } from '@/server/site/settings';
import { sayFilters } from './say-filters';

type Asked = Pick<App.Locals, 'rt' | 'reader' | 'settings' | 'now'>;

/** A news feed of what an address chooses. */
export async function feedResponse({ rt, reader, settings }: Asked, url: URL, kind: FeedKind): Promise<Response> {
  const filters = readFilters(url.searchParams);
  const reference = await referenceData(rt);
  const said = sayFilters(filters, {
    reference,
    words: reader.words,
    style: styleOf(settings, reader.language),
    currency: settings.currency,
  }).join(', ');
  const text = await newsFeed(rt, filters, kind, {
    language: reader.language,
    to: reader.to,
    title: said ? `${settings.name}: ${said}` : settings.name,
    query: filterQuery(filters),
  });
  return new Response(text, { headers: { 'content-type': `${FEED_KINDS[kind]}; charset=utf-8`, 'access-control-allow-origin': '*' } });
}

const DATES = { geojson: { type: 'application/geo+json', write: geoJson }, csv: { type: 'text/csv', write: csvOf } } as const;

/** Dates of what an address chooses; a `Link` leads to the next ones where not all were handed out. */
export async function datesResponse({ rt, reader, now }: Asked, url: URL, kind: keyof typeof DATES): Promise<Response> {
  const filters = readFilters(url.searchParams);
  const found = await plainDates(rt, filters, spanAsked(url.searchParams, now.day), reader);
  const headers = new Headers({ 'content-type': `${DATES[kind].type}; charset=utf-8`, 'access-control-allow-origin': '*' });
  if (found.later !== undefined) {
    const next = new URLSearchParams(filterQuery(filters));
    next.set('from', isoDay(found.later));
    next.set('to', isoDay(found.to));
    headers.set('link', `<${rt.siteUrl()}${reader.to(`/dates.${kind}`)}?${next}>; rel="next"`);
  }
  return new Response(DATES[kind].write(found), { headers });
}
