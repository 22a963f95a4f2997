import type { APIRoute } from 'astro';
import { sitemapIndex, sitemapPart, sitemapParts } from '@/server/public/sitemap';

/** All readers' pages: in one file, or, where a file may not hold so many, the list of files that do. */
export const GET: APIRoute = async ({ locals: { rt, settings } }) => {
  const parts = await sitemapParts(rt, settings);
  const body = parts > 1 ? sitemapIndex(rt, parts) : await sitemapPart(rt, settings, 0);
  return new Response(body, { headers: { 'content-type': 'application/xml' } });
};
