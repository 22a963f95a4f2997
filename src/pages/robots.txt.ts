import type { APIRoute } from 'astro';

/** What is nobody's reading. */
const HIDDEN = ['/desk', '/receipt', '/api', '/go'];

export const GET: APIRoute = ({ locals }) =>
  new Response(
    `User-agent: *\n${HIDDEN.map((at) => `Disallow: ${locals.plain ? '' : locals.rt.addresses.path}${at}\n`).join('')}Sitemap: ${locals.rt.siteUrl()}/sitemap.xml\n`,
    { headers: { 'content-type': 'text/plain' } },
  );
