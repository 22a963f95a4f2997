/** What lies within rings, looked at in the slow and plain way. */

export type Ring = [number, number][];

/** Is a point within rings, by counting the sides that a line to the east crosses? */
export function within([x, y]: [number, number], rings: readonly Ring[]): boolean {
  let inside = false;
  for (const ring of rings)
    for (const [i, [x1, y1]] of ring.entries()) {
      const [x2, y2] = ring[(i + 1) % ring.length] as [number, number];
      if (y1 > y !== y2 > y && x < x1 + ((y - y1) / (y2 - y1)) * (x2 - x1)) inside = !inside;
    }
  return inside;
}
