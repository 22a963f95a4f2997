/** What the command line asks about the whole database: out, in, and whether it is as it should be. */
import path from 'node:path';
import { z } from 'zod';
import { read } from '../problem';
import type { Runtime } from '../runtime-type';
import { checkSite, type CheckReport } from './check';
import { restoreBackup, type RestoreReport } from './restore';
import { type BackupReport, writeBackup } from './write';

const backupFile = z.object({ path: z.string().min(1).max(4096) });

/** Everything that is in the database, written to a file. */
export function backup(rt: Runtime, raw: unknown): Promise<BackupReport> {
  const { path: file } = read(backupFile, raw);
  return rt.aside((db) => writeBackup(db, { path: file, madeAt: new Date(), current: true }));
}

/** Makes an empty database what a backup holds. This process ends afterwards: what it knows of the site is no longer so. */
export async function restore(rt: Runtime, raw: unknown): Promise<RestoreReport> {
  const { path: file } = read(backupFile, raw);
  return restoreBackup(rt.db, file, path.join(process.env.ALMANAC_ROOT ?? process.cwd(), 'migrations'));
}

const checkInput = z.object({ mend: z.boolean().default(false) });

/** Looks whether everything that is derived is what it should be. */
export async function check(rt: Runtime, raw: unknown): Promise<CheckReport & { finder: boolean }> {
  const { mend } = read(checkInput, raw);
  const report = await checkSite(rt.db, { mend, today: rt.now().day });
  if (mend && report.count) await rt.contentChanged();
  return { ...report, finder: await rt.finder.check() };
}
