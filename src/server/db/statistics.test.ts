import { sql } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import type { Db } from './client';
import { queryRows } from './json-rows';
import { grownTables, refreshStatistics } from './statistics';

describe('the embedded database’s statistics', () => {
  let db: Db;
  beforeEach(async () => {
    db = await freshDb();
    await refreshStatistics(db);
  });
  const counted = async (): Promise<number | undefined> =>
    (await queryRows<{ n: number }>(db, sql`select reltuples::int as n from pg_class where relname = 'finder_change'`))[0]?.n;
  const grow = () => db.execute(sql`insert into finder_change (listing_id) select gen_random_uuid() from generate_series(1, 4000)`);

  it('are made anew for tables that grew, and for no others', async () => {
    expect(await grownTables(db)).toEqual([]);
    await grow();
    expect(await refreshStatistics(db)).toEqual(['finder_change']);
    expect(await counted()).toBe(4000);
    expect(await refreshStatistics(db)).toEqual([]);
  });

  it('take up the room of rows that are gone', async () => {
    await grow();
    await refreshStatistics(db);
    const size = async () => (await queryRows<{ n: number }>(db, sql`select pg_relation_size('finder_change')::int as n`))[0]?.n ?? 0;
    const before = await size();
    for (let i = 0; i < 5; i++) {
      await db.execute(sql`delete from finder_change`);
      await grow();
      await refreshStatistics(db);
    }
    // Without it each round would add as much again.
    expect(await size()).toBeLessThan(before * 3);
  });
});
