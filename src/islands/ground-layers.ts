/** Layers of the movable chart for what a site drew itself: surfaces and ways, in the inks of the streets. */
import type { FilterSpecification, LayerSpecification } from 'maplibre-gl';
import type { StreetKind } from '@/core/geo/street-tiles';
import { growing, INKS, type Inks, type Way, wayLook } from './street-layers';

/** A surface that says nothing of itself. */
const AREA = 'color-mix(in srgb, var(--amber-wash) 45%, var(--sheet))';

/** Layers over a source of chart features, from the ground up. */
export function groundLayers(source: string, ink: Inks): LayerSpecification[] {
  const surface = (kind: StreetKind, colour: string): LayerSpecification => ({
    id: `own-${kind}`,
    type: 'fill',
    source,
    filter: ['all', ['==', ['get', 'kind'], kind], ['==', ['geometry-type'], 'Polygon']] as FilterSpecification,
    paint: { 'fill-color': ink(colour) },
  });
  const line = (id: string, kind: StreetKind, way: Way): LayerSpecification => ({
    id: `own-${id}`,
    type: 'line',
    source,
    filter: ['==', ['get', 'kind'], kind],
    ...wayLook(ink, way),
  });
  return [
    surface('water', INKS.water),
    line('streams', 'water', { ink: 'stream', width: growing(10, 0.4, 16, 3) }),
    surface('green', INKS.green),
    surface('area', AREA),
    line('edges', 'area', { ink: 'edge', width: growing(10, 0.6, 17, 1.5) }),
    surface('building', INKS.building),
    // Less is drawn here than in a town's streets: ways are seen from farther.
    line('paths', 'path', { ink: 'edge', width: growing(10, 0.8, 17, 2), dash: [3, 2] }),
    line('rails', 'rail', { ink: 'edge', width: growing(9, 0.6, 16, 2.2), dash: [5, 3] }),
    line('minor-edge', 'minor', { ink: 'minorEdge', width: growing(10, 1, 17, 15) }),
    line('major-edge', 'major', { ink: 'edge', width: growing(7, 1, 12, 3.6, 17, 21) }),
    line('minor', 'minor', { ink: 'minor', width: growing(10, 0.4, 17, 12.5) }),
    line('major', 'major', { ink: 'major', width: growing(7, 0.6, 12, 2.4, 17, 18) }),
  ];
}
