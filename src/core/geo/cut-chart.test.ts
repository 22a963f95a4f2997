import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { SQUARE } from '../../../tests/support/invented-world';
import { type Ring, within } from '../../../tests/support/rings';
import { chartAround, clipped, featuresWithin, partAround, reachOf, shapesOf, type World } from './cut-chart';
import { type ChartFeature, turnedLng } from './geo';
import type { Town, TownTable } from './towns';

const landOf = (features: readonly ChartFeature[]): Ring[] =>
  features.flatMap(({ properties, geometry }) => (properties.kind === 'land' && geometry.type === 'Polygon' ? geometry.coordinates : []));

describe('a chart cut from the world', () => {
  const square = shapesOf(SQUARE);
  const lines = (features: readonly ChartFeature[], kind: string): Ring[] =>
    features.flatMap(({ properties, geometry }) =>
      properties.kind === kind && geometry.type === 'LineString' ? [geometry.coordinates] : [],
    );

  it('has land to its edges, and a coast only where there is one', () => {
    const features = featuresWithin(square, { west: 2, south: -2, east: 3, north: 2 });
    expect([...new Set(landOf(features).flat().map(String))].sort()).toEqual(['2,0', '2,2', '3,0', '3,2']);
    expect(lines(features, 'coast')).toEqual([
      [
        [2, 0],
        [3, 0],
      ],
    ]);
  });
  it('goes on over the date line, from either side', () => {
    for (const bounds of [
      { west: 179, south: 41, east: 181, north: 43 },
      { west: -181, south: 41, east: -179, north: 43 },
    ]) {
      const rings = landOf(featuresWithin(square, bounds));
      const middle = (bounds.west + bounds.east) / 2;
      for (const lng of [middle - 0.9, middle - 0.1, middle + 0.1, middle + 0.9]) expect(within([lng, 42], rings), `${lng}`).toBe(true);
    }
  });
  it('leaves lakes open, and draws borders beside coasts', () => {
    const rings = landOf(featuresWithin(square, { west: 3, south: 3, east: 7, north: 7 }));
    expect(within([5, 5], rings)).toBe(false);
    expect(within([3.5, 5], rings)).toBe(true);
    expect(lines(featuresWithin(square, { west: 3, south: 3, east: 7, north: 7 }), 'border').length).toBeGreaterThan(0);
  });
  it('names the towns around, the largest first, and no others', () => {
    const town = (name: string, lat: number, lng: number): Town => ({ name, lat, lng, region: '', country: 'CA', population: 9 });
    const chart = chartAround(square, { lat: 5, lng: 5 }, [town('Port Amble', 5, 5), town('Outer Skerry', 5.2, 5.1), town('Far', 40, 40)]);
    const names = chart.features.flatMap(({ properties: { kind, name, rank } }) => (kind === 'name' ? [[name, rank]] : []));
    expect(names).toEqual([
      ['Port Amble', 0],
      ['Outer Skerry', 1],
    ]);
    expect(chart.alone).toBeUndefined();
    expect(within([5, 9], landOf(chart.features))).toBe(false);
  });
  it('never leaves the earth, however near to a pole', () => {
    for (const lat of [-90, -84.9, 0, 84.9, 90]) {
      const { south, north, west, east } = partAround({ lat, lng: 179.9 });
      expect([south >= -85, north <= 85, west < east, east - west <= 24]).toEqual([true, true, true, true]);
    }
  });

  it(`is land where the world is, seed ${seedOf()}`, () => {
    const world = shapesOf(JSON.parse(readFileSync('world/coasts.json', 'utf8')) as World);
    const whole = world.land.flatMap(({ bounds, rings }) => [{ bounds, rings: rings as Ring[] }]);
    const isLand = ([x, y]: [number, number]): boolean =>
      [x, x + 360, x - 360].some((lng) =>
        whole.some(({ bounds: b, rings }) => lng >= b.west && lng <= b.east && y >= b.south && y <= b.north && within([lng, y], rings)),
      );
    const r = random(seedOf());
    const seen = { land: 0, sea: 0, wrong: 0 };
    for (let round = 0; round < 25; round++) {
      // Beside a coast, where there is something to get wrong.
      const shape = world.coasts[between(r, 0, world.coasts.length - 1)];
      const [lng, lat] = shape?.line[between(r, 0, shape.line.length - 1)] ?? [0, 0];
      if (Math.abs(lat) > 80) continue;
      const reach = reachOf({ lat, lng });
      const rings = landOf(featuresWithin(world, reach));
      for (let i = 0; i < 40; i++) {
        const at: [number, number] = [reach.west + r() * (reach.east - reach.west), reach.south + r() * (reach.north - reach.south)];
        const turned: [number, number] = [turnedLng(at[0]), at[1]];
        const land = isLand(turned);
        seen[land ? 'land' : 'sea']++;
        if (within(at, rings) !== land) seen.wrong++;
      }
    }
    // A point within ten metres of a coast may be rounded to its other side.
    expect(seen.wrong).toBeLessThanOrEqual(1);
    expect(Math.min(seen.land, seen.sea)).toBeGreaterThan(50);
  });
  it(`cut smaller has the same land as one that is cut small, seed ${seedOf()}`, () => {
    const r = random(seedOf() + 2);
    const whole = featuresWithin(square, { west: -2, south: -2, east: 12, north: 12 });
    for (let round = 0; round < 60; round++) {
      const [west, south] = [r() * 10 - 1, r() * 10 - 1];
      const part = { west, south, east: west + 0.5 + r() * 4, north: south + 0.5 + r() * 4 };
      const [cut, fresh] = [clipped(whole, part), featuresWithin(square, part)];
      for (let i = 0; i < 20; i++) {
        // Edges are rounded to ten metres.
        const at: [number, number] = [west + 0.01 + r() * (part.east - west - 0.02), south + 0.01 + r() * (part.north - south - 0.02)];
        expect(within(at, landOf(cut)), `${at}`).toBe(within(at, landOf(fresh)));
      }
      const long = (features: ChartFeature[]): number =>
        lines(features, 'coast').reduce(
          (sum, line) =>
            sum + line.slice(1).reduce((all, [x, y], i) => all + Math.hypot(x - (line[i]?.[0] ?? 0), y - (line[i]?.[1] ?? 0)), 0),
          0,
        );
      expect(long(cut)).toBeCloseTo(long(fresh), 2);
    }
  });
  it(`has its towns on land, wherever they are, seed ${seedOf()}`, () => {
    const world = shapesOf(JSON.parse(readFileSync('world/coasts.json', 'utf8')) as World);
    const { lat, lng } = JSON.parse(readFileSync('world/towns.json', 'utf8')) as TownTable;
    const r = random(seedOf() + 1);
    let ashore = 0;
    for (let round = 0; round < 300; round++) {
      const i = between(r, 0, lat.length - 1);
      const [y, x] = [(lat[i] as number) / 1e4, (lng[i] as number) / 1e4];
      const near = { west: x - 0.4, east: x + 0.4, south: y - 0.4, north: y + 0.4 };
      if (within([x, y], landOf(featuresWithin(world, near)))) ashore++;
    }
    // Coasts are drawn for a chart of the world: towns by the water may lie a little off.
    expect(ashore).toBeGreaterThan(285);
  });
});
