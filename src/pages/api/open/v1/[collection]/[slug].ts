/** One of a collection by its slug. */
import type { APIRoute } from 'astro';
import { collectionItem } from '@/server/open-data/collections';
import { openAnswer, preflight } from '@/server/http/open-data';

export const OPTIONS = preflight;

export const GET: APIRoute = async ({ locals: { rt }, params, url }) =>
  openAnswer(await collectionItem(rt, params.collection, params.slug, url));
