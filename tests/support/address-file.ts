/** Tables of addresses as registers give them out, of streets and towns that nobody lives in. */
import { between, pick, random } from './generate';

const FIRST = 'Chapel Harbour Signal Net Rope Slip Gannet Skerry Amble Tern Puffin Beacon Kelp Anchor Lantern Pilot Mizzen Capstan'.split(
  ' ',
);
const SECOND = ['', 'Cove ', 'Hill ', 'Mill ', 'North ', 'South ', 'Old ', 'New '];
const KINDS = ['Street', 'Road', 'Lane', 'Brae', 'Terrace', 'Walk', 'Row', 'Avenue', 'Court', 'Way', 'Close', 'Square'];
const SYLLABLES = 'ba be bo da do fa fe ga go ha ka ke la lo ma mo na no pa po ra ro sa so ta to va wa'.split(' ');

const invented = (r: () => number): string => {
  const word = Array.from({ length: between(r, 2, 4) }, () => pick(r, SYLLABLES)).join('');
  return word.charAt(0).toUpperCase() + word.slice(1);
};

/** An address of such a table. */
export interface MadeAddress {
  number: string;
  street: string;
  town: string;
  postcode: string;
  lat: number;
  lng: number;
}

/** `n` addresses around a point, some twenty a street, in towns of some thousand. */
export function makeAddresses(n: number, middle: { lat: number; lng: number }, seed = 1): MadeAddress[] {
  const r = random(seed);
  const made: MadeAddress[] = [];
  while (made.length < n) {
    const town = `${invented(r)}${pick(r, ['ton', ' Bay', 'ness', ' Harbour'])}`;
    const [lat, lng] = [middle.lat + r() * 2 - 1, middle.lng + r() * 2 - 1];
    const postcode = `K${between(r, 1, 9)}A ${between(r, 1, 9)}B${between(r, 1, 9)}`;
    for (let street = 0; street < 60 && made.length < n; street++) {
      const name = `${pick(r, SECOND)}${r() < 0.5 ? pick(r, FIRST) : invented(r)} ${pick(r, KINDS)}`;
      const [y, x] = [lat + r() * 0.04, lng + r() * 0.04];
      for (let house = 1; house <= 20 && made.length < n; house++)
        made.push({ number: String(house * 2 - (street % 2)), street: name, town, postcode, lat: y + house * 1e-4, lng: x + house * 1e-4 });
    }
  }
  return made;
}

/** Such a table, with the headings of an open register. */
export const addressTable = (addresses: readonly MadeAddress[]): string =>
  [
    'LON,LAT,NUMBER,STREET,UNIT,CITY,DISTRICT,REGION,POSTCODE,ID,HASH',
    ...addresses.map(({ number, street, town, postcode, lat, lng }) =>
      [lng.toFixed(7), lat.toFixed(7), number, street, '', town, '', '', postcode, '', ''].join(','),
    ),
    '',
  ].join('\n');
