import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { groupMarks } from './cluster';

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
