/** The streets of a part of the map as paths, for the chart on which a pin is set. Nothing where the site has no streets. */
import type { APIRoute } from 'astro';
import { readBounds } from '@/core/geo/geo';
import { answer } from '@/server/http/endpoint';
import { creditOf } from '@/server/map/say-streets';
import { siteStreets } from '@/server/map/street-map';
import { READERS_WORDS } from '@/words/readers';

/** A drawing is at most so many units wide or high. */
const MOST = 1000;

export const GET: APIRoute = async ({ url, locals: { rt } }) => {
  const bounds = readBounds(url.searchParams.get('part') ?? '');
  const size = (name: string): number => Math.min(MOST, Math.max(1, Math.trunc(Number(url.searchParams.get(name)) || 0)));
  const kept = bounds && (await siteStreets(rt));
  const paths = bounds && kept && (await rt.streets.paths(kept, bounds, size('wide'), size('high')));
  return answer({ paths: paths ?? [], credit: paths && kept ? READERS_WORDS.en.map.streets({ credit: creditOf(kept) }) : '' });
};
