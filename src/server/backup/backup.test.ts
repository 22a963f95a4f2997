import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { change, choir, freshDb, inTx, NOW, type Places, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { barePg, emptyPg } from '../../../tests/support/empty-pg';
import { withoutLast } from '../../../tests/support/migrations';
import { Postgres, postgresFolder } from '../../../tests/support/postgres';
import { problem } from '../../../tests/support/problem';
import { siteOf } from '../../../tests/support/site';
import { rebuildIndex } from '../dates/rebuild';
import { type Db, openDatabase } from '../db/client';
import { queryRows } from '../db/json-rows';
import * as schema from '../db/schema';
import { createListing, publishListing, saveListing } from '../listings/write';
import { queueMail } from '../mail/outbox';
import { keepPicture } from '../pictures/take-in';
import { keptTables } from './tables';
import { restoreBackup } from './restore';
import { writeBackup } from './write';

const folder = mkdtempSync(path.join(tmpdir(), 'almanac-backup-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const at = (name: string): string => path.join(folder, name);

async function empty(migrationsFolder?: string): Promise<Db> {
  const db = drizzle({ client: migrationsFolder ? await barePg() : await emptyPg(), schema });
  if (migrationsFolder) await migrate(db, { migrationsFolder });
  return db as unknown as Db;
}

/** Every row of every table that is kept, as text, sorted. */
async function everything(db: Db): Promise<Record<string, string[]>> {
  const tables: Record<string, string[]> = {};
  for (const table of await keptTables(db)) {
    const rows = await queryRows<{ row: string }>(db, sql`select row_to_json(t)::text as row from ${sql.identifier(table)} t`);
    tables[table] = rows.map(({ row }) => row).sort();
  }
  return tables;
}

describe('a backup', () => {
  let db: Db;
  let places: Places;
  const file = at('site.zip');

  beforeAll(async () => {
    db = await freshDb();
    places = await seedPlaces(db);
    const rt = siteOf(db);
    await db.insert(schema.setting).values({ key: 'site', value: SETTINGS });
    const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#357' } })
      .jpeg()
      .toBuffer();
    const sent = { name: 'tide.jpg', bytes, alt: 'The tide', credit: '', ownerId: null, at: new Date(NOW.ms) };
    const { picture } = await keepPicture(rt, sent);
    const pictureId = picture.id;
    for (const title of ['Harbour Choir', 'Lantern Walk', 'Ünïcode “quotes” \\ and tabs\t']) {
      const row = await inTx(db, (tx) => createListing(tx, choir(places, { title, pictureId }), change()));
      const published = await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
      await inTx(db, (tx) =>
        saveListing(tx, { id: row.id, content: choir(places, { title: `${title} anew` }), revision: published.revision }, change()),
      );
    }
    await inTx(db, (tx) => queueMail(tx, { to: 'ada@almanac.example', subject: 'Tide', text: 'High at noon.' }, new Date(NOW.ms)));
    await db.insert(schema.user).values({ id: 'u1', name: 'Maud', email: 'maud@almanac.example', role: 'coordinator' });
    const fileId = '01900000-0000-7000-8000-000000000000';
    const street = { fileId, n: 0, name: 'Rope Walk', town: 'Gannet Bay', region: '', lat: 43.18, lng: -57.45 };
    const houses = {
      format: 1 as const,
      numbers: ['2', '4 A'],
      lat: [43_180_000, 43_181_000],
      lng: [-57_450_000, -57_451_000],
      postcode: [0, -1],
    };
    await db.insert(schema.addressFile).values({
      id: fileId,
      name: 'isles.csv',
      addresses: 2,
      streets: 1,
      leftOut: 0,
      credit: 'Isles Survey',
      ready: true,
      at: new Date(NOW.ms),
    });
    await db
      .insert(schema.addressStreet)
      .values({ ...street, postcodes: ['K1A 0B1', 'with "quotes", {braces}'], words: ['rope', 'walk'], houses });
    await writeBackup(db, { path: file, madeAt: new Date(NOW.ms), current: true });
  }, 120_000);

  it('put back is the same to the last row, pictures and accounts too', async () => {
    const other = await empty();
    const report = await restoreBackup(other, file, 'migrations');
    expect([report.upgraded, report.tables.listing, report.tables.account_user]).toEqual([0, 3, 1]);
    const [before, after] = [await everything(db), await everything(other)];
    expect(after).toEqual(before);
    expect([before.picture_source?.length, before.address_street?.length]).toEqual([1, 1]);
    expect((await rebuildIndex(other, SETTINGS, NOW)).differed).toEqual([]);
    // What tables ask of each other is asked again.
    await expect(other.execute(sql`delete from listing where true`)).resolves.toBeDefined();
    expect((await everything(other)).occurrence).toEqual([]);
    await expect(other.execute(sql`insert into old_slug values ('x', gen_random_uuid())`)).rejects.toThrow();
  });

  it('is an archive too', async () => {
    const { openArchive } = await import('../archive/source');
    const archive = await openArchive(file);
    expect((archive.document as { listings: unknown[] }).listings).toHaveLength(3);
    archive.close();
  });

  it('fills nothing but an empty site, and leaves everything as it was where it cannot be read', async () => {
    expect((await problem(restoreBackup(db, file, 'migrations'))).title).toContain('this one has');
    const before = await everything(db);
    const other = await empty();
    for (const [name, make] of [
      ['no zip', () => writeFileSync(at('bad.zip'), 'tide table')],
      ['cut off', () => writeFileSync(at('bad.zip'), readFileSync(file).subarray(0, 4000))],
    ] as const) {
      make();
      expect((await problem(restoreBackup(other, at('bad.zip'), 'migrations'))).title, name).toContain('cannot be read');
    }
    expect((await problem(restoreBackup(other, at('nowhere.zip'), 'migrations'))).title).toContain('cannot be read');
    expect((await everything(other)).listing).toEqual([]);
    await other.transaction((tx) => createListing(tx as unknown as Db, choir(places, { venueIds: [], categoryIds: [] }), change()));
    expect(await everything(db)).toEqual(before);
  });

  it('of a newer version is refused', async () => {
    const older = await empty(withoutLast(1));
    expect((await problem(restoreBackup(older, file, withoutLast(1)))).title).toContain('newer version');
  });

  it('of an older version is brought up to this one', async () => {
    const before = withoutLast(1);
    const older = await empty(before);
    await restoreBackup(older, await backupOf(older, db, before), before);
    const made = at('older.zip');
    await writeBackup(older, { path: made, madeAt: new Date(NOW.ms), current: false });
    const other = await empty();
    expect((await restoreBackup(other, made, 'migrations')).upgraded).toBe(1);
    // What tables hold that came since, an older version never had.
    const had = Object.keys(await everything(older));
    const those = (all: Record<string, unknown>) => Object.fromEntries(had.map((name) => [name, all[name]]));
    expect(those(await everything(other))).toEqual(those(await everything(db)));
    expect(had).toContain('listing');
  });

  /** The same site as a backup of an older version would have it: tables that came since stand aside meanwhile. */
  async function backupOf(older: Db, site: Db, migrationsFolder: string): Promise<string> {
    const { readMigrationFiles } = await import('drizzle-orm/migrator');
    const known = readMigrationFiles({ migrationsFolder }).map(({ hash }) => hash);
    const rows = await queryRows<{ hash: string }>(site, sql`select hash from drizzle.__drizzle_migrations order by created_at`);
    expect(rows.slice(0, known.length).map(({ hash }) => hash)).toEqual(known);
    const name = at('same.zip');
    const olderTables = await keptTables(older);
    const newer = (await keptTables(site)).filter((table) => !olderTables.includes(table));
    const move = async (from: string, to: string): Promise<void> => {
      for (const table of newer)
        await site.execute(sql`alter table ${sql.identifier(from)}.${sql.identifier(table)} set schema ${sql.identifier(to)}`);
    };
    await site.execute(sql`create table kept_migrations as select * from drizzle.__drizzle_migrations`);
    await site.execute(sql`delete from drizzle.__drizzle_migrations where hash = ${rows.at(-1)?.hash ?? ''}`);
    try {
      await site.execute(sql`alter table kept_migrations set schema drizzle`);
      await move('public', 'drizzle');
      expect(await keptTables(site)).toEqual(olderTables);
      await writeBackup(site, { path: name, madeAt: new Date(NOW.ms), current: false });
    } finally {
      await move('drizzle', 'public');
      await site.execute(sql`delete from drizzle.__drizzle_migrations`);
      await site.execute(sql`insert into drizzle.__drizzle_migrations select * from drizzle.kept_migrations`);
      await site.execute(sql`drop table drizzle.kept_migrations`);
    }
    return name;
  }

  it('that cannot be written leaves nothing behind', async () => {
    expect((await problem(writeBackup(db, { path: '/proc/nowhere/x.zip', madeAt: new Date(), current: true }))).title).toContain(
      'cannot be written',
    );
    expect(existsSync('/proc/nowhere/x.zip.part')).toBe(false);
  });

  const bin = postgresFolder();
  it.skipIf(!bin)('goes from the embedded database to a server and back, the same to the last row', async () => {
    const server = await Postgres.start(bin as string);
    const open = await openDatabase({ folder: server.folder, root: process.cwd(), url: server.url });
    try {
      await restoreBackup(open.db, file, 'migrations');
      expect(await everything(open.db)).toEqual(await everything(db));
      await writeBackup(open.db, { path: at('server.zip'), madeAt: new Date(NOW.ms), current: true });
      const back = await empty();
      await restoreBackup(back, at('server.zip'), 'migrations');
      expect(await everything(back)).toEqual(await everything(db));
    } finally {
      await open.close();
      await server.stop();
    }
  });
});
