/** A page of a collection: the same filters as readers' views have. */
import type { APIRoute } from 'astro';
import { collectionPage } from '@/server/open-data/collections';
import { openAnswer, preflight } from '@/server/http/open-data';

export const OPTIONS = preflight;

export const GET: APIRoute = async ({ locals: { rt }, params, url }) => openAnswer(await collectionPage(rt, params.collection, url));
