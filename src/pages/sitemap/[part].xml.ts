import type { APIRoute } from 'astro';
import { readersOf } from '@/components/reader';
import { sitemapPart, sitemapParts } from '@/server/public/sitemap';

/** One of several files of readers' pages, from 1. */
export const GET: APIRoute = async ({ locals: { rt, settings }, params, rewrite }) => {
  const languages = readersOf(settings).map(({ to }) => to);
  const part = Number(params.part);
  if (!Number.isInteger(part) || part < 1 || part > (await sitemapParts(rt, languages))) return rewrite('/404');
  return new Response(await sitemapPart(rt, languages, part - 1), { headers: { 'content-type': 'application/xml' } });
};
