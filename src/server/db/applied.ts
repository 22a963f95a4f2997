/** Which migrations a database has, and which it lacks. */
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { sql } from 'drizzle-orm';
import type { Db } from './db-type';
import { queryRows } from './json-rows';

/** A migration that a database has. */
export interface Applied {
  hash: string;
  /** when it was made, in milliseconds */
  at: number;
}

/** The migrations that a database has, in order; none where it has no tables yet. */
export async function appliedMigrations(db: Db): Promise<Applied[]> {
  const [there] = await queryRows<{ there: boolean }>(db, sql`select to_regclass('drizzle.__drizzle_migrations') is not null as there`);
  if (!there?.there) return [];
  const rows = await queryRows<{ hash: string; at: string }>(
    db,
    sql`select hash, created_at::text as at from drizzle.__drizzle_migrations order by created_at, id`,
  );
  return rows.map(({ hash, at }) => ({ hash, at: Number(at) }));
}

/** How many migrations a database has and how many it lacks, by when they were made, as the library counts them. */
export async function countMigrations(db: Db, migrationsFolder: string): Promise<{ has: number; lacks: number }> {
  const applied = await appliedMigrations(db);
  const last = applied.at(-1)?.at ?? 0;
  return { has: applied.length, lacks: readMigrationFiles({ migrationsFolder }).filter(({ folderMillis }) => folderMillis > last).length };
}
