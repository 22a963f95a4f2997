/** Rows as one JSON text: many small values are what costs on the way out of the embedded database, not the query. */
import { type SQL, sql } from 'drizzle-orm';
import type { Db } from './client';

export async function jsonRows<T>(db: Db, query: SQL): Promise<T[]> {
  const result = (await db.execute(sql`select coalesce(json_agg(q), '[]')::text as list from (${query}) q`)) as unknown as {
    rows: { list: string }[];
  };
  return JSON.parse(result.rows[0]?.list ?? '[]') as T[];
}
