/** How the movable chart looks: the site's inks and typefaces, as WebGL understands them. */
import type { FilterSpecification, LayerSpecification, Map as MapLibre, StyleSpecification } from 'maplibre-gl';
import { type Chart, hasCoasts } from '@/core/geo/geo';
import { isGround } from '@/core/geo/street-paths';
import { groundLayers } from './ground-layers';
import type { TileService } from '@/core/geo/tile-service';
import { STREETS, type Streets, streetLayers, streetSource } from './street-layers';

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

/** What the movable chart draws, from the ground up: the site's chart, and its streets where there are any. `root` is the site's own root. */
export function styleOf(chart: Chart | null, streets: Streets | undefined, root: URL): StyleSpecification {
  const sea = resolved(colour('--ground'));
  const water = resolved('color-mix(in srgb, var(--tide) 35%, var(--ground))');
  const ink = resolved(colour('--rule-strong'));
  const data = collection(chart?.features ?? []);
  const kind = (name: string): FilterSpecification => ['==', ['get', 'kind'], name];
  // Where land is cut off at the chart's edges, its outline is more than the coast.
  const shore = kind(chart && hasCoasts(chart.features) ? 'coast' : 'land');
  const coast = (id: string, width: number, paint: string): LayerSpecification => ({
    id,
    type: 'line',
    source: 'chart',
    filter: shore,
    layout: { 'line-join': 'round' },
    paint: { 'line-color': paint, 'line-width': width },
  });
  return {
    version: 8,
    sources: { chart: { type: 'geojson', data }, ...(streets ? streetSource(streets, root) : {}) },
    layers: [
      { id: 'sea', type: 'background', paint: { 'background-color': sea } },
      coast('w1', 19, water),
      coast('w2', 17, sea),
      coast('w3', 11, water),
      coast('w4', 9, sea),
      {
        id: 'ferry',
        type: 'line',
        source: 'chart',
        filter: kind('ferry'),
        paint: { 'line-color': resolved(colour('--ink-2')), 'line-width': 1, 'line-dasharray': [5, 5] },
      },
      {
        id: 'causeway',
        type: 'line',
        source: 'chart',
        filter: kind('causeway'),
        paint: { 'line-color': resolved(colour('--amber')), 'line-width': 3, 'line-dasharray': [1.5, 1] },
      },
      { id: 'land', type: 'fill', source: 'chart', filter: kind('land'), paint: { 'fill-color': resolved(colour('--sheet')) } },
      coast('shore', 1.4, ink),
      {
        id: 'border',
        type: 'line',
        source: 'chart',
        filter: kind('border'),
        paint: { 'line-color': ink, 'line-width': 1, 'line-dasharray': [6, 3, 1, 3] },
      },
      ...(streets ? streetLayers(resolved, firstFace) : []),
      // What the site drew itself lies over the streets.
      ...(chart?.features.some(isGround) ? groundLayers('chart', resolved) : []),
    ],
  };
}
