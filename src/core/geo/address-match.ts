/** What somebody types as an address, and how well a street fits it. */
import { wordsOf } from '../match/word-likeness';
import { type AddressStreet, type House, houseOf } from './address-streets';
import { type FoundPlace, placeLikeness } from './gazetteer';
import { distanceKm, type Point } from './geo';

/** Typed words, parted into those of names and those that may be house numbers. */
export interface TypedAddress {
  /** all, in their order */
  words: string[];
  /** those that can be a house number: "12", "12a" */
  numbers: string[];
  /** may the last word be half typed? */
  open: boolean;
}

const NUMBER = /^\d{1,6}[a-z]?$/;

/** What was typed, as it is looked for. */
export function typedAddress(typed: string): TypedAddress {
  const words = wordsOf(typed.slice(0, 200)).slice(0, 12);
  return { words, numbers: words.filter((word) => NUMBER.test(word)), open: !/[\s,.]$/.test(typed) };
}

/** A street that what was typed may mean. */
export interface StreetMatch<S> {
  street: S;
  /** 0 to 1 */
  likeness: number;
  /** what was typed and is neither a word of the street nor of its town: a house number, perhaps */
  numbers: string[];
}

/** How well a street fits; without its houses, which are looked for in the likest only. */
export function matchStreet<S extends Omit<AddressStreet, 'houses'>>({ words, numbers, open }: TypedAddress, street: S): StreetMatch<S> {
  const name = wordsOf(street.name);
  const around = wordsOf([street.town, street.region, ...street.postcodes].join(' '));
  const own = new Set([...name, ...around]);
  const asked = numbers.filter((number) => !own.has(number));
  const said = words.filter((word) => !asked.includes(word));
  if (!said.length) return { street, likeness: 0, numbers: asked };
  const { likeness, named } = placeLikeness(said, name, around, open && said.at(-1) === words.at(-1));
  // A postcode alone is enough where people find their way by it.
  const codes = new Set(street.postcodes.flatMap(wordsOf));
  return { street, likeness: named || said.every((word) => codes.has(word)) ? likeness : 0, numbers: asked };
}

/** Something less for a street that has no house of the number that was asked for. */
const WITHOUT_HOUSE = 0.95;
/** For one kilometre from where the site is, up to what makes no street of a far town better than one here. */
const A_KILOMETRE = 0.0004;
const MOST_FAR = 0.1;

/** A street, or its house of the number that was asked for, as a place that was found. */
export function addressPlace({ street, likeness, numbers }: StreetMatch<AddressStreet>, middle: Point): FoundPlace {
  const house = numbers.reduce<House | undefined>((found, number) => found ?? houseOf(street, number), undefined);
  const { name, town, region, postcodes } = street;
  const point = house?.point ?? street.point;
  const postcode = house ? house.postcode : postcodes.length === 1 ? (postcodes[0] as string) : '';
  const way = house ? `${house.number} ${name}` : name;
  const far = Math.min(MOST_FAR, distanceKm(point, middle) * A_KILOMETRE);
  return {
    entry: { kind: 'street', name, town, island: '', line: [point] },
    point,
    label: [way, town, region].filter(Boolean).join(', '),
    number: house ? Number.parseInt(house.number, 10) || undefined : undefined,
    exactness: house ? 'house' : 'street',
    likeness: likeness * (numbers.length && !house ? WITHOUT_HOUSE : 1) - far,
    source: 'addresses',
    region,
    country: '',
    ...(postcode ? { postcode } : {}),
  };
}
