import type { APIRoute } from 'astro';
import { readersOf } from '@/components/reader';
import { sitemapIndex, sitemapPart, sitemapParts } from '@/server/public/sitemap';

/** All readers' pages: in one file, or, where a file may not hold so many, the list of files that do. */
export const GET: APIRoute = async ({ locals: { rt, settings } }) => {
  const languages = readersOf(settings).map(({ to }) => to);
  const parts = await sitemapParts(rt, languages);
  const body = parts > 1 ? sitemapIndex(rt, parts) : await sitemapPart(rt, languages, 0);
  return new Response(body, { headers: { 'content-type': 'application/xml' } });
};
