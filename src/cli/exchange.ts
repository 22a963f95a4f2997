/** `almanac import` and `almanac export`: calendar files in and out, through the running server. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import type { ImportReport } from '@/core/exchange/report';
import { CliError } from './problem';
import { openSite } from './site';

/** A path as the operator typed it, from the folder where the command was given. */
const resolved = (file: string): string => path.resolve(process.env.ALMANAC_FROM ?? process.cwd(), file);

export interface ImportFlags {
  file: string | undefined;
  dryRun: boolean;
  publish: boolean;
  json: boolean;
}

export async function importCommand({ file, dryRun, publish, json }: ImportFlags): Promise<void> {
  if (!file) throw new CliError('Say which file: almanac import FILE [--dry-run] [--publish] [--json]');
  const report = (await withSite((ask) => ask('import', { path: resolved(file), dryRun, publish }))) as ImportReport;
  if (json) {
    process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
    return;
  }
  for (const { action, title, when, notes, differences } of report.items) {
    if (action === 'same') continue;
    console.log(`${action.padEnd(8)} ${title}: ${when}`);
    for (const d of differences) console.log(`         ${d.what}: ${d.before} → ${d.after}`);
    for (const note of notes) console.log(`         ${note}`);
  }
  for (const { line, title, reason } of report.unreadable) console.log(`unread   line ${line}${title ? `, “${title}”` : ''}: ${reason}`);
  for (const zone of report.unknownZones) console.log(`zone     “${zone}” is not known; its times are read in the site’s zone.`);
  for (const { title, reason } of report.kept) console.log(`draft    ${title}: ${reason}`);
  const count = (action: string): number => report.counts[action] ?? 0;
  const all = Object.values(report.counts).reduce((sum, n) => sum + n, 0);
  if (all > report.items.length) console.log(`… and ${all - report.items.length} more listings.`);
  const done = dryRun ? `${count('new')} would be new, ${count('changed')} changed` : `${report.made} new, ${report.changed} changed`;
  console.log(`${done}, ${count('same')} as they are, ${count('older')} older, ${report.unreadableCount} not readable.`);
}

export interface ExportFlags {
  file: string | undefined;
  json: boolean;
  csv: boolean;
  dates: boolean;
}

export async function exportCommand({ file, json, csv, dates }: ExportFlags): Promise<void> {
  if (Number(json) + Number(csv) + Number(dates) > 1) throw new CliError('Choose one: --json, --csv or --dates.');
  const what = json ? 'export-json' : csv ? 'export-csv' : dates ? 'export-dates' : 'export-ical';
  const { text } = (await withSite((ask) => ask(what, {}))) as { text: string };
  if (file) writeFileSync(resolved(file), text);
  else process.stdout.write(text);
}

async function withSite<T>(run: (ask: (command: string, input: unknown) => Promise<unknown>) => Promise<T>): Promise<T> {
  const site = await openSite();
  try {
    return await run(site.ask);
  } finally {
    await site.leave();
  }
}
