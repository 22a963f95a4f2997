/** Addresses gathered by their streets: half a million of them are some thousand streets with house numbers. */
import { wordsOf } from '../match/word-likeness';
import { fold } from '../text/text';
import type { AddressRow } from './address-rows';
import type { Point } from './geo';

/** The houses of a street in columns, as they are stored: positions in millionths of a degree, north and east. */
export interface Houses {
  format: 1;
  numbers: string[];
  lat: number[];
  lng: number[];
  /** which of the street's postcodes; -1 = none */
  postcode: number[];
}

/** A street of a town. */
export interface AddressStreet {
  name: string;
  town: string;
  region: string;
  postcodes: string[];
  /** where the house in the middle of its numbers stands */
  point: Point;
  /** those by which it is found: of its name, town, region and postcodes, each once */
  words: string[];
  houses: Houses;
}

/** A number for comparing: "12 A" is "12a". */
export const houseKey = (number: string): string => fold(number).replace(/\s+/g, '');

const MICRO = 1e6;
/** Streets of one name without a town are one street where they lie in one square of so many degrees. */
const SQUARE = 0.05;
/** A street has at most so many words. */
const MOST_WORDS = 24;

const leading = (number: string): number => Number.parseInt(number, 10) || 0;

interface Gathered {
  row: AddressRow;
  /** the first house of each number */
  houses: Map<string, AddressRow>;
}

/** Takes addresses one by one and gives their streets. */
export class StreetGatherer {
  readonly #streets = new Map<string, Gathered>();
  readonly #towns = new Map<string, string>();
  #guessed = 0;

  /** @param nearestTown what town a point lies at; asked for rows that name none */
  constructor(private readonly nearestTown: (point: Point) => string) {}

  /** How many rows had their town guessed from where they lie. */
  get guessed(): number {
    return this.#guessed;
  }

  /** Takes one; false where the street has a house of that number already (another flat of it). */
  add(row: AddressRow): boolean {
    const town = row.town || this.#townAt(row);
    const key = `${fold(row.street)}|${fold(town)}|${fold(row.region)}`;
    const known = this.#streets.get(key);
    const number = houseKey(row.number);
    if (known?.houses.has(number)) return false;
    if (known) known.houses.set(number, row);
    else this.#streets.set(key, { row: { ...row, town }, houses: new Map([[number, row]]) });
    return true;
  }

  /** A town for rows without one: asked once for each square of the earth. */
  #townAt({ lat, lng }: Point): string {
    this.#guessed++;
    const square = `${Math.floor(lat / SQUARE)} ${Math.floor(lng / SQUARE)}`;
    const known = this.#towns.get(square);
    if (known !== undefined) return known;
    const middle = (n: number): number => (Math.floor(n / SQUARE) + 0.5) * SQUARE;
    const town = this.nearestTown({ lat: middle(lat), lng: middle(lng) });
    this.#towns.set(square, town);
    return town;
  }

  /** The streets so far, each with its houses in the order of their numbers. */
  *streets(): Generator<AddressStreet> {
    for (const { row, houses } of this.#streets.values()) {
      const rows = [...houses.values()].sort((a, b) => leading(a.number) - leading(b.number) || (a.number < b.number ? -1 : 1));
      const postcodes = [...new Set(rows.map(({ postcode }) => postcode).filter(Boolean))];
      const { street: name, town, region } = row;
      const middle = rows[Math.floor(rows.length / 2)] as AddressRow;
      const numbered = rows.filter(({ number }) => number);
      yield {
        name,
        town,
        region,
        postcodes,
        point: { lat: middle.lat, lng: middle.lng },
        words: [...new Set(wordsOf([name, town, region, ...postcodes].join(' ')))].slice(0, MOST_WORDS),
        houses: {
          format: 1,
          numbers: numbered.map(({ number }) => number),
          lat: numbered.map(({ lat }) => Math.round(lat * MICRO)),
          lng: numbered.map(({ lng }) => Math.round(lng * MICRO)),
          postcode: numbered.map(({ postcode }) => postcodes.indexOf(postcode)),
        },
      };
    }
  }
}

/** A house of a street. */
export interface House {
  number: string;
  point: Point;
  postcode: string;
}

/** The house of a number as it was typed; else the first that begins with it ("12" is "12a" where there is no 12); undefined without one. */
export function houseOf({ houses, postcodes }: Pick<AddressStreet, 'houses' | 'postcodes'>, typed: string): House | undefined {
  const key = houseKey(typed);
  const keys = houses.numbers.map(houseKey);
  const exact = keys.indexOf(key);
  const at = exact === -1 ? keys.findIndex((one) => one.startsWith(key) && !/^\d/.test(one.slice(key.length))) : exact;
  if (at === -1) return undefined;
  return {
    number: houses.numbers[at] as string,
    point: { lat: (houses.lat[at] as number) / MICRO, lng: (houses.lng[at] as number) / MICRO },
    postcode: postcodes[houses.postcode[at] as number] ?? '',
  };
}
