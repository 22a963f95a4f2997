/** The movable chart: MapLibre over the site's own small vector map, places as marks in a ring. */
import type { StyleSpecification } from 'maplibre-gl';
import * as maplibregl from 'maplibre-gl';
import workerUrl from 'maplibre-gl/dist/maplibre-gl-worker.mjs?worker&url';
import { useEffect, useMemo, useRef } from 'react';
import { type Bounds, type Chart, inBounds } from '@/core/geo/geo';
import { type MarkGroup, MarkIndex } from '@/core/geo/cluster';
import type { Language } from '@/core/phrase/language';
import { CHART_WORDS, type ChartWords } from '@/words/chart';
import { putList, readPart } from './chart-list';
import { addNames } from './chart-names';
import { type BaseTiles, type Drawing, drawOver, OWN, styleOf, styleOver } from './chart-style';
import type { TileService } from '@/core/geo/tile-service';
import type { Streets } from './street-layers';

maplibregl.setWorkerUrl(workerUrl);

export interface ChartPlace {
  id: string;
  name: string;
  lat: number;
  lng: number;
  /** which of the kinds */
  kind: number;
  /** its dates by their numbers: one at several places has one number */
  dates: number[];
}

/** How the ring of a place with mostly such dates is marked. */
export interface ChartKind {
  path: string;
  light: string;
  dark: string;
}

/** Rings closer than this would cover each other, in pixels. */
const APART = 40;
/** A ring of many names a few of them. */
const NAMED = 6;
/** From so many places on a ring has the number of their dates alone. */
const MANY = 10;
/** So much is drawn beside what is seen, as a part of it: moving a little shows nothing new. */
const BESIDE = 0.12;
/** Rings are drawn anew when the chart comes so much closer or farther; between, those there are move along. */
const STEP = 0.35;

/** What the chart says, in the reader's language, and how it is heard. */
interface Voice {
  w: ChartWords;
  say: (words: string) => void;
}

/** A chart's places as they are looked up. */
interface Places {
  byId: ReadonlyMap<string, ChartPlace>;
  all: readonly ChartPlace[];
  kinds: readonly ChartKind[];
  index: MarkIndex;
}

/** Which places each ring stands for. */
const membersOf = new WeakMap<Element, ReadonlySet<string>>();

function namesOf(members: readonly ChartPlace[], w: ChartWords): string {
  const names = members
    .slice(0, NAMED)
    .map((place) => place.name)
    .join(', ');
  return members.length > NAMED ? w.andMore({ names, n: members.length - NAMED }) : names;
}

function ring(group: MarkGroup, members: readonly ChartPlace[], kinds: readonly ChartKind[], w: ChartWords): HTMLButtonElement {
  const button = document.createElement('button');
  const [first] = members;
  button.type = 'button';
  button.className = 'place';
  button.classList.toggle('on', group.ids.includes(chosen));
  button.dataset.ids = group.ids.slice(0, NAMED).join(' ');
  membersOf.set(button, new Set(group.ids));
  const names = namesOf(members, w);
  button.setAttribute(
    'aria-label',
    members.length > 1 ? w.places({ places: members.length, n: group.count, names }) : w.place({ name: names, n: group.count }),
  );
  if (members.length > 1) {
    button.title = names;
    // Of many places the dates alone have room; how many they are, its name says.
    button.innerHTML = members.length < MANY ? `<span aria-hidden="true">${members.length}×</span>${group.count}` : String(group.count);
    return button;
  }
  const kind = kinds[first?.kind ?? 0];
  button.style.setProperty('--ml', kind?.light ?? '');
  button.style.setProperty('--md', kind?.dark ?? '');
  button.innerHTML = `<svg class="mark" viewBox="0 0 12 12" aria-hidden="true"><path fill-rule="evenodd" d="${kind?.path}"/></svg>${group.count}`;
  return button;
}

/** The place that is shown in both, which rings drawn anew show again. */
let chosen = '';

/** Shows a place in the list beside the chart, and the other way round. */
function choose(id: string): HTMLElement | null {
  chosen = id;
  for (const item of document.querySelectorAll<HTMLElement>('[data-place]')) item.classList.toggle('on', item.dataset.place === id);
  for (const mark of document.querySelectorAll<HTMLElement>('.place[data-ids]'))
    mark.classList.toggle('on', membersOf.get(mark)?.has(id) ?? false);
  return document.querySelector<HTMLElement>(`[data-place="${CSS.escape(id)}"]`);
}

/** A press on a ring leads into the list: the focus goes there, and what is shown is said. */
function leadTo(place: ChartPlace, { w, say }: Voice): void {
  const item = choose(place.id);
  item?.scrollIntoView({ block: 'nearest' });
  item?.querySelector<HTMLElement>('a, [tabindex]')?.focus({ preventScroll: true });
  say(w.inTheList({ name: place.name, n: place.dates.length }));
}

const gently = (): boolean => !matchMedia('(prefers-reduced-motion: reduce)').matches;

const boundsOf = (map: maplibregl.Map): Bounds => {
  const shown = map.getBounds();
  return { west: shown.getWest(), south: shown.getSouth(), east: shown.getEast(), north: shown.getNorth() };
};

/** Rings over what is seen. While the chart moves they move along; only when it moved far, or came closer or farther, they are grouped anew. */
function addRings(map: maplibregl.Map, places: Places, voice: Voice): void {
  let rings: maplibregl.Marker[] = [];
  let shown = '';
  let drawn: { bounds: Bounds; zoom: number } | undefined;
  const draw = (): void => {
    const seen = boundsOf(map);
    const zoom = map.getZoom();
    const [wide, high] = [(seen.east - seen.west) * BESIDE, (seen.north - seen.south) * BESIDE];
    drawn = { zoom, bounds: { west: seen.west - wide, east: seen.east + wide, south: seen.south - high, north: seen.north + high } };
    const groups = places.index.at(drawn.bounds, zoom, ({ lng, lat }) => map.project([lng, lat]));
    // The same groups as before move with the map by themselves.
    const now = groups.map(({ ids, count }) => `${ids.length} ${count} ${ids[0]}`).join('|');
    if (now === shown) return;
    shown = now;
    const focused = document.activeElement instanceof HTMLElement ? document.activeElement.dataset.ids : undefined;
    for (const marker of rings) marker.remove();
    rings = groups.map((group) => {
      const members = group.ids.flatMap((id) => places.byId.get(id) ?? []);
      const button = ring(group, members, places.kinds, voice.w);
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
  map.on('move', () => {
    const { west, south, east, north } = boundsOf(map);
    const inside = drawn && inBounds({ lat: south, lng: west }, drawn.bounds) && inBounds({ lat: north, lng: east }, drawn.bounds);
    if (!inside || Math.abs(map.getZoom() - (drawn?.zoom ?? 0)) >= STEP) draw();
  });
  map.on('moveend', draw);
  map.on('resize', draw);
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
  voice.say(voice.w.closerTo({ places: namesOf(members, voice.w) }));
  map.fitBounds(bounds, { padding: 70, maxZoom: map.getMaxZoom(), animate: gently() });
}

/** A place of the list that a pointer or the keyboard comes to is marked on the chart; the list has what is seen of it. */
function followList(signal: AbortSignal): void {
  const list = document.querySelector<HTMLElement>('[data-part="places"]');
  const placeOf = ({ target }: Event): string | undefined =>
    target instanceof Element ? target.closest<HTMLElement>('[data-place]')?.dataset.place : undefined;
  // What the list scrolls under a pointer that rests was not pointed at.
  list?.addEventListener(
    'pointermove',
    (event) => {
      const id = event.movementX || event.movementY ? placeOf(event) : undefined;
      if (id) choose(id);
    },
    { signal },
  );
  list?.addEventListener(
    'focusin',
    (event) => {
      const id = placeOf(event);
      if (id) choose(id);
    },
    { signal },
  );
}

interface InStep {
  w: ChartWords;
  /** what the chart shows before anybody moves it */
  whole: Bounds;
  cut: boolean;
  signal: AbortSignal;
}

/** Once somebody moved the chart, the list beside it has what is in this part, and says how much that is; a press shows all of it again. */
function listInStep(map: maplibregl.Map, { all }: Places, { w, whole, cut, signal }: InStep): void {
  const list = document.querySelector<HTMLElement>('[data-part="places"]');
  const words = list?.querySelector<HTMLElement>('[data-part="on-map"]');
  const said = list?.querySelector<HTMLElement>('[data-part="in-step"]');
  const button = list?.querySelector<HTMLButtonElement>('[data-show-all]');
  if (!list || !words || !said || !button) return;
  const wholeWords = words.textContent ?? '';
  button.textContent = w.showAll();
  let latest = 0;
  const show = async (): Promise<void> => {
    const seen = boundsOf(map);
    const here = all.filter((place) => inBounds(place, seen));
    const everything = here.length === all.length;
    const mine = ++latest;
    // Nobody moved it yet, or it is whole as it was: nothing to say.
    if (everything && words.textContent === wholeWords) return;
    const page = cut ? await readPart(everything ? undefined : seen) : undefined;
    if (mine !== latest) return;
    if (page) putList(list, page);
    const ids = new Set(here.map(({ id }) => id));
    for (const item of list.querySelectorAll<HTMLElement>('[data-place]')) item.hidden = !ids.has(item.dataset.place ?? '');
    const dates = new Set(here.flatMap((place) => place.dates)).size;
    words.textContent = everything ? wholeWords : w.here({ dates, places: here.length });
    said.textContent = words.textContent;
    button.classList.toggle('hidden', everything);
  };
  map.on('moveend', () => void show());
  const showAll = (): void => {
    map.fitBounds([whole.west, whole.south, whole.east, whole.north], { animate: gently() });
    button.blur();
  };
  button.addEventListener('click', showAll, { signal });
}

/** So long a map from another host may take to show anything, in milliseconds. */
const PATIENCE = 12_000;

/** A map from another host, with what the site drew itself over it; where nothing of it comes, `fail` is called, once. */
function drawService(map: maplibregl.Map, { kind }: TileService, chart: Chart | null, fail: () => void): void {
  let settled = false;
  const settle = (failed: boolean): void => {
    if (settled) return;
    settled = true;
    clearTimeout(patience);
    if (failed) fail();
  };
  const patience = setTimeout(() => settle(true), PATIENCE);
  map.on('remove', () => clearTimeout(patience));
  map.on('sourcedata', ({ tile, sourceId }) => {
    if (tile && sourceId !== OWN) settle(false);
  });
  // Once something came, a tile that is missing is the other host's matter.
  map.on('error', () => settle(true));
  if (kind === 'style') map.on('style.load', () => drawOver(map, chart));
}

/** The site's chart; over the world's tiles no more than what it drew itself. Null where there is none, or none came. */
async function readChart(base: BaseTiles | undefined, root: URL): Promise<Chart | null> {
  if (base && !base.own) return null;
  const response = await fetch(new URL(base ? 'chart.json?part=own' : 'chart.json', root)).catch(() => undefined);
  return response?.ok ? ((await response.json()) as Chart | null) : null;
}

/** How near and how far the chart may be seen: streets from nearer, the world from farther. */
const zoomsOf = (near: boolean, far: boolean) => ({ maxZoom: near ? 18 : 16, minZoom: far ? 1 : 6 });

/** What it is drawn as at first. */
function firstStyle(drawing: Drawing, service: TileService | undefined): string | StyleSpecification {
  if (!service) return styleOf(drawing);
  return service.kind === 'style' ? service.url : styleOver(drawing.chart, service);
}

interface Props {
  /** a list of {@link ChartPlace} as JSON: thousands of them as properties would cost the server more than all else on the page */
  places: string;
  kinds: ChartKind[];
  bounds: Bounds;
  /** are there more places than the list beside it has? */
  cut: boolean;
  language: Language;
  /** the site's street map, where it has one */
  streets?: Streets | undefined;
  /** a map from another host, in place of the site's own */
  service?: TileService | undefined;
  /** the world's tiles, where the site's map is of the world */
  base?: BaseTiles | undefined;
}

export default function ChartMap({ places: written, kinds, bounds, cut, language, streets, service, base }: Props) {
  const places = useMemo(() => JSON.parse(written) as ChartPlace[], [written]);
  const w = CHART_WORDS[language];
  const box = useRef<HTMLElement>(null);
  const status = useRef<HTMLParagraphElement>(null);
  const note = useRef<HTMLParagraphElement>(null);
  useEffect(() => {
    const container = box.current;
    if (!container) return;
    let map: maplibregl.Map | undefined;
    let gone = false;
    const listen = new AbortController();
    void (async () => {
      // A copy of the site may lie in any folder.
      const root = new URL(document.documentElement.dataset.root ?? '/', location.href);
      const chart = await readChart(base, root);
      const drawing = { chart, streets, base, root };
      if (gone) return;
      try {
        map = new maplibregl.Map({
          container,
          style: firstStyle(drawing, service),
          attributionControl: false,
          dragRotate: false,
          pitchWithRotate: false,
          bounds: [bounds.west, bounds.south, bounds.east, bounds.north],
          ...zoomsOf(Boolean(streets || service), Boolean(base || service)),
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
      const known: Places = {
        all: places,
        byId: new Map(places.map((place) => [place.id, place])),
        kinds,
        index: new MarkIndex(
          places.map(({ id, lat, lng, dates }) => ({ id, lat, lng, count: dates.length })),
          APART,
        ),
      };
      const own = (): void => {
        if (map) addNames(map, chart, streets);
      };
      if (service) {
        const { host } = new URL(service.origin);
        drawService(map, service, chart, () => {
          map?.setStyle(styleOf(drawing));
          own();
          if (note.current) note.current.textContent = w.serviceFailed({ host });
          note.current?.classList.remove('hidden');
        });
      } else own();
      addRings(map, known, { w, say });
      followList(listen.signal);
      // At once: whoever moves it before it is drawn has moved it, too.
      listInStep(map, known, { w, whole: boundsOf(map), cut, signal: listen.signal });
    })();
    return () => {
      gone = true;
      listen.abort();
      map?.remove();
    };
  }, [places, kinds, bounds, cut, w, streets, service, base]);
  return (
    <>
      {/* The map's own styles make its box relative: its place is the one around it. */}
      <div className="absolute inset-0">
        <section ref={box} className="h-full" aria-label={w.movable()} />
      </div>
      <p ref={note} role="alert" className="note warn hidden absolute top-2.5 left-2.5 right-14 m-0 z-2 bg-sheet" />
      <p ref={status} className="hidden-words" role="status" />
    </>
  );
}
