import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { beginWithCopy, EMPTY_DATABASE, goOnMoving, madeWith } from './empty-database';

describe('the database that a new site begins with', () => {
  let root: string;
  let folder: string;
  const put = (file: string, text: string): void => {
    mkdirSync(path.dirname(path.join(root, file)), { recursive: true });
    writeFileSync(path.join(root, file), text);
  };

  beforeEach(() => {
    root = mkdtempSync(path.join(tmpdir(), 'almanac-root-'));
    put('node_modules/@electric-sql/pglite/package.json', '{"version":"1.0.0"}');
    put('migrations/meta/_journal.json', '{"entries":[{"tag":"0000_first"}]}');
    put(`${EMPTY_DATABASE}/db/PG_VERSION`, '17');
    put(`${EMPTY_DATABASE}/db/base/1/259`, 'a table');
    put(`${EMPTY_DATABASE}/db/global/control`, 'a number');
    put(`${EMPTY_DATABASE}/made-with`, madeWith(root));
    folder = path.join(root, 'data', 'db');
    mkdirSync(folder, { recursive: true });
  });
  afterEach(() => rmSync(root, { recursive: true, force: true }));

  it('is a whole copy in the same folder, and nothing is left beside it', async () => {
    const { ino } = statSync(folder);
    await beginWithCopy(folder, root, 'db.copy-');
    expect(readFileSync(path.join(folder, 'base/1/259'), 'utf8')).toBe('a table');
    expect(readdirSync(folder).sort()).toEqual(['PG_VERSION', 'base', 'global']);
    expect(readdirSync(path.dirname(folder))).toEqual(['db']);
    // Its lock hangs on the folder.
    expect(statSync(folder).ino).toBe(ino);
  });

  it.each([
    ['other tables', 'migrations/meta/_journal.json', '{"entries":[{"tag":"0000_first"},{"tag":"0001_second"}]}'],
    ['another PGlite', 'node_modules/@electric-sql/pglite/package.json', '{"version":"1.0.1"}'],
  ])('is not one that was made with %s', async (_, file, text) => {
    put(file, text);
    await beginWithCopy(folder, root, 'db.copy-');
    expect(readdirSync(folder)).toEqual([]);
  });

  it.each([
    [[], ['PG_VERSION', 'base', 'global']],
    [['base'], ['PG_VERSION', 'global']],
    [['base', 'global'], ['PG_VERSION']],
    [['base', 'global', 'PG_VERSION'], []],
  ])('is whole after an end while %j were there already', async (there, left) => {
    await beginWithCopy(folder, root, 'db.copy-');
    const begun = `${folder}.begun`;
    mkdirSync(begun);
    for (const entry of left) renameSync(path.join(folder, entry), path.join(begun, entry));
    expect(readdirSync(folder).sort()).toEqual([...there].sort());
    await goOnMoving(folder);
    expect(readdirSync(folder).sort()).toEqual(['PG_VERSION', 'base', 'global']);
    expect(existsSync(begun)).toBe(false);
  });
});
