/** What the thread knows of the world: its towns, coasts and borders, read from `world/` at the first question and kept. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { baseTile, type Coarseness, coarsenessOf, type TilePlace } from '@/core/geo/base-tiles';
import { countryName } from '@/core/geo/countries';
import { chartAround, featuresWithin, nameFeatures, reachOf, shapesOf, type WorldShapes } from '@/core/geo/cut-chart';
import type { Bounds, Chart, ChartFeature, Point } from '@/core/geo/geo';
import { ringsOfLakes } from '@/core/geo/lakes';
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

/** What lies within bounds: coarse where much of the earth is asked for. */
export interface SketchTask {
  task: 'sketch';
  world: string;
  bounds: Bounds;
  /** with its largest towns? */
  named: boolean;
}

/** A square of the world as a vector tile. */
export interface TileTask {
  task: 'tile';
  world: string;
  place: TilePlace;
}

/** A question about the world. */
export type WorldTask = TownsTask | NearestTask | ChartTask | SketchTask | TileTask;

/** Its answer. */
export type WorldPart =
  | { part: 'towns'; towns: TownMatch[] }
  | { part: 'nearest'; town: Town | undefined }
  | { part: 'chart'; chart: Chart }
  | { part: 'sketch'; features: ChartFeature[] }
  /** compressed with gzip; undefined where there is nothing to draw */
  | { part: 'tile'; bytes: Uint8Array<ArrayBuffer> | undefined };

/** Wider than these, in degrees, coasts are drawn as seen from afar, or from somewhat closer. */
const FAR = 60;
const MIDDLE = 20;
/** As coarse as coasts are the lakes beside them: the largest so many of them. */
const COASTS: Readonly<Record<Coarseness, { file: string; lakes: number }>> = {
  far: { file: 'coasts-far', lakes: 30 },
  middle: { file: 'coasts-middle', lakes: 250 },
  near: { file: 'coasts', lakes: Number.POSITIVE_INFINITY },
};
/** Most towns that a sketch names. */
const MOST_NAMES = 80;

const kept = new Map<string, unknown>();

function once<T>(folder: string, name: string, make: (text: string) => T): T {
  const file = path.join(folder, name);
  if (!kept.has(file)) kept.set(file, make(readFileSync(file, 'utf8')));
  return kept.get(file) as T;
}

const towns = (folder: string): Towns => once(folder, 'towns.json', (text) => new Towns(JSON.parse(text), countryName));
const lakes = (folder: string) => once(folder, 'lakes.json', (text) => ringsOfLakes(JSON.parse(text)));
const shapes = (folder: string, how: Coarseness): WorldShapes =>
  once(folder, `${COASTS[how].file}.json`, (text) => shapesOf(JSON.parse(text), lakes(folder).slice(0, COASTS[how].lakes)));

function sketch({ world, bounds, named }: SketchTask): ChartFeature[] {
  const wide = bounds.east - bounds.west;
  const features = featuresWithin(shapes(world, wide > FAR ? 'far' : wide > MIDDLE ? 'middle' : 'near'), bounds);
  return named ? [...features, ...nameFeatures(towns(world).within(bounds, MOST_NAMES))] : features;
}

/** What the town next to a point is called; empty far from all of them. */
export const townNear = (world: string, point: Point): string => towns(world).nearest(point)?.name ?? '';

/** Answers a question about the world. */
export function performWorld(task: WorldTask): WorldPart {
  const { world } = task;
  if (task.task === 'towns') return { part: 'towns', towns: towns(world).search(task.typed) };
  if (task.task === 'nearest') return { part: 'nearest', town: towns(world).nearest(task.point) };
  if (task.task === 'sketch') return { part: 'sketch', features: sketch(task) };
  if (task.task === 'tile') {
    const { place } = task;
    const tile = baseTile(shapes(world, coarsenessOf(place.z)), (bounds, most) => towns(world).within(bounds, most), place);
    return { part: 'tile', bytes: tile && new Uint8Array(gzipSync(tile)) };
  }
  const { middle } = task;
  const around = towns(world).within(reachOf(middle), 400);
  return { part: 'chart', chart: chartAround(shapes(world, 'near'), middle, around) };
}
