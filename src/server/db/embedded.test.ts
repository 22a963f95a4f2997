import { execFileSync, fork, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { afterAll, describe, expect, it } from 'vitest';
import { openDatabase } from './client';
import { EmbeddedDatabase } from './embedded';
import { FolderInUseError } from './lock';
import { setting } from './schema';

/** May this process make a network namespace? */
const canUnshare = spawnSync('unshare', ['--net', 'true']).status === 0 && spawnSync('flock', ['--version']).status === 0;
const root = process.cwd();
const folder = mkdtempSync(path.join(tmpdir(), 'almanac-db-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const rows = async (db: Awaited<ReturnType<typeof openDatabase>>['db'], query: ReturnType<typeof sql>) =>
  ((await db.execute(query)) as unknown as { rows: Record<string, unknown>[] }).rows;

describe('the embedded database', () => {
  it('is locked to one process, stops a long query, guards a transaction, and keeps what it acknowledged', async () => {
    const first = await openDatabase({ folder, root, deadline: 4000 });
    await expect(openDatabase({ folder, root })).rejects.toThrow(FolderInUseError);

    await first.db.execute(sql`create table kept (n int primary key)`);
    await first.db.execute(sql`insert into kept values (1)`);
    await expect(first.db.execute(sql`select count(*) from generate_series(1, 2000000000)`)).rejects.toMatchObject({
      cause: { name: 'DeadlineError' },
    });
    expect(await rows(first.db, sql`select n from kept`)).toEqual([{ n: 1 }]);

    const outside = first.db.transaction(async () => first.db.select().from(setting));
    await expect(outside).rejects.toMatchObject({ cause: { message: expect.stringContaining('pass tx on') } });

    // Bytes come back as they went in, whichever they are, and from the middle of a larger piece of memory too.
    const all = Buffer.from(Array.from({ length: 256 }, (_, n) => n));
    await first.db.execute(sql`create table held (n int, b bytea)`);
    for (const [n, bytes] of [all, all.subarray(100, 200), Buffer.alloc(0)].entries())
      await first.db.execute(sql`insert into held values (${n}, ${bytes})`);
    const held = await rows(first.db, sql`select b from held order by n`);
    expect(held.map(({ b }) => Buffer.from(b as Uint8Array).toString('hex'))).toEqual([
      all.toString('hex'),
      all.subarray(100, 200).toString('hex'),
      '',
    ]);

    const undone = first.db.transaction(async (tx) => {
      await tx.execute(sql`insert into kept values (2)`);
      throw new Error('never mind');
    });
    await expect(undone).rejects.toThrow('never mind');
    await expect(first.db.execute(sql`insert into kept values (1)`)).rejects.toMatchObject({
      cause: { code: '23505', constraint: 'kept_pkey' },
    });
    expect(await rows(first.db, sql`select n from kept`)).toEqual([{ n: 1 }]);
    await first.close();

    const again = await openDatabase({ folder, root });
    expect(await rows(again.db, sql`select n from kept`)).toEqual([{ n: 1 }]);
    await again.close();
  });

  it('gives up a transaction that asks nothing any more, so that everybody else goes on', async () => {
    const own = mkdtempSync(path.join(tmpdir(), 'almanac-idle-'));
    const database = new EmbeddedDatabase(own, root, 30_000, 300);
    await database.open();
    await database.exec('create table kept (n int)');
    let late: Promise<unknown> | undefined;
    const stuck = database.transaction(async (tx) => {
      await tx.query('insert into kept values (1)');
      // Waits for what can come only when it is over.
      await new Promise((done) => setTimeout(done, 900));
      late = tx.query('insert into kept values (2)');
      await late;
    });
    const next = database.query('select n from kept');
    await expect(stuck).rejects.toThrow('a transaction asked nothing for 0.3 s and was given up');
    expect((await next).rows).toEqual([]);
    // One that goes on asking takes as long as it needs, and so does one query.
    const long = await database.transaction(async (tx) => {
      for (let i = 0; i < 4; i++) {
        await new Promise((done) => setTimeout(done, 120));
        await tx.query('insert into kept values (3)');
      }
      await tx.query('select count(*) from generate_series(1, 6000000)');
      return 'done';
    });
    expect(long).toBe('done');
    await new Promise((done) => setTimeout(done, 500));
    await expect(late).rejects.toThrow('the transaction is over');
    expect((await database.query('select n from kept')).rows).toHaveLength(4);
    await database.close();
    rmSync(own, { recursive: true, force: true });
  });

  it('acknowledges no transaction whose thread ended on the way, whatever was caught within it', async () => {
    const own = mkdtempSync(path.join(tmpdir(), 'almanac-thread-'));
    const { db, close } = await openDatabase({ folder: own, root, deadline: 1500 });
    await db.execute(sql`create table kept (n int)`);
    const swallowed = db.transaction(async (tx) => {
      await tx.execute(sql`insert into kept values (1)`);
      await tx.execute(sql`select count(*) from generate_series(1, 2000000000)`).catch(() => undefined);
      // On the thread that was opened meanwhile this would be kept without the rest.
      await tx.execute(sql`insert into kept values (2)`).catch(() => undefined);
    });
    await expect(swallowed).rejects.toThrow();
    expect(await rows(db, sql`select n from kept`)).toEqual([]);
    await close();
    rmSync(own, { recursive: true });
  });

  it('loses nothing acknowledged when its process is killed', async () => {
    const script = path.join(folder, 'writer.mjs');
    writeFileSync(
      script,
      `import { openDatabase } from ${JSON.stringify(path.join(root, 'src/server/db/client.ts'))};
       import { sql } from ${JSON.stringify(path.join(root, 'node_modules/drizzle-orm/index.js'))};
       const { db } = await openDatabase({ folder: ${JSON.stringify(folder)}, root: ${JSON.stringify(root)} });
       await db.execute(sql\`create table if not exists acknowledged (n int)\`);
       for (let n = 0; ; n++) { await db.execute(sql\`insert into acknowledged values (\${n})\`); process.send(n); }`,
    );
    const child = fork(script, { execArgv: ['--import', 'tsx'], cwd: root, stdio: ['ignore', 'ignore', 'pipe', 'ipc'] });
    let last = -1;
    await new Promise<void>((resolve, reject) => {
      child.on('message', (n) => {
        last = Number(n);
        if (last === 60) {
          child.kill('SIGKILL');
          resolve();
        }
      });
      child.on('error', reject);
      child.on('exit', (code) => code && reject(new Error(`the writer ended with ${code}`)));
    });
    await new Promise((resolve) => setTimeout(resolve, 300));
    const { db, close } = await openDatabase({ folder, root });
    const [found] = await rows(db, sql`select count(*)::int as n from acknowledged where n <= ${last}`);
    expect(found?.n).toBe(last + 1);
    await close();
  });

  it.skipIf(!canUnshare)('is locked to one process in other network namespaces too, as containers with one volume are', async () => {
    const own = mkdtempSync(path.join(tmpdir(), 'almanac-ns-'));
    const first = await openDatabase({ folder: own, root });
    mkdirSync('.cache', { recursive: true });
    // Beside the project's settings, so that its names of folders are known.
    const script = path.resolve(`.cache/second-${process.pid}.mts`);
    writeFileSync(
      script,
      `import { openDatabase } from ${JSON.stringify(path.resolve('src/server/db/client.ts'))};
try { await (await openDatabase({ folder: ${JSON.stringify(own)}, root: ${JSON.stringify(root)} })).close(); console.log('opened'); }
catch (error) { console.log((error as Error).name); }
process.exit(0);`,
    );
    const second = (): string =>
      execFileSync('unshare', ['--net', 'node_modules/.bin/tsx', script], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] });
    expect(second()).toContain('FolderInUseError');
    await first.close();
    expect(second()).toContain('opened');
    rmSync(own, { recursive: true });
    rmSync(script);
  });

  it('is read aside as it is at one moment, while others write; nothing is left of that', async () => {
    const own = mkdtempSync(path.join(tmpdir(), 'almanac-aside-'));
    mkdirSync(path.join(own, 'db.copy-left'));
    const { db, aside, close } = await openDatabase({ folder: own, root });
    expect(readdirSync(own), 'a copy that a killed process left').not.toContain('db.copy-left');
    await db.execute(sql`create table kept (n int primary key)`);
    await db.execute(sql`insert into kept select generate_series(1, 1000)`);
    const seen = await aside(async (copy) => {
      const before = await rows(copy, sql`select count(*)::int as n from kept`);
      await db.execute(sql`insert into kept values (1001)`);
      await db.execute(sql`delete from kept where n < 10`);
      return [before, await rows(copy, sql`select count(*)::int as n from kept`), await rows(db, sql`select count(*)::int as n from kept`)];
    });
    expect(seen.map(([row]) => row?.n)).toEqual([1000, 1000, 992]);
    await expect(aside(async (copy) => copy.execute(sql`select * from nothing`))).rejects.toThrow();
    expect(readdirSync(own).filter((name) => name.startsWith('db.copy'))).toEqual([]);
    await close();
    rmSync(own, { recursive: true });
  });
});
