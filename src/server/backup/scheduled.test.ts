import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { barePg } from '../../../tests/support/empty-pg';
import { freshDb, NOW } from '../../../tests/support/db';
import type { Db } from '../db/client';
import * as schema from '../db/schema';
import { openSite } from '../runtime';
import { withoutLast } from '../../../tests/support/migrations';
import { restoreBackup } from './restore';
import { Backups } from './scheduled';

const folder = mkdtempSync(path.join(tmpdir(), 'almanac-scheduled-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('backups that a site makes by itself', () => {
  let db: Db;
  beforeAll(async () => {
    db = await freshDb();
  });
  const at = (day: number, minute: number) => ({ now: () => ({ day, minute, ms: NOW.ms }), folder: path.join(folder, 'kept') });
  const names = (): string[] => readdirSync(path.join(folder, 'kept'));

  it('are made once a night, at once where there is none, and go by rule', async () => {
    const made = async (day: number, minute: number): Promise<boolean> =>
      (await new Backups({ aside: (run) => run(db), ...at(day, minute) }).makeDue()) !== undefined;
    expect(await made(20_000, 900), 'the first').toBe(true);
    expect(await made(20_000, 1430)).toBe(false);
    expect(await made(20_001, 100), 'before the night has come').toBe(false);
    expect(await made(20_001, 200)).toBe(true);
    expect(await made(20_003, 10), 'one night was missed').toBe(true);
    writeFileSync(path.join(folder, 'kept', 'somebody-else’s.zip'), 'not ours');
    for (let day = 20_004; day < 20_016; day++) expect(await made(day, 400)).toBe(true);
    expect(names()).toContain('somebody-else’s.zip');
    expect(names().length).toBeLessThan(12);
    const list = await new Backups({ aside: (run) => run(db), ...at(20_016, 0) }).list();
    expect(list.at(-1)?.day).toBe(20_015);
    expect(list.every(({ bytes }) => bytes > 500)).toBe(true);
    expect(await new Backups({ aside: (run) => run(db), ...at(20_030, 500), folder: undefined }).makeDue()).toBeUndefined();
  });

  it('come before the tables of an older version are changed, and lead back to it', async () => {
    const data = path.join(folder, 'old');
    const older = withoutLast(1);
    mkdirSync(data, { recursive: true });
    const client = await PGlite.create(path.join(data, 'db'));
    const before = drizzle({ client, schema });
    await migrate(before, { migrationsFolder: older });
    await before.insert(schema.tag).values({ id: '0190a1b2-0000-7000-8000-00000000000a', name: 'dark', folded: 'dark', slug: 'dark' });
    const has = (await client.query<{ n: number }>('select count(*)::int as n from drizzle.__drizzle_migrations')).rows[0]?.n;
    await client.close();

    const env = { ALMANAC_DATA: data, ALMANAC_ROOT: process.cwd(), NODE_ENV: 'test' };
    await (await openSite(env)).close();
    const file = path.join(data, 'backups', `before-upgrade-from-${has}.zip`);
    expect(readdirSync(path.dirname(file))).toEqual([path.basename(file)]);
    const again = await openSite(env);
    expect((await again.db.select().from(schema.tag)).map(({ name }) => name)).toEqual(['dark']);
    await again.close();

    const back = drizzle({ client: await barePg(), schema });
    await migrate(back, { migrationsFolder: older });
    expect((await restoreBackup(back as unknown as Db, file, older)).upgraded).toBe(0);
    const found = (await back.execute(sql`select name from tag`)) as unknown as { rows: { name: string }[] };
    expect(found.rows).toEqual([{ name: 'dark' }]);
    rmSync(older, { recursive: true });
  }, 120_000);
});
