/** Places that typed words may mean, from all that the site knows. */
import type { APIRoute } from 'astro';
import { answer } from '@/server/http/endpoint';
import { findPlaces } from '@/server/places/find-place';

export const GET: APIRoute = async ({ url, locals: { rt } }) => {
  const { lat, lng } = rt.settings();
  return answer(await findPlaces(rt, (url.searchParams.get('words') ?? '').slice(0, 200), { lat, lng }));
};
