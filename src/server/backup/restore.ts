/** Makes an empty database what a backup holds, in one transaction: at the backup's own version, then brought up to this one. */
import { createInterface } from 'node:readline';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { sql } from 'drizzle-orm';
import { sayCount } from '@/core/phrase/format';
import { parseJson } from '@/core/text/clean';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { openZip } from '../archive/zip';
import { Problem } from '../problem';
import { BACKUP_HEAD, type BackupHead, backupHead, tableFile } from './format';
import { allTables, insertLines, withoutForeignKeys } from './tables';

/** What was put back. */
export interface RestoreReport {
  madeAt: string;
  tables: Record<string, number>;
  /** how many migrations brought it up to this version */
  upgraded: number;
}

interface Migration {
  sql: string[];
  hash: string;
  folderMillis: number;
}

const MOST_HEAD_BYTES = 16 * 1024 * 1024;
const MOST_PICTURE_BYTES = 64 * 1024 * 1024;

/** A backup as it lies on disk. */
interface Backup {
  head: BackupHead;
  lines: (table: string) => Promise<AsyncIterable<string>>;
  picture: (hash: string) => Promise<Uint8Array>;
  close: () => void;
}

/** Opens a backup. Throws a Problem that says what is wrong with the file. */
async function openBackup(file: string): Promise<Backup> {
  const zip = await openZip(file);
  const notWhole = (name: string): Problem => new Problem('invalid', `The backup ${file} has no ${name}: it is not whole.`);
  try {
    if (!zip.has(BACKUP_HEAD))
      throw new Problem('invalid', `${file} is no backup: it has no ${BACKUP_HEAD}. An archive is taken in with almanac import --site.`);
    const head = readHead(file, (await zip.bytes(BACKUP_HEAD, MOST_HEAD_BYTES))?.toString('utf8') ?? '');
    return {
      head,
      lines: async (table) => {
        const input = await zip.stream(tableFile(table));
        if (!input) throw notWhole(tableFile(table));
        return createInterface({ input, crlfDelay: Number.POSITIVE_INFINITY });
      },
      picture: async (hash) => {
        const name = head.pictures[hash] ?? hash;
        const bytes = await zip.bytes(name, MOST_PICTURE_BYTES);
        if (!bytes) throw notWhole(name);
        return bytes;
      },
      close: zip.close,
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

function readHead(file: string, text: string): BackupHead {
  try {
    return backupHead.parse(parseJson(text));
  } catch {
    throw new Problem('invalid', `The backup ${file} is of a kind that this version does not read.`);
  }
}

/** Which of our migrations a backup has. Throws a Problem where it has others: a newer version made it. */
function knownMigrations(all: readonly Migration[], { migrations }: BackupHead): number {
  const same = migrations.every(({ hash }, i) => all[i]?.hash === hash);
  if (!same || !migrations.length)
    throw new Problem('invalid', 'This backup was made by a newer version of Plain Almanac, or another one: put it back with that one.');
  return migrations.length;
}

/**
 * Puts a backup into a database that has nothing of anybody's in it. A failure at any moment leaves the database as it was.
 *
 * @param migrationsFolder where this version's migrations are
 */
export async function restoreBackup(db: Db, file: string, migrationsFolder: string): Promise<RestoreReport> {
  const backup = await openBackup(file);
  try {
    const all = readMigrationFiles({ migrationsFolder }) as Migration[];
    const known = knownMigrations(all, backup.head);
    return await db.transaction(async (tx) => {
      await refuseUnlessEmpty(tx);
      await dropEverything(tx);
      await applyMigrations(tx, all.slice(0, known));
      await withoutForeignKeys(tx, () => insertTables(tx, backup));
      await applyMigrations(tx, all.slice(known));
      const { madeAt, tables } = backup.head;
      return { madeAt, tables, upgraded: all.length - known };
    });
  } finally {
    backup.close();
  }
}

async function insertTables(tx: Db, { head, lines, picture }: Backup): Promise<void> {
  const there = new Set(await allTables(tx));
  for (const [table, expected] of Object.entries(head.tables)) {
    if (!there.has(table)) throw new Problem('invalid', `The backup has a table ${table} that its version does not know.`);
    // Whatever the migrations put into a new table stands in the backup too.
    await tx.execute(sql`delete from ${sql.identifier(table)}`);
    const n = await insertLines(tx, table, await lines(table), picture);
    if (n !== expected)
      throw new Problem('invalid', `The backup is not whole: ${table} has ${sayCount(n, 'row')} of ${expected.toLocaleString('en')}.`);
  }
}

/** What a site has that is somebody's. */
const SOMEBODYS = ['account_user', 'listing', 'venue', 'organizer', 'category', 'tag', 'picture'];

/** Nothing is written over: a backup fills a database that nobody has used yet. */
async function refuseUnlessEmpty(tx: Db): Promise<void> {
  const there = await allTables(tx);
  for (const table of SOMEBODYS) {
    if (!there.includes(table)) continue;
    const [row] = await queryRows<{ n: number }>(tx, sql`select count(*)::int as n from ${sql.identifier(table)}`);
    if (row?.n)
      throw new Problem(
        'conflict',
        `A backup fills an empty site, and this one has ${sayCount(row.n, table === 'account_user' ? 'account' : table, table === 'category' ? 'categories' : undefined)}. Set ALMANAC_DATA to a new folder, or DATABASE_URL to an empty database.`,
      );
  }
}

async function dropEverything(tx: Db): Promise<void> {
  for (const table of await allTables(tx)) await tx.execute(sql`drop table ${sql.identifier(table)} cascade`);
  const functions = await queryRows<{ name: string }>(
    tx,
    sql`select p.oid::regprocedure::text as name from pg_proc p join pg_namespace n on n.oid = p.pronamespace
      where n.nspname = 'public' and not exists (select 1 from pg_depend d where d.objid = p.oid and d.deptype = 'e')`,
  );
  for (const { name } of functions) await tx.execute(sql`drop function ${sql.raw(name)} cascade`);
  await tx.execute(sql`delete from drizzle.__drizzle_migrations`);
}

async function applyMigrations(tx: Db, migrations: readonly Migration[]): Promise<void> {
  for (const { sql: statements, hash, folderMillis } of migrations) {
    for (const statement of statements) if (statement.trim()) await tx.execute(sql.raw(statement));
    await tx.execute(sql`insert into drizzle.__drizzle_migrations (hash, created_at) values (${hash}, ${folderMillis})`);
  }
}
