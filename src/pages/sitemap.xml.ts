import type { APIRoute } from 'astro';
import { readerOf } from '@/components/reader';
import type { Language } from '@/core/phrase/language';
import { VIEW_NAMES, VIEWS } from '@/core/views/views';
import { escapeHtml } from '@/core/text/text';
import { readSitemap } from '@/server/public/listing';
import { referenceData } from '@/server/reference/read';

export const GET: APIRoute = async ({ locals }) => {
  const { rt } = locals;
  const site = rt.siteUrl();
  const reference = await referenceData(rt);
  const line = (path: string, changed?: Date): string =>
    `<url><loc>${escapeHtml(site + path)}</loc>${changed ? `<lastmod>${changed.toISOString()}</lastmod>` : ''}</url>`;
  const listings = await readSitemap(rt.db);
  const paths: [string, Date?][] = [
    ['/'],
    ...VIEW_NAMES.filter((name) => VIEWS[name].rolls).map((name): [string] => [`/${name}`]),
    ...listings.map((l): [string, Date] => [`/what/${l.slug}`, l.changedAt]),
    ['/at'],
    ['/by'],
    ['/tags'],
    ...reference.venues.map((v): [string] => [`/at/${v.slug}`]),
    ...reference.organizers.map((o): [string] => [`/by/${o.slug}`]),
  ];
  const { secondLanguage } = locals.settings;
  const languages: Language[] = secondLanguage ? ['en', secondLanguage] : ['en'];
  const lines = languages.flatMap((language) => paths.map(([path, changed]) => line(readerOf(language).to(path), changed)));
  const body = `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${lines.join('')}</urlset>`;
  return new Response(body, { headers: { 'content-type': 'application/xml' } });
};
