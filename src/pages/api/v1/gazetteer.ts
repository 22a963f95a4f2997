/** Places that typed words may mean, from the gazetteer that the site ships with. */
import type { APIRoute } from 'astro';
import { searchGazetteer } from '@/core/geo/gazetteer';
import { answer } from '@/server/http/endpoint';
import { readGazetteer } from '@/server/site/read';

export const GET: APIRoute = async ({ url, locals: { rt } }) =>
  answer(searchGazetteer(url.searchParams.get('words') ?? '', await readGazetteer(rt.db)));
