/**
 * What a database server does by itself and the embedded one does not: taking up the room of rows that are gone, and counting, without which it
 * takes the wrong way through tables that grew.
 */
import { sql } from 'drizzle-orm';
import type { Db } from './client';
import { queryRows } from './json-rows';

/** Tables whose size changed by a fifth since they were last looked at, the smaller ones first; those that are small stay. */
export async function grownTables(db: Db): Promise<string[]> {
  const rows = await queryRows<{ name: string }>(
    db,
    sql`select c.relname as name from pg_class c join pg_namespace n on n.oid = c.relnamespace
      where n.nspname = 'public' and c.relkind = 'r' and abs(pg_relation_size(c.oid) / 8192 - c.relpages) > greatest(8, c.relpages * 0.2)
      order by pg_relation_size(c.oid), c.relname`,
  );
  return rows.map(({ name }) => name);
}

/** Looks at the tables that changed much, one by one: others have their turns between. Which they were. */
export async function refreshStatistics(db: Db): Promise<string[]> {
  const tables = await grownTables(db);
  // A tenth of the usual sample is enough for tables that are all alike, and holds others up a third as long.
  if (tables.length) await db.execute(sql`set default_statistics_target = 10`);
  for (const table of tables) await db.execute(sql`vacuum (analyze) ${sql.identifier(table)}`);
  return tables;
}
