import type { APIRoute } from 'astro';

export const GET: APIRoute = ({ locals }) =>
  new Response(
    `User-agent: *\nDisallow: /desk\nDisallow: /receipt\nDisallow: /api\nDisallow: /go\nSitemap: ${locals.rt.siteUrl()}/sitemap.xml\n`,
    { headers: { 'content-type': 'text/plain' } },
  );
