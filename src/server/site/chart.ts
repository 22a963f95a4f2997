/** What a site keeps of its map in its settings: coasts cut around its middle, which follow it, and a drawing of its own, which stays. */
import { eq, sql } from 'drizzle-orm';
import { type Chart, type OwnMap, type Point, type StoredChart, upgradeChart } from '@/core/geo/geo';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import type { World } from '../world/world';
import { readStoredChart } from './read';

/** The coasts that a site has when its middle is elsewhere; undefined where it keeps those it has. Read outside of a transaction: it takes a while. */
export async function chartAfterMove({ db, world }: { db: Db; world: World }, from: Point, to: Point): Promise<Chart | undefined> {
  // Nobody has said where the site is.
  if (!to.lat && !to.lng) return undefined;
  const chart = await readStoredChart(db);
  return chart && from.lat === to.lat && from.lng === to.lng ? undefined : world.chartAround(to);
}

/** `next`: undefined = it stays as it is. Returns whether it changed. */
async function change(tx: Db, next: (before: StoredChart | undefined) => StoredChart | undefined): Promise<boolean> {
  const [row] = await tx.select({ value: setting.value }).from(setting).where(eq(setting.key, 'chart')).for('update');
  const value = next(row && upgradeChart(row.value as StoredChart));
  if (!value) return false;
  await tx
    .insert(setting)
    .values({ key: 'chart', value })
    .onConflictDoUpdate({ target: setting.key, set: { value, revision: sql`${setting.revision} + 1` } });
  return true;
}

/** Writes the coasts; a drawing stays. */
export const writeBaseChart = (tx: Db, chart: Chart, world: string): Promise<boolean> =>
  change(tx, (before) => withBase(before, chart, world));

const withBase = (before: StoredChart | undefined, { bounds, features }: Chart, world: string): StoredChart => ({
  format: 2,
  world,
  bounds,
  features,
  ...(before?.own ? { own: before.own } : {}),
});

/** Cuts a site's coasts anew where they are of another world than this one. Did anything change? */
export async function keepChart({
  db,
  world,
  settings,
}: {
  db: Db;
  world: Pick<World, 'chartAround' | 'version'>;
  settings: () => Point;
}): Promise<boolean> {
  const kept = await readStoredChart(db);
  const version = world.version();
  if (!kept?.features.length || kept.world === version) return false;
  const chart = await world.chartAround(settings());
  const { west, south } = kept.bounds;
  // Cutting takes a while: where the site was moved meanwhile, its coasts were cut there.
  return db.transaction((tx) =>
    change(tx, (before) => (before?.bounds.west === west && before.bounds.south === south ? withBase(before, chart, version) : undefined)),
  );
}

/**
 * Writes a drawing, or takes it away.
 * @param coasts those of a site that has no map yet
 */
export const writeOwnMap = (tx: Db, own: OwnMap | undefined, coasts: Chart): Promise<boolean> =>
  change(tx, (before) => {
    const { own: _, ...base } = before ?? { format: 2 as const, bounds: coasts.bounds, features: coasts.features };
    return { ...base, ...(own ? { own } : {}) };
  });
