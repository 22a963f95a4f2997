/** The world's towns, and which of them somebody means by what they type. Positions in degrees, WGS 84. */
import { slipsAllowed, slipsBetween } from '../match/distance';
import { bitsIn, lettersOf } from '../match/letters';
import { fold } from '../text/text';
import { countryName } from './countries';
import type { Point } from './geo';

/** Towns as columns, the largest first: `names` one a line, positions in ten-thousandths of a degree. */
export interface TownTable {
  format: 1;
  names: string;
  lat: readonly number[];
  lng: readonly number[];
  /** 0 = under a thousand people, or not known */
  population: readonly number[];
  /** which of `regions` and of `countries` */
  region: readonly number[];
  country: readonly number[];
  regions: readonly string[];
  /** ISO 3166-1 alpha-2 */
  countries: readonly string[];
}

/** A town as it is chosen. */
export interface Town extends Point {
  name: string;
  /** state, province or county in its own words; may be empty */
  region: string;
  /** ISO 3166-1 alpha-2 */
  country: string;
  population: number;
}

/** A town with what it lies in, as far as these say something. */
export const townLabel = ({ name, region, country }: Town): string =>
  [name, region === name ? '' : region, countryName(country)].filter(Boolean).join(', ');

/** A town that what was typed may mean. */
export interface TownMatch extends Town {
  /** 0 to 1: 1 = it is called that */
  likeness: number;
}

const folded = (text: string): string =>
  fold(text)
    .replace(/['’.]/g, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Usual short beginnings of towns' names. */
const SHORT: Record<string, string> = { st: 'saint', ste: 'sainte', mt: 'mount', ft: 'fort', pt: 'port' };
const CALLED: Record<string, string> = { uk: 'GB', england: 'GB', scotland: 'GB', wales: 'GB', usa: 'US', america: 'US', holland: 'NL' };

/** Most letters of a name that are looked at. */
const LONGEST = 60;
/** What is left of a name's likeness where a region or country was said behind a comma that it does not lie in. */
const ELSEWHERE = 0.55;
const LEAST = 0.5;

interface Reading {
  name: string;
  /** what follows the name without a comma: the region or country it lies in, or it is another name */
  within: string;
  /** what stands behind commas */
  around: string[];
}

/** "St Johns, Newfoundland" and "halifax nova scotia": a name, and what may stand behind it. */
function readingsOf(typed: string): Reading[] {
  const [first = '', ...rest] = typed.slice(0, 200).split(',').map(folded);
  const around = rest.filter(Boolean);
  const words = first.split(' ').filter(Boolean).slice(0, 8);
  // Without a comma any of the words may begin the region.
  const parts = words.map((_, i) => words.length - i).map((n) => ({ name: words.slice(0, n), behind: words.slice(n).join(' ') }));
  return parts.flatMap(({ name, behind }) => {
    const long = SHORT[name[0] ?? ''];
    const names = [name.join(' '), ...(long ? [[long, ...name.slice(1)].join(' ')] : [])];
    return names.map((one) => ({ name: one, within: behind, around }));
  });
}

/** Do these words call the country? */
const calls = (words: string, country: string, code: string): boolean =>
  words.length > 1 && (country.startsWith(words) || words.toUpperCase() === code || CALLED[words] === code);

/** Do they begin the region's name, or one of its words? */
const inRegion = (words: string, region: string): boolean => words.length > 1 && (region.startsWith(words) || region.includes(` ${words}`));

/** An index of the world's towns: made once, asked often. */
export class Towns {
  readonly #names: readonly string[];
  readonly #keys: readonly string[];
  readonly #letters: Uint32Array;
  /** places where a word of a name begins, town × 64 + letter, in the order of what follows there */
  readonly #starts: Float64Array;
  readonly #countryNames: readonly string[];
  readonly #regionNames: readonly string[];

  /** @param countryName what a country is called in the language of whoever types */
  constructor(
    private readonly table: TownTable,
    countryName: (code: string) => string,
  ) {
    this.#names = table.names.split('\n');
    this.#keys = this.#names.map((name) => folded(name).slice(0, LONGEST));
    this.#letters = Uint32Array.from(this.#keys, lettersOf);
    const starts: number[] = [];
    for (const [i, key] of this.#keys.entries())
      for (let at = 0; at !== -1 && at < key.length; at = key.indexOf(' ', at) + 1 || -1) starts.push(i * 64 + at);
    const keys = this.#keys;
    const behind = starts.map((start) => (keys[Math.floor(start / 64)] as string).slice(start % 64));
    const order = Uint32Array.from(starts, (_, n) => n).sort((a, b) => {
      const [x, y] = [behind[a] as string, behind[b] as string];
      return x < y ? -1 : x > y ? 1 : a - b;
    });
    this.#starts = Float64Array.from(order, (n) => starts[n] as number);
    this.#countryNames = table.countries.map((code) => folded(countryName(code)));
    this.#regionNames = table.regions.map(folded);
  }

  /** How many there are. */
  get size(): number {
    return this.#names.length;
  }

  #townAt(i: number): Town {
    const { table } = this;
    return {
      name: this.#names[i] as string,
      region: table.regions[table.region[i] as number] ?? '',
      country: table.countries[table.country[i] as number] ?? '',
      lat: (table.lat[i] as number) / 1e4,
      lng: (table.lng[i] as number) / 1e4,
      population: table.population[i] as number,
    };
  }

  /** Towns within bounds, the largest first. */
  within({ west, south, east, north }: { west: number; south: number; east: number; north: number }, most: number): Town[] {
    const found: Town[] = [];
    const { lat, lng } = this.table;
    for (let i = 0; i < lat.length && found.length < most; i++) {
      const [y, x] = [(lat[i] as number) / 1e4, (lng[i] as number) / 1e4];
      if (y < south || y > north) continue;
      // A part of the world may reach over the date line.
      const turned = x < west ? x + 360 : x > east ? x - 360 : x;
      if (turned >= west && turned <= east) found.push({ ...this.#townAt(i), lng: turned });
    }
    return found;
  }

  /** The town that lies nearest to a point, at most `degrees` away to north or south. */
  nearest(point: Point, degrees = 3): Town | undefined {
    const { lat, lng } = this.table;
    const shrink = Math.cos((point.lat * Math.PI) / 180);
    let [best, least] = [-1, degrees ** 2];
    for (let i = 0; i < lat.length; i++) {
      const dLat = (lat[i] as number) / 1e4 - point.lat;
      if (dLat * dLat >= least) continue;
      // Around the date line 179° and -179° are neighbours.
      const dLng = (((lng[i] as number) / 1e4 - point.lng + 540) % 360) - 180;
      const apart = dLat * dLat + (dLng * shrink) ** 2;
      if (apart < least) [best, least] = [i, apart];
    }
    return best < 0 ? undefined : this.#townAt(best);
  }

  /**
   * Towns that what was typed may mean, likest first, the larger before the smaller. The name may be half typed and have slips; a region
   * or a country may stand behind it, with a comma or without.
   */
  search(typed: string, most = 8): TownMatch[] {
    const best = new Map<number, number>();
    // "Old Harbour" is no town called Old in a region called Harbour where there is no such region.
    const readings = readingsOf(typed).filter(({ within }) => !within || this.#isSomewhere(within));
    for (const reading of readings) this.#begin(reading, best);
    // Slips are looked for where nothing, or only what lies elsewhere, is called that.
    if (![...best.values()].some((likeness) => likeness >= 0.8)) for (const reading of readings) this.#slip(reading, best);
    return [...best]
      .filter(([, likeness]) => likeness >= LEAST)
      .sort(([a, x], [b, y]) => this.#rank(b, y) - this.#rank(a, x) || a - b)
      .slice(0, most)
      .map(([i, likeness]) => ({ ...this.#townAt(i), likeness }));
  }

  /** A large town goes before a small one that is somewhat liker: "Lond" is London before it is a hamlet called Lond. */
  #rank(i: number, likeness: number): number {
    return likeness + Math.log10((this.table.population[i] as number) + 100) * 0.06;
  }

  /** Names of which a word begins so. */
  #begin({ name, ...where }: Reading, best: Map<number, number>): void {
    if (!name) return;
    for (let at = this.#firstFrom(name); at < this.#starts.length; at++) {
      const start = this.#starts[at] as number;
      const i = Math.floor(start / 64);
      const key = this.#keys[i] as string;
      if (!key.startsWith(name, start % 64)) break;
      const whole = key.length === name.length;
      const own = whole ? 1 : start % 64 === 0 ? 0.9 : 0.7;
      this.#note(i, own, where, best);
    }
  }

  #firstFrom(name: string): number {
    let [low, high] = [0, this.#starts.length];
    while (low < high) {
      const middle = (low + high) >>> 1;
      const start = this.#starts[middle] as number;
      const there = (this.#keys[Math.floor(start / 64)] as string).slice(start % 64, (start % 64) + name.length);
      if (there < name) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Names that are a slip or two apart, or that begin so. */
  #slip({ name, ...where }: Reading, best: Map<number, number>): void {
    const allowed = slipsAllowed(name.length);
    if (!allowed) return;
    const letters = lettersOf(name);
    for (let i = 0; i < this.#keys.length; i++) {
      const key = this.#keys[i] as string;
      const longer = key.length > name.length + allowed;
      // A half typed name is looked for among those that begin with its letter alone.
      if (longer ? key[0] !== name[0] : bitsIn((this.#letters[i] as number) ^ letters) > 2 * allowed) continue;
      const slips = slipsBetween(name, longer ? key.slice(0, name.length) : key, allowed);
      if (slips <= allowed) this.#note(i, (0.95 - slips / (name.length + 1)) * (longer ? 0.85 : 1), where, best);
    }
  }

  #note(i: number, own: number, { within, around }: Omit<Reading, 'name'>, best: Map<number, number>): void {
    if (within && !this.#liesIn(i, within)) return;
    const likeness = around.reduce((so, words) => (this.#liesIn(i, words) ? so : so * ELSEWHERE), own);
    if (likeness > (best.get(i) ?? 0)) best.set(i, likeness);
  }

  /** Is there a region or a country that could be called so? Of both together it is enough to know the beginning. */
  #isSomewhere(words: string): boolean {
    const { countries } = this.table;
    return (
      this.#countryNames.some((name, i) => calls(words, name, countries[i] as string)) ||
      this.#regionNames.some((name) => (name !== '' && words.startsWith(`${name} `)) || inRegion(words, name))
    );
  }

  /** Does a town lie in what somebody calls a region, a country, or both one after the other? */
  #liesIn(i: number, words: string): boolean {
    const region = this.#regionNames[this.table.region[i] as number] ?? '';
    const country = this.#countryNames[this.table.country[i] as number] ?? '';
    const code = this.table.countries[this.table.country[i] as number] ?? '';
    if (calls(words, country, code) || inRegion(words, region)) return true;
    return region !== '' && words.startsWith(`${region} `) && calls(words.slice(region.length + 1), country, code);
  }
}
