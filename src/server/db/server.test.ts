import { ContentCache } from '@/server/site/content-cache';
import { execFileSync, spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { change, choir, emptyTables, inTx, NOW, SETTINGS, seedPlaces } from '../../../tests/support/db';
import { tableOf } from '../../../tests/support/site';
import { rebuildIndex } from '../dates/rebuild';
import { createListing, publishListing } from '../listings/write';
import { countOne } from '../site/rate-limits';
import { referenceData } from '../reference/read';
import { readFacets } from '../public/public-dates';
import { type OpenDatabase, openDatabase } from './client';

/** Debian's PostgreSQL, when it is installed. */
function serverFolder(): string | undefined {
  const base = '/usr/lib/postgresql';
  const versions = existsSync(base) ? readdirSync(base).sort() : [];
  return versions
    .map((v) => path.join(base, v, 'bin'))
    .reverse()
    .find((bin) => existsSync(path.join(bin, 'initdb')));
}

const bin = serverFolder();
const isRoot = process.getuid?.() === 0;
/** PostgreSQL refuses to run as root; Debian's package makes a user for it. */
const asServer = (command: string, args: string[]): [string, string[]] =>
  isRoot ? ['runuser', ['-u', 'postgres', '--', command, ...args]] : [command, args];

async function freePort(): Promise<number> {
  const server = net.createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as net.AddressInfo;
  await new Promise((resolve) => server.close(resolve));
  return port;
}

describe.skipIf(!bin)(`the same code on a PostgreSQL server${bin ? '' : ' (skipped: Debian’s postgresql is not installed)'}`, () => {
  let open: OpenDatabase;
  let stop = (): void => undefined;
  beforeAll(async () => {
    const data = mkdtempSync(path.join(tmpdir(), 'almanac-pg-'));
    chmodSync(data, 0o777);
    const cluster = path.join(data, 'cluster');
    const [init, initArgs] = asServer(path.join(bin as string, 'initdb'), [
      '-D',
      cluster,
      '-A',
      'trust',
      '-U',
      'almanac',
      '--locale=C.UTF-8',
      '-E',
      'UTF8',
    ]);
    execFileSync(init, initArgs, { stdio: 'ignore', cwd: '/' });
    const port = await freePort();
    const [command, args] = asServer(path.join(bin as string, 'postgres'), [
      '-D',
      cluster,
      '-p',
      String(port),
      '-h',
      '127.0.0.1',
      '-k',
      data,
      '-c',
      'fsync=off',
    ]);
    const server = spawn(command, args, { stdio: 'ignore', cwd: '/', detached: true });
    stop = () => {
      if (server.pid) process.kill(-server.pid, 'SIGTERM');
      rmSync(data, { recursive: true, force: true });
    };
    const url = `postgres://almanac@127.0.0.1:${port}/postgres`;
    for (let tries = 0; ; tries++) {
      try {
        open = await openDatabase({ folder: data, root: process.cwd(), url });
        break;
      } catch (error) {
        if (tries > 60) throw error;
        await new Promise((resolve) => setTimeout(resolve, 250));
      }
    }
    await emptyTables(open.db);
  });
  afterAll(async () => {
    await open?.close();
    stop();
  });

  it('writes a listing with its index, shows it, and rebuilds to the same', async () => {
    const { db } = open;
    const places = await seedPlaces(db);
    const row = await inTx(db, (tx) => createListing(tx, choir(places), change()));
    await inTx(db, (tx) => publishListing(tx, row.id, row.revision, change()));
    expect(await rebuildIndex(db, SETTINGS, NOW)).toEqual({ listings: 1, dates: 10, differed: [] });
    const reference = await referenceData({ db, cache: new ContentCache(() => '1') });
    const facets = await readFacets(
      db,
      { from: NOW.day, to: NOW.day + 400 },
      { kinds: [], places: [], free: false, tags: [], words: 'choir' },
      reference,
    );
    expect([facets.total, facets.free, facets.places.get('Gannet Bay')]).toEqual([10, 10, 10]);
    const table = await tableOf(db, 'sort=next');
    expect([table.total, table.rows[0]?.nextDay]).toEqual([1, NOW.day + 6]);
  });

  it('counts bounds the same', async () => {
    await countOne(open.db, { key: 'add:x', most: 1, seconds: 60 }, 1_000_000);
    await expect(countOne(open.db, { key: 'add:x', most: 1, seconds: 60 }, 1_000_001)).rejects.toThrow('more often');
    await countOne(open.db, { key: 'add:x', most: 1, seconds: 60 }, 1_100_000);
  });
});
