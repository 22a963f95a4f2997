/**
 * Streets from vector tiles (Mapbox Vector Tile 2.1, Web Mercator, z/x/y from the north-west) in the layers of the open basemap schema: `earth`,
 * `water`, `landuse`, `roads`, `buildings`, `places`. Degrees are WGS 84.
 */
import { VectorTile } from '@mapbox/vector-tile';
import { PbfReader } from 'pbf';
import type { Bounds, Point } from './geo';
import { GREEN_KINDS, ROAD_KINDS } from './street-kinds';

/** Where a tile lies. */
export interface TilePlace {
  z: number;
  x: number;
  y: number;
}

/** What a street map draws, from the ground up. */
export const STREET_KINDS = ['water', 'green', 'area', 'building', 'rail', 'path', 'minor', 'major'] as const;
/** One of {@link STREET_KINDS}. */
export type StreetKind = (typeof STREET_KINDS)[number];

/** Surfaces or lines of one kind, in degrees. */
export interface StreetShape {
  kind: StreetKind;
  /** filled, ring by ring; else lines */
  closed: boolean;
  lines: [lng: number, lat: number][][];
}

/** The layers without which there is nothing to draw. */
export const STREET_LAYERS = ['roads', 'water', 'earth'] as const;

/** Mercator ends here, in degrees of latitude. */
const MOST_LAT = 85.0511;
const RAD = Math.PI / 180;

/** A point in tiles of a zoom, from the north-western corner of the world. */
function inTiles({ lat, lng }: Point, z: number): [number, number] {
  const most = 2 ** z;
  const at = Math.max(-MOST_LAT, Math.min(MOST_LAT, lat)) * RAD;
  return [((lng + 180) / 360) * most, ((1 - Math.asinh(Math.tan(at)) / Math.PI) / 2) * most];
}

/** The tile of a zoom in which a point lies. */
export function tileAt(point: Point, z: number): TilePlace {
  const [x, y] = inTiles(point, z);
  const most = 2 ** z - 1;
  return { z, x: Math.min(most, Math.max(0, Math.floor(x))), y: Math.min(most, Math.max(0, Math.floor(y))) };
}

/** The tiles of a zoom that some bounds touch, row by row. Bounds go from west to east without crossing the date line. */
export function tilesOver({ west, south, east, north }: Bounds, z: number): TilePlace[] {
  const first = tileAt({ lat: north, lng: west }, z);
  const last = tileAt({ lat: south, lng: east }, z);
  const tiles: TilePlace[] = [];
  for (let y = first.y; y <= last.y; y++) for (let x = first.x; x <= last.x; x++) tiles.push({ z, x, y });
  return tiles;
}

/** The zoom at which bounds are drawn `width` pixels wide, a tile being 512 of them: at most `most`, and no more than `tiles` tiles. */
export function zoomFor(bounds: Bounds, width: number, { most, tiles }: { most: number; tiles: number }): number {
  const wanted = Math.log2((360 * width) / (512 * Math.max(1e-6, bounds.east - bounds.west)));
  let z = Math.max(0, Math.min(most, Math.round(wanted)));
  while (z > 0 && tilesOver(bounds, z).length > tiles) z--;
  return z;
}

const ROADS: ReadonlyMap<string, StreetKind> = new Map(
  (Object.keys(ROAD_KINDS) as (keyof typeof ROAD_KINDS)[]).flatMap((drawn) => ROAD_KINDS[drawn].map((kind) => [kind, drawn] as const)),
);
const GREEN: ReadonlySet<string> = new Set(GREEN_KINDS);

/** What a feature of a layer is drawn as; undefined for what is not drawn. */
export function kindOf(layer: string, kind: string): StreetKind | undefined {
  if (layer === 'water') return 'water';
  if (layer === 'buildings') return 'building';
  if (layer === 'landuse') return GREEN.has(kind) ? 'green' : undefined;
  return layer === 'roads' ? ROADS.get(kind) : undefined;
}

const POINT = 1;
const POLYGON = 3;

/**
 * What a tile has to draw. Lines are cut off a little beyond its edges, as the tile has them.
 * @param bytes the tile as it is after decompression
 * @param part what is drawn of it; lines that lie beside it are left out before they become degrees, which is most of the work
 * @throws Error where the bytes are no tile
 */
export function readStreetTile(bytes: Uint8Array, { z, x, y }: TilePlace, part?: Bounds): StreetShape[] {
  const tile = new VectorTile(new PbfReader(bytes));
  const most = 2 ** z;
  const shapes: StreetShape[] = [];
  const [left, top] = part ? inTiles({ lat: part.north, lng: part.west }, z) : [x - 1, y - 1];
  const [right, bottom] = part ? inTiles({ lat: part.south, lng: part.east }, z) : [x + 2, y + 2];
  const isNear = (line: readonly { x: number; y: number }[], extent: number): boolean => {
    let [w, n, e, s] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const point of line) {
      w = Math.min(w, point.x);
      e = Math.max(e, point.x);
      n = Math.min(n, point.y);
      s = Math.max(s, point.y);
    }
    return x + w / extent <= right && x + e / extent >= left && y + n / extent <= bottom && y + s / extent >= top;
  };
  for (const [name, layer] of Object.entries(tile.layers)) {
    const { extent } = layer;
    const degrees = ({ x: px, y: py }: { x: number; y: number }): [number, number] => [
      ((x + px / extent) / most) * 360 - 180,
      Math.atan(Math.sinh(Math.PI * (1 - (2 * (y + py / extent)) / most))) / RAD,
    ];
    for (let i = 0; i < layer.length; i++) {
      const one = layer.feature(i);
      const kind = kindOf(name, String(one.properties.kind ?? ''));
      if (!kind || one.type === POINT) continue;
      const lines = one.loadGeometry().filter((line) => isNear(line, extent));
      if (lines.length) shapes.push({ kind, closed: one.type === POLYGON, lines: lines.map((line) => line.map(degrees)) });
    }
  }
  return shapes;
}

/** The names of a tile's layers. */
export const layersOf = (bytes: Uint8Array): string[] => Object.keys(new VectorTile(new PbfReader(bytes)).layers);
