import { execFileSync } from 'node:child_process';
import { closeSync, mkdirSync, mkdtempSync, openSync, rmSync, statSync, truncateSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BrokenFolderError, openDatabase } from './client';
import { EmbeddedDatabase } from './embedded';
import { isConnectionLost, isDiskFull } from './lost';
import { freeBytes, Room } from './room';

describe('room on the disk', () => {
  it('is asked once a second, and tells when it turns', () => {
    let [free, at, asked] = [100, 0, 0];
    const turns: [boolean, number][] = [];
    const room = new Room(
      () => {
        asked++;
        return free;
      },
      (has, left) => turns.push([has, left]),
      () => at,
      50,
    );
    expect(room.has()).toBe(true);
    free = 49;
    expect([room.has(), asked]).toEqual([true, 1]);
    at = 1000;
    expect([room.has(), room.has(), asked]).toEqual([false, false, 2]);
    free = 50;
    at = 2000;
    expect(room.has()).toBe(true);
    expect(turns).toEqual([
      [false, 49],
      [true, 50],
    ]);
  });
  it('is known of a real folder, and taken to be there where nothing is known', () => {
    expect(freeBytes(tmpdir())).toBeGreaterThan(0);
    expect(freeBytes('/nowhere/at/all')).toBe(Number.POSITIVE_INFINITY);
  });
});

describe('a folder that is no whole database', () => {
  it('is refused and stays as it is', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'almanac-half-'));
    mkdirSync(path.join(folder, 'db', 'base'), { recursive: true });
    writeFileSync(path.join(folder, 'db', 'base', '1'), 'what is left');
    const refused = await openDatabase({ folder, root: process.cwd() }).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(BrokenFolderError);
    expect(String(refused)).toContain('PG_VERSION is missing');
    // Put right, or made empty, it opens: the lock was given back.
    rmSync(path.join(folder, 'db'), { recursive: true });
    const { close } = await openDatabase({ folder, root: process.cwd() });
    await close();
    truncateSync(path.join(folder, 'db', 'global', 'pg_control'), 10);
    await expect(openDatabase({ folder, root: process.cwd() })).rejects.toThrow('put back the folder from a backup');
    rmSync(folder, { recursive: true });
  });
  it('a server that is none, or not there, is said', async () => {
    const open = (url: string) => openDatabase({ folder: tmpdir(), root: process.cwd(), url });
    await expect(open('mysql://x')).rejects.toThrow('postgres://user');
    await expect(open('postgres://almanac@127.0.0.1:1/nothing')).rejects.toThrow('127.0.0.1:1/nothing could not be reached');
  });
});

/** A small disk of its own, where this machine lets us have one. */
function smallDisk(): string | undefined {
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-disk-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=120m', 'tmpfs', folder], { stdio: 'ignore' });
    return folder;
  } catch {
    rmSync(folder, { recursive: true });
    return undefined;
  }
}

const disk = smallDisk();
describe.skipIf(!disk)(`a disk that fills up${disk ? '' : ' (skipped: no disk can be made here)'}`, () => {
  const folder = path.join(disk ?? '', 'db');
  const filler = path.join(disk ?? '', 'filler');
  let db: EmbeddedDatabase;
  beforeAll(async () => {
    mkdirSync(folder);
    db = new EmbeddedDatabase(folder, process.cwd(), 10_000);
    await db.open();
  });
  afterAll(async () => {
    await db.close().catch(() => undefined);
    execFileSync('umount', [disk as string]);
    rmSync(disk as string, { recursive: true });
  });
  const change = (): Promise<unknown> =>
    db.query("update t set x = (select string_agg(md5(random()::text || t.id || g), '') from generate_series(1, 60) g), n = n + 1");
  const read = async (): Promise<number> => ((await db.query('select min(n)::int as n from t')).rows[0] as { n: number }).n;

  it('ends the database at worst, loses nothing, and needs nobody when there is room again', async () => {
    await db.query('create table t (id serial, n int not null default 0, x text)');
    await db.query('insert into t (n) select 0 from generate_series(1, 60)');
    const fd = openSync(filler, 'w');
    expect(() => {
      for (;;) writeSync(fd, Buffer.alloc(1 << 16));
    }).toThrow('ENOSPC');
    closeSync(fd);
    truncateSync(filler, statSync(filler).size - 9_000_000);
    let done = 0;
    let failure: unknown;
    for (let i = 0; i < 900 && !failure; i++) {
      await change().then(
        () => done++,
        (error: unknown) => {
          failure = error;
        },
      );
      if (i % 20 === 0 && !failure) await db.query('vacuum t').catch(() => undefined);
    }
    expect(isDiskFull(failure) || isConnectionLost(failure), String(failure)).toBe(true);
    // Nobody hangs until the deadline: questions are answered, or refused at once.
    const before = performance.now();
    for (let i = 0; i < 5; i++) await read().catch((error: unknown) => expect(isDiskFull(error) || isConnectionLost(error)).toBe(true));
    expect(performance.now() - before).toBeLessThan(9_000);
    rmSync(filler);
    await expect.poll(() => read().catch(() => -1), { timeout: 15_000 }).toBeGreaterThanOrEqual(done);
    await change();
    expect(await read()).toBeGreaterThan(done);
  });
});
