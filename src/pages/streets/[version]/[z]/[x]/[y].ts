/** A tile of the street map as its archive has it. Its address carries the archive's version, so that it keeps for ever. */
import { gunzipSync } from 'node:zlib';
import type { APIRoute } from 'astro';
import { explain } from '@/server/explain';
import { problemResponse } from '@/server/http/problem';
import { tilePlace } from '@/server/http/tile-place';
import { notFound } from '@/server/problem';

const MOST_ZOOM = 22;

export const GET: APIRoute = async ({ params, locals, request, url }) => {
  const { z, x, y } = tilePlace(params);
  const version = params.version ?? '';
  const there = z <= MOST_ZOOM && x < 2 ** z && y < 2 ** z && /^[0-9a-f]{16}$/.test(version);
  const found = there ? await locals.rt.streets.tile(version, { z, x, y }) : undefined;
  if (found === undefined && !(there && (await locals.rt.streets.current())?.version === version))
    return problemResponse(explain(notFound(url.pathname)));
  const tag = `"${version}-${z}-${x}-${y}"`;
  const headers = new Headers({ etag: tag, 'cache-control': 'public, max-age=31536000, immutable', vary: 'accept-encoding' });
  if (request.headers.get('if-none-match')?.split(/,\s*/).includes(tag)) return new Response(null, { status: 304, headers });
  // The sea, or what lies beyond the archive's edges: there is nothing to draw.
  if (!found) return new Response(null, { status: 204, headers });
  headers.set('content-type', 'application/x-protobuf');
  const takesPacked = /\bgzip\b/.test(request.headers.get('accept-encoding') ?? '');
  if (found.packed && takesPacked) headers.set('content-encoding', 'gzip');
  return new Response((found.packed && !takesPacked ? gunzipSync(found.bytes) : found.bytes) as BodyInit, { headers });
};
