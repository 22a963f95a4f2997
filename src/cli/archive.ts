/** `almanac export --site` and `almanac import --site`: a whole site out and in, as one file. */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { resolved, withSite } from './exchange';
import { CliError, EXIT } from './problem';

interface SiteReport {
  taken: Partial<Record<string, number>>;
  left: string[];
  leftCount: number;
}

/** One and several of each list, in the order in which they are said; what is not here is not counted aloud. */
const WORDS: readonly [list: string, one: string, several: string][] = [
  ['listings', 'listing', 'listings'],
  ['venues', 'venue', 'venues'],
  ['organizers', 'organizer', 'organizers'],
  ['categories', 'category', 'categories'],
  ['tags', 'tag', 'tags'],
  ['pictures', 'picture', 'pictures'],
];

/** How large a file is, `1.3 MB`. */
export function sizeOf(bytes: number): string {
  const [size, unit] = bytes < 100_000 ? [bytes / 1000, 'KB'] : [bytes / 1_000_000, 'MB'];
  return `${size.toLocaleString('en', { maximumFractionDigits: 1 })} ${unit}`;
}

export async function exportSite(file: string | undefined): Promise<void> {
  if (!file) throw new CliError('Say where to: almanac export --site FILE.zip', EXIT.refused);
  const to = resolved(file);
  if (!existsSync(path.dirname(to))) throw new CliError(`There is no folder ${path.dirname(to)}; make it first.`, EXIT.refused);
  const { bytes } = (await withSite((ask) => ask('export-site', { path: to }))) as { bytes: number };
  console.log(`${to}: ${sizeOf(bytes)}. Accounts and mails are not in it.`);
}

export async function importSite(file: string | undefined): Promise<void> {
  if (!file) throw new CliError('Say which file: almanac import --site FILE', EXIT.refused);
  const report = (await withSite((ask) => ask('import-site', { path: resolved(file) }))) as SiteReport;
  for (const sentence of report.left) console.log(sentence);
  if (report.leftCount > report.left.length) console.log(`… and ${(report.leftCount - report.left.length).toLocaleString('en')} more.`);
  const counts = WORDS.map(([list, one, several]) => {
    const n = report.taken[list] ?? 0;
    return `${n.toLocaleString('en')} ${n === 1 ? one : several}`;
  });
  console.log(`${counts.join(', ')}. ${report.taken.site ? 'The settings are those of the file.' : 'The file has no settings.'}`);
  console.log('Accounts are not in an archive: make one with almanac user add, if there is none.');
  if (report.leftCount) process.exitCode = EXIT.partly;
}
