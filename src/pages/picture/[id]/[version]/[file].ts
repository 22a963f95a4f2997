/** A file of a picture: `wide-640.avif`. Under its present version its bytes never change, so it keeps for ever. */
import type { APIRoute } from 'astro';
import { MIME, readFileName } from '@/core/picture/picture-url';
import { isId } from '@/server/db/ids';
import { notFound } from '@/server/problem';
import { readFile } from '@/server/pictures/files';
import { readPicture } from '@/server/pictures/read';

export const GET: APIRoute = async ({ params, locals }) => {
  const name = readFileName(params.file ?? '');
  const picture = name && isId(params.id ?? '') ? await readPicture(locals.rt.db, params.id as string) : undefined;
  if (!name || !picture || !/^\d{1,9}$/.test(params.version ?? '')) throw notFound('picture');
  const bytes = await readFile(locals.rt, picture, name);
  // An older page may still ask for an older version: it gets what there is now, for a while.
  const present = Number(params.version) === picture.version;
  return new Response(Buffer.from(bytes), {
    headers: {
      'content-type': MIME[name.format],
      'cache-control': present ? 'public, max-age=31536000, immutable' : 'public, max-age=300',
    },
  });
};
