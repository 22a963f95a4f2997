/** The street map's layers of the movable chart, in the site's own inks: land, green, water, buildings, ways, their names. */
import type { FilterSpecification, LayerSpecification, LineLayerSpecification, StyleSpecification } from 'maplibre-gl';
import type { Bounds } from '@/core/geo/geo';
import { GREEN_KINDS, ROAD_KINDS } from '@/core/geo/street-kinds';

/** Where the chart's streets come from. */
export interface Streets {
  /** an address with {z}, {x} and {y}, from the site's root */
  tiles: string;
  bounds: Bounds;
  minZoom: number;
  maxZoom: number;
}

/** Makes a colour that WebGL understands of a value of a style. */
export type Inks = (value: string) => string;

/** What surfaces and ways are drawn in, on the streets and on a drawing of the site's own. */
export const INKS = {
  earth: 'var(--sheet)',
  water: 'color-mix(in srgb, var(--tide) 18%, var(--ground))',
  stream: 'color-mix(in srgb, var(--tide) 45%, var(--ground))',
  green: 'color-mix(in srgb, var(--tide-wash) 75%, var(--sheet))',
  building: 'color-mix(in srgb, var(--ink-3) 16%, var(--sheet))',
  edge: 'var(--ink-3)',
  minorEdge: 'var(--rule)',
  minor: 'var(--sheet)',
  major: 'var(--amber-wash)',
} as const;

/** How a way is drawn: in which ink, how wide, in dashes of so many widths. */
export interface Way {
  ink: keyof typeof INKS;
  width: ReturnType<typeof growing>;
  dash?: number[];
}

/** A layer's look as a way's. */
export const wayLook = (ink: Inks, { ink: name, width, dash }: Way): Pick<LineLayerSpecification, 'layout' | 'paint'> => ({
  layout: { 'line-join': 'round', 'line-cap': dash ? 'butt' : 'round' },
  paint: { 'line-color': ink(INKS[name]), 'line-width': width, ...(dash ? { 'line-dasharray': dash } : {}) },
});

/** The name of the streets' source. */
export const STREETS = 'streets';
/** From this zoom on the streets name towns themselves. */
export const PLACES_FROM = 10;
const kinds = (...names: string[]): FilterSpecification => ['in', ['get', 'kind'], ['literal', names]];
/** Pixels at a zoom: lines grow with the map. */
export const growing = (...stops: number[]): ['interpolate', ['exponential', number], ['zoom'], ...number[]] => [
  'interpolate',
  ['exponential', 1.6],
  ['zoom'],
  ...stops,
];

/** Where tiles are asked for. A relative address would be the worker's, not the page's; its braces stay as they are. */
export const tileAddress = (tiles: string, root: URL): string => new URL('.', root).href + tiles.replace(/^\//, '');

/** The source of a street map. */
export function streetSource({ tiles, bounds, minZoom, maxZoom }: Streets, root: URL): StyleSpecification['sources'] {
  return {
    [STREETS]: {
      type: 'vector',
      tiles: [tileAddress(tiles, root)],
      bounds: [bounds.west, bounds.south, bounds.east, bounds.north],
      minzoom: minZoom,
      maxzoom: maxZoom,
    },
  };
}

/** Its layers, from the ground up. `ink` makes a colour of a style's value, `face` the name of a typeface of `--sans` or `--serif`. */
export function streetLayers(ink: Inks, face: Inks): LayerSpecification[] {
  const fill = (
    id: string,
    layer: string,
    colour: keyof typeof INKS,
    more: { filter?: FilterSpecification; minzoom?: number } = {},
  ): LayerSpecification => ({
    id: `streets-${id}`,
    type: 'fill',
    source: STREETS,
    'source-layer': layer,
    paint: { 'fill-color': ink(INKS[colour]) },
    ...more,
  });
  const line = (id: string, names: readonly string[], way: Way): LayerSpecification => ({
    id: `streets-${id}`,
    type: 'line',
    source: STREETS,
    'source-layer': 'roads',
    filter: kinds(...names),
    ...wayLook(ink, way),
  });
  return [
    fill('earth', 'earth', 'earth'),
    fill('green', 'landuse', 'green', {
      filter: kinds(...GREEN_KINDS),
    }),
    fill('water', 'water', 'water', { filter: ['==', ['geometry-type'], 'Polygon'] }),
    {
      id: 'streets-streams',
      type: 'line',
      source: STREETS,
      'source-layer': 'water',
      filter: ['==', ['geometry-type'], 'LineString'],
      paint: { 'line-color': ink(INKS.stream), 'line-width': growing(10, 0.4, 16, 3) },
    },
    fill('buildings', 'buildings', 'building', { minzoom: 13 }),
    line('paths', ROAD_KINDS.path, { ink: 'edge', width: growing(12, 0.5, 17, 2), dash: [3, 2] }),
    line('rails', ROAD_KINDS.rail, { ink: 'edge', width: growing(9, 0.6, 16, 2.2), dash: [5, 3] }),
    line('minor-edge', ROAD_KINDS.minor, { ink: 'minorEdge', width: growing(11, 1, 17, 15) }),
    line('major-edge', ROAD_KINDS.major, { ink: 'edge', width: growing(7, 1, 12, 3.6, 17, 21) }),
    line('minor', ROAD_KINDS.minor, { ink: 'minor', width: growing(11, 0.4, 17, 12.5) }),
    line('major', ROAD_KINDS.major, { ink: 'major', width: growing(7, 0.6, 12, 2.4, 17, 18) }),
    ...names(ink, face),
  ];
}

/** Names of ways along them, of towns and quarters at their places; drawn in the page's own faces. */
function names(ink: Inks, face: Inks): LayerSpecification[] {
  const paint = { 'text-color': ink('var(--ink-2)'), 'text-halo-color': ink('var(--sheet)'), 'text-halo-width': 1.5 };
  return [
    {
      id: 'streets-ways',
      type: 'symbol',
      source: STREETS,
      'source-layer': 'roads',
      minzoom: 13,
      filter: ['has', 'name'],
      layout: {
        'symbol-placement': 'line',
        'text-field': ['get', 'name'],
        'text-font': [face('--sans')],
        'text-size': 12.5,
      },
      paint,
    },
    {
      id: 'streets-places',
      type: 'symbol',
      source: STREETS,
      'source-layer': 'places',
      minzoom: PLACES_FROM,
      filter: kinds('locality', 'neighbourhood', 'macrohood'),
      layout: {
        'text-field': ['get', 'name'],
        'text-font': [face('--serif')],
        'text-size': ['match', ['get', 'kind'], 'locality', 16, 13],
        'text-max-width': 8,
      },
      paint: { ...paint, 'text-color': ink('var(--ink)') },
    },
  ];
}
