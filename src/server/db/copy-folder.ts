/** A copy of a folder, many files at a time: a database's folder has more than a thousand small ones. */
import { copyFile, mkdir, open, readdir } from 'node:fs/promises';
import path from 'node:path';

/** So many files at a time. */
const AT_ONCE = 16;

async function each<T>(all: readonly T[], run: (one: T) => Promise<void>): Promise<void> {
  let next = 0;
  const work = async (): Promise<void> => {
    for (let one = all[next++]; one !== undefined; one = all[next++]) await run(one);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
}

/** Files and folders within, as paths from it. */
async function within(folder: string): Promise<{ folders: string[]; files: string[] }> {
  const found = await readdir(folder, { recursive: true, withFileTypes: true });
  const paths = (all: typeof found): string[] => all.map((one) => path.relative(folder, path.join(one.parentPath, one.name)));
  return { folders: paths(found.filter((one) => one.isDirectory())), files: paths(found.filter((one) => one.isFile())) };
}

/** Copies all files of a folder into another, which is made; files that are there are written over. */
export async function copyFolder(from: string, to: string): Promise<void> {
  const { folders, files } = await within(from);
  await mkdir(to, { recursive: true, mode: 0o700 });
  for (const folder of folders) await mkdir(path.join(to, folder), { recursive: true, mode: 0o700 });
  await each(files, (file) => copyFile(path.join(from, file), path.join(to, file)));
}

/** Waits until all of a folder is on the disk, whatever happens to the machine. */
export async function syncFolder(folder: string): Promise<void> {
  const { folders, files } = await within(folder);
  await each(['', ...folders, ...files], async (one) => {
    const handle = await open(path.join(folder, one), 'r');
    try {
      await handle.sync();
    } finally {
      await handle.close();
    }
  });
}
