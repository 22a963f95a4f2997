import type { APIRoute } from 'astro';

/** What is nobody's reading. */
const HIDDEN = ['/desk', '/receipt', '/api', '/go'];

export const GET: APIRoute = ({ locals }) =>
  new Response(
    [
      'User-agent: *',
      ...HIDDEN.map((at) => ['Disallow:', (locals.plain ? '' : locals.rt.addresses.path) + at].join(' ')),
      ['Sitemap:', `${locals.rt.siteUrl()}/sitemap.xml`].join(' '),
      '',
    ].join('\n'),
    { headers: { 'content-type': 'text/plain' } },
  );
