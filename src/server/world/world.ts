/** What the site knows of the world, asked of the thread that holds it: towns by what is typed, charts of any part. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import tzlookup from '@photostructure/tz-lookup';
import { isZone } from '@/core/day/zone';
import { type Bounds, type Chart, type ChartFeature, type Point, turnedLng } from '@/core/geo/geo';
import type { Town, TownMatch } from '@/core/geo/towns';
import type { TaskWorker } from '../worker/task-worker';
import type { WorldPart, WorldTask } from '../worker/world-tasks';

/** The world as a site knows it. */
export class World {
  #currencies: Readonly<Record<string, string>> | undefined;

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

  /** Coasts and borders within bounds. */
  async sketch(bounds: Bounds): Promise<ChartFeature[]> {
    return (await this.#ask({ task: 'sketch', world: this.folder, bounds }, 'sketch')).features;
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
