/** The small chart of the first visit: what it shows, and where a press on it points. */
import { partAround } from '@/core/geo/cut-chart';
import { type Bounds, type Point, readBounds, turnedLng } from '@/core/geo/geo';
import { unprojection } from '@/core/geo/pin';

/** The chart's size in pixels: whatever the screen, so that a press can be measured. */
export const CHART_WIDE = 320;
/** Its height. */
export const CHART_HIGH = 200;

/** The earth, without its ends where nobody lives. */
export const EARTH: Bounds = { west: -180, south: -58, east: 180, north: 80 };

/** What is shown around a point, in degrees to north and south: each press comes closer, down to a town and its surroundings. */
const NEAREST = 0.3;
const CLOSER = 5;

/** A view over the date line goes on so far. */
const FARTHEST = 540;

/** Degrees from north to south. */
const highOf = ({ south, north }: Bounds): number => north - south;

/** What the chart shows of a form: as it stands, or around the place. */
export function viewOf(view: string, place: Point | undefined): Bounds {
  const known = readBounds(view, FARTHEST);
  if (known && known.west < known.east && known.south < known.north) return known;
  return place ? partAround(place, NEAREST) : EARTH;
}

/** Around a point, as much as is shown now or closer. */
export function closerTo(point: Point, view: Bounds): Bounds {
  return partAround(point, Math.max(NEAREST, highOf(view) / 2 / CLOSER), 90);
}

/** The same middle from farther away; the whole earth in the end. */
export function fartherFrom(view: Bounds): Bounds {
  const high = (highOf(view) / 2) * CLOSER;
  const middle = { lat: (view.south + view.north) / 2, lng: (view.west + view.east) / 2 };
  return high > 50 ? EARTH : partAround(middle, high, 90);
}

/** Where a press points, in degrees; undefined where it is none, or off the earth. */
export function pressed(fields: Readonly<Record<string, string>>, view: Bounds): Point | undefined {
  const [x, y] = [Number(fields['pin.x'] ?? 'none'), Number(fields['pin.y'] ?? 'none')];
  if (!(x >= 0 && x <= CHART_WIDE && y >= 0 && y <= CHART_HIGH)) return undefined;
  const { lat, lng } = unprojection(view, CHART_WIDE, CHART_HIGH)(x, y);
  return Math.abs(lat) <= 85 ? { lat: Math.round(lat * 1e4) / 1e4, lng: Math.round(turnedLng(lng) * 1e4) / 1e4 } : undefined;
}
