/** What the thread knows of the world: its towns, coasts and borders, read from `world/` at the first question and kept. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { countryName } from '@/core/geo/countries';
import { chartAround, featuresWithin, reachOf, shapesOf, type WorldShapes } from '@/core/geo/cut-chart';
import type { Bounds, Chart, ChartFeature, Point } from '@/core/geo/geo';
import { type Town, type TownMatch, Towns } from '@/core/geo/towns';

/** Towns that typed words may mean. */
export interface TownsTask {
  task: 'towns';
  /** the folder of what is known of the world */
  world: string;
  typed: string;
}

/** The town next to a point. */
export interface NearestTask {
  task: 'nearest';
  world: string;
  point: Point;
}

/** A site's chart around its middle. */
export interface ChartTask {
  task: 'chart';
  world: string;
  middle: Point;
}

/** What lies within bounds, without names: coarse where much of the earth is asked for. */
export interface SketchTask {
  task: 'sketch';
  world: string;
  bounds: Bounds;
}

/** A question about the world. */
export type WorldTask = TownsTask | NearestTask | ChartTask | SketchTask;

/** Its answer. */
export type WorldPart =
  | { part: 'towns'; towns: TownMatch[] }
  | { part: 'nearest'; town: Town | undefined }
  | { part: 'chart'; chart: Chart }
  | { part: 'sketch'; features: ChartFeature[] };

/** Wider than this, in degrees, coasts are drawn as seen from afar. */
const FAR = 25;

const kept = new Map<string, unknown>();

function once<T>(folder: string, name: string, make: (text: string) => T): T {
  const file = path.join(folder, name);
  if (!kept.has(file)) kept.set(file, make(readFileSync(file, 'utf8')));
  return kept.get(file) as T;
}

const towns = (folder: string): Towns => once(folder, 'towns.json', (text) => new Towns(JSON.parse(text), countryName));
const shapes = (folder: string, name: 'coasts' | 'coasts-far'): WorldShapes =>
  once(folder, `${name}.json`, (text) => shapesOf(JSON.parse(text)));

/** What the town next to a point is called; empty far from all of them. */
export const townNear = (world: string, point: Point): string => towns(world).nearest(point)?.name ?? '';

/** Answers a question about the world. */
export function performWorld(task: WorldTask): WorldPart {
  const { world } = task;
  if (task.task === 'towns') return { part: 'towns', towns: towns(world).search(task.typed) };
  if (task.task === 'nearest') return { part: 'nearest', town: towns(world).nearest(task.point) };
  if (task.task === 'sketch') {
    const { bounds } = task;
    const far = bounds.east - bounds.west > FAR;
    return { part: 'sketch', features: featuresWithin(shapes(world, far ? 'coasts-far' : 'coasts'), bounds) };
  }
  const { middle } = task;
  const around = towns(world).within(reachOf(middle), 400);
  return { part: 'chart', chart: chartAround(shapes(world, 'coasts'), middle, around) };
}
