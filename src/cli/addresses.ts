/** `almanac addresses`: a table of a former site's addresses, which lead on from then; and what was followed of them. */
import type { AddressReport } from '@/core/text/old-addresses';
import { resolved, withSite } from './exchange';
import { CliError, EXIT } from './problem';

interface Known {
  from: string;
  to: string;
  hits: number;
  lastAt: string | null;
}

/** Takes a table in, or says what is known. */
export async function addressesCommand(
  file: string | undefined,
  { dryRun, replace }: { dryRun: boolean; replace: boolean },
): Promise<void> {
  if (!file) {
    if (dryRun || replace) throw new CliError('Say which file: almanac addresses FILE [--dry-run] [--replace]', EXIT.refused);
    return list((await withSite((ask) => ask('old-addresses', {}))) as Known[]);
  }
  const report = (await withSite((ask) => ask('take-addresses', { path: resolved(file), dryRun, replace }))) as AddressReport;
  for (const { line, text, reason } of report.wrong) console.log(`left out line ${line}, “${text}”: ${reason}.`);
  for (const { line, from } of report.answered)
    console.log(`line ${line}: the site has a page of its own at ${from}; that is shown while it is there.`);
  for (const { line, to } of report.lost) console.log(`line ${line}: nothing is at ${to} now.`);
  if (report.unasked) console.log(`${report.unasked.toLocaleString('en')} addresses were not looked at, since there are so many.`);
  const would = dryRun ? ' would be' : '';
  const gone = replace ? `, ${report.removed}${would} removed` : '';
  console.log(
    `${report.fresh}${would} new, ${report.changed}${would} changed, ${report.same} as they were${gone}, ${report.wrong.length} left out.`,
  );
  if (report.wrong.length || report.lost.length) process.exitCode = EXIT.partly;
}

function list(known: readonly Known[]): void {
  for (const { from, to, hits, lastAt } of known)
    console.log(`${String(hits).padStart(6)}  ${from} → ${to}${lastAt ? `  last on ${lastAt.slice(0, 10)}` : ''}`);
  const followed = known.reduce((n, { hits }) => n + hits, 0);
  console.log(
    `${known.length} old ${known.length === 1 ? 'address' : 'addresses'}, followed ${followed} ${followed === 1 ? 'time' : 'times'}.`,
  );
}
