/** A whole picture about so many pixels wide, in whatever version there is: what stands in texts, and addresses that others kept. */
import type { APIRoute } from 'astro';
import { MIME } from '@/core/picture/picture-url';
import { isId } from '@/server/db/ids';
import { isKept } from '@/server/http/etag';
import { notFound } from '@/server/problem';
import { readFile } from '@/server/pictures/files';
import { readPicture } from '@/server/pictures/read';

export const GET: APIRoute = async ({ params, request, locals }) => {
  const width = Number(params.width);
  if (!isId(params.id ?? '') || !Number.isInteger(width) || width < 1 || width > 10_000) throw notFound('picture');
  const picture = await readPicture(locals.rt.db, params.id as string);
  if (!picture) throw notFound('picture');
  const headers = { etag: `"${picture.version}.${width}"`, 'cache-control': 'public, max-age=300' };
  if (isKept(request.headers.get('if-none-match'), headers.etag)) return new Response(null, { status: 304, headers });
  const bytes = await readFile(locals.rt, picture, { use: 'whole', width, format: 'webp' });
  return new Response(Buffer.from(bytes), { headers: { ...headers, 'content-type': MIME.webp } });
};
