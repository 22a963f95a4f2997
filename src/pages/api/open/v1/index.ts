/** What there is for other programs, and where it is described. */
import type { APIRoute } from 'astro';
import { COLLECTIONS } from '@/server/open-data/collections';
import { OPEN_DATA } from '@/server/open-data/telling';
import { openAnswer, preflight } from '@/server/http/open-data';

export const OPTIONS = preflight;

export const GET: APIRoute = ({ locals: { rt, settings } }) => {
  const here = `${rt.siteUrl()}${OPEN_DATA}`;
  return openAnswer({
    name: settings.name,
    description: `${here}/openapi.json`,
    explained: `${rt.siteUrl()}/data`,
    collections: Object.fromEntries(Object.keys(COLLECTIONS).map((name) => [name, `${here}/${name}`])),
  });
};
