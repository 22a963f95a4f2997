/** A square of the world as a vector tile. Its address carries the world's version, so that it keeps for ever. */
import { gunzipSync } from 'node:zlib';
import type { APIRoute } from 'astro';
import { isBaseTile } from '@/core/geo/base-tiles';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { tilePlace } from '@/server/http/tile-place';
import { notFound } from '@/server/problem';

export const GET: APIRoute = async ({ params, locals, request, url }) => {
  const { world } = locals.rt;
  const version = world.version();
  const place = tilePlace(params);
  if (params.version !== version || !isBaseTile(place)) return problemResponse(explain(notFound(url.pathname)));
  const tag = `"${version}-${place.z}-${place.x}-${place.y}"`;
  const headers = new Headers({ etag: tag, 'cache-control': 'public, max-age=31536000, immutable', vary: 'accept-encoding' });
  if (request.headers.get('if-none-match')?.split(/,\s*/).includes(tag)) return new Response(null, { status: 304, headers });
  const bytes = await world.tile(place);
  // The open sea: there is nothing to draw.
  if (!bytes) return new Response(null, { status: 204, headers });
  headers.set('content-type', 'application/x-protobuf');
  const takesPacked = /\bgzip\b/.test(request.headers.get('accept-encoding') ?? '');
  if (takesPacked) headers.set('content-encoding', 'gzip');
  return new Response(takesPacked ? bytes : gunzipSync(bytes), { headers });
};
