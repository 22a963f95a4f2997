/** Readers' pages for search engines (sitemaps.org 0.9): one file of at most 50,000 addresses, or several with a list of them. */
import { VIEW_NAMES, VIEWS } from '@/core/views/views';
import { escapeHtml } from '@/core/text/text';
import { type ContentSource, referenceData } from '../reference/read';
import { readSitemap } from './listing';

/** So many addresses stand in one file; the protocol allows 50,000. */
const MOST = 40_000;

/** What the files are made from. */
export interface SitemapSource extends ContentSource {
  siteUrl: () => string;
}

type Page = [path: string, changed?: Date];
/** A path of readers' pages as a language's address has it. */
type Write = (path: string) => string;

/** All pages without their language, in one order. */
function pages(rt: ContentSource): Promise<Page[]> {
  return rt.cache.ofReaders().of('sitemap', async () => {
    const [reference, listings] = await Promise.all([referenceData(rt), readSitemap(rt.db)]);
    return [
      ['/'],
      ...VIEW_NAMES.filter((name) => VIEWS[name].rolls).map((name): Page => [`/${name}`]),
      ['/at'],
      ['/by'],
      ['/tags'],
      ...listings.map((listing): Page => [`/what/${listing.slug}`, listing.changedAt]),
      ...reference.venues.map(({ slug }): Page => [`/at/${slug}`]),
      ...reference.organizers.map(({ slug }): Page => [`/by/${slug}`]),
    ];
  });
}

/** How many files there are. @param languages how each language writes a path @param most addresses in a file */
export async function sitemapParts(rt: SitemapSource, languages: readonly Write[], most = MOST): Promise<number> {
  return Math.max(1, Math.ceil(((await pages(rt)).length * languages.length) / most));
}

/** One of the files, from 0. */
export async function sitemapPart(rt: SitemapSource, languages: readonly Write[], part: number, most = MOST): Promise<string> {
  const all = await pages(rt);
  const lines = languages
    .flatMap((to) => all.map(([path, changed]): Page => [to(path), changed]))
    .slice(part * most, (part + 1) * most)
    .map(
      ([path, changed]) =>
        `<url><loc>${escapeHtml(rt.siteUrl() + path)}</loc>${changed ? `<lastmod>${changed.toISOString()}</lastmod>` : ''}</url>`,
    );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${lines.join('')}</urlset>`;
}

/** The list of the files. */
export function sitemapIndex(rt: Pick<SitemapSource, 'siteUrl'>, parts: number): string {
  const lines = Array.from(
    { length: parts },
    (_, i) => `<sitemap><loc>${escapeHtml(`${rt.siteUrl()}/sitemap/${i + 1}.xml`)}</loc></sitemap>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${lines.join('')}</sitemapindex>`;
}
