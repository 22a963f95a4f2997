/** Measurements of what the site knows of the world: towns found by what is typed, charts cut out. No database. */
import { readFileSync } from 'node:fs';
import { countryName } from '@/core/geo/countries';
import { gzipSync } from 'node:zlib';
import { baseTile, coarsenessOf } from '@/core/geo/base-tiles';
import { chartAround, reachOf, shapesOf } from '@/core/geo/cut-chart';
import { ringsOfLakes } from '@/core/geo/lakes';
import { Towns, type TownTable } from '@/core/geo/towns';
import { slipsAllowed, slipsBetween } from '@/core/match/distance';
import { between, random } from '../support/generate';

interface Report {
  report: (name: string, value: number, op: '>=' | '<', goal: number) => void;
  say: (line: string) => void;
}

const now = (): number => Number(process.hrtime.bigint()) / 1e6;
const percentile = (times: number[], share: number): number => [...times].sort((a, b) => a - b)[Math.floor(times.length * share)] ?? 0;

function timed(run: () => unknown): number {
  const start = now();
  run();
  return now() - start;
}

/** Measures both, and says how the search compares with looking at every name. */
export function measureWorld({ report, say }: Report): void {
  const r = random(20_270_317);
  const text = readFileSync('world/towns.json', 'utf8');
  let start = now();
  const table = JSON.parse(text) as TownTable;
  const towns = new Towns(table, countryName);
  report('towns of the world read and put in order, in s', (now() - start) / 1000, '<', 5);
  const names = table.names.split('\n');
  const keys = names.map((name) => name.toLowerCase());
  const asked = Array.from({ length: 400 }, () => names[between(r, 0, 60_000)] as string).filter((name) => name.length > 5);
  const slipped = asked.map((name) => {
    const at = between(r, 1, name.length - 3);
    return name.slice(0, at) + name.slice(at + 1);
  });
  for (const name of [...asked.slice(0, 40), ...slipped.slice(0, 40)]) towns.search(name);
  const begun = asked.map((name) => timed(() => towns.search(name.slice(0, Math.ceil(name.length * 0.7)))));
  const mistyped = slipped.map((name) => timed(() => towns.search(name)));
  const plain = slipped.slice(0, 30).map((name) => {
    const typed = name.toLowerCase();
    const allowed = slipsAllowed(typed.length);
    return timed(() => keys.filter((key) => key.startsWith(typed) || slipsBetween(typed, key, allowed) <= allowed));
  });
  say(
    `${towns.size.toLocaleString('en')} towns; half typed p50 ${percentile(begun, 0.5).toFixed(2)} ms, with a slip p50 ${percentile(mistyped, 0.5).toFixed(1)} ms`,
  );
  report('a town half typed, p95 in ms', percentile(begun, 0.95), '<', 10);
  report('a town with a slip, p95 in ms', percentile(mistyped, 0.95), '<', 50);
  report('a town with a slip, p50 against a look at every name', percentile(mistyped, 0.5) / percentile(plain, 0.5), '<', 0.5);

  start = now();
  const read = (name: string) => JSON.parse(readFileSync(`world/${name}.json`, 'utf8'));
  const lakes = ringsOfLakes(read('lakes'));
  const shapes = shapesOf(read('coasts'), lakes);
  report('coasts, borders and lakes read, in s', (now() - start) / 1000, '<', 4);
  const cut = Array.from({ length: 60 }, () => {
    const i = between(r, 0, 60_000);
    const middle = { lat: (table.lat[i] as number) / 1e4, lng: (table.lng[i] as number) / 1e4 };
    return timed(() => chartAround(shapes, middle, towns.within(reachOf(middle), 400)));
  });
  report('a site’s chart cut out, p95 in ms', percentile(cut, 0.95), '<', 250);

  const worlds = {
    near: shapes,
    middle: shapesOf(read('coasts-middle'), lakes.slice(0, 250)),
    far: shapesOf(read('coasts-far'), lakes.slice(0, 30)),
  };
  const make = (z: number): number => {
    const i = between(r, 0, 60_000);
    const [lat, lng] = [(table.lat[i] as number) / 1e4, (table.lng[i] as number) / 1e4];
    const side = 2 ** z;
    const y = Math.floor(((1 - Math.asinh(Math.tan((lat * Math.PI) / 180)) / Math.PI) / 2) * side);
    const place = { z, x: Math.floor(((lng + 180) / 360) * side), y };
    return timed(() => {
      const tile = baseTile(worlds[coarsenessOf(z)], (bounds, most) => towns.within(bounds, most), place);
      return tile && gzipSync(tile);
    });
  };
  const zooms = Array.from({ length: 9 }, (_, z) => z);
  for (const z of zooms) make(z);
  const tiles = zooms.map((z) => Array.from({ length: 60 }, () => make(z)));
  say(`a tile around a town, p95 in ms by zoom: ${tiles.map((times, z) => `${z}: ${percentile(times, 0.95).toFixed(1)}`).join(', ')}`);
  report('a tile of the world cut, p95 in ms', percentile(tiles.flat(), 0.95), '<', 50);
}
