/** A filtered view's feeds as answers: what each is called, and where the rest of it is. */
import { isoDay } from '@/core/day/day';
import { type Filters, filterQuery, readFilters } from '@/core/filters/filters';
import { referenceData } from '@/server/reference/read';
import { csvOf, FEED_KINDS, type FeedKind, geoJson, newsFeed, plainDates, spanAsked } from '@/server/public/syndication';
import { styleOf } from '@/server/site/settings';
import { feedText, icalResponse } from '@/server/public/feed';
import { type ReadersDates, readersDates } from '@/server/public/readers-dates';
import { Problem } from '@/server/problem';
import { sayFilters } from './say-filters';
import { sayGuesses, sayUnanswered } from './unanswered';

type Asked = Pick<App.Locals, 'rt' | 'reader' | 'settings' | 'now'>;

/** What is chosen: its dates, how a feed is called by it, and what of it nobody understood or was taken for something else. */
async function chosenBy(
  { rt, reader, settings }: Asked,
  url: URL,
  filters: Filters,
): Promise<{ shown: ReadersDates; name: string; unread: string[]; doubts: string[] }> {
  const { words, language } = reader;
  const reference = await referenceData(rt);
  const context = { reference, words, style: styleOf(settings, language), currency: settings.currency };
  const said = sayFilters(filters, context).join(', ');
  const shown = await readersDates(rt, filters);
  const unread = sayUnanswered(url.searchParams, filters, reference, shown, words);
  const doubts = [...unread, ...sayGuesses(shown.guesses, reader)];
  // Whoever follows a feed sees its name and nothing else of the address.
  return { shown, name: `${settings.name}${said ? `: ${said}` : ''}${doubts.length ? ` (${doubts.join(' ')})` : ''}`, unread, doubts };
}

/** A news feed of what an address chooses. */
export async function feedResponse(asked: Asked, url: URL, kind: FeedKind): Promise<Response> {
  const { rt, reader } = asked;
  const filters = readFilters(url.searchParams);
  const { shown, name: title } = await chosenBy(asked, url, filters);
  const text = await newsFeed(rt, shown, kind, { language: reader.language, to: reader.to, title, query: filterQuery(filters) });
  return new Response(text, { headers: { 'content-type': `${FEED_KINDS[kind]}; charset=utf-8`, 'access-control-allow-origin': '*' } });
}

/** A calendar feed of what an address chooses. */
export async function calendarResponse(asked: Asked, url: URL): Promise<Response> {
  const { rt, reader } = asked;
  const filters = readFilters(url.searchParams);
  const { shown, name } = await chosenBy(asked, url, filters);
  return icalResponse(await feedText(rt, shown, rt.siteUrl() + reader.to(`/list${filterQuery(filters)}`), { ...reader, name }));
}

const DATES = { geojson: { type: 'application/geo+json', write: geoJson }, csv: { type: 'text/csv', write: csvOf } } as const;

/** Dates of what an address chooses; a `Link` leads to the next ones where not all were handed out. */
export async function datesResponse(asked: Asked, url: URL, kind: keyof typeof DATES): Promise<Response> {
  const { rt, reader, now } = asked;
  const filters = readFilters(url.searchParams);
  const { shown, unread, doubts } = await chosenBy(asked, url, filters);
  // A table has no place to say it in: better none than one of something else.
  if (unread.length && kind === 'csv') throw new Problem('invalid', unread.join(' '));
  const found = await plainDates(rt, shown, spanAsked(url.searchParams, now.day), reader);
  const headers = new Headers({ 'content-type': `${DATES[kind].type}; charset=utf-8`, 'access-control-allow-origin': '*' });
  if (found.later !== undefined) {
    const next = new URLSearchParams(filterQuery(filters));
    next.set('from', isoDay(found.later));
    next.set('to', isoDay(found.to));
    headers.set('link', `<${rt.siteUrl()}${reader.to(`/dates.${kind}`)}?${next}>; rel="next"`);
  }
  return new Response(DATES[kind].write(found, doubts), { headers });
}
