import { VectorTile } from '@mapbox/vector-tile';
import { PbfReader } from 'pbf';
import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { baseTile, coarsenessOf, isBaseTile, tileBounds } from './base-tiles';
import { SQUARE } from '../../../tests/support/invented-world';
import { shapesOf } from './cut-chart';
import { BASE_ZOOM, type Bounds } from './geo';
import { ringsOfLakes } from './lakes';
import type { Town } from './towns';

/** One of a square degree. */
const lakes = ringsOfLakes({ format: 1, lakes: [[[7000, 7000, 1000, 0, 0, 1000, -1000, 0, 0, -1000]]] });
const world = shapesOf(SQUARE, lakes);
const towns: Town[] = [
  { name: 'Gannet Bay', region: '', country: 'XX', population: 5_000_000, lat: 4, lng: 2 },
  { name: 'Port Amble', region: '', country: 'XX', population: 900, lat: 4.2, lng: 2.2 },
];
const within = ({ west, south, east, north }: Bounds, most: number): Town[] =>
  towns.filter(({ lat, lng }) => lng >= west && lng <= east && lat >= south && lat <= north).slice(0, most);
const layersOf = (place: { z: number; x: number; y: number }) => {
  const bytes = baseTile(world, within, place);
  return bytes ? new VectorTile(new PbfReader(bytes)).layers : {};
};
const placeOf = (lng: number, lat: number, z: number) => {
  const side = 2 ** z;
  const row = ((1 - Math.asinh(Math.tan((lat * Math.PI) / 180)) / Math.PI) / 2) * side;
  return { z, x: Math.floor(((lng + 180) / 360) * side), y: Math.floor(row) };
};

/** The area of rings in a tile's units. */
function areaOf(rings: { x: number; y: number }[][]): number {
  const twice = (ring: { x: number; y: number }[]): number =>
    ring.reduce((sum, { x, y }, i) => {
      const next = ring[(i + 1) % ring.length] ?? { x, y };
      return sum + x * next.y - next.x * y;
    }, 0);
  return Math.abs(rings.reduce((sum, ring) => sum + twice(ring), 0)) / 2;
}

describe('tiles of the world', () => {
  it('are of the part of the earth that their place says', () => {
    expect(tileBounds({ z: 0, x: 0, y: 0 })).toMatchObject({ west: -180, east: 180 });
    expect(tileBounds({ z: 0, x: 0, y: 0 }).north).toBeCloseTo(85.0511, 3);
    const next = random(seedOf());
    for (let round = 0; round < 200; round++) {
      const [lng, lat, z] = [between(next, -179, 179), between(next, -80, 80), Math.floor(between(next, 0, BASE_ZOOM))];
      const { west, south, east, north } = tileBounds(placeOf(lng, lat, z));
      expect(west <= lng && lng <= east && south <= lat && lat <= north, `${lng} ${lat} ${z}`).toBe(true);
    }
  });

  it('are there from the whole earth to the deepest zoom, and nowhere else', () => {
    expect(
      [
        { z: 0, x: 0, y: 0 },
        { z: 8, x: 255, y: 255 },
      ].map(isBaseTile),
    ).toEqual([true, true]);
    for (const place of [
      { z: 9, x: 0, y: 0 },
      { z: 1, x: 2, y: 0 },
      { z: 1, x: 0, y: -1 },
      { z: 1.5, x: 0, y: 0 },
      { z: Number.NaN, x: 0, y: 0 },
    ])
      expect(isBaseTile(place)).toBe(false);
    expect([0, 2, 3, 4, 5, 8].map(coarsenessOf)).toEqual(['far', 'far', 'middle', 'middle', 'near', 'near']);
  });

  it('have land, its coast, lakes with their shores, and nothing on the open sea', () => {
    const inland = layersOf(placeOf(2.5, 7.5, 8));
    expect(Object.keys(inland)).toEqual(['land']);
    expect(Object.keys(layersOf(placeOf(7.5, 7.5, 8))).sort()).toEqual(['coast', 'lake', 'land']);
    expect(Object.keys(layersOf(placeOf(9.9, 9.9, 8))).sort()).toEqual(['coast', 'land']);
    expect(baseTile(world, within, placeOf(-40, 20, 8))).toBeUndefined();
    // Inside of the land there is no edge: the tile is filled to its sides and beyond.
    const [land] = [inland.land?.feature(0).loadGeometry() ?? []];
    expect(areaOf(land)).toBeGreaterThanOrEqual(4096 ** 2);
  });

  it('together have the lake as large as it is', () => {
    const z = 7;
    const [from, to] = [placeOf(7, 8, z), placeOf(8, 7, z)];
    let area = 0;
    for (let x = from.x; x <= to.x; x++)
      for (let y = from.y; y <= to.y; y++) {
        const layer = layersOf({ z, x, y }).lake;
        for (let i = 0; i < (layer?.length ?? 0); i++) {
          const rings = layer?.feature(i).loadGeometry() ?? [];
          // What lies beside the tile is drawn by the next one, too.
          area += areaOf(
            rings.map((ring) => ring.map((p) => ({ x: Math.min(4096, Math.max(0, p.x)), y: Math.min(4096, Math.max(0, p.y)) }))),
          );
        }
      }
    const side = ((2 ** z * 4096) / 360) * 1;
    expect(area / (side * side)).toBeCloseTo(1, 1);
  });

  it('name towns by how many people they have, more of them from nearer', () => {
    const names = (z: number): string[] => {
      const layer = layersOf(placeOf(2, 4, z)).name;
      return Array.from({ length: layer?.length ?? 0 }, (_, i) => String(layer?.feature(i).properties.name));
    };
    expect(names(0)).toEqual(['Gannet Bay']);
    expect(names(4)).toEqual(['Gannet Bay']);
    expect(names(8)).toEqual(['Gannet Bay', 'Port Amble']);
  });
});
