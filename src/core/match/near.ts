/** Where a place is that somebody names: a venue, a town, a part of the country, or what a site's own gazetteer knows. */
import { type Gazetteer, searchGazetteer } from '../geo/gazetteer';
import type { Point } from '../geo/geo';
import { fold } from '../text/text';

/** A place as pages know it. */
export interface NamedPlace {
  name: string;
  slug: string;
  town: string;
  island: string;
  lat: number | null;
  lng: number | null;
}

/** A place that was found, with its name as it is written. */
export interface FoundPlace {
  name: string;
  at: Point;
}

/** A name as people type it: without apostrophes, whatever stands between its words. */
const plain = (name: string): string =>
  fold(name)
    .replace(/'/g, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** The middle of one point or more. */
function middle(points: readonly Point[]): Point {
  const mean = (of: (point: Point) => number): number => points.reduce((sum, point) => sum + of(point), 0) / points.length;
  return { lat: mean(({ lat }) => lat), lng: mean(({ lng }) => lng) };
}

type Say = (place: NamedPlace) => string;
/** What a place is found by and what it is called then, the most exact first. */
const NAMES: readonly [Say, Say][] = [
  [({ name }) => name, ({ name }) => name],
  [({ slug }) => slug, ({ name }) => name],
  [({ town }) => town, ({ town }) => town],
  [({ island }) => island, ({ island }) => island],
];

/** What each name is the name of; a name of several kinds is the most exact one's. Folding thousands of names is for once. */
const indexes = new WeakMap<readonly NamedPlace[], ReadonlyMap<string, FoundPlace>>();

function indexOf(places: readonly NamedPlace[]): ReadonlyMap<string, FoundPlace> {
  const known = indexes.get(places);
  if (known) return known;
  const index = new Map<string, FoundPlace>();
  for (const [of, say] of NAMES) {
    const alike = new Map<string, { name: string; points: Point[] }>();
    for (const place of places) {
      const key = plain(of(place));
      if (!key || place.lat === null || place.lng === null) continue;
      const one = alike.get(key) ?? { name: say(place), points: [] };
      one.points.push({ lat: place.lat, lng: place.lng });
      alike.set(key, one);
    }
    for (const [key, { name, points }] of alike) if (!index.has(key)) index.set(key, { name, at: middle(points) });
  }
  indexes.set(places, index);
  return index;
}

/** The place that words name, the most exact first: a venue by its name or address, a town and a part of the country by the venues in them, then the gazetteer. */
export function placeNamed(words: string, places: readonly NamedPlace[], gazetteer: Gazetteer): FoundPlace | undefined {
  const asked = plain(words);
  if (!asked) return undefined;
  const known = indexOf(places).get(asked);
  if (known) return known;
  const [match] = searchGazetteer(words, gazetteer, 1);
  return match && { name: match.label, at: match.point };
}
