/** A chart around a pin: what is seen at a nearness, and where a point of the drawing lies. Degrees, WGS 84. */
import { type Bounds, type Point, projection } from './geo';

/** Kilometres across, from far to near. */
export const NEARNESS = [60, 30, 12, 5, 2, 0.8] as const;
const KM_PER_DEGREE = 111.195;

/** The bounds that a drawing of `width` × `height` shows around a centre, `km` across. */
export function boundsAround(centre: Point, km: number, width: number, height: number): Bounds {
  const halfLng = km / 2 / (KM_PER_DEGREE * Math.cos((centre.lat * Math.PI) / 180));
  const halfLat = ((km / 2) * height) / width / KM_PER_DEGREE;
  return { west: centre.lng - halfLng, east: centre.lng + halfLng, south: centre.lat - halfLat, north: centre.lat + halfLat };
}

/** The inverse of `projection`: the point at a place of the drawing. */
export function unprojection(bounds: Bounds, width: number, height: number): (x: number, y: number) => Point {
  const project = projection(bounds, width, height);
  const [x0, y0] = project({ lat: bounds.north, lng: bounds.west });
  const [x1, y1] = project({ lat: bounds.south, lng: bounds.east });
  return (x, y) => ({
    lng: bounds.west + ((x - x0) / (x1 - x0)) * (bounds.east - bounds.west),
    lat: bounds.north - ((y - y0) / (y1 - y0)) * (bounds.north - bounds.south),
  });
}

/** Five decimals: about a metre. */
export function rounded({ lat, lng }: Point): Point {
  return { lat: Number(lat.toFixed(5)), lng: Number(lng.toFixed(5)) };
}
