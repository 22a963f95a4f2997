/** The site's chart where it is cut from the world's coasts: it follows the site's middle. A chart of the site's own stays. */
import { eq, sql } from 'drizzle-orm';
import type { Chart, Point } from '@/core/geo/geo';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import type { World } from '../world/world';
import { readChart } from './read';

/** The chart that a site has when its middle is elsewhere; undefined where it keeps the one it has. Read outside of a transaction: it takes a while. */
export async function chartAfterMove({ db, world }: { db: Db; world: World }, from: Point, to: Point): Promise<Chart | undefined> {
  // Nobody has said where the site is.
  if (!to.lat && !to.lng) return undefined;
  const chart = await readChart(db);
  const stays = chart && (chart.source !== 'base' || (from.lat === to.lat && from.lng === to.lng));
  return stays ? undefined : world.chartAround(to);
}

/** Writes it, unless the site was given one of its own meanwhile. */
export async function writeBaseChart(tx: Db, value: Chart): Promise<void> {
  const [row] = await tx.select({ value: setting.value }).from(setting).where(eq(setting.key, 'chart')).for('update');
  if (row && (row.value as Chart).source !== 'base') return;
  if (row)
    await tx
      .update(setting)
      .set({ value, revision: sql`${setting.revision} + 1` })
      .where(eq(setting.key, 'chart'));
  else await tx.insert(setting).values({ key: 'chart', value });
}
