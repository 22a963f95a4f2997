/** Migrations that a database does not have yet. */
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { sql } from 'drizzle-orm';
import type { Db } from './db-type';
import { queryRows } from './json-rows';

/** How many migrations a database lacks, and how many it has: none while it is empty. */
export async function countMigrations(db: Db, migrationsFolder: string): Promise<{ has: number; lacks: number }> {
  const all = readMigrationFiles({ migrationsFolder });
  const [there] = await queryRows<{ there: boolean }>(db, sql`select to_regclass('drizzle.__drizzle_migrations') is not null as there`);
  if (!there?.there) return { has: 0, lacks: all.length };
  const [row] = await queryRows<{ has: number; last: string | null }>(
    db,
    sql`select count(*)::int as has, max(created_at)::text as last from drizzle.__drizzle_migrations`,
  );
  return { has: row?.has ?? 0, lacks: all.filter(({ folderMillis }) => folderMillis > Number(row?.last ?? 0)).length };
}
