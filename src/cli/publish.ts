/** `almanac publish DIR`: the public site as plain files. */
import path from 'node:path';
import { CliError, EXIT } from './problem';
import { openSite, type Site } from './server-process';

export interface PublishFlags {
  folder: string | undefined;
  /** where the files will be reached; `none` forgets the one of last time */
  address: string | undefined;
  /** where the site itself answers; the same */
  server: string | undefined;
  months: string | undefined;
}

interface Report {
  files: number;
  made: number;
  changed: number;
  removed: number;
  server: number;
  beyond: number;
  url: string | null;
  answers: string | null;
  dead: string[];
  months: number;
}

/** How often somebody who looks on is told how far it is, in ms. */
const TOLD_EVERY = 1_000;

export async function publishCommand({ folder, address, server, months }: PublishFlags): Promise<void> {
  if (folder === undefined) throw new CliError('Say which folder the files go into: almanac publish FOLDER', EXIT.refused);
  const site = await openSite();
  const stop = process.stderr.isTTY ? tell(site) : () => undefined;
  try {
    const asked = { folder: path.resolve(folder), url: cleared(address), server: cleared(server), months };
    const report = (await site.ask('publish-files', asked)) as Report;
    stop();
    for (const line of said(report, folder)) console.log(line);
    if (report.dead.length) process.exitCode = EXIT.partly;
  } finally {
    stop();
    await site.leave();
  }
}

const cleared = (value: string | undefined): string | null | undefined => (value === 'none' ? null : value);
const counted = (n: number, one: string, many: string): string => `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

function said(report: Report, folder: string): string[] {
  const { files, made, changed, removed, server, beyond, url, answers, months, dead } = report;
  const same = files - made - changed;
  const lines = [
    `${counted(files, 'file', 'files')} in ${folder}${url ? `, for ${url}` : ''}: ${made.toLocaleString('en')} new, ${changed.toLocaleString('en')} changed, ${same.toLocaleString('en')} as they were, ${removed.toLocaleString('en')} removed.`,
    `Views reach ${counted(months, 'month', 'months')} ahead; ${counted(beyond, 'link', 'links')} further in time ${answers ? `lead to ${answers}` : 'were taken out'}.`,
    answers
      ? `Searching, choosing and sending in lead to ${answers} (${counted(server, 'link', 'links')}).`
      : `Left out: searching, choosing but for kinds and tags, sending in and the interface for programs (${counted(server, 'link', 'links')} taken out). With --server ADDRESS they lead to the site itself.`,
  ];
  if (dead.length)
    lines.push(
      `${counted(dead.length, 'address', 'addresses')} that somebody’s text links to ${dead.length === 1 ? 'is' : 'are'} not on this site; the copy says so there: ${dead.join(', ')}`,
    );
  if (!url)
    lines.push('Links lead from file to file. Feeds and search engines need whole addresses: with --address they get those of the copy.');
  return lines;
}

/** Says how far it is to whoever looks on. @returns what ends it */
function tell(site: Site): () => void {
  const timer = setInterval(async () => {
    const at = (await site.ask('publish-state').catch(() => null)) as { done: number; known: number } | null;
    if (at) process.stderr.write(`\r${at.done.toLocaleString('en')} of ${at.known.toLocaleString('en')} pages and files `);
  }, TOLD_EVERY);
  return () => {
    clearInterval(timer);
    if (process.stderr.isTTY) process.stderr.write('\r\x1b[K');
  };
}
