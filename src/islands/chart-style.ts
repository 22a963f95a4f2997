/** How the movable chart looks: the site's inks and typefaces, as WebGL understands them. */
import type {
  FilterSpecification,
  LayerSpecification,
  LineLayerSpecification,
  Map as MapLibre,
  StyleSpecification,
  SymbolLayerSpecification,
} from 'maplibre-gl';
import { BASE_ZOOM, type Chart, hasCoasts } from '@/core/geo/geo';
import { isGround } from '@/core/geo/street-paths';
import { groundLayers } from './ground-layers';
import type { TileService } from '@/core/geo/tile-service';
import { PLACES_FROM, STREETS, type Streets, streetLayers, streetSource, tileAddress } from './street-layers';

const colour = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** A token resolved to what WebGL understands: the browser computes light-dark() and color-mix(). */
function resolved(value: string): string {
  const probe = document.createElement('i');
  probe.style.color = value;
  document.body.append(probe);
  const text = getComputedStyle(probe).color;
  probe.remove();
  const canvas = document.createElement('canvas').getContext('2d');
  if (!canvas) return text;
  canvas.fillStyle = text;
  canvas.fillRect(0, 0, 1, 1);
  const [r, g, b] = canvas.getImageData(0, 0, 1, 1).data;
  return `rgb(${r}, ${g}, ${b})`;
}

/** The first typeface of a token: names on the chart are drawn in it. */
const firstFace = (name: string): string => colour(name).split(',')[0]?.replaceAll('"', '').trim() ?? '';

const SERVICE = 'service';
/** The source of what the site drew itself, over a map from another host: a name that no style has. */
export const OWN = 'almanac-own';

/** What lies under a drawing of the site's own where the map comes from another host. */
function serviceGround(service: TileService): Pick<StyleSpecification, 'sources' | 'layers'> {
  if (service.kind === 'pictures')
    return {
      sources: { [SERVICE]: { type: 'raster', tiles: [service.url], tileSize: 256, maxzoom: 19 } },
      layers: [{ id: SERVICE, type: 'raster', source: SERVICE }],
    };
  return {
    sources: { [STREETS]: { type: 'vector', tiles: [service.url], minzoom: 0, maxzoom: 15 } },
    layers: streetLayers(resolved, firstFace),
  };
}

const collection = (features: Chart['features']): GeoJSON.FeatureCollection =>
  ({ type: 'FeatureCollection', features }) as unknown as GeoJSON.FeatureCollection;

/** A map from another host, in tiles: under it the sea's colour until they come, over it what the site drew itself. */
export function styleOver(chart: Chart | null, service: TileService): StyleSpecification {
  const { sources, layers } = serviceGround(service);
  const own = ownOf(chart);
  return {
    version: 8,
    sources: { ...sources, ...(own ? { [OWN]: { type: 'geojson', data: own } } : {}) },
    layers: [
      { id: 'sea', type: 'background', paint: { 'background-color': resolved(colour('--ground')) } },
      ...layers,
      ...(own ? groundLayers(OWN, resolved) : []),
    ],
  };
}

/** What the site drew itself, without land and coasts: those are the other map's. */
function ownOf(chart: Chart | null): GeoJSON.FeatureCollection | undefined {
  const own = chart?.features.filter(isGround) ?? [];
  return own.length ? collection(own) : undefined;
}

/** Puts what the site drew itself over a style from another host, once that is there. */
export function drawOver(map: MapLibre, chart: Chart | null): void {
  const own = ownOf(chart);
  if (!own || map.getSource(OWN)) return;
  map.addSource(OWN, { type: 'geojson', data: own });
  for (const layer of groundLayers(OWN, resolved)) map.addLayer(layer);
}

/** The world's tiles: an address with {z}, {x} and {y} from the site's root, and whether the site drew something of its own over them. */
export interface BaseTiles {
  tiles: string;
  own: boolean;
}

/** What the movable chart draws. */
export interface Drawing {
  /** the site's chart; where there are tiles, no more than what it drew itself */
  chart: Chart | null;
  streets: Streets | undefined;
  base: BaseTiles | undefined;
  /** the site's own root */
  root: URL;
}

/** The name of the source of the world's tiles. */
const BASE = 'base';

const baseSource = ({ tiles }: BaseTiles, root: URL): StyleSpecification['sources'] => ({
  [BASE]: { type: 'vector', tiles: [tileAddress(tiles, root)], minzoom: 0, maxzoom: BASE_ZOOM },
});

type Kind = Pick<LineLayerSpecification, 'source' | 'source-layer'> & { filter?: FilterSpecification };

/** Towns of the world's tiles, those with most people first where there is no room for all; where streets name them, not from near. */
function townNames(streets: Streets | undefined): LayerSpecification[] {
  const layer = (id: string, more: Pick<SymbolLayerSpecification, 'filter' | 'minzoom' | 'maxzoom'>): LayerSpecification => ({
    id,
    type: 'symbol',
    source: BASE,
    'source-layer': 'name',
    layout: {
      'text-field': ['get', 'name'],
      'text-font': [firstFace('--serif')],
      'text-size': ['interpolate', ['linear'], ['get', 'rank'], -1_000_000, 17, -20_000, 14, 0, 12.5],
      'symbol-sort-key': ['get', 'rank'],
      'text-max-width': 8,
      'text-padding': 6,
    },
    paint: { 'text-color': resolved('var(--ink)'), 'text-halo-color': resolved('var(--sheet)'), 'text-halo-width': 1.5 },
    ...more,
  });
  if (!streets) return [layer('towns', {})];
  const { west, south, east, north } = streets.bounds;
  const ring = [
    [west, south],
    [east, south],
    [east, north],
    [west, north],
    [west, south],
  ];
  return [
    layer('towns', { maxzoom: PLACES_FROM }),
    layer('towns-beside', { minzoom: PLACES_FROM, filter: ['!', ['within', { type: 'Polygon', coordinates: [ring] }]] }),
  ];
}

/** What the movable chart draws, from the ground up: the site's chart or the world's tiles, and its streets where there are any. */
export function styleOf({ chart, streets, base, root }: Drawing): StyleSpecification {
  const sea = resolved(colour('--ground'));
  const water = resolved('color-mix(in srgb, var(--tide) 35%, var(--ground))');
  const ink = resolved(colour('--rule-strong'));
  const data = collection(chart?.features ?? []);
  const drawn = (name: string): Kind => ({ source: 'chart', filter: ['==', ['get', 'kind'], name] });
  const kind = (name: string): Kind => (base ? { source: BASE, 'source-layer': name } : drawn(name));
  // Where land is cut off at the chart's edges, its outline is more than the coast.
  const shore = kind(base || (chart && hasCoasts(chart.features)) ? 'coast' : 'land');
  const coastOf = (id: string, which: Kind, width: number, paint: string): LayerSpecification => ({
    id,
    type: 'line',
    ...which,
    // The shore of an island ends where it began.
    layout: { 'line-join': 'round', 'line-cap': 'round' },
    paint: { 'line-color': paint, 'line-width': width },
  });
  const coast = (id: string, width: number, paint: string): LayerSpecification => coastOf(id, shore, width, paint);
  return {
    version: 8,
    sources: { chart: { type: 'geojson', data }, ...(base ? baseSource(base, root) : {}), ...(streets ? streetSource(streets, root) : {}) },
    layers: [
      { id: 'sea', type: 'background', paint: { 'background-color': sea } },
      coast('w1', 19, water),
      coast('w2', 17, sea),
      coast('w3', 11, water),
      coast('w4', 9, sea),
      {
        id: 'ferry',
        type: 'line',
        ...drawn('ferry'),
        paint: { 'line-color': resolved(colour('--ink-2')), 'line-width': 1, 'line-dasharray': [5, 5] },
      },
      {
        id: 'causeway',
        type: 'line',
        ...drawn('causeway'),
        paint: { 'line-color': resolved(colour('--amber')), 'line-width': 3, 'line-dasharray': [1.5, 1] },
      },
      { id: 'land', type: 'fill', ...kind('land'), paint: { 'fill-color': resolved(colour('--sheet')) } },
      { id: 'lake', type: 'fill', ...kind('lake'), paint: { 'fill-color': sea } },
      coast('shore', 1.4, ink),
      {
        id: 'border',
        type: 'line',
        ...kind('border'),
        paint: { 'line-color': ink, 'line-width': 1, 'line-dasharray': [6, 3, 1, 3] },
      },
      // Shores and borders that the site drew itself, over those of the world.
      ...(base ? [coastOf('own-shore', drawn('coast'), 1.4, ink), coastOf('own-border', drawn('border'), 1, ink)] : []),
      ...(streets ? streetLayers(resolved, firstFace) : []),
      // What the site drew itself lies over the streets.
      ...(chart?.features.some(isGround) ? groundLayers('chart', resolved) : []),
      ...(base ? townNames(streets) : []),
    ],
  };
}
