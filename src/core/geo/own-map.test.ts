import { describe, expect, it } from 'vitest';
import { type ChartFeature, drawnChart, type StoredChart, upgradeChart } from './geo';
import { ownKindOf, readOwnMap } from './own-map';

const RING = [
  [-57.5, 43.1],
  [-57.4, 43.1],
  [-57.4, 43.2],
  [-57.5, 43.1],
];
const feature = (properties: object | null, type: string, coordinates: unknown): object => ({
  type: 'Feature',
  properties,
  geometry: { type, coordinates },
});
const collection = (...features: unknown[]) => ({ type: 'FeatureCollection', features });
const drawnAs = (file: ReturnType<typeof readOwnMap>): string[] =>
  (file?.features ?? []).map(({ properties: { kind, name }, geometry }) => `${kind} ${geometry.type}${name ? ` ${name}` : ''}`);

describe('what a feature is', () => {
  it('says itself, or its tags say it as open map data has them', () => {
    for (const [properties, kind] of [
      [{ kind: 'land' }, 'land'],
      [{ kind: 'Causeway' }, 'causeway'],
      [{ kind: 'park' }, 'green'],
      [{ kind: 'minor_road' }, 'minor'],
      [{ leisure: 'garden' }, 'green'],
      [{ natural: 'water' }, 'water'],
      [{ natural: 'coastline' }, 'coast'],
      [{ highway: 'footway' }, 'path'],
      [{ highway: 'primary' }, 'major'],
      [{ waterway: 'stream' }, 'water'],
      [{ railway: 'rail' }, 'rail'],
      [{ building: 'yes' }, 'building'],
      [{ building: 'no' }, undefined],
      [{ route: 'ferry' }, 'ferry'],
      [{ place: 'islet' }, 'land'],
      [{ colour: 'red' }, undefined],
      [{ kind: 7, highway: ['path'] }, undefined],
    ] as const)
      expect([properties, ownKindOf(properties)]).toEqual([properties, kind]);
  });
});

describe('a drawing', () => {
  it('has surfaces, lines and names; a surface’s name stands in its middle', () => {
    const file = readOwnMap(
      collection(
        feature({ leisure: 'park', name: 'Beacon Green' }, 'Polygon', [RING]),
        feature({ highway: 'path' }, 'LineString', RING),
        feature({ name: 'Bandstand' }, 'Point', [-57.45, 43.15]),
        feature({ kind: 'name', name: 'The Sound', water: true }, 'Point', [-57.3, 43.15]),
      ),
    );
    expect(drawnAs(file)).toEqual([
      'green Polygon',
      'name Point Beacon Green',
      'path LineString',
      'name Point Bandstand',
      'name Point The Sound',
    ]);
    expect(file?.features[1]).toMatchObject({ properties: { rank: 0, own: true }, geometry: { coordinates: [-57.45, 43.15] } });
    // A name that is nothing else always stands.
    expect(file?.features[4]?.properties).toEqual({ kind: 'name', name: 'The Sound', water: true });
    expect(file).toMatchObject({ plain: 0, wrong: [], bounds: { west: -57.5, south: 43.1, east: -57.3, north: 43.2 }, points: 11 });
  });
  it('of many parts is drawn part by part; what says nothing is an area or a path, and counted', () => {
    const file = readOwnMap(
      collection(
        feature(null, 'MultiPolygon', [[RING], [RING]]),
        feature({}, 'MultiLineString', [RING, RING]),
        {
          type: 'Feature',
          properties: { building: 'yes' },
          geometry: { type: 'GeometryCollection', geometries: [{ type: 'Polygon', coordinates: [RING] }] },
        },
        // A way that goes around a square is no surface.
        feature({ highway: 'pedestrian' }, 'Polygon', [RING]),
      ),
    );
    expect(drawnAs(file)).toEqual([
      'area Polygon',
      'area Polygon',
      'path LineString',
      'path LineString',
      'building Polygon',
      'path LineString',
    ]);
    expect([file?.plain, file?.counts]).toEqual([2, { area: 2, path: 3, building: 1 }]);
  });
  it('names what it cannot draw, and draws the rest', () => {
    const file = readOwnMap(
      collection(
        feature({ kind: 'path' }, 'LineString', [
          [-57.5, 43.1],
          [-57.4, 143.1],
        ]),
        feature({}, 'Point', [-57.4, 43.1]),
        { type: 'Feature', properties: { name: 'Nowhere' }, geometry: null },
        'Rope Walk',
        feature({ kind: 'path' }, 'LineString', [[-57.5, 43.1]]),
        feature({ kind: 'land' }, 'Polygon', [[[0, 0]]]),
        feature({ kind: 'land' }, 'Polygon', 'all of it'),
        feature({ kind: 'land' }, 'Circle', [1, 1]),
        feature({ kind: 'ferry' }, 'LineString', RING),
      ),
    );
    expect(file?.wrong).toEqual([
      { n: 1, problem: 'not-degrees' },
      { n: 2, problem: 'no-name' },
      { n: 3, problem: 'no-geometry' },
      { n: 4, problem: 'no-feature' },
      { n: 5, problem: 'not-degrees' },
      { n: 6, problem: 'not-degrees' },
      { n: 7, problem: 'not-degrees' },
      { n: 8, problem: 'not-degrees' },
    ]);
    expect(drawnAs(file)).toEqual(['ferry LineString']);
  });
  it('may say which part is shown, and whose work it is; anything else is none', () => {
    const path = feature({ kind: 'path' }, 'LineString', RING);
    const file = readOwnMap({ ...collection(path), bbox: [-58, 43, -57, 44], attribution: 'Isles Survey' });
    expect(file).toMatchObject({ bounds: { west: -58, south: 43, east: -57, north: 44 }, credit: 'Isles Survey' });
    expect(readOwnMap({ ...collection(path), bbox: [1, 2, 3] })?.bounds).toMatchObject({ west: -57.5 });
    expect(readOwnMap(path)?.features.length).toBe(1);
    expect([readOwnMap(collection())?.bounds, readOwnMap({ a: 1 }), readOwnMap(null), readOwnMap([])]).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
  });
});

describe('what is kept of a map', () => {
  const bounds = { west: 0, south: 0, east: 1, north: 1 };
  const one = (kind: ChartFeature['properties']['kind']): ChartFeature => ({
    type: 'Feature',
    properties: { kind },
    geometry: { type: 'LineString', coordinates: [[0, 0]] },
  });
  const [coast, path, land] = [one('coast'), one('path'), one('land')];
  const own = { name: 'a', at: '', credit: 'Isles Survey', bounds: { ...bounds, east: 2 }, features: [path] };
  const kept: StoredChart = { format: 2, bounds, features: [coast], own };
  it('is drawn over the coasts, or in their place where it has land; off the map it is kept', () => {
    expect(drawnChart(kept)).toEqual({ bounds, features: [path, coast], own: 1, credit: 'Isles Survey' });
    expect(drawnChart({ ...kept, own: { ...own, features: [land] } })).toEqual({
      bounds: own.bounds,
      features: [land],
      alone: true,
      credit: 'Isles Survey',
    });
    expect(drawnChart({ ...kept, own: { ...own, off: true } })).toEqual({ bounds, features: [coast] });
  });
  it('was one or the other before', () => {
    expect(upgradeChart({ format: 1, source: 'base', bounds, features: [coast] })).toEqual({ format: 2, bounds, features: [coast] });
    expect(drawnChart(upgradeChart({ format: 1, bounds, features: [land] }))).toEqual({ bounds, features: [land], alone: true });
    expect(upgradeChart(kept)).toBe(kept);
  });
});
