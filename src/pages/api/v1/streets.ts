/** The streets of a part of the map as paths, for the chart on which a pin is set. Nothing where the site has no streets. */
import type { APIRoute } from 'astro';
import { projection, readBounds } from '@/core/geo/geo';
import { streetPaths } from '@/core/geo/street-paths';
import { answer } from '@/server/http/endpoint';

/** A drawing is at most so many units wide or high. */
const MOST = 1000;

export const GET: APIRoute = async ({ url, locals: { rt } }) => {
  const bounds = readBounds(url.searchParams.get('part') ?? '');
  const size = (name: string): number => Math.min(MOST, Math.max(1, Math.trunc(Number(url.searchParams.get(name)) || 0)));
  const [width, height] = [size('wide'), size('high')];
  const part = bounds && (await rt.streets.part(bounds, width));
  return answer(bounds && part ? streetPaths(part.shapes, projection(bounds, width, height), width, height) : []);
};
