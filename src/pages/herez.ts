/** Says whose site this is, to the site itself: what it signs, nobody else can answer. */
import type { APIRoute } from 'astro';
import { problemResponse } from '@/server/http/problem';
import { explain } from '@/server/explain';
import { notFound } from '@/server/problem';
import { isNonce, tokenFor } from '@/server/site/reach';

export const GET: APIRoute = ({ url, locals }) => {
  const nonce = url.searchParams.get('nonce') ?? '';
  if (!isNonce(nonce)) return problemResponse(explain(notFound(url.pathname)));
  return new Response(tokenFor(locals.rt.sign, nonce), {
    headers: { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' },
  });
};
