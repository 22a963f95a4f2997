/** The movable chart: MapLibre over the isles' own small vector map, places as marks in a ring. */
import * as maplibregl from 'maplibre-gl';
import workerUrl from 'maplibre-gl/dist/maplibre-gl-worker.mjs?worker&url';
import 'maplibre-gl/dist/maplibre-gl.css';
import { useEffect, useRef } from 'react';
import type { Bounds, Chart } from '@/core/geo/geo';

maplibregl.setWorkerUrl(workerUrl);

export interface ChartPlace {
  id: string;
  name: string;
  lat: number;
  lng: number;
  count: number;
  path: string;
  light: string;
  dark: string;
}

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

function styleOf(chart: Chart | null): maplibregl.StyleSpecification {
  const sea = resolved(colour('--ground'));
  const water = resolved('color-mix(in srgb, var(--tide) 35%, var(--ground))');
  const ink = resolved(colour('--rule-strong'));
  const data = { type: 'FeatureCollection', features: chart?.features ?? [] } as unknown as GeoJSON.FeatureCollection;
  const kind = (name: string): maplibregl.FilterSpecification => ['==', ['get', 'kind'], name];
  const coast = (id: string, width: number, paint: string): maplibregl.LayerSpecification => ({
    id,
    type: 'line',
    source: 'isles',
    filter: kind('land'),
    layout: { 'line-join': 'round' },
    paint: { 'line-color': paint, 'line-width': width },
  });
  return {
    version: 8,
    sources: { isles: { type: 'geojson', data } },
    layers: [
      { id: 'sea', type: 'background', paint: { 'background-color': sea } },
      coast('w1', 19, water),
      coast('w2', 17, sea),
      coast('w3', 11, water),
      coast('w4', 9, sea),
      {
        id: 'ferry',
        type: 'line',
        source: 'isles',
        filter: kind('ferry'),
        paint: { 'line-color': resolved(colour('--ink-2')), 'line-width': 1, 'line-dasharray': [5, 5] },
      },
      {
        id: 'causeway',
        type: 'line',
        source: 'isles',
        filter: kind('causeway'),
        paint: { 'line-color': resolved(colour('--amber')), 'line-width': 3, 'line-dasharray': [1.5, 1] },
      },
      { id: 'land', type: 'fill', source: 'isles', filter: kind('land'), paint: { 'fill-color': resolved(colour('--sheet')) } },
      coast('shore', 1.4, ink),
    ],
  };
}

function ring(place: ChartPlace): HTMLButtonElement {
  const button = document.createElement('button');
  button.type = 'button';
  button.className = 'place';
  button.setAttribute('aria-label', `${place.name}: ${place.count} ${place.count === 1 ? 'date' : 'dates'}`);
  button.style.setProperty('--ml', place.light);
  button.style.setProperty('--md', place.dark);
  button.innerHTML = `<svg class="mark" viewBox="0 0 12 12" aria-hidden="true"><path fill-rule="evenodd" d="${place.path}"/></svg>${place.count}`;
  return button;
}

/** Shows a place in the list beside the chart, and the other way round. */
function choose(id: string, scroll: boolean): void {
  for (const item of document.querySelectorAll<HTMLElement>('[data-place], .place[data-id]')) {
    item.classList.toggle('on', (item.dataset.place ?? item.dataset.id) === id);
  }
  if (scroll) document.querySelector(`[data-place="${CSS.escape(id)}"]`)?.scrollIntoView({ block: 'nearest' });
}

/** The isles' names, the places, and the list beside them, which moves in step. */
function addMarkers(map: maplibregl.Map, chart: Chart | null, places: ChartPlace[], signal: AbortSignal): void {
  for (const f of chart?.features ?? []) {
    if (f.geometry.type !== 'Point') continue;
    const label = document.createElement('span');
    label.className = `chart-name${f.properties.water ? ' sea' : ''}`;
    label.textContent = f.properties.name ?? '';
    new maplibregl.Marker({ element: label }).setLngLat(f.geometry.coordinates).addTo(map);
  }
  for (const place of places) {
    const button = ring(place);
    button.dataset.id = place.id;
    button.addEventListener('click', () => choose(place.id, true));
    new maplibregl.Marker({ element: button }).setLngLat([place.lng, place.lat]).addTo(map);
  }
  for (const item of document.querySelectorAll<HTMLElement>('[data-place]')) {
    item.addEventListener('pointerenter', () => choose(item.dataset.place ?? '', false), { signal });
    item.addEventListener('focusin', () => choose(item.dataset.place ?? '', false), { signal });
  }
}

export default function ChartMap({ places, bounds }: { places: ChartPlace[]; bounds: Bounds }) {
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    const container = box.current;
    if (!container) return;
    let map: maplibregl.Map | undefined;
    let gone = false;
    const listen = new AbortController();
    void (async () => {
      const response = await fetch('/chart.json').catch(() => undefined);
      const chart = response?.ok ? ((await response.json()) as Chart | null) : null;
      if (gone) return;
      try {
        map = new maplibregl.Map({
          container,
          style: styleOf(chart),
          attributionControl: false,
          dragRotate: false,
          pitchWithRotate: false,
          bounds: [bounds.west, bounds.south, bounds.east, bounds.north],
          maxZoom: 16,
          minZoom: 6,
        });
      } catch {
        // Without WebGL the engraving under this stays, and the list has the same places.
        container.remove();
        return;
      }
      map.addControl(new maplibregl.NavigationControl({ showCompass: false }), 'top-right');
      map.addControl(new maplibregl.ScaleControl({ unit: 'metric' }), 'bottom-left');
      addMarkers(map, chart, places, listen.signal);
    })();
    return () => {
      gone = true;
      listen.abort();
      map?.remove();
    };
  }, [places, bounds]);
  return <section ref={box} style={{ position: 'absolute', inset: 0 }} aria-label="Movable chart" />;
}
