/** Writes a backup: everything that is in the database at one moment, into one file. The site goes on meanwhile. */
import { Readable } from 'node:stream';
import { stat } from 'node:fs/promises';
import { sql } from 'drizzle-orm';
import { ARCHIVE_DOCUMENT } from '@/core/exchange/archive';
import { fileOf, pictureEntries, wholeDocument } from '../archive/write';
import { writeZip, type ZipEntry } from '../archive/zip';
import type { Db } from '../db/client';
import { appliedMigrations } from '../db/applied';
import { queryRows } from '../db/json-rows';
import { BACKUP_HEAD, type BackupHead, tableFile } from './format';
import { keptTables, PICTURE_TABLE, tableLines } from './tables';

/** How to write it. */
export interface BackupInput {
  path: string;
  madeAt: Date;
  /** are the tables those of this version? Then the archive's document is in it too, which other programs can read */
  current: boolean;
}

/** What was written. */
export interface BackupReport {
  path: string;
  bytes: number;
  tables: number;
  rows: number;
}

/** Writes it; the file is there under its name when it is whole. Throws a Problem where it cannot be written. */
export async function writeBackup(db: Db, { path, madeAt, current }: BackupInput): Promise<BackupReport> {
  const report = await db.transaction(
    async (tx) => {
      const tables = await keptTables(tx);
      const counts: Record<string, number> = {};
      for (const table of tables) {
        const [row] = await queryRows<{ n: number }>(tx, sql`select count(*)::int as n from ${sql.identifier(table)}`);
        counts[table] = row?.n ?? 0;
      }
      const pictures = await pictureFiles(tx, tables);
      const head: BackupHead = {
        kind: 'plain-almanac-backup',
        format: 1,
        madeAt: madeAt.toISOString(),
        migrations: await appliedMigrations(tx),
        tables: counts,
        pictures: Object.fromEntries([...pictures].map(([file, hash]) => [hash, file])),
      };
      const text = (lines: Iterable<string> | AsyncIterable<string>): Readable => Readable.from(lines, { objectMode: false });
      const entries: ZipEntry[] = [
        { name: BACKUP_HEAD, read: async () => text([`${JSON.stringify(head, null, 1)}\n`]) },
        ...(current ? [{ name: ARCHIVE_DOCUMENT, read: async () => text(wholeDocument(tx, madeAt)) }] : []),
        ...tables.map((table) => ({ name: tableFile(table), read: async () => text(tableLines(tx, table)) })),
        ...pictureEntries(tx, pictures),
      ];
      await writeZip(path, entries);
      return { tables: tables.length, rows: Object.values(counts).reduce((sum, n) => sum + n, 0) };
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  );
  return { path, bytes: (await stat(path)).size, ...report };
}

/** The file of each picture's bytes, with its hash. */
async function pictureFiles(tx: Db, tables: readonly string[]): Promise<Map<string, string>> {
  if (!tables.includes(PICTURE_TABLE)) return new Map();
  const rows = await queryRows<{ hash: string; start: string }>(
    tx,
    sql`select hash, encode(substring(bytes from 1 for 4100), 'base64') as start from picture_source order by hash`,
  );
  const files = new Map<string, string>();
  for (const { hash, start } of rows) files.set(await fileOf(hash, Buffer.from(start, 'base64')), hash);
  return files;
}
