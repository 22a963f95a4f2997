import { NO_FILTERS } from '@/core/filters/filters';
import { JSDOM } from 'jsdom';
import Papa from 'papaparse';
import { beforeEach, describe, expect, it } from 'vitest';
import { change, choir, freshDb, inTx, NOW, type Places, seedPlaces } from '../../../tests/support/db';
import { siteOf } from '../../../tests/support/site';
import type { Db } from '../db/client';
import { venue } from '../db/schema';
import { createListing, publishListing, saveListing } from '../listings/write';
import { readersDates } from './readers-dates';
import { csvOf, FEED_KINDS, type FeedKind, geoJson, newsFeed, plainDates, spanAsked } from './syndication';

const reader = { language: 'en' as const, to: (path: string) => path, title: 'Isles & more <all>', query: '?kind=music' };

interface Entry {
  id: string;
  title: string;
  link: string;
}

describe('a view for other programs', () => {
  let db: Db;
  let places: Places;
  let id = '';
  beforeEach(async () => {
    db = await freshDb();
    places = await seedPlaces(db);
    const row = await inTx(db, (tx) =>
      createListing(
        tx,
        choir(places, { title: 'Tea & <song>', summary: '=1+1 voices ]]> & tea', cost: { kind: 'words', words: '=1+1' } }),
        change(),
      ),
    );
    id = row.id;
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    await inTx(db, (tx) => createListing(tx, choir(places, { title: 'A draft' }), change()));
  });
  const shown = () => readersDates(siteOf(db), NO_FILTERS);
  const feed = async (kind: FeedKind): Promise<string> => newsFeed(siteOf(db), await shown(), kind, reader);
  const entries = async (kind: FeedKind): Promise<Entry[]> => {
    const text = await feed(kind);
    if (kind === 'json')
      return (JSON.parse(text) as { items: { id: string; title: string; url: string }[] }).items.map(({ id, title, url }) => ({
        id,
        title,
        link: url,
      }));
    const { document } = new JSDOM(text, { contentType: 'text/xml' }).window;
    expect(document.querySelector('parsererror'), text).toBeNull();
    return [...document.querySelectorAll(kind === 'rss' ? 'item' : 'entry')].map((one) => ({
      id: one.querySelector(kind === 'rss' ? 'guid' : 'id')?.textContent ?? '',
      title: one.querySelector('title')?.textContent ?? '',
      link: (kind === 'rss' ? one.querySelector('link')?.textContent : one.querySelector('link')?.getAttribute('href')) ?? '',
    }));
  };

  it.each(Object.keys(FEED_KINDS) as FeedKind[])(
    '%s: what is published, whatever its words, under an identifier that editing never changes',
    async (kind) => {
      const before = await entries(kind);
      expect(before).toEqual([
        { id: `urn:uuid:${id}`, title: 'Tea & <song>', link: expect.stringMatching(/^https:\/\/almanac\.example\/what\/tea-song/) },
      ]);
      const text = await feed(kind);
      expect(text).toContain(kind === 'json' ? 'Isles & more <all>' : 'Isles &amp; more &lt;all&gt;');
      // The same again while nothing changes, to the byte: whoever asks every hour gets "not modified".
      expect(await feed(kind)).toBe(text);
      await inTx(db, (tx) => saveListing(tx, { id, content: choir(places, { title: 'Song and tea' }), revision: 2 }, change()));
      await inTx(db, (tx) => publishListing(tx, id, 3, change()));
      expect((await entries(kind)).map((entry) => [entry.id, entry.title])).toEqual([[`urn:uuid:${id}`, 'Song and tea']]);
    },
  );

  it('as GeoJSON and a table: each date with its place and moments, and what a spreadsheet takes for a formula is text', async () => {
    const found = await plainDates(siteOf(db), await shown(), { from: NOW.day, to: NOW.day + 365 }, reader);
    expect([found.dates.length, found.later]).toEqual([10, undefined]);
    const { features } = JSON.parse(geoJson(found)) as {
      features: { id: string; geometry: unknown; properties: Record<string, string> }[];
    };
    expect(new Set(features.map((feature) => feature.id)).size).toBe(10);
    expect(features[0]?.geometry).toEqual({ type: 'Point', coordinates: [-57.4, 43.12] });
    expect(features[0]?.properties.start).toMatch(/^2027-\d\d-\d\dT\d\d:00:00-0[34]:00$/);
    const rows = Papa.parse<Record<string, string>>(csvOf(found).trim(), { header: true }).data;
    expect(rows.map((row) => row.Title)).toEqual(Array.from({ length: 10 }, () => 'Tea & <song>'));
    expect([rows[0]?.Cost, rows[0]?.Venue, rows[0]?.['Time zone']]).toEqual(["'=1+1", 'Net Loft', 'America/Halifax']);
    expect(rows.map((row) => `${row['Start date']}T${row['Start time']}`)).toEqual(
      features.map((feature) => feature.properties.start?.slice(0, 16)),
    );
  });

  it('leads to no point of a venue that is said by its area', async () => {
    await db.update(venue).set({ areaOnly: true });
    const found = await plainDates(siteOf(db), await shown(), { from: NOW.day, to: NOW.day + 30 }, reader);
    const { features } = JSON.parse(geoJson(found)) as { features: { geometry: unknown }[] };
    expect(features.every(({ geometry }) => geometry === null)).toBe(true);
  });

  it('covers the days that are asked for, three months where none are, a year at most', () => {
    const span = (query: string) => spanAsked(new URLSearchParams(query), NOW.day);
    expect(span('')).toEqual({ from: NOW.day, to: NOW.day + 92 });
    expect(span('from=2027-03-20&to=2027-03-21')).toEqual({ from: NOW.day + 3, to: NOW.day + 4 });
    expect(span('from=2027-03-20&to=2099-01-01')).toEqual({ from: NOW.day + 3, to: NOW.day + 3 + 366 });
    expect(span('from=2027-03-20&to=1999-01-01')).toEqual({ from: NOW.day + 3, to: NOW.day + 3 });
    expect(span('from=nonsense')).toEqual({ from: NOW.day, to: NOW.day + 92 });
  });
});
