/** A map of the site's own: a drawing in GeoJSON that the operator gave it, over the coasts or in their place. */
import { readFile, stat } from 'node:fs/promises';
import nodePath from 'node:path';
import { type ChartFeatureKind, distanceKm, inBounds, type OwnMap, type Point } from '@/core/geo/geo';
import { type OwnMapProblem, readOwnMap } from '@/core/geo/own-map';
import { parseJson } from '@/core/text/clean';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { Problem } from '../problem';
import { writeOwnMap } from '../site/chart';
import { readStoredChart } from '../site/read';
import type { World } from '../world/world';
import { serverWords } from '@/words/desk';

const w = serverWords.ownMap;

/** The most bytes of a file, and the most corners of all its lines: readers get all of them with the page. */
const MOST_BYTES = 20e6;
const MOST_POINTS = 30_000;
/** A drawing that begins farther than this from the site is of another place, in kilometres. */
const FARTHEST_KM = 300;
/** So many features that are not drawn are named. */
const MOST_NAMED = 50;

/** What a site needs for its own map. */
export interface OwnMapSite {
  db: Db;
  world: Pick<World, 'chartAround'>;
  settings: () => Point;
}

/** What a drawing was taken in as. */
export interface AddedMap {
  name: string;
  counts: Partial<Record<ChartFeatureKind, number>>;
  /** features that say nothing that is known */
  plain: number;
  leftOut: number;
  wrong: { n: number; reason: string }[];
  /** has it land, so that it stands in place of the coasts? */
  alone: boolean;
}

const REASONS: Readonly<Record<OwnMapProblem, () => string>> = {
  'no-feature': w.noFeature,
  'no-geometry': w.noGeometry,
  'not-degrees': w.notDegrees,
  'no-name': w.noName,
};

/** Does a file hold JSON, as far as its beginning says? */
export const looksLikeJson = (begins: string): boolean => /^\uFEFF?\s*\{/.test(begins);

function parsed(text: string): unknown {
  try {
    return parseJson(text.replace(/^\uFEFF/, ''));
  } catch {
    return undefined;
  }
}

/**
 * Takes a drawing in; the one before goes.
 * @throws Problem that says what is wrong with it
 */
export async function addOwnMap(site: OwnMapSite, input: { path: string; credit: string }, by: Actor, at: Date): Promise<AddedMap> {
  const { path } = input;
  const { size } = await stat(path);
  if (size > MOST_BYTES) throw new Problem('too-large', w.tooLarge());
  const json = parsed(await readFile(path, 'utf8'));
  if (json === undefined) throw new Problem('invalid', w.brokenJson());
  const read = readOwnMap(json);
  if (!read) throw new Problem('invalid', w.noCollection());
  const { features, bounds, counts, plain, wrong, points } = read;
  const named = wrong.slice(0, MOST_NAMED).map(({ n, problem }) => ({ n, reason: REASONS[problem]() }));
  if (!bounds) throw new Problem('invalid', named[0] ? w.nothingDrawn({ n: wrong.length, reason: named[0].reason }) : w.empty());
  if (points > MOST_POINTS) throw new Problem('too-large', w.tooMany({ points, most: MOST_POINTS }));
  const middle = site.settings();
  if (!middle.lat && !middle.lng) throw new Problem('conflict', serverWords.streets.noMiddle());
  // The nearest spot of what it covers.
  const near = {
    lat: Math.max(bounds.south, Math.min(bounds.north, middle.lat)),
    lng: Math.max(bounds.west, Math.min(bounds.east, middle.lng)),
  };
  const km = inBounds(middle, bounds) ? 0 : distanceKm(near, middle);
  if (km > FARTHEST_KM) throw new Problem('invalid', w.elsewhere({ km: Math.round(km) }));
  const name = nodePath.basename(path);
  await write(site, { name, at: at.toISOString(), credit: input.credit || read.credit, bounds, features }, by);
  return { name, counts, plain, leftOut: wrong.length, wrong: named, alone: (counts.land ?? 0) > 0 };
}

/** The drawing that a site has; undefined without one. */
export const ownMapOf = async (db: Db): Promise<OwnMap | undefined> => (await readStoredChart(db))?.own;

/** Takes the drawing off the map, or puts it back: it is kept. */
export async function showOwnMap(site: OwnMapSite, shown: boolean, by: Actor): Promise<void> {
  const own = await ownMapOf(site.db);
  if (!own) throw new Problem('missing', w.none());
  const { off: _, ...rest } = own;
  await write(site, shown ? rest : { ...rest, off: true }, by);
}

/** Takes the drawing away; returns what it was called, undefined where there was none. */
export async function removeOwnMap(site: OwnMapSite, by: Actor): Promise<string | undefined> {
  const own = await ownMapOf(site.db);
  if (own) await write(site, undefined, by);
  return own?.name;
}

async function write({ db, world, settings }: OwnMapSite, own: OwnMap | undefined, by: Actor): Promise<void> {
  const kept = await readStoredChart(db);
  // A site that was drawn from the beginning has no coasts yet.
  const coasts = kept?.features.length ? { bounds: kept.bounds, features: kept.features } : await world.chartAround(settings());
  await db.transaction(async (tx) => {
    await writeOwnMap(tx, own, coasts);
    await audited(tx, by, { kind: 'settings', id: 'chart', what: { code: 'changed' } });
  });
}
