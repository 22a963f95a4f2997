import { beforeEach, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import type { Bounds, ChartFeature, ChartFeatureKind, StoredChart } from '@/core/geo/geo';
import { holds } from '@/core/geo/geo';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import { ContentCache } from './content-cache';
import { chartWithin } from './read';

const MIDDLE = { lat: 43.18, lng: -57.45 };
const around = (lat: number, lng: number): Bounds => ({ west: lng - 0.1, east: lng + 0.1, south: lat - 0.1, north: lat + 0.1 });
const line = (kind: ChartFeatureKind, lat: number, lng: number, wide: number): ChartFeature => ({
  type: 'Feature',
  properties: { kind },
  geometry: {
    type: 'LineString',
    coordinates: [
      [lng - wide, lat],
      [lng + wide, lat],
    ],
  },
});

describe('the chart of a small map', () => {
  let db: Db;
  let asked: { bounds: Bounds; named: boolean | undefined }[];
  beforeEach(async () => {
    db = await freshDb();
    asked = [];
  });
  const far = line('coast', 50, 10, 1);
  const within = async (stored: Omit<StoredChart, 'format'>, bounds: Bounds) => {
    await db.insert(setting).values({ key: 'chart', value: { format: 2, ...stored } });
    const sketch = async (part: Bounds, named?: boolean) => {
      asked.push({ bounds: part, named });
      return [far];
    };
    const rt = { db, cache: new ContentCache(() => '1'), world: { sketch }, settings: () => MIDDLE };
    return chartWithin(rt, { bounds, width: 270, height: 150 });
  };
  const own = (features: ChartFeature[]) => ({ own: { name: 'a', at: '', credit: '', bounds: around(43, -57), features } });
  const base = { bounds: around(43.18, -57.45), features: [line('coast', 43.2, -57.4, 2), line('coast', 41, -57.4, 2)] };

  it('is what lies in sight of the site’s own, cut at its edges', async () => {
    const chart = await within(base, around(43.18, -57.45));
    expect(asked).toEqual([]);
    expect(chart?.features.length).toBe(1);
    const [seen] = chart?.features ?? [];
    const [from, to] = seen?.geometry.type === 'LineString' ? seen.geometry.coordinates : [];
    // So wide is a drawing of this shape here, and a little beside it.
    expect(from?.[0]).toBeGreaterThan(-57.45 - 0.5);
    expect(from?.[0]).toBeLessThan(-57.45 - 0.2);
    expect(to?.[0]).toBeLessThan(-57.45 + 0.5);
  });

  it('is the world’s where it is farther away than that reaches; what the site drew there itself is over it', async () => {
    const drawing = line('path', 50, 10, 0.01);
    const chart = await within({ ...base, ...own([line('ferry', 43.2, -57.4, 1), drawing]) }, around(50, 10));
    expect(chart?.features).toEqual([drawing, far]);
    expect(asked.map(({ bounds, named }) => [holds(bounds, around(50, 10)), named])).toEqual([[true, true]]);
  });

  it('is a drawing that stands alone, whole', async () => {
    const land: ChartFeature = {
      type: 'Feature',
      properties: { kind: 'land' },
      geometry: {
        type: 'Polygon',
        coordinates: [
          [
            [0, 0],
            [1, 0],
            [1, 1],
            [0, 0],
          ],
        ],
      },
    };
    expect((await within({ ...base, ...own([land]) }, around(50, 10)))?.features).toEqual([land]);
    expect(asked).toEqual([]);
  });
});
