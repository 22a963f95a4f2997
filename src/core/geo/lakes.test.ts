import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { within } from '../../../tests/support/rings';
import { featuresWithin, shapesOf } from './cut-chart';
import { type LakeTable, ringsOfLakes } from './lakes';

describe('the big lakes of the world', () => {
  it('are rings of steps from a first point', () => {
    expect(
      ringsOfLakes({
        format: 1,
        lakes: [
          [
            [1500, -2000, 1, 0, 0, 1, -1, -1],
            [1500, -2000, 0, 0],
          ],
        ],
      }),
    ).toEqual([
      [
        [
          [1.5, -2],
          [1.501, -2],
          [1.501, -1.999],
          [1.5, -2],
        ],
        [
          [1.5, -2],
          [1.5, -2],
        ],
      ],
    ]);
  });

  it(`lie on the land that the coasts have, not in their sea, seed ${seedOf()}`, () => {
    const lakes = ringsOfLakes(JSON.parse(readFileSync('world/lakes.json', 'utf8')) as LakeTable);
    expect(lakes.length).toBeGreaterThan(5000);
    const world = shapesOf(JSON.parse(readFileSync('world/coasts.json', 'utf8')));
    const r = random(seedOf());
    for (let round = 0; round < 120; round++) {
      const [shore = []] = lakes[between(r, 0, lakes.length - 1)] ?? [];
      const lngs = shore.map(([lng]) => lng);
      const lats = shore.map(([, lat]) => lat);
      const bounds = {
        west: Math.min(...lngs) - 0.05,
        east: Math.max(...lngs) + 0.05,
        south: Math.min(...lats) - 0.05,
        north: Math.max(...lats) + 0.05,
      };
      const land = featuresWithin(world, bounds).flatMap(({ properties: { kind }, geometry }) =>
        kind === 'land' && geometry.type === 'Polygon' ? geometry.coordinates : [],
      );
      const ashore = shore.filter((point) => within(point, land)).length;
      expect(ashore / shore.length, `the lake at ${shore[0]}`).toBeGreaterThanOrEqual(0.95);
    }
  });
});
