/** A tiny PMTiles archive (version 3) of invented streets, written byte by byte as the format says; and ways to spoil it. */
import { gzipSync } from 'node:zlib';
import { GeoJSONVT } from '@maplibre/geojson-vt';
import { fromGeojsonVt } from '@maplibre/vt-pbf';
import type { Feature, FeatureCollection, Position } from 'geojson';
import { zxyToTileId } from 'pmtiles';
import type { Point } from '@/core/geo/geo';
import { tilesOver } from '@/core/geo/street-tiles';

const HEADER = 127;
const GZIP = 2;
const VECTOR = 1;

/** What an archive says and has; each can be another than it should be. */
export interface ArchiveParts {
  layers: Record<string, Feature[]>;
  bounds: { west: number; south: number; east: number; north: number };
  minZoom: number;
  maxZoom: number;
  tileType?: number;
  tileCompression?: number;
  metadata?: Record<string, unknown>;
}

function varint(n: number, into: number[]): void {
  let rest = n;
  while (rest > 127) {
    into.push((rest % 128) + 128);
    rest = Math.floor(rest / 128);
  }
  into.push(rest);
}

/** A directory: ids as differences, then runs, lengths and offsets, each as a column. */
function directory(entries: readonly { id: number; offset: number; length: number }[]): Buffer {
  const bytes: number[] = [];
  varint(entries.length, bytes);
  for (const [i, { id }] of entries.entries()) varint(id - (entries[i - 1]?.id ?? 0), bytes);
  for (const _ of entries) varint(1, bytes);
  for (const { length } of entries) varint(length, bytes);
  for (const { offset } of entries) varint(offset + 1, bytes);
  return gzipSync(Buffer.from(bytes));
}

/** Makes vector tiles of layers; undefined where there is nothing. */
function tilesOf(layers: ArchiveParts['layers'], maxZoom: number): (z: number, x: number, y: number) => Uint8Array | undefined {
  const indexes = Object.entries(layers).map(([name, features]) => {
    const collection: FeatureCollection = { type: 'FeatureCollection', features };
    return [name, new GeoJSONVT(collection, { maxZoom, indexMaxZoom: maxZoom, tolerance: 1 })] as const;
  });
  return (z, x, y) => {
    const there = indexes.flatMap(([name, index]) => {
      const tile = index.getTile(z, x, y);
      return tile ? [[name, tile] as const] : [];
    });
    return there.length ? fromGeojsonVt(Object.fromEntries(there), { version: 2, extent: 4096 }) : undefined;
  };
}

/** The tiles of a town by their addresses, `/14/5577/5934.pbf`. */
export function tilesOfTown({ layers, maxZoom }: ArchiveParts): (address: string) => Uint8Array | undefined {
  const tiles = tilesOf(layers, maxZoom);
  return (address) => {
    const [z, x, y] = (/^\/(\d+)\/(\d+)\/(\d+)\.pbf$/.exec(address) ?? []).slice(1).map(Number);
    return z === undefined || x === undefined || y === undefined ? undefined : tiles(z, x, y);
  };
}

/** Writes an archive of the layers' features at all zooms. */
export function writeArchive({
  layers,
  bounds,
  minZoom,
  maxZoom,
  tileType = VECTOR,
  tileCompression = GZIP,
  metadata,
}: ArchiveParts): Buffer {
  const tileAt = tilesOf(layers, maxZoom);
  const tiles: { id: number; data: Buffer }[] = [];
  for (let z = minZoom; z <= maxZoom; z++)
    for (const { x, y } of tilesOver(bounds, z)) {
      const tile = tileAt(z, x, y);
      if (tile) tiles.push({ id: zxyToTileId(z, x, y), data: gzipSync(tile) });
    }
  tiles.sort((a, b) => a.id - b.id);
  let offset = 0;
  const entries = tiles.map(({ id, data }) => {
    const entry = { id, offset, length: data.length };
    offset += data.length;
    return entry;
  });
  const root = directory(entries);
  const json = gzipSync(
    JSON.stringify(
      metadata ?? {
        attribution: '<a href="https://isles.example">Isles Survey</a>',
        vector_layers: Object.keys(layers).map((id) => ({ id })),
      },
    ),
  );
  const header = Buffer.alloc(HEADER);
  header.write('PMTiles', 0, 'latin1');
  header.writeUInt8(3, 7);
  const data = HEADER + root.length + json.length;
  const places = [HEADER, root.length, HEADER + root.length, json.length, data, 0, data, offset, tiles.length, tiles.length, tiles.length];
  for (const [i, n] of places.entries()) header.writeBigUInt64LE(BigInt(n), 8 + i * 8);
  header.writeUInt8(1, 96);
  header.writeUInt8(GZIP, 97);
  header.writeUInt8(tileCompression, 98);
  header.writeUInt8(tileType, 99);
  header.writeUInt8(minZoom, 100);
  header.writeUInt8(maxZoom, 101);
  const edges = [bounds.west, bounds.south, bounds.east, bounds.north];
  for (const [i, n] of edges.entries()) header.writeInt32LE(Math.round(n * 1e7), 102 + i * 4);
  return Buffer.concat([header, root, json, ...tiles.map((tile) => tile.data)]);
}

const line = (kind: string, coordinates: Position[], name?: string): Feature => ({
  type: 'Feature',
  properties: { kind, ...(name ? { name } : {}) },
  geometry: { type: 'LineString', coordinates },
});
const box = (kind: string, { lat, lng }: Point, [left, top]: [number, number], [wide, high]: [number, number]): Feature => {
  const [w, e, n, s] = [lng + left, lng + left + wide, lat + top, lat + top - high];
  return {
    type: 'Feature',
    properties: { kind },
    geometry: {
      type: 'Polygon',
      coordinates: [
        [
          [w, n],
          [w, s],
          [e, s],
          [e, n],
          [w, n],
        ],
      ],
    },
  };
};

/** A small town of the isles around a point: a shore road, lanes, a green, houses, a quay. */
export function smallTown(middle: Point): ArchiveParts {
  const { lat, lng } = middle;
  const at = (x: number, y: number): Position => [lng + x, lat + y];
  const lanes = [-0.012, -0.006, 0.006, 0.012].flatMap((d, i) => [
    line('minor_road', [at(-0.016, d), at(0.016, d * 0.9)], ['Net Lane', 'Chapel Brae', 'Kelp Row', 'Beacon Rise'][i]),
    line('minor_road', [at(d, -0.016), at(d * 1.1, 0.012)]),
  ]);
  const houses = Array.from({ length: 60 }, (_, i) =>
    box('building', middle, [((i % 10) - 5) * 0.003 + 0.0006, (Math.floor(i / 10) - 3) * 0.0045 + 0.0024], [0.0011, 0.0009]),
  );
  return {
    bounds: { west: lng - 0.05, south: lat - 0.05, east: lng + 0.05, north: lat + 0.05 },
    minZoom: 8,
    maxZoom: 14,
    layers: {
      earth: [box('earth', middle, [-0.05, 0.03], [0.1, 0.08])],
      water: [box('ocean', middle, [-0.05, 0.05], [0.1, 0.022])],
      landuse: [box('park', middle, [0.0015, -0.001], [0.004, 0.004])],
      roads: [
        line('major_road', [at(-0.04, -0.014), at(-0.01, 0.0005), at(0.012, 0.002), at(0.045, 0.018)], 'Shore Road'),
        ...lanes,
        line('path', [at(-0.02, -0.02), at(0.018, 0.02)], 'Tide Path'),
        line('rail', [at(-0.045, -0.03), at(0.045, -0.024)]),
      ],
      buildings: houses,
      places: [
        {
          type: 'Feature',
          properties: { kind: 'locality', name: 'Gannet Bay' },
          geometry: { type: 'Point', coordinates: at(0.002, 0.004) },
        },
      ],
    },
  };
}
