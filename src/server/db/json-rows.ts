/** Rows as one JSON text: many small values are what costs on the way out of the embedded database, not the query. */
import { type SQL, sql } from 'drizzle-orm';
import type { Db } from './db-type';

/** The rows of a question in SQL, by the names of its columns; the two drivers give them in the same place. */
export async function queryRows<T>(db: Db, query: SQL): Promise<T[]> {
  return ((await db.execute(query)) as unknown as { rows: T[] }).rows;
}

/** The rows of a question as one JSON text from the database: what many small values cost on the way out is saved. */
export async function jsonRows<T>(db: Db, query: SQL): Promise<T[]> {
  const [only] = await queryRows<{ list: string }>(db, sql`select coalesce(json_agg(q), '[]')::text as list from (${query}) q`);
  return JSON.parse(only?.list ?? '[]') as T[];
}
