/** The database, embedded or a server, behind one type. Every function that touches it takes `db` or `tx` first. */
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import type { ExtractTablesWithRelations } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { EmbeddedDatabase } from './embedded';
import { lockFolder } from './lock';
import * as schema from './schema';

/** The database, or a transaction of it: both take the same queries. */
export type Db = PgDatabase<PgQueryResultHKT, typeof schema, ExtractTablesWithRelations<typeof schema>>;

/** A database that is open, and how to close it. */
export interface OpenDatabase {
  db: Db;
  close: () => Promise<void>;
}

/** Opens the database of a data folder, or the server at `url` when that is given, and brings its tables up to date. */
export async function openDatabase(options: {
  folder: string;
  root: string;
  url?: string | undefined;
  deadline?: number;
}): Promise<OpenDatabase> {
  const migrationsFolder = path.join(options.root, 'migrations');
  if (options.url) return openServer(options.url, migrationsFolder);
  const folder = path.join(options.folder, 'db');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const unlock = await lockFolder(folder);
  try {
    const embedded = new EmbeddedDatabase(folder, options.root, options.deadline);
    await embedded.open();
    const { drizzle } = await import('drizzle-orm/pglite');
    const { migrate } = await import('drizzle-orm/pglite/migrator');
    const db = drizzle({ client: embedded as never, schema });
    await migrate(db, { migrationsFolder });
    const close = async (): Promise<void> => {
      await embedded.close();
      unlock();
    };
    return { db: db as unknown as Db, close };
  } catch (error) {
    unlock();
    throw error;
  }
}

async function openServer(url: string, migrationsFolder: string): Promise<OpenDatabase> {
  const { drizzle } = await import('drizzle-orm/node-postgres');
  const { migrate } = await import('drizzle-orm/node-postgres/migrator');
  const { default: pg } = await import('pg');
  const pool = new pg.Pool({ connectionString: url, max: 10, statement_timeout: 30_000 });
  const db = drizzle({ client: pool, schema });
  await migrate(db, { migrationsFolder });
  return { db: db as unknown as Db, close: () => pool.end() };
}
