import { DEFAULT_SETTINGS } from '@/server/site/settings';
import { beforeAll, describe, expect, it } from 'vitest';
import { change, choir, freshDb, inTx, seedPlaces } from '../../../tests/support/db';
import { createListing, publishListing } from '../listings/write';
import { ContentCache } from '../site/content-cache';
import { type SitemapSource, sitemapIndex, sitemapPart, sitemapParts } from './sitemap';

let rt: SitemapSource;

beforeAll(async () => {
  const db = await freshDb();
  const places = await seedPlaces(db);
  for (let i = 0; i < 7; i++) {
    const row = await inTx(db, (tx) => createListing(tx, choir(places, { title: `Rope & Tea ${i}` }), change()));
    if (i) await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
  }
  rt = { db, cache: new ContentCache(() => '1'), siteUrl: () => 'https://isles.example', settings: () => DEFAULT_SETTINGS };
});

const english = (path: string): string => path;
const french = (path: string): string => (path === '/' ? '/fr' : `/fr${path}`);
const addresses = (xml: string): string[] => [...xml.matchAll(/<loc>([^<]*)<\/loc>/g)].map(([, address]) => address ?? '');

describe('pages for search engines', () => {
  it.each(['', 'fr'] as const)('in several files are those of one, each once (second language: “%s”)', async (secondLanguage) => {
    const writers = secondLanguage ? [english, french] : [english];
    const whole = addresses(await sitemapPart(rt, writers, 0));
    expect(await sitemapParts(rt, writers)).toBe(1);
    expect(new Set(whole).size).toBe(whole.length);
    expect(whole.filter((address) => address.includes('/what/rope-tea'))).toHaveLength(secondLanguage ? 12 : 6);
    expect(whole).toContain('https://isles.example/at');
    expect(whole.includes('https://isles.example/fr')).toBe(secondLanguage === 'fr');
    const parts = await sitemapParts(rt, writers, 4);
    expect(parts).toBe(Math.ceil(whole.length / 4));
    const all: string[] = [];
    for (let part = 0; part < parts; part++) all.push(...addresses(await sitemapPart(rt, writers, part, 4)));
    expect(all).toEqual(whole);
    expect(addresses(sitemapIndex(rt, parts))).toEqual(
      Array.from({ length: parts }, (_, i) => `https://isles.example/sitemap/${i + 1}.xml`),
    );
  });
});
