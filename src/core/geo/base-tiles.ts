/**
 * The world as vector tiles: squares of the Mercator sheet (zoom z has 2^z of them on a side), each made when it is asked for, in the
 * Mapbox Vector Tile format 2. Layers are named as kinds of a chart's features are; towns stand in `name`, those with most people of the
 * lowest rank.
 */
import { geoJSONToTile, type GeoJSONVTTile } from '@maplibre/geojson-vt';
import { fromGeojsonVt } from '@maplibre/vt-pbf';
import type { FeatureCollection } from 'geojson';
import { featuresWithin, type WorldShapes } from './cut-chart';
import { BASE_ZOOM, type Bounds, type ChartFeature } from './geo';
import type { Town } from './towns';

/** Up to this zoom the coarsest shapes do, up to that one the middle ones; farther in all of them are drawn. */
const FAR_ZOOM = 2;
const MIDDLE_ZOOM = 4;
/** Units on a tile's side, and how many beside it are drawn too: a wide line ends out of sight. */
const EXTENT = 4096;
const BUFFER = 128;
const LAYERS = ['land', 'lake', 'coast', 'border'] as const;
/** Most towns of a tile, and how many people the smallest of them has, by zoom. */
const MOST_NAMES = 120;
const SMALLEST_TOWN = [4e6, 4e6, 2e6, 1e6, 3e5, 1e5, 2e4, 3e3, 0];

/** Which of the world's shapes a tile is cut from. */
export type Coarseness = 'far' | 'middle' | 'near';

/** A tile's place. */
export interface TilePlace {
  z: number;
  x: number;
  y: number;
}

/** Is there such a tile? */
export const isBaseTile = ({ z, x, y }: TilePlace): boolean =>
  [z, x, y].every(Number.isInteger) && z >= 0 && z <= BASE_ZOOM && x >= 0 && y >= 0 && x < 2 ** z && y < 2 ** z;

/** Which shapes a tile of this zoom is cut from. */
export function coarsenessOf(zoom: number): Coarseness {
  if (zoom <= FAR_ZOOM) return 'far';
  return zoom <= MIDDLE_ZOOM ? 'middle' : 'near';
}

/** The part of the earth that a tile covers, in degrees; wider by `beside` of its side. */
export function tileBounds({ z, x, y }: TilePlace, beside = 0): Bounds {
  const side = 2 ** z;
  const lng = (column: number): number => (column / side) * 360 - 180;
  const lat = (row: number): number => (Math.atan(Math.sinh(Math.PI * (1 - (2 * row) / side))) * 180) / Math.PI;
  return { west: lng(x - beside), east: lng(x + 1 + beside), north: lat(y - beside), south: lat(y + 1 + beside) };
}

/**
 * A tile, not compressed; undefined where nothing is to be drawn.
 * @param world shapes as coarse as {@link coarsenessOf} says
 * @param townsIn the towns within bounds, those with most people first, at most so many
 */
export function baseTile(
  world: WorldShapes,
  townsIn: (bounds: Bounds, most: number) => readonly Town[],
  place: TilePlace,
): Uint8Array | undefined {
  const drawn = featuresWithin(world, tileBounds(place, BUFFER / EXTENT));
  const layers: Record<string, GeoJSONVTTile> = {};
  const add = (layer: string, features: ChartFeature[]): void => {
    if (!features.length) return;
    const data: FeatureCollection = { type: 'FeatureCollection', features };
    const tile = geoJSONToTile(data, place.z, place.x, place.y, { maxZoom: BASE_ZOOM, buffer: BUFFER, extent: EXTENT });
    if (tile.features.length) layers[layer] = tile;
  };
  for (const layer of LAYERS)
    add(
      layer,
      drawn.filter(({ properties }) => properties.kind === layer),
    );
  const smallest = SMALLEST_TOWN[place.z] ?? 0;
  const towns = townsIn(tileBounds(place), MOST_NAMES).filter(({ population }) => population >= smallest);
  add(
    'name',
    towns.map(
      ({ name, population, lat, lng }): ChartFeature => ({
        type: 'Feature',
        properties: { kind: 'name', name, rank: -population },
        geometry: { type: 'Point', coordinates: [lng, lat] },
      }),
    ),
  );
  return Object.keys(layers).length ? fromGeojsonVt(layers, { version: 2, extent: EXTENT }) : undefined;
}
