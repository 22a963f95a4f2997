import type { APIRoute } from 'astro';
import { sitemapPart, sitemapParts } from '@/server/public/sitemap';

/** One of several files of readers' pages, from 1. */
export const GET: APIRoute = async ({ locals: { rt, settings }, params, rewrite }) => {
  const part = Number(params.part);
  if (!Number.isInteger(part) || part < 1 || part > (await sitemapParts(rt, settings))) return rewrite('/404');
  return new Response(await sitemapPart(rt, settings, part - 1), { headers: { 'content-type': 'application/xml' } });
};
