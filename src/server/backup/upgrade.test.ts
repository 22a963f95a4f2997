import { NO_FILTERS } from '@/core/filters/filters';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { eq, sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import { describe, expect, it } from 'vitest';
import { emptyPg } from '../../../tests/support/empty-pg';
import { NOW } from '../../../tests/support/db';
import { siteOf } from '../../../tests/support/site';
import { rebuildIndex } from '../dates/rebuild';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import * as schema from '../db/schema';
import { contentInput } from '../listings/input';
import { feedText } from '../public/feed';
import { readersDates } from '../public/readers-dates';
import { readSettings } from '../site/read';
import { checkSite } from './check';
import { restoreBackup } from './restore';

const FOLDER = 'tests/upgrades';

/** What readers had of a site when it was of an older version. */
interface Before {
  listings: Record<string, { id: string; dates: [slug: string, day: number, minute: number | null][] }>;
}

/** A small site of each kind of data that landed, named by how many migrations it had. */
const names = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.zip'))
  .sort();

describe('a site of an older version', () => {
  it('is kept of several', () => {
    expect(names.length).toBeGreaterThan(2);
  });

  it.each(names)('%s has its addresses, dates and UIDs in this one', async (name) => {
    const db = drizzle({ client: await emptyPg(), schema }) as unknown as Db;
    const { upgraded } = await restoreBackup(db, path.join(FOLDER, name), 'migrations');
    expect(upgraded).toBeGreaterThan(0);
    const before = JSON.parse(readFileSync(path.join(FOLDER, name.replace('.zip', '.json')), 'utf8')) as Before;
    const { settings } = await readSettings(db);

    const listings = await db.select({ id: schema.published.listingId, slug: schema.published.slug }).from(schema.published);
    expect(Object.fromEntries(listings.map(({ slug, id }) => [slug, id]))).toEqual(
      Object.fromEntries(Object.entries(before.listings).map(([slug, { id }]) => [slug, id])),
    );
    for (const [slug, { id, dates }] of Object.entries(before.listings)) {
      const now = await queryRows<{ date: string; day: number; minute: number | null }>(
        db,
        sql`select slug as date, start_day as day, start_minute as minute from occurrence where listing_id = ${id} and public and start_day < 21000 order by 2, 3 nulls first`,
      );
      expect(
        now.map(({ date, day, minute }) => [date, day, minute]),
        slug,
      ).toEqual(dates);
    }
    // Contents are what forms take today, and all that is derived from them is as it should be.
    for (const { id } of listings) {
      const [row] = await db.select({ working: schema.listing.working }).from(schema.listing).where(eq(schema.listing.id, id));
      expect(contentInput.safeParse(row?.working).success, id).toBe(true);
    }
    expect((await rebuildIndex(db, settings, NOW)).differed).toEqual([]);
    expect((await checkSite(db, { mend: false, today: NOW.day })).differences).toEqual([]);
    const feed = await feedText(siteOf(db), await readersDates(siteOf(db), NO_FILTERS), 'https://almanac.example/feed.ics');
    for (const { id } of Object.values(before.listings)) expect(feed).toContain(`UID:${id}@`);
  });
});
