/** What is no page: the site's manifest, its map and its feeds as files of a copy, and what scripts and styles name. */

const ASSETS = '/_astro/';

/** Files that a script or a style sheet in the assets' folder names from where it lies, as the site's addresses. */
export function assetsIn(text: string): string[] {
  const names = [...text.matchAll(/(?:["'(]\.\/|new URL\(["'])([\w.@-]+\.(?:js|mjs|css|woff2))["')]/g)].map(
    ([, name]) => `${ASSETS}${name}`,
  );
  return [...new Set(names)];
}

/** JSON whose addresses of the site, which begin with a slash, lead where `link` says; those that lead nowhere stay. */
export function rewriteJson(json: string, link: (address: string) => string | undefined): string {
  const value = JSON.parse(json, (_, one: unknown) => (typeof one === 'string' && /^\/(?!\/)/.test(one) ? (link(one) ?? one) : one));
  return JSON.stringify(value, null, 2);
}

const unescaped = (text: string): string => text.replaceAll('&amp;', '&').replaceAll('&#38;', '&');

/** A site's map with the copy's addresses: whoever has none in the copy goes. @returns the site's addresses that it named, too */
export function rewriteSitemap(
  xml: string,
  site: string,
  whole: (address: string) => string | undefined,
): { xml: string; addresses: string[] } {
  const addresses: string[] = [];
  const kept = xml.replace(/<(url|sitemap)><loc>([^<]*)<\/loc>(.*?)<\/\1>/gs, (_, name: string, loc: string, rest: string) => {
    const address = unescaped(loc).slice(site.length) || '/';
    addresses.push(address);
    const to = whole(address);
    return to === undefined ? '' : `<${name}><loc>${to.replaceAll('&', '&amp;')}</loc>${rest}</${name}>`;
  });
  return { xml: kept, addresses };
}

/** A feed or table whose links to events lead to the copy's pages, a date without one to its listing. */
export function rewriteFeed(text: string, site: string, whole: (address: string) => string | undefined): string {
  const parts = text.split(site);
  return parts.reduce((all, part) => {
    const [address] = /^(\/[a-z]{2})?\/what\/[\w/-]+/.exec(part) ?? [];
    const to = address === undefined ? undefined : whole(address);
    return all + (address === undefined || to === undefined ? site + part : to + part.slice(address.length));
  });
}

/** Pictures of the site that a feed or a card names by whole addresses. Lines that a calendar file folds (RFC 5545 3.1) are read as one. */
export function picturesIn(text: string, site: string): string[] {
  const unfolded = text.replace(/\r?\n[ \t]/g, '');
  const names = unfolded.split(`${site}/picture/`).slice(1);
  return [...new Set(names.flatMap((rest) => /^[\w/.-]+\.(jpg|jpeg|png|webp|avif|gif)/.exec(rest)?.[0] ?? []))].map(
    (rest) => `/picture/${rest}`,
  );
}
