/** A file that somebody sends: what it is, and what it says, kept row by row so that no later step needs all of it at once. */
import { and, eq, getTableColumns, inArray, lt, sql } from 'drizzle-orm';
import { decode } from '@/core/exchange/decode';
import type { Incoming } from '@/core/exchange/incoming';
import { fold } from '@/core/text/text';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { importBatch, importColumns, type ImportKind, type ImportOptions, importRow, importSource, type ImportSummary } from '../db/schema';
import { notFound, Problem, type ProblemKind } from '../problem';
import { startJob } from '../jobs/runner';
import type { Runtime } from '../runtime-type';
import { positionOf, styleOf } from '../site/settings';
import { sourceOfFile } from './identity';
import { serverWords } from '@/words/desk';

const w = serverWords.exchangeImportFile;

/** A file has at most so many bytes. */
export const MOST_BYTES = 20 * 1024 * 1024;
/** Files that were only looked at are kept so long, in days. */
const KEPT_DAYS = 2;
/** Reasons kept of a file with very many that cannot be read. */
const MOST_REASONS = 500;
/** Whoever sends a file waits so long for what is in it; what takes longer shows its progress. */
export const PATIENCE_MS = 2500;

/** An import without its file. */
export type Batch = Omit<typeof importBatch.$inferSelect, 'file'>;

const refuse = (kind: ProblemKind, title: string): Problem => new Problem(kind, title, [{ field: 'file', message: title }]);

/** Which kind of file it is, by what stands in it. */
function kindOf(text: string): ImportKind {
  const start = text.slice(0, 4000).trimStart();
  if (/^BEGIN:VCALENDAR/im.test(start)) return 'ical';
  if (start.startsWith('{')) return 'json';
  if (/^BEGIN:V/im.test(start)) throw refuse('invalid', w.thisIsNoCalendar());
  return 'csv';
}

/** A file that somebody sent, with its name. */
export interface Upload {
  name: string;
  bytes: Uint8Array;
  /** where it comes from; else as its file is called */
  source?: string | undefined;
  /** how dates in figures are written, where somebody says so */
  order?: 'day-month' | 'month-day' | undefined;
}

/** What a text is called that came without a file. */
export const PASTED = w.pastedText();

/** Keeps a file and what it says, and begins to look at what bringing it in would do. The answer is the batch's id. */
export async function keepFile(rt: Runtime, { name, bytes, source = '', order }: Upload, by: Actor): Promise<string> {
  if (!bytes.length) throw refuse('invalid', w.chooseAFileOr());
  if (bytes.length > MOST_BYTES) throw refuse('too-large', w.theFileIsLarger());
  if (bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3) throw refuse('invalid', w.thisIsAZIP());
  const { text, encoding } = decode(bytes);
  // The database cannot keep the sign of no character.
  const file = text.replaceAll('\u0000', '');
  const kind = kindOf(file);
  const id = newId();
  const { ms } = rt.now();
  await rt.db.transaction(async (tx) => {
    const old = new Date(ms - KEPT_DAYS * 24 * 3_600_000);
    await tx.delete(importBatch).where(and(inArray(importBatch.state, ['previewed', 'previewing']), lt(importBatch.at, old)));
    await tx.insert(importBatch).values({
      id,
      name: name.replace(/[^\p{L}\p{N} ._-]/gu, '').slice(0, 120) || PASTED,
      // What is pasted has no name to be known by the next time, until somebody gives it one.
      source: source.trim().slice(0, 80) || (name === PASTED ? `${PASTED} ${id}` : sourceOfFile(name)),
      kind,
      state: 'previewing',
      file,
      encoding,
      options: { format: 1, zones: {}, ...(order ? { order } : {}) },
      byName: by.name,
      at: new Date(ms),
    });
  });
  try {
    await readRows(rt, id, by);
  } catch (error) {
    await rt.db.delete(importBatch).where(eq(importBatch.id, id));
    throw error;
  }
  return id;
}

/** A kept file without its text. Throws a Problem when there is none. */
export async function readBatch(db: Db, id: string): Promise<Batch> {
  const { file: _large, ...columns } = getTableColumns(importBatch);
  const [row] = await db.select(columns).from(importBatch).where(eq(importBatch.id, id));
  if (!row) throw notFound('file');
  return row;
}

/** The file itself, which may be large. */
async function readText(db: Db, id: string): Promise<string> {
  const [row] = await db.select({ file: importBatch.file }).from(importBatch).where(eq(importBatch.id, id));
  return row?.file ?? '';
}

/** Reads a kept file (again): after its zones or columns were chosen, its rows say something else. */
export async function readRows(rt: Runtime, id: string, by: Actor): Promise<void> {
  const batch = await readBatch(rt.db, id);
  const settings = rt.settings();
  const now = rt.now();
  const text = await readText(rt.db, id);
  const options = batch.kind === 'csv' ? await withColumns(rt.db, batch, text) : batch.options;
  await rt.db.transaction(async (tx) => {
    await tx.delete(importRow).where(eq(importRow.batchId, id));
    await tx.update(importBatch).set({ state: 'previewing', summary: null, options }).where(eq(importBatch.id, id));
  });
  const parts = rt.worker.run({
    task: 'read',
    kind: batch.kind,
    text,
    host: rt.host(),
    siteZone: settings.zone,
    zones: options.zones,
    columns: options.columns,
    order: options.order,
    now,
    style: styleOf(settings),
    firstWeekday: settings.firstWeekday,
    currency: settings.currency,
    sunAt: positionOf(settings),
  });
  let n = 0;
  for await (const part of parts) {
    if (part.part === 'refused') throw refuse('invalid', part.reason);
    if (part.part === 'items') n = await keepItems(rt.db, id, n, part.items);
    if (part.part === 'end') {
      const all = part.end.unreadable;
      const summary: ImportSummary = {
        format: 1,
        counts: {},
        open: [],
        unreadable: all.slice(0, MOST_REASONS),
        unreadableCount: all.length,
        unknownZones: part.end.unknownZones,
        ...(part.end.table ? { table: part.end.table } : {}),
      };
      await rt.db.update(importBatch).set({ summary }).where(eq(importBatch.id, id));
    }
  }
  // The embedded database looks at its own tables only when it is told to.
  await rt.db.execute(sql`analyze import_row`);
  await look(rt, id, by, n);
}

/** Columns that somebody chose for a table with the same headers. */
async function withColumns(db: Db, batch: Batch, text: string): Promise<ImportOptions> {
  if (batch.options.columns) return batch.options;
  const [known] = await db
    .select()
    .from(importColumns)
    .where(eq(importColumns.headers, headersKey(text)));
  if (!known) return batch.options;
  const { columns, order } = known.columns;
  return { ...batch.options, columns, ...(order ? { order } : {}) };
}

/** The first line of a table, by which its mapping is remembered. */
const headersKey = (file: string): string => fold(file.slice(0, 4000).split(/\r\n|\n|\r/)[0] ?? '').slice(0, 1000);

/** What somebody decided about the columns of a table, for this and later files of the same headers. */
export async function saveColumns(tx: Db, batch: Batch, columns: string[], order: ImportOptions['order']): Promise<void> {
  const value = { format: 1 as const, columns, ...(order ? { order } : {}) };
  await tx
    .insert(importColumns)
    .values({ headers: headersKey(await readText(tx, batch.id)), columns: value })
    .onConflictDoUpdate({ target: importColumns.headers, set: { columns: value } });
}

/** Keeps rows as one statement. */
async function keepItems(db: Db, batchId: string, from: number, items: readonly Incoming[]): Promise<number> {
  const list = items.map((item, i) => ({ batch_id: batchId, n: from + i, uid: item.uid, action: '', chosen: true, answer: '', item }));
  await db.execute(sql`insert into import_row select * from json_populate_recordset(null::import_row, ${JSON.stringify(list)}::json)`);
  return from + items.length;
}

/** Begins to look (again) at what bringing in would do. */
export async function look(rt: Runtime, id: string, by: Actor, total: number): Promise<void> {
  const jobId = await rt.db.transaction(async (tx) => {
    const batch = await readBatch(tx, id);
    if (batch.state !== 'previewing' && batch.state !== 'previewed') throw new Problem('conflict', w.thisFileHasBeen());
    await tx.update(importRow).set({ action: '' }).where(eq(importRow.batchId, id));
    const job = await startJob(tx, { kind: 'import-preview', total, input: { batchId: id }, by, now: rt.now() });
    const summary = batch.summary && { ...batch.summary, counts: {}, open: [] };
    await tx.update(importBatch).set({ state: 'previewing', jobId: job, summary }).where(eq(importBatch.id, id));
    return job;
  });
  rt.jobs.wake();
  await rt.jobs.wait(jobId, PATIENCE_MS);
}

/** Ticks of the rows that stood on a page. */
export async function choose(tx: Db, batchId: string, shown: readonly number[], ticked: ReadonlySet<number>): Promise<void> {
  const on = shown.filter((n) => ticked.has(n));
  const off = shown.filter((n) => !ticked.has(n));
  for (const [list, chosen] of [
    [on, true],
    [off, false],
  ] as const) {
    if (list.length)
      await tx
        .update(importRow)
        .set({ chosen })
        .where(and(eq(importRow.batchId, batchId), inArray(importRow.n, list)));
  }
}

/** Says where a file comes from; its rows are then known by what that source has sent before. */
export async function nameSource(tx: Db, batchId: string, source: string): Promise<void> {
  const name = source.trim().slice(0, 80);
  if (!name) throw new Problem('invalid', w.giveItAName(), [{ field: 'source', message: w.aNameIsMissing() }]);
  const [row] = await tx
    .update(importBatch)
    .set({ source: name })
    .where(and(eq(importBatch.id, batchId), eq(importBatch.state, 'previewed')))
    .returning({ id: importBatch.id });
  if (!row) throw new Problem('conflict', w.thisFileHasBeen());
}

/** Sources that files came from before. */
export async function readSources(db: Db): Promise<string[]> {
  const rows = await db.selectDistinct({ source: importSource.source }).from(importSource).orderBy(importSource.source).limit(200);
  return rows.map(({ source }) => source).filter((source) => source && !source.startsWith(PASTED));
}
