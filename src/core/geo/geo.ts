/** Places on a chart. Latitudes and longitudes in degrees, WGS 84; distances in kilometres on a sphere of 6,371 km. */

/** A position in degrees, WGS 84. */
export interface Point {
  lat: number;
  lng: number;
}

/** The deepest zoom of which the world has tiles of its own; nearer, browsers draw on with these. */
export const BASE_ZOOM = 8;

/** The edges of a part of the chart, in degrees. */
export interface Bounds {
  west: number;
  south: number;
  east: number;
  north: number;
}

/** What a chart draws. A coast is the shore as a line, a lake's too, where land was cut off at the edges of a chart and its outline is more than that. */
export const CHART_KINDS = [
  'land',
  'lake',
  'coast',
  'border',
  'ferry',
  'causeway',
  'name',
  'water',
  'green',
  'area',
  'building',
  'rail',
  'path',
  'minor',
  'major',
] as const;
/** One of {@link CHART_KINDS}. */
export type ChartFeatureKind = (typeof CHART_KINDS)[number];

/** GeoJSON, as much of it as a chart uses. */
export interface ChartFeature {
  type: 'Feature';
  properties: {
    kind: ChartFeatureKind;
    name?: string;
    water?: boolean;
    /** names of a lower number go first where there is no room for all */
    rank?: number;
    /** a name of the site's own drawing, which streets with names of their own do not take away */
    own?: boolean;
  };
  geometry:
    | { type: 'Polygon'; coordinates: [number, number][][] }
    | { type: 'LineString'; coordinates: [number, number][] }
    | { type: 'Point'; coordinates: [number, number] };
}

/** What is drawn: GeoJSON features (RFC 7946), and the part of the earth that is shown before anybody moves it. */
export interface Chart {
  bounds: Bounds;
  features: ChartFeature[];
  /** so many of the features, the first of them, are a site's own drawing */
  own?: number;
  /** nothing but a site's own drawing: it is shown whole, no less and no more */
  alone?: boolean;
  /** whose work a drawing is */
  credit?: string;
}

/** A drawing of the site's own, as somebody gave it. */
export interface OwnMap {
  /** its file's */
  name: string;
  /** when it was taken in, ISO 8601 in UTC */
  at: string;
  /** whose work it is */
  credit: string;
  /** somebody took it off the map; it is kept */
  off?: boolean;
  bounds: Bounds;
  features: ChartFeature[];
}

/** What a site keeps of its map: coasts cut around its middle, which are cut anew when that moves, and a drawing of its own. */
export interface StoredChart {
  format: 2;
  /** which world the coasts were cut from; missing = from one before worlds had names */
  world?: string;
  bounds: Bounds;
  features: ChartFeature[];
  own?: OwnMap;
}

/** A chart as it was kept before drawings stood beside the coasts: one or the other. */
export interface StoredChart1 {
  format: 1;
  source?: 'base';
  bounds: Bounds;
  features: ChartFeature[];
}

/** A chart that was kept before, as it is kept now. A drawing had no name and no date then. */
export function upgradeChart(chart: StoredChart | StoredChart1): StoredChart {
  if (chart.format === 2) return chart;
  const { bounds, features, source } = chart;
  if (source === 'base') return { format: 2, bounds, features };
  return { format: 2, bounds, features: [], own: { name: '', at: '', credit: '', bounds, features } };
}

/** What is drawn of what is kept: a drawing with land of its own stands alone, another lies over the coasts. */
export function drawnChart({ bounds, features, own }: StoredChart): Chart {
  if (!own || own.off) return { bounds, features };
  const hasLand = own.features.some(({ properties: { kind } }) => kind === 'land');
  const credit = own.credit ? { credit: own.credit } : {};
  // Names of the drawing come first where there is no room for all.
  return hasLand
    ? { bounds: own.bounds, features: own.features, alone: true, ...credit }
    : { bounds, features: [...own.features, ...features], own: own.features.length, ...credit };
}

/** A longitude that goes on over the date line, as the earth has it: -180 up to 180. */
export const turnedLng = (lng: number): number => ((((lng + 180) % 360) + 360) % 360) - 180;

/** Is the shore in it as lines of its own? Where land was cut off at a chart's edges, its outline is more than that. */
export const hasCoasts = (features: readonly ChartFeature[]): boolean => features.some(({ properties }) => properties.kind === 'coast');

/** Are there lakes in it? Whoever shows them says whose data they are. */
export const hasLakes = (features: readonly ChartFeature[]): boolean => features.some(({ properties }) => properties.kind === 'lake');

/** The smallest bounds around some points, wider by `margin` degrees; undefined without a point. */
export function boundsOf(points: readonly Point[], margin = 0): Bounds | undefined {
  if (!points.length) return undefined;
  const lats = points.map((p) => p.lat);
  const lngs = points.map((p) => p.lng);
  return {
    west: Math.min(...lngs) - margin,
    east: Math.max(...lngs) + margin,
    south: Math.min(...lats) - margin,
    north: Math.max(...lats) + margin,
  };
}

/** Plate carrée true to scale at the middle latitude, fitted into a box of `width` × `height`, y downwards. */
export function projection(bounds: Bounds, width: number, height: number): (point: Point) => [number, number] {
  const shrink = Math.cos((((bounds.south + bounds.north) / 2) * Math.PI) / 180);
  const spanX = (bounds.east - bounds.west) * shrink;
  const spanY = bounds.north - bounds.south;
  const scale = Math.min(width / spanX, height / spanY);
  const left = (width - spanX * scale) / 2;
  const top = (height - spanY * scale) / 2;
  return ({ lat, lng }) => [left + (lng - bounds.west) * shrink * scale, top + (bounds.north - lat) * scale];
}

/** What a box of `width` × `height` shows where bounds are fitted into it: as much as they have, or more to two sides. */
export function shownBounds(bounds: Bounds, width: number, height: number): Bounds {
  const shrink = Math.cos((((bounds.south + bounds.north) / 2) * Math.PI) / 180);
  const scale = Math.min(width / ((bounds.east - bounds.west) * shrink), height / (bounds.north - bounds.south));
  const wide = (width / scale / shrink - (bounds.east - bounds.west)) / 2;
  const high = (height / scale - (bounds.north - bounds.south)) / 2;
  return { west: bounds.west - wide, east: bounds.east + wide, south: bounds.south - high, north: bounds.north + high };
}

/** Do the first bounds hold all of the second? */
export const holds = (outer: Bounds, { west, south, east, north }: Bounds): boolean =>
  inBounds({ lat: south, lng: west }, outer) && inBounds({ lat: north, lng: east }, outer);

/** The south-western and the north-eastern corner. */
export const cornersOf = ({ west, south, east, north }: Bounds): [Point, Point] => [
  { lat: south, lng: west },
  { lat: north, lng: east },
];

/** Bounds that are so many times as wide and as high around the same middle; not beyond the poles. */
export function widened({ west, south, east, north }: Bounds, times: number): Bounds {
  const [wide, high] = [((east - west) * (times - 1)) / 2, ((north - south) * (times - 1)) / 2];
  return { west: west - wide, east: east + wide, south: Math.max(-90, south - high), north: Math.min(90, north + high) };
}

/** Great-circle distance in kilometres. */
export function distanceKm(a: Point, b: Point): number {
  const rad = Math.PI / 180;
  const dLat = (b.lat - a.lat) * rad;
  const dLng = (b.lng - a.lng) * rad;
  const h = Math.sin(dLat / 2) ** 2 + Math.cos(a.lat * rad) * Math.cos(b.lat * rad) * Math.sin(dLng / 2) ** 2;
  return 2 * 6371 * Math.asin(Math.min(1, Math.sqrt(h)));
}

/**
 * Where a reader's own map program shows the place (RFC 5870), and where a map on the web does, by the site's own choice of one.
 * `map`: its address with {lat} and {lng} where the degrees belong; empty = the site names none, and `web` is empty.
 */
export function directionsOf({ lat, lng }: Point, map: string): { geo: string; web: string } {
  const [north, east] = [lat.toFixed(5), lng.toFixed(5)];
  return { geo: `geo:${north},${east}`, web: map.replaceAll('{lat}', north).replaceAll('{lng}', east) };
}

/** Is a point within bounds, their edges included? */
export const inBounds = ({ lat, lng }: Point, { west, south, east, north }: Bounds): boolean =>
  lng >= west && lng <= east && lat >= south && lat <= north;

/**
 * Bounds as an address has them, `west,south,east,north` in degrees; undefined where there are none on the earth.
 * `farthest`: the longitude up to which they may reach; beyond 180 where they go over the date line.
 */
export function readBounds(text: string, farthest = 180): Bounds | undefined {
  const [west, south, east, north, ...more] = text
    .split(',')
    .map((part) => (/^-?\d{1,3}(\.\d{1,6})?$/.test(part) ? Number(part) : Number.NaN));
  if (west === undefined || south === undefined || east === undefined || north === undefined || more.length) return undefined;
  const right =
    west <= east &&
    south <= north &&
    Math.abs(west) <= farthest &&
    Math.abs(east) <= farthest &&
    Math.abs(south) <= 90 &&
    Math.abs(north) <= 90;
  return right ? { west, south, east, north } : undefined;
}

/** The same written, as coarse as a street. */
export const writeBounds = ({ west, south, east, north }: Bounds): string =>
  [west, south, east, north].map((part) => part.toFixed(4)).join(',');
