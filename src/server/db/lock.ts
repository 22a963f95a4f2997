/**
 * One process on a data folder: a second opener would damage it without a word. On Linux the lock is an abstract
 * socket named after the folder's device and inode, freed by the kernel however the process ends; elsewhere a file
 * with the process's number.
 */
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';

/** A data folder that another process has. */
export class FolderInUseError extends Error {
  override name = 'FolderInUseError';
}

const inUse = (folder: string): FolderInUseError =>
  new FolderInUseError(`The data folder ${folder} is in use by another process. Stop that one, or set ALMANAC_DATA to another folder.`);

/** Takes the lock; the returned function gives it back. Throws {@link FolderInUseError}. */
export async function lockFolder(folder: string): Promise<() => void> {
  if (process.platform !== 'linux') return lockByFile(folder);
  const { dev, ino } = statSync(folder);
  const server = net.createServer((socket) => socket.destroy());
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => reject(error.code === 'EADDRINUSE' ? inUse(folder) : error));
    server.listen(`\0plain-almanac-${dev}-${ino}`, resolve);
  });
  server.unref();
  return () => server.close();
}

function lockByFile(folder: string): () => void {
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
  return () => rmSync(file, { force: true });
}
