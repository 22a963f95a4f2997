/** An empty database with all tables, made with the build: a new site begins with a copy, which takes a second where making one takes twenty. */
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { readdir, rename, rmdir } from 'node:fs/promises';
import path from 'node:path';
import { copyFolder, syncFolder } from './copy-folder';

/** Which migrations, and which PGlite: a database that was made with others is not begun with. Also asked by the script that makes it. */
export function madeWith(root: string): string {
  const read = (...names: string[]): { version?: string; entries?: { tag: string }[] } =>
    JSON.parse(readFileSync(path.join(root, ...names), 'utf8'));
  const { version } = read('node_modules', '@electric-sql', 'pglite', 'package.json');
  return `${version} ${read('migrations', 'meta', '_journal.json')
    .entries?.map(({ tag }) => tag)
    .join(' ')}`;
}

/** Where the build puts it: `db`, and beside it in `made-with` what {@link madeWith} said. */
export const EMPTY_DATABASE = path.join('dist', 'empty-database');

/** A whole copy that is being moved into its place, entry by entry, stands beside the folder under this name. */
const begun = (folder: string): string => `${folder}.begun`;
/** Without this entry a folder is no database: it is moved last. */
const LAST = 'PG_VERSION';

/**
 * Puts a copy into an empty folder. The folder itself stays, since its lock hangs on it. Does nothing where the build has none for these tables.
 * @param copies how copies in the same place are called that may be thrown away when a process ended meanwhile
 */
export async function beginWithCopy(folder: string, root: string, copies: string): Promise<void> {
  const made = path.join(root, EMPTY_DATABASE);
  if (!existsSync(path.join(made, 'made-with')) || readFileSync(path.join(made, 'made-with'), 'utf8') !== madeWith(root)) return;
  const copy = mkdtempSync(path.join(path.dirname(folder), copies));
  await copyFolder(path.join(made, 'db'), copy);
  // What is written later is kept in the log and on the disk; what it is written into must be there, too.
  await syncFolder(copy);
  await rename(copy, begun(folder));
  await goOnMoving(folder);
}

/** Moves what is left of a copy into its place: all of it, or what a process left that ended meanwhile. */
export async function goOnMoving(folder: string): Promise<void> {
  const from = begun(folder);
  if (!existsSync(from)) return;
  const entries = (await readdir(from)).filter((entry) => entry !== LAST);
  for (const entry of [...entries, LAST])
    if (existsSync(path.join(from, entry))) await rename(path.join(from, entry), path.join(folder, entry));
  await rmdir(from);
}
