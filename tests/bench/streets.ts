/** Measurements of a street map: a tile given out, a small chart drawn, from an archive as dense as a town's middle. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Feature } from 'geojson';
import { tilesOver } from '@/core/geo/street-tiles';
import type { Db } from '@/server/db/client';
import { StreetMap } from '@/server/map/street-map';
import { EDITOR } from '../support/db';
import { smallTown, writeArchive } from '../support/street-archive';

interface Report {
  report: (name: string, value: number, op: '>=' | '<', goal: number) => void;
  say: (line: string) => void;
}

const now = (): number => Number(process.hrtime.bigint()) / 1e6;
const percentile = (times: number[], share: number): number => [...times].sort((a, b) => a - b)[Math.floor(times.length * share)] ?? 0;
const MIDDLE = { lat: 43.18, lng: -57.45 };
const WIDE = 270;

async function timed(run: () => Promise<unknown>): Promise<number> {
  const start = now();
  await run();
  return now() - start;
}

/** A town of a hundred ways each way and twenty thousand houses. */
function denseTown(): Buffer {
  const town = smallTown(MIDDLE);
  const way = (a: [number, number], b: [number, number]): Feature => ({
    type: 'Feature',
    properties: { kind: 'minor_road', name: 'Net Lane' },
    geometry: {
      type: 'LineString',
      coordinates: Array.from({ length: 40 }, (_, i) => [a[0] + ((b[0] - a[0]) * i) / 39, a[1] + ((b[1] - a[1]) * i) / 39]),
    },
  });
  const at = (x: number, y: number): [number, number] => [MIDDLE.lng + x, MIDDLE.lat + y];
  const roads = Array.from({ length: 100 }, (_, i) => (i - 50) * 0.0009).flatMap((d) => [
    way(at(-0.045, d), at(0.045, d)),
    way(at(d, -0.045), at(d, 0.045)),
  ]);
  const buildings = Array.from({ length: 20_000 }, (_, i): Feature => {
    const [x, y] = at(((i % 141) - 70) * 0.00062, (Math.floor(i / 141) - 70) * 0.00062);
    return {
      type: 'Feature',
      properties: { kind: 'building' },
      geometry: {
        type: 'Polygon',
        coordinates: [
          [
            [x, y],
            [x + 3e-4, y],
            [x + 3e-4, y - 3e-4],
            [x, y - 3e-4],
            [x, y],
          ],
        ],
      },
    };
  });
  return writeArchive({ ...town, layers: { ...town.layers, roads: [...(town.layers.roads ?? []), ...roads], buildings } });
}

/** Measures tiles and small charts, the first time and when they are known. */
export async function measureStreets(db: Db, { report, say }: Report): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'bench-streets-'));
  try {
    const file = path.join(folder, 'isles.pmtiles');
    const bytes = denseTown();
    writeFileSync(file, bytes);
    const kept = await new StreetMap(db, folder).add(file, MIDDLE, EDITOR, new Date());
    const places = tilesOver(kept.bounds, 14);
    say(`an archive of ${(bytes.length / 1e6).toFixed(1)} MB, ${places.length} tiles at its closest zoom`);
    const cold: number[] = [];
    for (const place of places.slice(0, 20)) {
      const map = new StreetMap(db, folder);
      cold.push(await timed(() => map.tile(kept.version, place)));
      await map.stop();
    }
    report('a street tile from an archive just opened, p95 in ms', percentile(cold, 0.95), '<', 50);
    const map = new StreetMap(db, folder);
    const warm: number[] = [];
    const plain: number[] = [];
    const handle = await open(file, 'r');
    for (let round = 0; round < 5; round++)
      for (const place of places) {
        warm.push(await timed(() => map.tile(kept.version, place)));
        plain.push(await timed(() => handle.read(Buffer.alloc(20_000), 0, 20_000, 1000)));
      }
    await handle.close();
    report('a street tile, p95 in ms', percentile(warm, 0.95), '<', 5);
    report('a street tile, p50 against 20 kB read from a file', percentile(warm, 0.5) / percentile(plain, 0.5), '<', 10);
    const charts: number[] = [];
    const again: number[] = [];
    for (let i = 0; i < 40; i++) {
      const centre = { lat: MIDDLE.lat + ((i % 8) - 4) * 0.005, lng: MIDDLE.lng + (Math.floor(i / 8) - 2) * 0.008 };
      const bounds = { west: centre.lng - 0.006, east: centre.lng + 0.006, south: centre.lat - 0.006, north: centre.lat + 0.006 };
      const draw = (): Promise<unknown> => map.paths(kept, bounds, WIDE, 150);
      charts.push(await timed(draw));
      again.push(await timed(draw));
    }
    report('a small chart with streets, p95 in ms', percentile(charts, 0.95), '<', 50);
    report('a small chart whose streets are known, p50 against the first time', percentile(again, 0.5) / percentile(charts, 0.5), '<', 0.7);
    await map.stop();
  } finally {
    rmSync(folder, { recursive: true });
  }
}
