/**
 * One process on a data folder: a second opener would damage it without a word. On Linux there are two locks, both freed by the kernel
 * however the process ends: an abstract socket named after the folder's device and inode, which is quick to ask, and a lock of the file
 * system, which also counts between containers that share a volume. Elsewhere it is a file with the process's number.
 */
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';

/** A data folder that another process has. */
export class FolderInUseError extends Error {
  override name = 'FolderInUseError';
}

const inUse = (folder: string): FolderInUseError =>
  new FolderInUseError(`The data folder ${folder} is in use by another process. Stop that one, or set ALMANAC_DATA to another folder.`);

/** Gives a lock back. */
export type Unlock = () => Promise<void>;

/** Takes the lock; the returned function gives it back. Throws {@link FolderInUseError}. */
export async function lockFolder(folder: string): Promise<Unlock> {
  if (process.platform !== 'linux') return lockByFile(folder);
  const { dev, ino } = statSync(folder);
  const server = await listenAlone(`\0plain-almanac-${dev}-${ino}`, folder);
  server.unref();
  try {
    const unlock = await lockOnDisk(folder);
    return async () => {
      await unlock();
      server.close();
    };
  } catch (error) {
    server.close();
    throw error;
  }
}

/** A process that was killed a moment ago may still be letting go, in seconds; so may one whose folder is gone and left its inode to this one. */
const LETTING_GO = 2;
/** It is asked again after so many milliseconds. */
const AGAIN_MS = 50;

/** Listens on an abstract socket that nobody else has. */
async function listenAlone(name: string, folder: string): Promise<net.Server> {
  const until = performance.now() + LETTING_GO * 1000;
  for (;;) {
    const server = net.createServer((socket) => socket.destroy());
    const taken = await new Promise<boolean>((resolve, reject) => {
      server.once('error', (error: NodeJS.ErrnoException) => (error.code === 'EADDRINUSE' ? resolve(true) : reject(error)));
      server.listen(name, () => resolve(false));
    });
    if (!taken) return server;
    if (performance.now() > until) throw inUse(folder);
    await sleep(AGAIN_MS);
  }
}

/**
 * Takes the file system's lock on a file beside the folder. Node has none, so `flock` of util-linux holds it, for as long as the pipe to
 * it is open. Where there is no `flock`, the socket alone has to do (docs/operating.md).
 */
function lockOnDisk(folder: string): Promise<Unlock> {
  const holder = spawn(
    'flock',
    ['--wait', String(LETTING_GO), '--exclusive', `${folder}.lock`, 'sh', '-c', 'echo taken; exec cat >/dev/null'],
    {
      stdio: ['pipe', 'pipe', 'ignore'],
      // In a group of its own: a Ctrl-C is for the site, which needs its lock until it is closed.
      detached: true,
    },
  );
  return new Promise((resolve, reject) => {
    holder.once('error', (error: NodeJS.ErrnoException) => (error.code === 'ENOENT' ? resolve(async () => undefined) : reject(error)));
    // Once it was taken this rejects nothing any more.
    holder.once('exit', () => reject(inUse(folder)));
    holder.stdin.on('error', () => undefined);
    holder.stdout.once('data', () => {
      holder.unref();
      for (const pipe of [holder.stdin, holder.stdout]) (pipe as unknown as { unref: () => void }).unref();
      resolve(async () => {
        holder.ref();
        const gone = new Promise((done) => holder.once('exit', done));
        holder.stdin.end();
        await gone;
      });
    });
  });
}

function lockByFile(folder: string): Unlock {
  const file = path.join(folder, 'lock.pid');
  if (existsSync(file)) {
    const pid = Number(readFileSync(file, 'utf8'));
    try {
      process.kill(pid, 0);
      throw inUse(folder);
    } catch (error) {
      if (error instanceof FolderInUseError) throw error;
    }
  }
  writeFileSync(file, String(process.pid));
  return async () => rmSync(file, { force: true });
}
