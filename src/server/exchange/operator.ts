/** What the command line brings in and gives out: the same steps as the Desk's pages, asked for by the operator. */
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { and, asc, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import type { ImportReport } from '@/core/exchange/report';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { importBatch, importRow } from '../db/schema';
import { Problem, read } from '../http/problem';
import { feedText } from '../public/feed';
import type { Runtime } from '../runtime';
import { planRows, startBringIn } from './bring-in';
import { giveOut } from './give-out';
import { type Batch, keepFile, readBatch } from './upload';

const importInput = z.object({ path: z.string().max(4096), dryRun: z.boolean(), publish: z.boolean() });
const OPERATOR: Actor = { id: null, name: 'The operator', role: 'site' };

/** So many listings are named; the rest of a large file is counted. */
const MOST_NAMED = 2000;
const CHUNK = 200;

/** Brings a local file in, or only says what that would do: then nothing at all is kept of it. */
export async function importFile(rt: Runtime, raw: unknown): Promise<ImportReport> {
  const input = read(importInput, raw);
  const bytes = await readFile(input.path).catch(() => {
    throw new Problem(422, `The file ${input.path} cannot be read.`);
  });
  const id = await keepFile(rt, { name: path.basename(input.path), bytes }, OPERATOR);
  const { jobId } = await readBatch(rt.db, id);
  if (jobId) await rt.jobs.wait(jobId, Number.POSITIVE_INFINITY);
  const batch = await readBatch(rt.db, id);
  const report = await reportOf(rt, batch);
  const { new: fresh = 0, changed = 0 } = report.counts;
  if (input.dryRun || !(fresh + changed)) {
    await rt.db.delete(importBatch).where(eq(importBatch.id, id));
    return report;
  }
  const change = { by: OPERATOR, now: rt.now(), settings: rt.settings() };
  const job = await rt.db.transaction((tx) => startBringIn(tx as unknown as Db, id, input.publish, change));
  const ended = await rt.jobs.wait(job, Number.POSITIVE_INFINITY);
  if (ended.state !== 'done') throw new Problem(500, ended.said || 'It could not be brought in; nothing of it was kept.');
  const { made = 0, changed: altered = 0, kept = [] } = ended.input;
  return { ...report, made, changed: altered, kept };
}

async function reportOf(rt: Runtime, { id, summary }: Batch): Promise<ImportReport> {
  const items: ImportReport['items'] = [];
  const around = await rt.around();
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
    const { items: planned } = await planRows(rt.db, rows, around);
    items.push(...planned.map(({ action, title, when, line, notes, differences }) => ({ action, title, when, line, notes, differences })));
  }
  return {
    items: items.slice(0, MOST_NAMED),
    counts: summary?.counts ?? {},
    unreadable: summary?.unreadable ?? [],
    unreadableCount: summary?.unreadableCount ?? 0,
    unknownZones: summary?.unknownZones ?? [],
    made: 0,
    changed: 0,
    kept: [],
  };
}

/** Everything that is published, as one calendar. */
export async function exportIcal(rt: Runtime): Promise<{ text: string }> {
  const everything = { kinds: [], places: [], free: false, tags: [], words: '' };
  return { text: await feedText(rt, everything, `${rt.address()}/feed.ics`) };
}

/** All listings, drafts too, as JSON or as a table. */
export async function exportAll(rt: Runtime, what: 'listings.json' | 'listings.csv' | 'dates.csv'): Promise<{ text: string }> {
  return { text: (await giveOut(rt, what)).text };
}
