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

/** The middle of several points; undefined where there are none. */
function middle(points: readonly Point[]): Point | undefined {
  if (!points.length) return undefined;
  const mean = (of: (point: Point) => number): number => points.reduce((sum, point) => sum + of(point), 0) / points.length;
  return { lat: mean(({ lat }) => lat), lng: mean(({ lng }) => lng) };
}

/** The place that words name, the most exact first: a venue by its name or address, a town and a part of the country by the venues in them, then the gazetteer. */
export function placeNamed(words: string, places: readonly NamedPlace[], gazetteer: Gazetteer): FoundPlace | undefined {
  const asked = plain(words);
  if (!asked) return undefined;
  const points = (of: readonly NamedPlace[]): Point[] => of.flatMap(({ lat, lng }) => (lat === null || lng === null ? [] : [{ lat, lng }]));
  const named = (text: (place: NamedPlace) => string, say: (place: NamedPlace) => string): FoundPlace | undefined => {
    const those = places.filter((place) => text(place) === asked);
    const at = middle(points(those));
    return at && those[0] ? { name: say(those[0]), at } : undefined;
  };
  const known =
    named(
      ({ name }) => plain(name),
      ({ name }) => name,
    ) ??
    named(
      ({ slug }) => plain(slug),
      ({ name }) => name,
    ) ??
    named(
      ({ town }) => plain(town),
      ({ town }) => town,
    ) ??
    named(
      ({ island }) => plain(island),
      ({ island }) => island,
    );
  if (known) return known;
  const [match] = searchGazetteer(words, gazetteer, 1);
  return match && { name: match.label, at: match.point };
}
