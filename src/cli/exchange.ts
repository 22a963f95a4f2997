/** `almanac import` and `almanac export`: calendar files in and out, through the running server. */
import { existsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { ImportReport } from '@/core/exchange/report';
import { CliError, EXIT } from './problem';
import { openSite } from './server-process';

/** A path as the operator typed it, from the folder where the command was given. */
export const resolved = (file: string): string => path.resolve(process.env.ALMANAC_FROM ?? process.cwd(), file);

export interface ImportFlags {
  file: string | undefined;
  dryRun: boolean;
  publish: boolean;
  json: boolean;
  /** where it comes from; else as the file is called */
  source: string | undefined;
  order: string | undefined;
  /** `Moon Base=Asia/Tokyo`: what zones of the file are */
  zones: readonly string[];
  same: boolean;
  other: boolean;
  make: Record<'venue' | 'organizer' | 'category', boolean>;
}

const ORDERS = ['day-month', 'month-day'];
const MAKE_FLAG = { venue: '--make-places', organizer: '--make-people', category: '--make-categories' } as const;
const MADE_WORDS = { venue: 'places', organizer: 'organizers', category: 'categories' } as const;
const KIND_WORDS = { venue: 'place', organizer: 'people', category: 'category' } as const;

export async function importCommand({ file, json, order, zones, same, other, ...flags }: ImportFlags): Promise<void> {
  const refused = (sentence: string): CliError => new CliError(sentence, EXIT.refused);
  if (!file) throw refused('Say which file: almanac import FILE [--dry-run] [--publish] [--json]');
  if (order !== undefined && !ORDERS.includes(order)) throw refused('--order is day-month (3/4 is 3 April) or month-day (3/4 is March 4).');
  if (same && other) throw refused('Choose one: --same or --other.');
  const chosen = zones.map((pair) => {
    const at = pair.lastIndexOf('=');
    if (at < 1) throw refused('--zone is written "NAME IN THE FILE=America/Halifax".');
    return [pair.slice(0, at), pair.slice(at + 1)];
  });
  const { dryRun, publish, make, source } = flags;
  const answer = same ? 'same' : other ? 'new' : '';
  const input = { path: resolved(file), dryRun, publish, make, source, order, zones: Object.fromEntries(chosen), answer };
  const report = (await withSite((ask) => ask('import', input))) as ImportReport;
  if (json) process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
  else for (const line of linesOf(report, dryRun)) console.log(line);
  if (isPartly(report)) process.exitCode = EXIT.partly;
}

/** Was anything of the file left out? */
function isPartly({ unreadableCount, unknownZones, open, counts, kept }: ImportReport): boolean {
  return unreadableCount > 0 || unknownZones.length > 0 || open.length > 0 || (counts.maybe ?? 0) > 0 || kept.length > 0;
}

function* linesOf(report: ImportReport, dryRun: boolean): Generator<string> {
  for (const { action, title, when, notes, differences, doubt } of report.items) {
    if (action === 'same') continue;
    yield `${action.padEnd(8)} ${title}: ${when}`;
    if (doubt) yield `         ${doubt} Say --same to change that listing, --other to make another.`;
    for (const d of differences) yield `         ${d.what}: ${d.before} → ${d.after}`;
    for (const note of notes) yield `         ${note}`;
  }
  for (const { line, title, reason } of report.unreadable) yield `unread   line ${line}${title ? `, “${title}”` : ''}: ${reason}`;
  for (const zone of report.unknownZones)
    yield `zone     “${zone}” is not known; its events are left out. Say --zone "${zone}=America/Halifax".`;
  for (const { kind, said, events } of report.open)
    yield `left out ${KIND_WORDS[kind]} “${said}” in ${events.toLocaleString('en')}: the site has none of that name. Say ${MAKE_FLAG[kind]}, or make it first.`;
  for (const { title, reason } of report.kept) yield `draft    ${title}: ${reason}`;
  const count = (action: string): number => report.counts[action] ?? 0;
  const all = Object.values(report.counts).reduce((sum, n) => sum + n, 0);
  if (all > report.items.length) yield `… and ${all - report.items.length} more listings.`;
  for (const [kind, n] of Object.entries(report.madeHere))
    yield `${dryRun ? 'would make' : 'made'} ${n} ${MADE_WORDS[kind as keyof typeof MADE_WORDS]}`;
  const done = dryRun ? `${count('new')} would be new, ${count('changed')} changed` : `${report.made} new, ${report.changed} changed`;
  const doubtful = count('maybe') ? `, ${count('maybe')} in doubt` : '';
  yield `${done}, ${count('same')} as they are, ${count('older')} older${doubtful}, ${report.unreadableCount} not readable.`;
}

export interface ExportFlags {
  file: string | undefined;
  json: boolean;
  csv: boolean;
  dates: boolean;
}

export async function exportCommand({ file, json, csv, dates }: ExportFlags): Promise<void> {
  if (Number(json) + Number(csv) + Number(dates) > 1) throw new CliError('Choose one: --json, --csv or --dates.', EXIT.refused);
  const folder = file && path.dirname(resolved(file));
  if (folder && !existsSync(folder)) throw new CliError(`There is no folder ${folder}; make it first.`, EXIT.refused);
  const what = json ? 'export-json' : csv ? 'export-csv' : dates ? 'export-dates' : 'export-ical';
  const { text } = (await withSite((ask) => ask(what, {}))) as { text: string };
  if (file) writeFileSync(resolved(file), text);
  else process.stdout.write(text);
}

/** Asks the running server, or one that is started for the while. */
export async function withSite<T>(run: (ask: (command: string, input: unknown) => Promise<unknown>) => Promise<T>): Promise<T> {
  const site = await openSite();
  try {
    return await run(site.ask);
  } finally {
    await site.leave();
  }
}
