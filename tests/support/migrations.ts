/** The migrations as they were before the last so many; a folder of its own, for whoever asked to remove. */
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

function some(which: (entries: { idx: number }[]) => { idx: number }[]): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-migrations-'));
  cpSync('migrations', folder, { recursive: true });
  const file = path.join(folder, 'meta', '_journal.json');
  const journal = JSON.parse(readFileSync(file, 'utf8')) as { entries: { idx: number }[] };
  writeFileSync(file, JSON.stringify({ ...journal, entries: which(journal.entries) }));
  return folder;
}

/** Without the last so many. */
export const withoutLast = (n: number): string => some((entries) => entries.slice(0, entries.length - n));
/** Up to one of them, it among them. */
export const until = (last: number): string => some((entries) => entries.filter(({ idx }) => idx <= last));
