/** The interface for other programs over HTTP: anybody's page may ask, and answers are kept and compressed as readers' pages are. */
import type { APIRoute } from 'astro';
import { OPEN_DATA } from '../open-data/telling';

/** Is this address a part of it? */
export const isOpenData = (path: string): boolean => path === OPEN_DATA || path.startsWith(`${OPEN_DATA}/`);

/** Pages of every origin may read it (Fetch standard, CORS); nothing here depends on who asks, so no cookie is wanted. */
const CORS = {
  'access-control-allow-origin': '*',
  'access-control-expose-headers': 'etag, retry-after, x-request-id',
  'cross-origin-resource-policy': 'cross-origin',
} as const;

/** Says so on an answer, whatever it is: a page that may not read why it failed learns nothing. */
export function openToAll(headers: Headers): void {
  for (const [name, value] of Object.entries(CORS)) headers.set(name, value);
}

/** A browser's question before it asks. */
export const preflight: APIRoute = () =>
  new Response(null, {
    status: 204,
    headers: {
      'access-control-allow-methods': 'GET, HEAD',
      'access-control-allow-headers': 'if-none-match',
      'access-control-max-age': '86400',
      'cache-control': 'no-store',
    },
  });

/** A value as an answer. */
export const openAnswer = (value: unknown): Response =>
  new Response(JSON.stringify(value), { headers: { 'content-type': 'application/json; charset=utf-8' } });
