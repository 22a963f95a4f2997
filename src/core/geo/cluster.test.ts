import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { type ChartMark, groupMarks, MarkIndex, zoomOf } from './cluster';
import { inBounds, projection } from './geo';

describe('marks on a chart', () => {
  it(`never cover each other, and none is lost, seed ${seedOf()}`, () => {
    const r = random(seedOf());
    const seen = { alone: 0, grouped: 0 };
    for (let round = 0; round < 120; round++) {
      const marks = Array.from({ length: between(r, 0, 40) }, (_, i) => ({
        ...{ id: `m${i}`, count: between(r, 0, 20) },
        ...{ x: r() * 600, y: r() < 0.2 ? 300 : r() * 500 },
      }));
      const groups = groupMarks(marks, 38);
      expect(groups.flatMap((g) => g.ids).sort()).toEqual(marks.map((m) => m.id).sort());
      expect(groups.reduce((n, g) => n + g.count, 0)).toBe(marks.reduce((n, m) => n + m.count, 0));
      for (const [i, a] of groups.entries())
        for (const b of groups.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(38);
      for (const { ids, x, y } of groups) {
        if (ids.length > 1) seen.grouped++;
        else {
          seen.alone++;
          expect(marks.find((m) => m.id === ids[0])).toMatchObject({ x, y });
        }
      }
    }
    expect(Math.min(seen.alone, seen.grouped)).toBeGreaterThan(200);
  });
  it('that lie on one point are one, the largest first', () =>
    expect(
      groupMarks(
        [
          { id: 'a', x: 1, y: 1, count: 2 },
          { id: 'b', x: 1, y: 1, count: 5 },
        ],
        30,
      ),
    ).toEqual([{ x: 1, y: 1, ids: ['b', 'a'], count: 7 }]));
});

describe('places by an index', () => {
  const r = random(seedOf());
  const whole = { west: -64, south: 44, east: -63, north: 45 };
  const places = (n: number): ChartMark[] =>
    Array.from({ length: n }, (_, i) => ({
      id: `p${i}`,
      // Towns, with a few halls at the same door.
      lng: -63.5 + Math.round((r() - 0.5) * (i % 3 ? 0.9 : 0.1) * 2000) / 2000,
      lat: 44.5 + Math.round((r() - 0.5) * (i % 3 ? 0.9 : 0.1) * 2000) / 2000,
      count: between(r, 0, 9),
    }));

  it.each([40, 5000])('%i of them: each that is seen is in one ring, none covers another, and rings split as one comes closer', (n) => {
    const all = places(n);
    const index = new MarkIndex(all, 40);
    let before = 0;
    for (let width = 1; width > 0.002; width /= 3) {
      const [west, south] = [-63.5 - width / 2, 44.5 - width / 2];
      const bounds = { west, south, east: west + width, north: south + width };
      const project = projection(bounds, 700, 600);
      const groups = index.at(bounds, zoomOf(bounds, 700), (at) => {
        const [x, y] = project(at);
        return { x, y };
      });
      const ids = groups.flatMap((group) => group.ids);
      expect(new Set(ids).size).toBe(ids.length);
      const seen = all.filter((place) => inBounds(place, bounds)).map(({ id }) => id);
      // A group at the edge has its middle on one side of it: what is well inside is there in any case.
      const inner = { west: west + width * 0.1, south: south + width * 0.1, east: west + width * 0.9, north: south + width * 0.9 };
      const had = new Set(ids);
      for (const place of all) if (inBounds(place, inner)) expect(had.has(place.id), place.id).toBe(true);
      const counts = new Map(all.map(({ id, count }) => [id, count]));
      for (const group of groups) expect(group.count).toBe(group.ids.reduce((sum, id) => sum + (counts.get(id) ?? 0), 0));
      for (const [i, a] of groups.entries())
        for (const b of groups.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(40);
      if (seen.length) {
        const split = groups.length / seen.length;
        expect(split).toBeGreaterThanOrEqual(before * 0.5);
        before = split;
      }
    }
    expect(before, 'at the closest most stand alone').toBeGreaterThan(0.3);
    expect(index.at(whole, 0, () => ({ x: 0, y: 0 })).length).toBe(1);
  });

  it('a few are grouped as by their pixels alone', () => {
    const all = places(100);
    const project = projection(whole, 700, 600);
    const xy = (at: { lat: number; lng: number }) => {
      const [x, y] = project(at);
      return { x, y };
    };
    const marks = all.filter((place) => inBounds(place, whole)).map(({ id, count, ...at }) => ({ id, count, ...xy(at) }));
    expect(new MarkIndex(all, 40).at(whole, zoomOf(whole, 700), xy)).toEqual(groupMarks(marks, 40));
  });
});
