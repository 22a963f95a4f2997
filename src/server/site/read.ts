/** Settings and chart of the site. */
import { eq } from 'drizzle-orm';
import type { Gazetteer } from '@/core/geo/gazetteer';
import { type Chart, drawnChart, type StoredChart, upgradeChart } from '@/core/geo/geo';
import type { ContentCache } from './content-cache';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import { DEFAULT_SETTINGS, type SiteSettings } from './settings';

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

/** The site’s gazetteer; empty when it has none. */
export async function readGazetteer(db: Db): Promise<Gazetteer> {
  const [row] = await db.select().from(setting).where(eq(setting.key, 'gazetteer'));
  return (row?.value as Gazetteer | undefined) ?? { format: 1, entries: [] };
}
