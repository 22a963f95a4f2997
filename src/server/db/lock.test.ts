/** One process on a folder: who has it keeps it, and who has just let go does not keep others out. */
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { FolderInUseError, lockFolder } from './lock';

const folder = mkdtempSync(path.join(tmpdir(), 'almanac-lock-'));
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
  rmSync(`${folder}.lock`, { force: true });
});

/** Holds the folder's socket as another process would. */
function holdSocket(): Promise<net.Server> {
  const { dev, ino } = statSync(folder);
  const server = net.createServer();
  return new Promise((done) => server.listen(`\0plain-almanac-${dev}-${ino}`, () => done(server)));
}

describe.skipIf(process.platform !== 'linux')('the lock of a folder', () => {
  it('is had by one, and by the next as soon as it is given back', async () => {
    for (let i = 0; i < 5; i++) {
      const unlock = await lockFolder(folder);
      if (i === 0) await expect(lockFolder(folder)).rejects.toThrow(FolderInUseError);
      await unlock();
    }
  });
  it('waits for one that is letting go', async () => {
    const held = await holdSocket();
    const wanted = lockFolder(folder);
    setTimeout(() => held.close(), 300);
    const unlock = await wanted;
    await unlock();
  });
});
