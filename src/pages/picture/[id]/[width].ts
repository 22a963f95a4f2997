/** A picture in the smallest kept width that is at least the one asked for. Its bytes never change, so it keeps for ever. */
import type { APIRoute } from 'astro';
import { asc, eq, sql } from 'drizzle-orm';
import { isId } from '@/server/db/ids';
import { pictureFile } from '@/server/db/schema';
import { notFound } from '@/server/http/problem';

export const GET: APIRoute = async ({ params, locals }) => {
  const width = Number(params.width);
  if (!isId(params.id ?? '') || !Number.isInteger(width) || width < 1 || width > 10_000) throw notFound('picture');
  const [file] = await locals.rt.db
    .select({ bytes: pictureFile.bytes })
    .from(pictureFile)
    .where(eq(pictureFile.pictureId, params.id as string))
    .orderBy(sql`${pictureFile.width} < ${width}`, asc(sql`abs(${pictureFile.width} - ${width})`))
    .limit(1);
  if (!file) throw notFound('picture');
  return new Response(Buffer.from(file.bytes), {
    headers: { 'content-type': 'image/webp', 'cache-control': 'public, max-age=31536000, immutable' },
  });
};
