/** An embedded database for a test that needs one to itself: a copy of the one that comes with the build, which takes a second; where there is no build, a new one. */
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { EMPTY_DATABASE, madeWith } from '@/server/db/empty-database';

const note = path.join(EMPTY_DATABASE, 'made-with');
const folders: string[] = [];
process.on('exit', () => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

function copied(): PGlite | undefined {
  if (!existsSync(note) || readFileSync(note, 'utf8') !== madeWith('.')) return undefined;
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-empty-'));
  folders.push(folder);
  cpSync(path.join(EMPTY_DATABASE, 'db'), folder, { recursive: true });
  return new PGlite(folder);
}

/** With all tables, and nothing in them. In memory it takes ten times as long to come, and each change less. */
export async function emptyPg({ inMemory = false } = {}): Promise<PGlite> {
  const copy = inMemory ? undefined : copied();
  if (copy) return copy;
  const made = new PGlite();
  await migrate(drizzle({ client: made }), { migrationsFolder: 'migrations' });
  return made;
}

/** Without any table: for migrations. */
export async function barePg(): Promise<PGlite> {
  const copy = copied();
  await copy?.exec('drop schema public cascade; drop schema drizzle cascade; create schema public');
  return copy ?? new PGlite();
}
