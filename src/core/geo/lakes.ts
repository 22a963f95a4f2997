/** The world's big lakes, as they are kept: rings of steps from point to point. */

/** What `world/` has of lakes, the largest first: of each its shore and its islands, rings in thousandths of a degree. */
export interface LakeTable {
  format: 1;
  /** x and y of a ring's first point, then of each step to the next */
  lakes: number[][][];
}

/** Their rings in degrees (WGS 84, longitude first). */
export function ringsOfLakes({ lakes }: LakeTable): [number, number][][][] {
  return lakes.map((rings) => rings.map(walked));
}

function walked(steps: readonly number[]): [number, number][] {
  let [x, y] = [0, 0];
  const ring: [number, number][] = [];
  for (let i = 0; i < steps.length; i += 2) {
    x += steps[i] ?? 0;
    y += steps[i + 1] ?? 0;
    ring.push([x / 1e3, y / 1e3]);
  }
  return ring;
}
