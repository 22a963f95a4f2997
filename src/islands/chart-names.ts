/** The names on the movable chart. */
import * as maplibregl from 'maplibre-gl';
import type { Chart } from '@/core/geo/geo';
import { inBounds } from '@/core/geo/geo';
import { roomForNames } from '@/core/geo/name-room';
import { PLACES_FROM, type Streets } from './street-layers';

/** A name of the chart, at its point. */
interface Named {
  name: string;
  at: [number, number];
  look: string;
  own: boolean;
}

/** Those that a chart has always, and its towns, the largest first, of which there is room for some. */
function namesOfChart(chart: Chart | null): { always: Named[]; towns: Named[] } {
  const names: { always: Named[]; towns: Named[] } = { always: [], towns: [] };
  for (const { properties, geometry } of chart?.features ?? []) {
    if (geometry.type !== 'Point') continue;
    const isTown = properties.rank !== undefined;
    const look = `chart-name${properties.water ? ' sea' : isTown ? ' town' : ''}`;
    (isTown ? names.towns : names.always).push({
      name: properties.name ?? '',
      at: geometry.coordinates,
      look,
      own: properties.own === true,
    });
  }
  return names;
}

function putName(map: maplibregl.Map, { name, at, look }: Named): maplibregl.Marker {
  const label = document.createElement('span');
  label.className = look;
  label.textContent = name;
  return new maplibregl.Marker({ element: label }).setLngLat(at).addTo(map);
}

/** The chart's names; of its towns those for which there is room, anew when it came to rest elsewhere. */
export function addNames(map: maplibregl.Map, chart: Chart | null, streets: Streets | undefined): void {
  const { always, towns } = namesOfChart(chart);
  for (const name of always) putName(map, name);
  if (!towns.length) return;
  let shown: maplibregl.Marker[] = [];
  const draw = (): void => {
    for (const marker of shown) marker.remove();
    const { clientWidth, clientHeight } = map.getContainer();
    const clear = roomForNames(clientWidth, clientHeight);
    shown = towns
      .filter(({ name, at, own }) => {
        const [lng, lat] = at;
        if (streets && !own && map.getZoom() >= PLACES_FROM && inBounds({ lat, lng }, streets.bounds)) return false;
        const { x, y } = map.project(at);
        return clear(x, y, name);
      })
      .map((name) => putName(map, name));
  };
  draw();
  map.on('moveend', draw);
  map.on('resize', draw);
}
