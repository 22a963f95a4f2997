/** What the site knows of the world, asked of the thread that holds it: towns by what is typed, charts of any part. */
import { createHash } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { LRUCache } from 'lru-cache';
import tzlookup from '@photostructure/tz-lookup';
import { isZone } from '@/core/day/zone';
import { type Bounds, type Chart, type ChartFeature, type Point, turnedLng } from '@/core/geo/geo';
import type { TilePlace } from '@/core/geo/base-tiles';
import type { Town, TownMatch } from '@/core/geo/towns';
import type { TaskWorker } from '../worker/task-worker';
import type { WorldPart, WorldTask } from '../worker/world-tasks';

/** Raised when tiles of the same world are made otherwise. */
const TILES_MADE = 1;
/** What tiles are cut from. */
const DRAWN_FILES = ['coasts.json', 'coasts-middle.json', 'coasts-far.json', 'lakes.json', 'towns.json'];
/** Tiles are kept up to so many bytes, each with so many beside its own. */
const MOST_TILE_BYTES = 16e6;
const TILE_OVERHEAD = 200;
/** So many drawings of parts of the world are kept. */
const SKETCHES_KEPT = 40;

/** The world as a site knows it. */
export class World {
  #currencies: Readonly<Record<string, string>> | undefined;
  #version: string | undefined;
  readonly #sketches = new LRUCache<string, ChartFeature[]>({ max: SKETCHES_KEPT });
  readonly #tiles = new LRUCache<string, Uint8Array<ArrayBuffer>, TilePlace>({
    maxSize: MOST_TILE_BYTES,
    sizeCalculation: (bytes) => TILE_OVERHEAD + bytes.length,
    fetchMethod: async (_key, _stale, { context: place }) =>
      (await this.#ask({ task: 'tile', world: this.folder, place }, 'tile')).bytes ?? new Uint8Array(),
  });

  /**
   * @param folder where `npm run world` put it
   * @param worker the thread that reads it
   */
  constructor(
    private readonly folder: string,
    private readonly worker: TaskWorker,
  ) {}

  async #ask<P extends WorldPart['part']>(task: WorldTask, wanted: P): Promise<Extract<WorldPart, { part: P }>> {
    for await (const part of this.worker.run(task)) if (part.part === wanted) return part as Extract<WorldPart, { part: P }>;
    throw new Error(`the thread has no answer to “${task.task}”`);
  }

  /** Towns that typed words may mean, likest first; none for nothing. */
  async towns(typed: string): Promise<TownMatch[]> {
    if (!typed.trim()) return [];
    return (await this.#ask({ task: 'towns', world: this.folder, typed: typed.slice(0, 200) }, 'towns')).towns;
  }

  /** The town next to a point; undefined far from all of them. */
  async nearestTown(point: Point): Promise<Town | undefined> {
    return (await this.#ask({ task: 'nearest', world: this.folder, point }, 'nearest')).town;
  }

  /** The chart of a site whose middle this is. */
  async chartAround(middle: Point): Promise<Chart> {
    return (await this.#ask({ task: 'chart', world: this.folder, middle }, 'chart')).chart;
  }

  /** Coasts, lakes and borders within bounds; with the largest towns there, if they are asked for. */
  async sketch(bounds: Bounds, named = false): Promise<ChartFeature[]> {
    const key = JSON.stringify([bounds, named]);
    const known = this.#sketches.get(key);
    if (known) return known;
    const { features } = await this.#ask({ task: 'sketch', world: this.folder, bounds, named }, 'sketch');
    this.#sketches.set(key, features);
    return features;
  }

  /** Which world this is: changes with what `world/` holds and with how its tiles are made. Part of the address of each tile. */
  version(): string {
    this.#version ??= createHash('sha256')
      .update([TILES_MADE, ...DRAWN_FILES.map((name) => statSync(path.join(this.folder, name)).size)].join(' '))
      .digest('hex')
      .slice(0, 16);
    return this.#version;
  }

  /** A tile of the world, compressed with gzip; undefined where there is nothing to draw. Made once, and kept as long as there is room. */
  async tile(place: TilePlace): Promise<Uint8Array<ArrayBuffer> | undefined> {
    // A hundred who ask at once have it made once.
    const bytes = await this.#tiles.fetch(`${place.z}/${place.x}/${place.y}`, { context: place });
    return bytes?.length ? bytes : undefined;
  }

  /** What people pay with in a country (ISO 4217); undefined where that is not known. */
  currencyOf(country: string): string | undefined {
    this.#currencies ??= JSON.parse(readFileSync(path.join(this.folder, 'currencies.json'), 'utf8')) as Record<string, string>;
    return this.#currencies[country];
  }
}

/** The time zone in which a point lies; at sea one of whole hours. */
export function zoneAt({ lat, lng }: Point): string {
  const zone = tzlookup(Math.max(-90, Math.min(90, lat)), turnedLng(lng));
  return isZone(zone) ? zone : 'UTC';
}
