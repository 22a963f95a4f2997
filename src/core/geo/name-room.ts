/** Which names a chart has room for. Lengths in pixels, or in the drawing's own units. */

/** A letter of a town's name takes about so much, and a line as much. */
const LETTER = 8.6;
const NAME_HIGH = 18;

/**
 * Says whether there is room for a name whose middle stands at a point, and then takes it: the first that ask have it. Names that would be
 * cut off at the edges have none.
 */
export function roomForNames(width: number, height: number): (x: number, y: number, name: string) => boolean {
  const taken: [west: number, east: number, north: number, south: number][] = [];
  return (x, y, name) => {
    const half = (name.length * LETTER) / 2;
    const [west, east, north, south] = [x - half, x + half, y - NAME_HIGH, y + 4];
    if (west < 0 || east > width || north < 0 || south > height) return false;
    if (taken.some(([w, e, n, s]) => west < e && east > w && north < s && south > n)) return false;
    taken.push([west, east, north, south]);
    return true;
  };
}
