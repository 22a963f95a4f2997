/** Addresses as the rows of a table or the properties of GeoJSON points have them. Degrees, WGS 84. */
import { fold } from '../text/text';

/** What a column of a table of addresses can be. */
export const ADDRESS_FIELDS = ['lat', 'lng', 'number', 'street', 'town', 'region', 'postcode', 'address'] as const;
/** One of {@link ADDRESS_FIELDS}; `address` holds street and number in one. */
export type AddressField = (typeof ADDRESS_FIELDS)[number];

/** Headings as registers of addresses have them, folded; a heading that begins the list goes first. */
const NAMES: Record<AddressField, readonly string[]> = {
  lat: ['lat', 'latitude', 'y', 'geo lat'],
  lng: ['lon', 'lng', 'long', 'longitude', 'x', 'geo lon', 'geo lng'],
  number: ['number', 'house number', 'housenumber', 'addr housenumber', 'street number', 'house no', 'number in street', 'no', 'nr', 'num'],
  street: ['street', 'street name', 'addr street', 'road', 'road name', 'thoroughfare', 'way', 'street full name'],
  town: ['city', 'town', 'addr city', 'locality', 'place', 'municipality', 'post town', 'village', 'community', 'town name'],
  region: ['region', 'state', 'province', 'county', 'addr state', 'district'],
  postcode: ['postcode', 'postal code', 'post code', 'zip', 'zip code', 'addr postcode', 'postalcode', 'zipcode'],
  address: ['address', 'full address', 'street address', 'address line', 'address line 1', 'civic address'],
};

const heading = (text: string): string =>
  fold(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/**
 * What each column is, found by its heading; undefined for what addresses do not need.
 * @param chosen headings that somebody named for a field go before what would be found
 */
export function addressColumns(
  headings: readonly string[],
  chosen: Partial<Record<AddressField, string>> = {},
): (AddressField | undefined)[] {
  const folded = headings.map(heading);
  const columns = new Array<AddressField | undefined>(headings.length).fill(undefined);
  for (const field of ADDRESS_FIELDS) {
    const names = chosen[field] === undefined ? NAMES[field] : [heading(chosen[field])];
    for (const name of names) {
      const at = folded.findIndex((one, i) => one === name && columns[i] === undefined);
      if (at === -1) continue;
      columns[at] = field;
      break;
    }
  }
  return columns;
}

/** An address with its position. */
export interface AddressRow {
  /** as it is written: "12", "12 a", "12-14"; empty for a street without numbers */
  number: string;
  street: string;
  town: string;
  region: string;
  postcode: string;
  lat: number;
  lng: number;
}

/** Why a row is no address. */
export type AddressProblem = 'no-street' | 'no-position' | 'not-degrees' | 'too-long';

const LONGEST = 120;

/** A number of degrees; a comma may stand before its decimals. */
const degreesOf = (cell: string): number => (/^[+-]?\d+(?:[.,]\d+)?$/.test(cell) ? Number(cell.replace(',', '.')) : Number.NaN);

/** A street and its number in one: the number stands before it or behind it. */
const IN_ONE = /^(?:(\d+\s?[a-z]?(?:[-/]\d+\s?[a-z]?)?)\s*,?\s+)?(.*?)(?:\s*,?\s+(\d+\s?[a-z]?(?:[-/]\d+\s?[a-z]?)?))?$/i;

/** "12 Mill Lane" and "Mill Lane 12" as number and street. */
export function streetAndNumber(text: string): { number: string; street: string } {
  const [, before, street = '', behind] = IN_ONE.exec(text.trim()) ?? [];
  // What is numbers alone has no street; "Highway 7" keeps its number where another stands before it.
  if (before && behind) return { number: before, street: `${street} ${behind}`.trim() };
  return { number: before ?? behind ?? '', street };
}

/** A row's cells as an address, or why they are none. */
export function readAddress(cells: Partial<Record<AddressField, string>>): AddressRow | AddressProblem {
  const cell = (field: AddressField): string => (cells[field] ?? '').replace(/\s+/g, ' ').trim();
  const own = cell('street');
  const { number, street } = own ? { number: cell('number'), street: own } : streetAndNumber(cell('address').split(',')[0] ?? '');
  const parts = { number: number.replace(/\.0+$/, ''), street, town: cell('town'), region: cell('region'), postcode: cell('postcode') };
  if (!/\p{L}|\d/u.test(street)) return 'no-street';
  if (Object.values(parts).some((part) => part.length > LONGEST)) return 'too-long';
  if (!cell('lat') || !cell('lng')) return 'no-position';
  const [lat, lng] = [degreesOf(cell('lat')), degreesOf(cell('lng'))];
  if (!(Math.abs(lat) <= 90 && Math.abs(lng) <= 180)) return 'not-degrees';
  // Registers write 0, 0 where nobody knows.
  if (lat === 0 && lng === 0) return 'no-position';
  return { ...parts, lat, lng };
}
