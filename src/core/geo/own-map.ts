/** A drawing of a site's own from GeoJSON (RFC 7946): what each feature is by its properties, as open map data says it. Degrees, WGS 84. */
import { type Bounds, boundsOf, CHART_KINDS, type ChartFeature, type ChartFeatureKind } from './geo';
import { kindOf } from './street-tiles';

/** Why a feature is not drawn. */
export type OwnMapProblem = 'no-feature' | 'no-geometry' | 'not-degrees' | 'no-name';

/** What a GeoJSON file draws. */
export interface OwnMapFile {
  features: ChartFeature[];
  /** the part that the file wants to be shown, else around all of it; undefined where nothing is drawn */
  bounds: Bounds | undefined;
  /** how many features of each kind, as drawn */
  counts: Partial<Record<ChartFeatureKind, number>>;
  /** features that say nothing that is known: surfaces are drawn as plain areas, lines as paths */
  plain: number;
  /** features that are not drawn, by their place in the file from 1 */
  wrong: { n: number; problem: OwnMapProblem }[];
  /** corners of all lines */
  points: number;
  /** whose work it is, where the file says so */
  credit: string;
}

type Properties = Readonly<Record<string, unknown>>;
type Position = [number, number];

/** Values of open map data's tags, by what they are drawn as. */
const TAGS: Readonly<Record<string, readonly (readonly [kind: ChartFeatureKind, values: string])[]>> = {
  natural: [
    ['water', 'water bay strait spring'],
    ['coast', 'coastline'],
    ['green', 'wood scrub heath grassland wetland'],
  ],
  leisure: [['green', 'park garden pitch playground golf_course nature_reserve dog_park common']],
  landuse: [
    ['green', 'grass forest meadow recreation_ground cemetery village_green allotments orchard'],
    ['water', 'reservoir basin'],
  ],
  highway: [
    ['major', 'motorway trunk primary secondary'],
    ['minor', 'tertiary unclassified residential living_street service road'],
    ['path', 'footway path cycleway track steps pedestrian bridleway corridor'],
  ],
  route: [['ferry', 'ferry']],
  boundary: [['border', 'administrative']],
  place: [['land', 'island islet']],
};

/** Names of layers of the open basemap schema, whose kinds are told apart by their layer. */
const LAYERS = ['landuse', 'roads'] as const;

const text = (value: unknown): string => (typeof value === 'string' ? value.replace(/\s+/g, ' ').trim().slice(0, 120) : '');

/** What a feature is by its properties; undefined where they do not say. */
export function ownKindOf(properties: Properties): ChartFeatureKind | undefined {
  const kind = text(properties.kind).toLowerCase();
  const own = CHART_KINDS.find((one) => one === kind);
  if (own) return own;
  for (const layer of LAYERS) {
    const drawn = kindOf(layer, kind);
    if (drawn) return drawn;
  }
  for (const [tag, kinds] of Object.entries(TAGS)) {
    const value = text(properties[tag]);
    const found = kinds.find(([, values]) => value && values.split(' ').includes(value));
    if (found) return found[0];
  }
  if (text(properties.waterway)) return 'water';
  if (text(properties.railway)) return 'rail';
  return text(properties.building) && properties.building !== 'no' ? 'building' : undefined;
}

const DECIMALS = 1e6;
const rounded = (n: number): number => Math.round(n * DECIMALS) / DECIMALS;

/** A position in degrees; undefined for anything else. */
function positionOf(value: unknown): Position | undefined {
  if (!Array.isArray(value)) return undefined;
  const [lng, lat] = value as unknown[];
  if (typeof lng !== 'number' || typeof lat !== 'number') return undefined;
  return Math.abs(lat) <= 90 && Math.abs(lng) <= 540 ? [rounded(lng), rounded(lat)] : undefined;
}

/** A line with each corner once; undefined where it is none, or has a corner that is no place on earth. */
function lineOf(value: unknown, least: number): Position[] | undefined {
  if (!Array.isArray(value)) return undefined;
  const line: Position[] = [];
  for (const one of value) {
    const at = positionOf(one);
    if (!at) return undefined;
    const before = line.at(-1);
    if (!before || before[0] !== at[0] || before[1] !== at[1]) line.push(at);
  }
  return line.length >= least ? line : undefined;
}

type Geometry = ChartFeature['geometry'];

/** A geometry's parts, each of one piece; undefined where a part of it is wrong. */
function partsOf(geometry: unknown): Geometry[] | undefined {
  const { type, coordinates, geometries } = (geometry ?? {}) as { type?: unknown; coordinates?: unknown; geometries?: unknown };
  const all = <T>(list: unknown, read: (one: unknown) => T | undefined): T[] | undefined => {
    if (!Array.isArray(list)) return undefined;
    const read1 = list.map(read);
    return read1.every((one) => one !== undefined) ? (read1 as T[]) : undefined;
  };
  const surface = (rings: unknown): Geometry | undefined => {
    const read = all(rings, (ring) => lineOf(ring, 3));
    return read?.length ? { type: 'Polygon', coordinates: read } : undefined;
  };
  const line = (points: unknown): Geometry | undefined => {
    const read = lineOf(points, 2);
    return read && { type: 'LineString', coordinates: read };
  };
  const point = (one: unknown): Geometry | undefined => {
    const read = positionOf(one);
    return read && { type: 'Point', coordinates: read };
  };
  const one = (part: Geometry | undefined): Geometry[] | undefined => part && [part];
  if (type === 'Polygon') return one(surface(coordinates));
  if (type === 'MultiPolygon') return all(coordinates, surface);
  if (type === 'LineString') return one(line(coordinates));
  if (type === 'MultiLineString') return all(coordinates, line);
  if (type === 'Point') return one(point(coordinates));
  if (type === 'MultiPoint') return all(coordinates, point);
  return type === 'GeometryCollection' ? all(geometries, partsOf)?.flat() : undefined;
}

/** Kinds that are surfaces where they are drawn as surfaces; the others are lines, and a surface's edge stands for them. */
const SURFACES: ReadonlySet<ChartFeatureKind> = new Set(['land', 'water', 'green', 'area', 'building']);

/** Where the name of a surface stands: in the middle of its edges. */
function middleOf(ring: readonly Position[]): Position {
  const bounds = boundsOf(ring.map(([lng, lat]) => ({ lat, lng }))) as Bounds;
  return [rounded((bounds.west + bounds.east) / 2), rounded((bounds.south + bounds.north) / 2)];
}

/**
 * How a part of a feature is drawn: what it is, and its name beside it. What is a name and nothing else always stands; others stand where there is
 * room, in the order of the file.
 */
function drawn(geometry: Geometry, known: ChartFeatureKind | undefined, properties: Properties, rank: number): ChartFeature[] {
  const name = text(properties.name);
  const isWater = known === 'water' || properties.water === true;
  const said = { kind: 'name' as const, name, ...(isWater ? { water: true } : {}), ...(known === 'name' ? {} : { rank, own: true }) };
  const names = (coordinates: Position): ChartFeature[] =>
    name ? [{ type: 'Feature', properties: said, geometry: { type: 'Point', coordinates } }] : [];
  if (geometry.type === 'Point') return names(geometry.coordinates);
  if (geometry.type === 'LineString') {
    const kind = known && known !== 'name' && known !== 'land' && known !== 'green' && known !== 'area' ? known : 'path';
    return [{ type: 'Feature', properties: { kind: kind === 'building' ? 'path' : kind }, geometry }];
  }
  const kind = known && known !== 'name' ? known : 'area';
  const [outer = []] = geometry.coordinates;
  if (SURFACES.has(kind)) return [{ type: 'Feature', properties: { kind }, geometry }, ...names(middleOf(outer))];
  const edges = geometry.coordinates.map(
    (ring): ChartFeature => ({ type: 'Feature', properties: { kind }, geometry: { type: 'LineString', coordinates: ring } }),
  );
  return [...edges, ...names(middleOf(outer))];
}

const cornersIn = ({ geometry }: ChartFeature): Position[] =>
  geometry.type === 'Polygon'
    ? geometry.coordinates.flat()
    : geometry.type === 'LineString'
      ? geometry.coordinates
      : [geometry.coordinates];

/** The part that a file wants to be shown (RFC 7946, 5): west, south, east, north. */
function boxOf(bbox: unknown): Bounds | undefined {
  if (!Array.isArray(bbox) || bbox.length !== 4 || !bbox.every((n) => typeof n === 'number')) return undefined;
  const [west, south, east, north] = bbox as [number, number, number, number];
  const fits =
    west < east && south < north && Math.abs(south) <= 90 && Math.abs(north) <= 90 && east - west <= 360 && Math.abs(west) <= 540;
  return fits ? { west, south, east, north } : undefined;
}

/** A feature as it is drawn, and whether it said what it is; or why it is not. */
function readFeature(json: unknown, rank: number): { made: ChartFeature[]; plain: boolean } | OwnMapProblem {
  if (!json || typeof json !== 'object') return 'no-feature';
  const { geometry, properties } = json as { geometry?: unknown; properties?: unknown };
  if (!geometry) return 'no-geometry';
  const parts = partsOf(geometry);
  if (!parts) return 'not-degrees';
  const said = (properties ?? {}) as Properties;
  const known = ownKindOf(said);
  const made = parts.flatMap((part) => drawn(part, known, said, rank));
  return made.length ? { made, plain: !known && parts.some((part) => part.type !== 'Point') } : 'no-name';
}

/** What a GeoJSON value draws; undefined where it is no GeoJSON with features. */
export function readOwnMap(json: unknown): OwnMapFile | undefined {
  const { type, features: list, attribution, bbox } = (json ?? {}) as Properties;
  const all: unknown[] | undefined = type === 'Feature' ? [json] : Array.isArray(list) ? list : undefined;
  if (!all) return undefined;
  const file: OwnMapFile = { features: [], bounds: undefined, counts: {}, plain: 0, wrong: [], points: 0, credit: text(attribution) };
  for (const [i, one] of all.entries()) {
    const read = readFeature(one, i);
    if (typeof read === 'string') {
      file.wrong.push({ n: i + 1, problem: read });
      continue;
    }
    if (read.plain) file.plain++;
    for (const { properties } of read.made) file.counts[properties.kind] = (file.counts[properties.kind] ?? 0) + 1;
    file.features.push(...read.made);
  }
  const corners = file.features.flatMap(cornersIn);
  const around = boundsOf(corners.map(([lng, lat]) => ({ lat, lng })));
  return { ...file, points: corners.length, bounds: around && (boxOf(bbox) ?? around) };
}
