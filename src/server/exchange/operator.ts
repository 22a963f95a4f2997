/** What the command line brings in and gives out: the same steps as the Desk's pages, asked for by the operator. */
import { NO_FILTERS } from '@/core/filters/filters';
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { and, asc, eq, gt, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { isZone } from '@/core/day/zone';
import type { ImportReport } from '@/core/exchange/report';
import type { Actor } from '../accounts/roles';
import { fillSite, type SiteReport } from '../archive/read';
import { openArchive } from '../archive/source';
import { siteDocument, writeSite } from '../archive/write';
import type { Db } from '../db/client';
import { importBatch, importRow } from '../db/schema';
import { Problem, read } from '../problem';
import { feedText } from '../public/feed';
import { readersDates } from '../public/readers-dates';
import type { Runtime } from '../runtime-type';
import { startImport } from './import-jobs';
import { answerRows, planRows } from './import-preview';
import { decide } from './import-decisions';
import { exportListings } from './export';
import { type Batch, keepFile, look, readBatch, readRows } from './import-file';

const importInput = z.object({
  path: z.string().max(4096),
  dryRun: z.boolean(),
  publish: z.boolean(),
  source: z.string().max(80, 'A source has at most 80 characters').optional(),
  order: z.enum(['day-month', 'month-day']).optional(),
  zones: z.record(z.string().max(200), z.string().refine(isZone, { error: 'This time zone is not known' })).default({}),
  answer: z.enum(['', 'same', 'new']).default(''),
  make: z
    .object({ venue: z.boolean(), organizer: z.boolean(), category: z.boolean() })
    .default({ venue: false, organizer: false, category: false }),
});
const OPERATOR: Actor = { id: null, name: 'The operator', role: 'site' };

/** So many listings are named; the rest of a large file is counted. */
const MOST_NAMED = 2000;
const CHUNK = 200;

/** Brings a local file in, or only says what that would do: then nothing at all is kept of it. */
export async function importFile(rt: Runtime, raw: unknown): Promise<ImportReport> {
  const input = read(importInput, raw);
  const bytes = await readFile(input.path).catch(() => {
    throw new Problem('invalid', `The file ${input.path} cannot be read.`);
  });
  const id = await keepFile(rt, { name: path.basename(input.path), bytes, source: input.source, order: input.order }, OPERATOR);
  try {
    return await importKeptFile(rt, id, input);
  } finally {
    // What was only looked at leaves nothing.
    await rt.db.delete(importBatch).where(and(eq(importBatch.id, id), inArray(importBatch.state, ['previewed', 'previewing'])));
  }
}

async function importKeptFile(rt: Runtime, id: string, input: z.infer<typeof importInput>): Promise<ImportReport> {
  const looked = async (): Promise<Batch> => {
    const { jobId } = await readBatch(rt.db, id);
    if (jobId) await rt.jobs.wait(jobId, Number.POSITIVE_INFINITY);
    return readBatch(rt.db, id);
  };
  const inTx = <T>(run: (tx: Db) => Promise<T>): Promise<T> => rt.db.transaction((tx) => run(tx));
  let batch = await looked();
  if (batch.summary?.table && !batch.summary.table.ordered && !input.order)
    throw new Problem(
      'invalid',
      'Dates such as 3/4 stand in this table, and nothing tells which is the month: say --order day-month or --order month-day.',
    );
  if (Object.keys(input.zones).length) {
    await inTx((tx) => decide(tx, batch, [], input.zones, OPERATOR));
    await readRows(rt, id, OPERATOR);
    batch = await looked();
  }
  const wanted = (batch.summary?.open ?? []).filter(({ kind }) => input.make[kind]);
  // A dry run says what would be made, and makes nothing.
  if (wanted.length && !input.dryRun) {
    await inTx((tx) =>
      decide(
        tx,
        batch,
        wanted.map(({ kind, said, mail }) => ({ kind, said, mail, target: 'new' })),
        {},
        OPERATOR,
      ),
    );
    await rt.contentChanged();
    await look(
      rt,
      id,
      OPERATOR,
      Object.values(batch.summary?.counts ?? {}).reduce((sum, n) => sum + n, 0),
    );
    batch = await looked();
  }
  const { answer } = input;
  if (answer) {
    const context = await rt.jobContext();
    await inTx((tx) => answerRows(tx, id, 'all', answer, context));
    batch = await readBatch(rt.db, id);
  }
  const madeHere = countBy(wanted.map(({ kind }) => kind));
  const found = await reportOf(rt, batch);
  const report = { ...found, madeHere, open: found.open.filter(({ kind }) => !input.make[kind]) };
  const { new: fresh = 0, changed = 0 } = report.counts;
  if (!report.unreadableCount && !Object.values(report.counts).some(Boolean))
    throw new Problem('invalid', 'There is nothing in this file to import.');
  if (input.dryRun || !(fresh + changed)) return report;
  const change = { by: OPERATOR, now: rt.now(), settings: rt.settings() };
  const job = await inTx((tx) => startImport(tx, id, input.publish, change));
  const ended = await rt.jobs.wait(job, Number.POSITIVE_INFINITY);
  if (ended.state !== 'done') throw new Problem('failed', ended.said || 'It could not be imported; nothing of it was kept.');
  const { made = 0, changed: altered = 0, kept = [] } = ended.input;
  return { ...report, made, changed: altered, kept };
}

function countBy(list: readonly string[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const one of list) counts[one] = (counts[one] ?? 0) + 1;
  return counts;
}

async function reportOf(rt: Runtime, { id, summary, source }: Batch): Promise<ImportReport> {
  const items: ImportReport['items'] = [];
  const context = await rt.jobContext();
  for (let after = -1; items.length < MOST_NAMED; ) {
    const rows = await rt.db
      .select()
      .from(importRow)
      .where(and(eq(importRow.batchId, id), gt(importRow.n, after)))
      .orderBy(asc(importRow.n))
      .limit(CHUNK);
    const last = rows.at(-1);
    if (!last) break;
    after = last.n;
    const { items: planned } = await planRows(rt.db, rows, context, source);
    items.push(
      ...planned.map(({ action, title, when, line, notes, differences, doubt }) => ({
        action,
        title,
        when,
        line,
        notes,
        differences,
        doubt,
      })),
    );
  }
  return {
    items: items.slice(0, MOST_NAMED),
    counts: summary?.counts ?? {},
    unreadable: summary?.unreadable ?? [],
    unreadableCount: summary?.unreadableCount ?? 0,
    unknownZones: summary?.unknownZones ?? [],
    open: summary?.open ?? [],
    madeHere: {},
    made: 0,
    changed: 0,
    kept: [],
  };
}

/** Everything that is published, as one calendar. */
export async function exportIcal(rt: Runtime): Promise<{ text: string }> {
  return { text: await feedText(rt, await readersDates(rt, NO_FILTERS), `${rt.siteUrl()}/feed.ics`) };
}

/** All listings, drafts too, as a table. */
export async function exportAll(rt: Runtime, what: 'listings.csv' | 'dates.csv'): Promise<{ text: string }> {
  return { text: (await exportListings(rt, what)).text };
}

/** The whole site as the archive's document, without the files of its pictures. */
export async function exportDocument(rt: Runtime): Promise<{ text: string }> {
  return { text: await siteDocument(rt) };
}

const siteFile = z.object({ path: z.string().min(1).max(4096) });

/** The whole site with its pictures, written to a ZIP file. */
export async function exportSite(rt: Runtime, raw: unknown): Promise<{ path: string; bytes: number }> {
  const { path: file } = read(siteFile, raw);
  await writeSite(rt, file);
  return { path: file, bytes: (await stat(file)).size };
}

/** Makes an empty site what an archive holds. */
export async function importSite(rt: Runtime, raw: unknown): Promise<SiteReport> {
  const archive = await openArchive(read(siteFile, raw).path);
  try {
    return await fillSite(rt, archive, OPERATOR);
  } finally {
    archive.close();
  }
}
