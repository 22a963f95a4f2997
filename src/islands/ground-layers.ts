/** Layers of the movable chart for what a site drew itself: surfaces and ways, in the inks and widths of the streets. */
import type { FilterSpecification, LayerSpecification } from 'maplibre-gl';
import type { StreetKind } from '@/core/geo/street-tiles';
import { growing, type Inks } from './street-layers';

/** Layers over a source of chart features, from the ground up. */
export function groundLayers(source: string, ink: Inks): LayerSpecification[] {
  const surface = (kind: StreetKind, colour: string): LayerSpecification => ({
    id: `own-${kind}`,
    type: 'fill',
    source,
    filter: ['all', ['==', ['get', 'kind'], kind], ['==', ['geometry-type'], 'Polygon']] as FilterSpecification,
    paint: { 'fill-color': ink(colour) },
  });
  const line = (id: string, kind: StreetKind, colour: string, width: ReturnType<typeof growing>, dash?: number[]): LayerSpecification => ({
    id: `own-${id}`,
    type: 'line',
    source,
    filter: ['==', ['get', 'kind'], kind],
    layout: { 'line-join': 'round', 'line-cap': dash ? 'butt' : 'round' },
    paint: { 'line-color': ink(colour), 'line-width': width, ...(dash ? { 'line-dasharray': dash } : {}) },
  });
  return [
    surface('water', 'color-mix(in srgb, var(--tide) 18%, var(--ground))'),
    line('streams', 'water', 'color-mix(in srgb, var(--tide) 45%, var(--ground))', growing(10, 0.4, 16, 3)),
    surface('green', 'color-mix(in srgb, var(--tide-wash) 75%, var(--sheet))'),
    surface('area', 'color-mix(in srgb, var(--amber-wash) 45%, var(--sheet))'),
    line('edges', 'area', 'var(--ink-3)', growing(10, 0.6, 17, 1.5)),
    surface('building', 'color-mix(in srgb, var(--ink-3) 16%, var(--sheet))'),
    line('paths', 'path', 'var(--ink-3)', growing(10, 0.8, 17, 2), [3, 2]),
    line('rails', 'rail', 'var(--ink-3)', growing(9, 0.6, 16, 2.2), [5, 3]),
    line('minor-edge', 'minor', 'var(--rule)', growing(10, 1, 17, 15)),
    line('major-edge', 'major', 'var(--ink-3)', growing(7, 1, 12, 3.6, 17, 21)),
    line('minor', 'minor', 'var(--sheet)', growing(10, 0.4, 17, 12.5)),
    line('major', 'major', 'var(--amber-wash)', growing(7, 0.6, 12, 2.4, 17, 18)),
  ];
}
