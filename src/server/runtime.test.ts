import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { saveCategory } from './categories/write';
import { referenceData } from './reference/read';
import { openSite } from './runtime';
import type { Runtime } from './runtime-type';
import { EDITOR } from '../../tests/support/db';
import { Postgres, postgresFolder } from '../../tests/support/postgres';

const folders: string[] = [];
const opened: Runtime[] = [];
const open = async (more: Record<string, string> = {}): Promise<Runtime> => {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-'));
  folders.push(folder);
  const site = await openSite({ ALMANAC_DATA: folder, ...more });
  opened.push(site);
  return site;
};
afterEach(async () => {
  for (const site of opened.splice(0)) await site.close();
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true });
});

describe('two sites in one process', () => {
  it('share nothing: what one reads and changes, the other does not see', async () => {
    const [one, other] = [await open(), await open()];
    const before = (await referenceData(one)).categories.length;
    expect((await referenceData(other)).categories.length).toBe(before);
    const revision = other.contentRevision();
    await one.db.transaction((tx) => saveCategory(tx, null, { name: 'Boats', shape: 'disc', ink: '#1f6f8b', parentId: null }, EDITOR));
    await one.contentChanged();
    expect((await referenceData(one)).categories.map((c) => c.name)).toContain('Boats');
    expect((await referenceData(other)).categories.length).toBe(before);
    expect(other.contentRevision()).toBe(revision);
    expect(one.sign('a')).not.toBe(other.sign('a'));
  });
});

describe('a start that is refused', () => {
  it('leaves the folder of the site that runs there as it is', async () => {
    const site = await open();
    const folder = folders.at(-1) ?? '';
    const secret = path.join(folder, 'secret');
    expect(existsSync(secret)).toBe(true);
    rmSync(secret);
    await expect(openSite({ ALMANAC_DATA: folder })).rejects.toThrow();
    // Made by the second, it would sign other cookies and receipts than the one that runs.
    expect(existsSync(secret)).toBe(false);
    expect(site.sign('a')).toBe(site.sign('a'));
  });
});

const bin = postgresFolder();
describe.skipIf(!bin)(`two processes on one database server${bin ? '' : ' (skipped: Debian’s postgresql is not installed)'}`, () => {
  it('say where their secrets differ, and hear of each other’s changes where they are the same', async () => {
    const server = await Postgres.start(bin as string);
    try {
      const secret = 'one secret of more than thirty-two letters';
      const [one, other] = [
        await open({ DATABASE_URL: server.url, ALMANAC_SECRET: secret }),
        await open({ DATABASE_URL: server.url, ALMANAC_SECRET: secret }),
      ];
      const told = () => one.tasks.report().find(({ task }) => task === 'notices');
      const before = one.seenRevision();
      await other.db.transaction((tx) => saveCategory(tx, null, { name: 'Boats', shape: 'disc', ink: '#1f6f8b', parentId: null }, EDITOR));
      await other.contentChanged();
      await expect.poll(() => one.seenRevision()).not.toBe(before);
      expect(told()?.inARow).toBe(0);
      // A third has a secret of its own: made in its folder, since nobody gave it one.
      await open({ DATABASE_URL: server.url });
      await expect.poll(() => told()?.failure).toContain('set the same ALMANAC_SECRET');
    } finally {
      for (const site of opened.splice(0)) await site.close();
      await server.stop();
    }
  });
});
