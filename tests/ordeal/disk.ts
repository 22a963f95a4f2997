/** A disk that fills up to the last byte under a site that is written to. */
import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { appendFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { random, seedOf } from '../support/generate';
import { serve } from '../support/served';
import { type Acknowledged, Editor, evening, type Figures, lostOf, now, wait } from './ordeal';

const MEGABYTE = Buffer.alloc(1024 * 1024, 7);
const freeOf = (folder: string): number => {
  const { bavail, bsize } = statfsSync(folder);
  return (bavail * bsize) / MEGABYTE.length;
};

/** Fills a disk until so many megabytes are left; with 0, to the last byte. */
async function fill(folder: string, left: number): Promise<void> {
  const ballast = path.join(folder, 'ballast');
  while (freeOf(folder) > left) {
    const done = await appendFile(ballast, left === 0 && freeOf(folder) < 1 ? Buffer.alloc(4096, 7) : MEGABYTE).then(
      () => true,
      () => false,
    );
    if (!done && freeOf(folder) < 1) return;
  }
}

/** Asks until it is answered so, for at most a minute and a half; seconds. */
async function until(good: () => Promise<boolean>): Promise<number> {
  const start = now();
  while (now() - start < 90_000) {
    if (await good().catch(() => false)) return (now() - start) / 1000;
    await wait(500);
  }
  return Number.POSITIVE_INFINITY;
}

/** @param prepared a demo's folder, which is copied to a small disk of its own */
export async function fullDisk(figures: Figures, prepared: string): Promise<void> {
  const disk = mkdtempSync(path.join(tmpdir(), 'almanac-disk-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=400m', 'tmpfs', disk], { stdio: 'ignore' });
  } catch {
    rmSync(disk, { recursive: true });
    throw new Error('A small disk could not be mounted here (that takes root): this ordeal was not run.');
  }
  try {
    await onDisk(figures, prepared, disk);
  } finally {
    execFileSync('umount', [disk]);
    rmSync(disk, { recursive: true });
  }
}

async function onDisk(figures: Figures, prepared: string, disk: string): Promise<void> {
  const r = random(seedOf());
  const data = path.join(disk, 'site');
  cpSync(prepared, data, { recursive: true, filter: (file) => !file.endsWith('.sock') });
  const served = await serve({ data, errors: 'ignore' });
  const { cookie } = await Editor.signIn(served.url);
  const editor = new Editor(served.url, cookie);
  const acknowledged: Acknowledged[] = [];
  const write = async (title: string): Promise<boolean> => {
    const made = await editor.write(evening(r, title));
    if (made) acknowledged.push(made);
    return made !== undefined;
  };
  const reads = async (): Promise<boolean> => (await fetch(`${served.url}/month/2027-04?n=${r()}`)).status === 200;
  figures.is('writes taken while there is room', Number(await write('Room')), 1);
  await fill(disk, 40);
  figures.under('read-only with little room, after seconds', await until(async () => !(await write('Little'))), 90);
  figures.is('read meanwhile', Number(await reads()), 1);
  // Somebody makes room and the disk fills again while people write: to the last byte, faster than the site looks.
  await rm(path.join(disk, 'ballast'));
  figures.under('written again when there is room, after seconds', await until(() => write('Again')), 90);
  let working = true;
  const writers = [0, 1, 2].map(async (k) => {
    for (let n = 0; working; n++) await write(`Last byte ${k} ${n}`).catch(() => wait(200));
  });
  await fill(disk, 0);
  figures.say(`${(freeOf(disk) * 1024).toFixed(0)} kB free, ${acknowledged.length} listings acknowledged`);
  await wait(15_000);
  figures.is('the process lives on a disk without a byte', Number(served.process.exitCode === null), 1);
  await rm(path.join(disk, 'ballast'));
  figures.under('read again, after seconds', await until(reads), 90);
  figures.under('written again, after seconds', await until(() => write('After')), 90);
  working = false;
  await Promise.all(writers);
  figures.is('acknowledged writes lost to a full disk', (await lostOf(served.url, cookie, acknowledged)).length, 0);
  await served.stop();
}
