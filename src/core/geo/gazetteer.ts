/**
 * Where a place lies, found by its name or address in a gazetteer: towns, islands, streets and landmarks with their positions.
 * It stands in for a geocoding service. Latitudes and longitudes in degrees, WGS 84.
 */
import { beginningLikeness, wordLikeness, wordsOf } from '../match/word-likeness';
import { distanceKm, type Point } from './geo';

/** What a name on the chart can be the name of. */
export const GAZETTEER_KINDS = ['island', 'town', 'street', 'landmark'] as const;
/** One of {@link GAZETTEER_KINDS}. */
export type GazetteerKind = (typeof GAZETTEER_KINDS)[number];

/** A named place of the chart with its position in degrees. */
export interface GazetteerEntry {
  kind: GazetteerKind;
  name: string;
  town: string;
  island: string;
  /** a street's line, from its lowest house number to its highest; others have one point */
  line: Point[];
  /** house numbers at both ends of a street */
  numbers?: [number, number];
}

/** The named places of a site's chart. */
export interface Gazetteer {
  format: 1;
  entries: GazetteerEntry[];
}

/** A place that typed words may mean, with how well they fit. */
export interface GazetteerMatch {
  entry: GazetteerEntry;
  point: Point;
  /** what it is said as: a street with its number, its town, its island */
  label: string;
  /** the house number that was asked for, when the street has it */
  number: number | undefined;
  /** how exact the point is: a house, a street's middle, a whole town or island */
  exactness: 'house' | 'street' | 'landmark' | 'town' | 'island';
  /** 0 to 1 */
  likeness: number;
}

/** A place that was found, and who knows it: the site's gazetteer, its venues, the world's towns, an address file, a service that was asked. */
export interface FoundPlace extends GazetteerMatch {
  source: 'site' | 'venues' | 'world' | 'addresses' | 'service';
  /** state, province or county; empty where the source does not say */
  region: string;
  /** ISO 3166-1 alpha-2; empty = the site's */
  country: string;
  /** where the source has one */
  postcode?: string;
}

/** Usual short forms in addresses; a word stands for itself and for these. */
const SHORT: Record<string, string[]> = {
  st: ['street', 'saint'],
  str: ['street'],
  rd: ['road'],
  ave: ['avenue'],
  ln: ['lane'],
  sq: ['square'],
  hbr: ['harbour'],
  pt: ['point', 'port'],
  mt: ['mount'],
};

/** What a word of an address may stand for: itself, and what it is short for. */
export const readings = (word: string): string[] => [word, ...(SHORT[word] ?? [])];

/** How well words fit a place. */
export interface PlaceLikeness {
  /** 0 to 1 */
  likeness: number;
  /** was anything of its own name said, not only of what it lies in? */
  named: boolean;
}

/** Below this share of what was typed, a place is not offered. */
export const LEAST_LIKENESS = 0.6;

/**
 * Places that what was typed may mean, likest first. All words count, wherever they stand; slips are forgiven; the last word may be
 * half typed. A street asked for with a house number is answered with the point of that house on its line.
 */
export function searchGazetteer(typed: string, gazetteer: Gazetteer, most = 8): GazetteerMatch[] {
  const words = wordsOf(typed.slice(0, 200)).slice(0, 12);
  const number = words.find((word) => /^\d{1,4}[a-z]?$/.test(word));
  const said = words.filter((word) => word !== number);
  if (!said.length) return [];
  const open = !/[\s,.]$/.test(typed);
  const found = gazetteer.entries.flatMap((entry) => {
    const { likeness, named } = placeLikeness(said, wordsOf(entry.name), wordsOf(`${entry.town} ${entry.island}`), open);
    return named && likeness >= LEAST_LIKENESS ? [matchOf(entry, likeness, number)] : [];
  });
  const rank = { house: 0, landmark: 1, street: 2, town: 3, island: 4 };
  return found
    .sort((a, b) => b.likeness - a.likeness || rank[a.exactness] - rank[b.exactness] || (a.label < b.label ? -1 : 1))
    .slice(0, most);
}

/**
 * How well what was said fits a place.
 * @param name the words of its name
 * @param around those of what it lies in
 * @param open may the last word be half typed?
 */
export function placeLikeness(said: readonly string[], name: readonly string[], around: readonly string[], open: boolean): PlaceLikeness {
  const hit = new Set<string>();
  let sum = 0;
  for (const [i, word] of said.entries()) {
    const like = open && i === said.length - 1 ? beginningLikeness : wordLikeness;
    const best = (list: readonly string[]): [number, string] =>
      list.reduce<[number, string]>(
        (so, other) => {
          const likeness = Math.max(...readings(word).map((r) => like(r, other)));
          return likeness > so[0] ? [likeness, other] : so;
        },
        [0, ''],
      );
    const [own, which] = best(name);
    const [near] = best(around);
    if (own >= near && own > 0) hit.add(which);
    sum += Math.max(own, near * 0.95);
  }
  // A name that was said whole goes before one of which a word was said: "Bay" before "Bay Hill".
  const covered = name.length ? [...new Set(name)].filter((word) => hit.has(word)).length / new Set(name).size : 0;
  return { likeness: (sum / said.length) * (0.8 + 0.2 * covered), named: hit.size > 0 };
}

function matchOf(entry: GazetteerEntry, likeness: number, asked: string | undefined): GazetteerMatch {
  const wanted = asked === undefined ? undefined : Number.parseInt(asked, 10);
  const [low, high] = entry.numbers ?? [1, 0];
  const number = entry.kind === 'street' && wanted !== undefined && wanted >= low && wanted <= high ? wanted : undefined;
  const share = number === undefined || high === low ? 0.5 : (number - low) / (high - low);
  const exactness = number !== undefined ? 'house' : entry.kind;
  const street = number === undefined ? entry.name : `${asked} ${entry.name}`;
  const label = [...new Set([street, entry.kind === 'town' ? '' : entry.town, entry.kind === 'island' ? '' : entry.island])]
    .filter(Boolean)
    .join(', ');
  return { entry, point: along(entry.line, share), label, number, exactness, likeness };
}

/** The point at a share of a line's length, from its beginning. */
export function along(line: readonly Point[], share: number): Point {
  const first = line[0];
  if (!first) throw new RangeError('a line without points');
  const lengths = line.slice(1).map((point, i) => distanceKm(line[i] as Point, point));
  let left = lengths.reduce((sum, n) => sum + n, 0) * Math.min(1, Math.max(0, share));
  for (const [i, length] of lengths.entries()) {
    const [a, b] = [line[i] as Point, line[i + 1] as Point];
    if (left <= length && length > 0) {
      const t = left / length;
      return { lat: a.lat + (b.lat - a.lat) * t, lng: a.lng + (b.lng - a.lng) * t };
    }
    left -= length;
  }
  return line[line.length - 1] as Point;
}
