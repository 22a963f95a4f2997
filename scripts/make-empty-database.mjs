// Makes the empty database that a new site begins with a copy of, where the build has none yet for these tables.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { EMPTY_DATABASE, madeWith } from '../src/server/db/empty-database';

const root = path.resolve(import.meta.dirname, '..');
const folder = path.join(root, EMPTY_DATABASE);
const note = path.join(folder, 'made-with');
const wanted = madeWith(root);
if (!existsSync(note) || readFileSync(note, 'utf8') !== wanted) {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const pg = new PGlite(path.join(folder, 'db'));
  await migrate(drizzle({ client: pg }), { migrationsFolder: path.join(root, 'migrations') });
  await pg.close();
  writeFileSync(note, wanted);
}
