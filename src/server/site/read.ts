/** Settings and chart of the site. */
import { eq } from 'drizzle-orm';
import type { Gazetteer } from '@/core/geo/gazetteer';
import { clipped, reachOf } from '@/core/geo/cut-chart';
import {
  type Bounds,
  type Chart,
  drawnChart,
  holds,
  type Point,
  shownBounds,
  type StoredChart,
  upgradeChart,
  widened,
} from '@/core/geo/geo';
import type { ContentCache } from './content-cache';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import { DEFAULT_SETTINGS, type SiteSettings } from './settings';
import type { World } from '../world/world';

/** The stored settings with their revision; what was never set has its default. */
export async function readSettings(db: Db): Promise<{ settings: SiteSettings; revision: number }> {
  const [row] = await db.select().from(setting).where(eq(setting.key, 'site'));
  // A setting that is newer than what was stored has its default.
  return { settings: { ...DEFAULT_SETTINGS, ...(row?.value as SiteSettings | undefined) }, revision: row?.revision ?? 0 };
}

/** What is kept of the site’s map; undefined when it has none. */
export async function readStoredChart(db: Db): Promise<StoredChart | undefined> {
  const [row] = await db.select().from(setting).where(eq(setting.key, 'chart'));
  return row && upgradeChart(row.value as StoredChart);
}

/** The site’s chart as it is drawn; undefined when it has none. */
export async function readChart(db: Db): Promise<Chart | undefined> {
  const kept = await readStoredChart(db);
  return kept && drawnChart(kept);
}

/** The same for readers' pages, read once for each state of what they may see: it is the largest thing that a page reads. */
export function siteChart(rt: { db: Db; cache: ContentCache }): Promise<Chart | undefined> {
  return rt.cache.ofReaders().of('chart', () => readChart(rt.db));
}

/** A drawing of the chart may begin beside what it shows by so much: wide lines along a coast end out of sight. */
const BESIDE = 1.3;

/**
 * The site's chart as a drawing of `width` × `height` around these bounds needs it: what lies there, and where that is farther away than the
 * site's own chart reaches, the world as it is.
 */
export async function chartWithin(
  rt: { db: Db; cache: ContentCache; world: Pick<World, 'sketch'>; settings: () => Point },
  { bounds, width, height }: { bounds: Bounds; width: number; height: number },
): Promise<Chart | undefined> {
  const chart = await siteChart(rt);
  if (!chart || chart.alone) return chart;
  const shown = widened(shownBounds(bounds, width, height), BESIDE);
  if (holds(reachOf(rt.settings()), shown)) return { ...chart, features: clipped(chart.features, shown) };
  return { ...chart, features: [...clipped(chart.features.slice(0, chart.own ?? 0), shown), ...(await rt.world.sketch(shown, true))] };
}

/** The site’s gazetteer; empty when it has none. */
export async function readGazetteer(db: Db): Promise<Gazetteer> {
  const [row] = await db.select().from(setting).where(eq(setting.key, 'gazetteer'));
  return (row?.value as Gazetteer | undefined) ?? { format: 1, entries: [] };
}
