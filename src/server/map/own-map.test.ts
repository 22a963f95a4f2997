import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { EDITOR, freshDb } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { audit } from '../db/schema';
import { readChart, readStoredChart } from '../site/read';
import { addOwnMap, looksLikeJson, ownMapOf, removeOwnMap, showOwnMap } from './own-map';

const MIDDLE = { lat: 43.18, lng: -57.45 };
const AT = new Date('2027-03-17T12:00:00Z');
const COASTS = { bounds: { west: -58, south: 43, east: -57, north: 44 }, features: [] };
const folder = mkdtempSync(path.join(tmpdir(), 'alm-own-map-'));
afterAll(() => rmSync(folder, { recursive: true }));

let db: Db;
beforeEach(async () => {
  db = await freshDb();
});
const site = (middle = MIDDLE) => ({ db, world: { chartAround: async () => COASTS }, settings: () => middle });
const line = (lat: number, n = 2) => ({
  type: 'Feature',
  properties: { kind: 'path' },
  geometry: { type: 'LineString', coordinates: Array.from({ length: n }, (_, i) => [-57.45 + i * 1e-5, lat]) },
});
const add = (json: unknown, middle = MIDDLE) => {
  const file = path.join(folder, 'green.geojson');
  writeFileSync(file, typeof json === 'string' ? json : JSON.stringify(json));
  return addOwnMap(site(middle), { path: file, credit: '' }, EDITOR, AT);
};

describe('a drawing of the site’s own', () => {
  it('lies over the coasts; taken off it is kept, removed it is gone; each is noted', async () => {
    const features = [line(43.18), { type: 'Feature', properties: {}, geometry: null }];
    expect(await add({ type: 'FeatureCollection', features })).toMatchObject({
      name: 'green.geojson',
      alone: false,
      leftOut: 1,
      wrong: [{ n: 2, reason: 'it has no geometry' }],
    });
    expect((await readChart(db))?.features.length).toBe(1);
    expect((await readStoredChart(db))?.bounds).toEqual(COASTS.bounds);
    await showOwnMap(site(), false, EDITOR);
    expect([(await readChart(db))?.features, (await ownMapOf(db))?.off]).toEqual([[], true]);
    await showOwnMap(site(), true, EDITOR);
    expect((await readChart(db))?.features.length).toBe(1);
    expect([await removeOwnMap(site(), EDITOR), await ownMapOf(db), await removeOwnMap(site(), EDITOR)]).toEqual([
      'green.geojson',
      undefined,
      undefined,
    ]);
    expect(await db.$count(audit)).toBe(4);
    await expect(showOwnMap(site(), true, EDITOR)).rejects.toThrow('no drawing of its own');
  });
  it('that is none, is too large or of elsewhere is refused with what is wrong; the one before stays', async () => {
    await add(line(43.18));
    for (const [json, says, middle] of [
      ['{"type":', 'not whole JSON'],
      [{ a: 1 }, 'no GeoJSON with features'],
      [{ type: 'FeatureCollection', features: [] }, 'The file has no features.'],
      [{ type: 'FeatureCollection', features: [1, 2] }, 'None of its 2 features is drawn. The first: it is no GeoJSON feature.'],
      [line(43.18, 30_001), 'has 30,001 corners; at most 30,000'],
      [line(53), 'it begins 1,092 km from the site’s middle'],
      [line(43.18), 'The site has no middle yet', { lat: 0, lng: 0 }],
      ['x'.repeat(20_000_001), 'larger than 20 MB'],
    ] as const)
      await expect(add(json, middle)).rejects.toThrow(says);
    expect((await ownMapOf(db))?.features.length).toBe(1);
  });
  it('is told from an archive by how it begins', () => {
    expect([looksLikeJson('{"type"'), looksLikeJson('\uFEFF\n {'), looksLikeJson('PMTiles\u0003'), looksLikeJson('')]).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
});
