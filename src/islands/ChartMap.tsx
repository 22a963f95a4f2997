/** The movable chart: MapLibre over the isles' own small vector map, places as marks in a ring. */
import * as maplibregl from 'maplibre-gl';
import workerUrl from 'maplibre-gl/dist/maplibre-gl-worker.mjs?worker&url';
import { useEffect, useRef } from 'react';
import type { Bounds, Chart } from '@/core/geo/geo';
import { groupMarks, type MarkGroup } from '@/core/geo/cluster';
import type { Language } from '@/core/phrase/language';
import { CHART_WORDS, type ChartWords } from '@/words/chart';

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

/** Rings closer than this would cover each other, in pixels. */
const APART = 40;

/** What the chart says, in the reader's language, and how it is heard. */
interface Voice {
  w: ChartWords;
  say: (words: string) => void;
}

function ring(group: MarkGroup, members: readonly ChartPlace[], w: ChartWords): HTMLButtonElement {
  const button = document.createElement('button');
  const [first] = members;
  button.type = 'button';
  button.className = 'place';
  button.dataset.ids = group.ids.join(' ');
  const names = members.map((place) => place.name);
  button.setAttribute(
    'aria-label',
    members.length > 1
      ? w.places({ places: members.length, n: group.count, names: names.join(', ') })
      : w.place({ name: names[0] ?? '', n: group.count }),
  );
  if (members.length > 1) {
    button.title = names.join(', ');
    button.innerHTML = `<span aria-hidden="true">${members.length}×</span>${group.count}`;
    return button;
  }
  button.style.setProperty('--ml', first?.light ?? '');
  button.style.setProperty('--md', first?.dark ?? '');
  button.innerHTML = `<svg class="mark" viewBox="0 0 12 12" aria-hidden="true"><path fill-rule="evenodd" d="${first?.path}"/></svg>${group.count}`;
  return button;
}

/** Shows a place in the list beside the chart, and the other way round. */
function choose(id: string): HTMLElement | null {
  for (const item of document.querySelectorAll<HTMLElement>('[data-place]')) item.classList.toggle('on', item.dataset.place === id);
  for (const mark of document.querySelectorAll<HTMLElement>('.place[data-ids]'))
    mark.classList.toggle('on', mark.dataset.ids?.split(' ').includes(id) ?? false);
  return document.querySelector<HTMLElement>(`[data-place="${CSS.escape(id)}"]`);
}

/** A press on a ring leads into the list: the focus goes there, and what is shown is said. */
function leadTo(place: ChartPlace, { w, say }: Voice): void {
  const item = choose(place.id);
  item?.scrollIntoView({ block: 'nearest' });
  item?.querySelector<HTMLElement>('a, [tabindex]')?.focus({ preventScroll: true });
  say(w.inTheList({ name: place.name, n: place.count }));
}

/** The isles' names, the places, and the list beside them, which moves in step. */
function addMarkers(map: maplibregl.Map, chart: Chart | null, places: ChartPlace[], voice: Voice, signal: AbortSignal): void {
  for (const f of chart?.features ?? []) {
    if (f.geometry.type !== 'Point') continue;
    const label = document.createElement('span');
    label.className = `chart-name${f.properties.water ? ' sea' : ''}`;
    label.textContent = f.properties.name ?? '';
    new maplibregl.Marker({ element: label }).setLngLat(f.geometry.coordinates).addTo(map);
  }
  const byId = new Map(places.map((place) => [place.id, place]));
  let rings: maplibregl.Marker[] = [];
  let shown = '';
  const draw = (): void => {
    const marks = places.map((place) => {
      const { x, y } = map.project([place.lng, place.lat]);
      return { id: place.id, x, y, count: place.count };
    });
    const groups = groupMarks(marks, APART);
    // The same groups as before move with the map by themselves.
    const now = groups.map((group) => group.ids.join(' ')).join('|');
    if (now === shown) return;
    shown = now;
    const focused = document.activeElement instanceof HTMLElement ? document.activeElement.dataset.ids : undefined;
    for (const marker of rings) marker.remove();
    rings = groups.map((group) => {
      const members = group.ids.flatMap((id) => byId.get(id) ?? []);
      const button = ring(group, members, voice.w);
      button.addEventListener('click', () => press(map, members, voice));
      return new maplibregl.Marker({ element: button }).setLngLat(map.unproject([group.x, group.y])).addTo(map);
    });
    if (focused)
      rings
        .find((marker) => marker.getElement().dataset.ids === focused)
        ?.getElement()
        .focus();
  };
  draw();
  map.on('zoom', draw);
  map.on('resize', draw);
  for (const item of document.querySelectorAll<HTMLElement>('[data-place]')) {
    // What the list scrolls under a pointer that rests was not pointed at.
    item.addEventListener('pointermove', ({ movementX, movementY }) => (movementX || movementY) && choose(item.dataset.place ?? ''), {
      signal,
    });
    item.addEventListener('focusin', () => choose(item.dataset.place ?? ''), { signal });
  }
}

/** One place is shown in the list; several are come closer to, until they part or cannot. */
function press(map: maplibregl.Map, members: readonly ChartPlace[], voice: Voice): void {
  const [first] = members;
  if (!first) return;
  const bounds = new maplibregl.LngLatBounds();
  for (const { lng, lat } of members) bounds.extend([lng, lat]);
  const apart = members.some(({ lng, lat }) => lng !== first.lng || lat !== first.lat);
  if (members.length === 1 || !apart || map.getZoom() >= map.getMaxZoom() - 0.1) {
    leadTo(first, voice);
    return;
  }
  voice.say(voice.w.closerTo({ places: members.map((place) => place.name).join(', ') }));
  map.fitBounds(bounds, { padding: 70, maxZoom: map.getMaxZoom(), animate: !matchMedia('(prefers-reduced-motion: reduce)').matches });
}

export default function ChartMap({ places, bounds, language }: { places: ChartPlace[]; bounds: Bounds; language: Language }) {
  const w = CHART_WORDS[language];
  const box = useRef<HTMLElement>(null);
  const status = useRef<HTMLParagraphElement>(null);
  useEffect(() => {
    const container = box.current;
    if (!container) return;
    let map: maplibregl.Map | undefined;
    let gone = false;
    const listen = new AbortController();
    void (async () => {
      // A copy of the site may lie in any folder.
      const root = new URL(document.documentElement.dataset.root ?? '/', location.href);
      const response = await fetch(new URL('chart.json', root)).catch(() => undefined);
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
          locale: {
            'Map.Title': w.title(),
            'Marker.Title': w.name(),
            'NavigationControl.ZoomIn': w.nearer(),
            'NavigationControl.ZoomOut': w.farther(),
          },
        });
      } catch {
        // Without WebGL the engraving under this stays, and the list has the same places.
        container.remove();
        return;
      }
      map.addControl(new maplibregl.NavigationControl({ showCompass: false }), 'top-right');
      map.addControl(new maplibregl.ScaleControl({ unit: 'metric' }), 'bottom-left');
      const say = (words: string): void => {
        if (status.current) status.current.textContent = words;
      };
      addMarkers(map, chart, places, { w, say }, listen.signal);
    })();
    return () => {
      gone = true;
      listen.abort();
      map?.remove();
    };
  }, [places, bounds, w]);
  return (
    <>
      {/* The map's own styles make its box relative: its place is the one around it. */}
      <div className="absolute inset-0">
        <section ref={box} className="h-full" aria-label={w.movable()} />
      </div>
      <p ref={status} className="hidden-words" role="status" />
    </>
  );
}
