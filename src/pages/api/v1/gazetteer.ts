/** Places that typed words may mean, from all that the site knows, and from the geocoder that it names. */
import type { APIRoute } from 'astro';
import { answer } from '@/server/http/endpoint';
import { findPlaces } from '@/server/places/find-place';

export const GET: APIRoute = async ({ url, locals: { rt } }) => {
  const { lat, lng, geocoder } = rt.settings();
  const service = geocoder ? (words: string, near: { lat: number; lng: number }) => rt.geocoder.find(geocoder, words, near) : undefined;
  return answer(await findPlaces({ ...rt, service }, (url.searchParams.get('words') ?? '').slice(0, 200), { lat, lng }));
};
