/** What a file would do, looked at row by row and kept for the preview; and what somebody answers of rows in doubt. */
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { importBatch, importRow, type ImportSummary } from '../db/schema';
import { Problem } from '../problem';
import { type JobContext, once, type Work } from '../jobs/runner';
import { horizonOf } from '../dates/date-index';
import type { Runtime } from '../runtime-type';
import { styleOf } from '../site/settings';
import { readMatches } from './word-matches';
import { type Plan, planActions, type PlanInput, type Planned, type PlannedAction, planImport } from './import-plan';
import { readBatch } from './import-file';
import { serverWords } from '@/words/desk';

const w = serverWords.exchangeImportPreview;

type Row = typeof importRow.$inferSelect;

/** So many words without a meaning are kept of a file. */
const MOST_WORDS = 500;

/** What rows of a file would do, with what a preview shows of each. */
export async function planRows(db: Db, rows: readonly Row[], context: JobContext, source: string): Promise<Plan> {
  return planImport(db, await inputOf(db, rows, context, source));
}

async function inputOf(db: Db, rows: readonly Row[], context: JobContext, source: string): Promise<PlanInput> {
  const { settings, now, reference } = context;
  return {
    items: rows.map((row) => row.item),
    answers: rows.map((row) => row.answer),
    source,
    reference,
    decided: await once(context, 'decided', () => readMatches(db)),
    style: styleOf(settings),
    horizon: horizonOf(now.day, settings.horizonMonths),
  };
}

/** What would happen to each row, and which words nobody has given a meaning. */
export const previewing: Work = {
  step: async (tx, { input }, size, context) => {
    const { batchId = '', after = '-1' } = input;
    const rows = await tx
      .select()
      .from(importRow)
      .where(and(eq(importRow.batchId, batchId), gt(importRow.n, Number(after))))
      .orderBy(asc(importRow.n))
      .limit(size);
    const last = rows.at(-1);
    if (!last) {
      await tx.update(importBatch).set({ state: 'previewed' }).where(eq(importBatch.id, batchId));
      return { did: 0, finished: true };
    }
    const batch = await readBatch(tx, batchId);
    const { actions, open } = await planActions(tx, await inputOf(tx, rows, context, batch.source));
    await keepActions(tx, batchId, rows, actions);
    if (batch.summary)
      await tx
        .update(importBatch)
        .set({ summary: withPlan(batch.summary, actions, open) })
        .where(eq(importBatch.id, batchId));
    return { did: rows.length, finished: false, input: { ...input, after: String(last.n) } };
  },
};

async function keepActions(tx: Db, batchId: string, rows: readonly Row[], actions: readonly PlannedAction[]): Promise<void> {
  const values = JSON.stringify(rows.map((row, i) => ({ n: row.n, action: actions[i] ?? 'same' })));
  await tx.execute(
    sql`update import_row r set action = a.action from json_to_recordset(${values}::json) as a(n int, action text) where r.batch_id = ${batchId} and r.n = a.n`,
  );
}

/** What somebody says of rows that may be listings of ours; with `rows` = all, of all that were not answered. */
export async function answerRows(
  tx: Db,
  batchId: string,
  which: readonly number[] | 'all',
  answer: 'same' | 'new',
  context: JobContext,
): Promise<number> {
  const batch = await readBatch(tx, batchId);
  if (batch.state !== 'previewed' || !batch.summary) throw new Problem('conflict', w.thisFileHasBeen());
  const asked = and(
    eq(importRow.batchId, batchId),
    eq(importRow.action, 'maybe'),
    which === 'all' ? undefined : inArray(importRow.n, [...which]),
  );
  let did = 0;
  for (;;) {
    const rows = await tx.select().from(importRow).where(asked).orderBy(asc(importRow.n)).limit(ANSWERED_AT_ONCE);
    if (!rows.length) break;
    const numbers = rows.map((row) => row.n);
    await tx
      .update(importRow)
      .set({ answer, chosen: true })
      .where(and(eq(importRow.batchId, batchId), inArray(importRow.n, numbers)));
    const answered = rows.map((row) => ({ ...row, answer }));
    const { actions } = await planActions(tx, await inputOf(tx, answered, context, batch.source));
    await keepActions(tx, batchId, answered, actions);
    did += rows.length;
  }
  const counted = await tx
    .select({ action: importRow.action, n: sql<number>`count(*)::int` })
    .from(importRow)
    .where(eq(importRow.batchId, batchId))
    .groupBy(importRow.action);
  const summary = { ...batch.summary, counts: Object.fromEntries(counted.map(({ action, n }) => [action, n])) };
  await tx.update(importBatch).set({ summary }).where(eq(importBatch.id, batchId));
  return did;
}

const ANSWERED_AT_ONCE = 200;

function withPlan(summary: ImportSummary, actions: readonly PlannedAction[], open: ImportSummary['open']): ImportSummary {
  const counts = { ...summary.counts };
  for (const action of actions) counts[action] = (counts[action] ?? 0) + 1;
  const words = new Map(summary.open.map((one) => [`${one.kind} ${one.said}`, one]));
  for (const one of open) {
    const key = `${one.kind} ${one.said}`;
    words.set(key, { ...one, events: one.events + (words.get(key)?.events ?? 0) });
  }
  const sorted = [...words.values()].sort((a, b) => (a.kind + a.said < b.kind + b.said ? -1 : 1));
  return { ...summary, counts, open: sorted.slice(0, MOST_WORDS) };
}

/** Which part of a preview is asked for. */
export interface PreviewQuery {
  action: string;
  page: number;
}
/** A page of the preview has so many rows. */
export const PER_PREVIEW = 100;

/** One page of what would happen. What was looked at is looked at again: somebody may have changed it since. */
export async function readPreview(
  rt: Runtime,
  batchId: string,
  { action, page }: PreviewQuery,
): Promise<{ rows: (Planned & { n: number; chosen: boolean })[]; total: number }> {
  const known = ['new', 'changed', 'maybe', 'same', 'older'].find((name) => name === action) as Row['action'] | undefined;
  const where = and(eq(importRow.batchId, batchId), known ? eq(importRow.action, known) : undefined);
  const [count] = await rt.db.select({ n: sql<number>`count(*)::int` }).from(importRow).where(where);
  const rows = await rt.db
    .select()
    .from(importRow)
    .where(where)
    .orderBy(asc(importRow.n))
    .limit(PER_PREVIEW)
    .offset((page - 1) * PER_PREVIEW);
  const { source } = await readBatch(rt.db, batchId);
  const { items } = await planRows(rt.db, rows, await rt.jobContext(), source);
  return { rows: items.map((item, i) => ({ ...item, n: rows[i]?.n ?? 0, chosen: rows[i]?.chosen ?? false })), total: count?.n ?? 0 };
}
