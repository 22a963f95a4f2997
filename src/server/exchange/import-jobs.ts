/** The jobs of a file: writing it hidden and showing it as one, and taking it back. */
import { type Happening, toKeep } from '../history/happening';
import { and, asc, desc, eq, getTableColumns, gt, inArray, isNull, sql } from 'drizzle-orm';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { audit, importBatch, importItem, importRow, importSource, job, listing } from '../db/schema';
import { Problem, read } from '../problem';
import { type JobContext, type Job, once, startJob, type Step, type Work } from '../jobs/runner';
import { buildMany, insertTables } from '../listings/insert-many';
import { contentInput } from '../listings/input';
import { type Change, fallbackCategory, publishListing, saveListing } from '../listings/write';
import { planRows } from './import-preview';
import type { Planned } from './import-plan';
import { type Batch, readBatch } from './import-file';
import { serverWords } from '@/words/desk';

const texts = serverWords.exchangeImportJobs;

/** So many titles with a reason are kept of a file. */
const MOST_WORDS = 500;

/** Begins to bring in what is chosen; the answer is the job's id. */
export async function startImport(tx: Db, batchId: string, publish: boolean, change: Change): Promise<string> {
  const lines = { state: importBatch.state, summary: importBatch.summary, options: importBatch.options };
  const [batch] = await tx.select(lines).from(importBatch).where(eq(importBatch.id, batchId)).for('update');
  if (batch?.state === 'previewing') throw new Problem('conflict', texts.theFileIsStill());
  if (batch?.state !== 'previewed') throw new Problem('conflict', texts.thisFileHasBeen());
  if (batch.summary?.table?.ordered === false && !batch.options.order) throw new Problem('invalid', texts.sayFirstHowIts());
  const chosen = and(eq(importRow.batchId, batchId), eq(importRow.chosen, true), inArray(importRow.action, ['new', 'changed']));
  const [count] = await tx.select({ n: sql<number>`count(*)::int` }).from(importRow).where(chosen);
  if (!count?.n) throw new Problem('invalid', texts.nothingIsChosenThat());
  const input = { batchId, publish, phase: 'new' as const };
  const id = await startJob(tx, { kind: 'import', total: count.n, input, hidden: true, by: change.by, now: change.now });
  await tx.update(importBatch).set({ state: 'importing', jobId: id }).where(eq(importBatch.id, batchId));
  return id;
}

const actorOf = (row: Job): Actor => ({ id: row.byId, name: row.byName, role: 'site' });
const changeOf = (row: Job, { now, settings }: JobContext): Change => ({ by: actorOf(row), now, settings });

/** New listings come first, hidden; then one update shows them all; then what is changed follows, one by one. */
export const importing: Work = {
  step: async (tx, row, size, context) => {
    const { input } = row;
    const { batchId = '', phase = 'new', after = '-1' } = input;
    const rows = await tx
      .select()
      .from(importRow)
      .where(and(eq(importRow.batchId, batchId), eq(importRow.chosen, true), eq(importRow.action, phase), gt(importRow.n, Number(after))))
      .orderBy(asc(importRow.n))
      .limit(phase === 'new' ? size : Math.max(1, size >> 2));
    const last = rows.at(-1);
    if (!last) {
      if (phase === 'new') return { did: 0, finished: false, show: true, input: { ...input, phase: 'changed', after: '-1' } };
      return finishImport(tx, row, context);
    }
    const { source } = await readBatch(tx, batchId);
    const { items } = await planRows(tx, rows, context, source);
    const outcome =
      phase === 'new' ? await importNew(tx, row, items, context, source) : await importChanged(tx, row, items, context, source);
    const kept = [...(input.kept ?? []), ...outcome.kept].slice(0, MOST_WORDS);
    const counts = { made: (input.made ?? 0) + outcome.made, changed: (input.changed ?? 0) + outcome.changed };
    return { did: rows.length, finished: false, changed: outcome.changed > 0, input: { ...input, ...counts, kept, after: String(last.n) } };
  },
  undo: async (tx, row, size, context) => {
    // What is shown already vanishes with the first piece.
    await tx.update(job).set({ hidden: true }).where(eq(job.id, row.id));
    const { did, stayed } = await takeBackSome(tx, row.input.batchId ?? '', size, changeOf(row, context));
    const kept = [...(row.input.kept ?? []), ...stayed].slice(0, MOST_WORDS);
    if (did) return { did, finished: false, changed: !row.hidden, input: { ...row.input, kept } };
    await tx
      .update(importBatch)
      .set({ state: 'previewed', jobId: null })
      .where(eq(importBatch.id, row.input.batchId ?? ''));
    return { did: 0, finished: true, changed: true };
  },
};

interface Outcome {
  made: number;
  changed: number;
  kept: { title: string; reason: string }[];
}

async function importNew(tx: Db, row: Job, items: readonly Planned[], context: JobContext, source: string): Promise<Outcome> {
  const { batchId = '', publish = false } = row.input;
  // What came in by another way since it was looked at is not made twice.
  const fresh = items.filter((item) => item.action === 'new');
  const contents = fresh.map((item) => ({ content: read(contentInput, item.content), publish }));
  const fallback = publish ? await once(context, 'fallback', () => fallbackCategory(tx)) : '';
  const { made, rows } = await buildMany(tx, contents, { jobId: row.id, change: changeOf(row, context), fallback });
  const kept = made.flatMap(({ reason }, i) => (reason === undefined ? [] : [{ title: fresh[i]?.title ?? '', reason }]));
  const notes = fresh.map((item, i) =>
    rememberedRows({ item, source, listingId: made[i]?.id ?? '', batchId, revision: 1, published: made[i]?.published ?? false }),
  );
  await insertTables(tx, { ...rows, import_item: notes.map((n) => n.item), import_source: notes.map((n) => n.source) });
  return { made: made.length, changed: 0, kept };
}

async function importChanged(tx: Db, row: Job, items: readonly Planned[], context: JobContext, source: string): Promise<Outcome> {
  const change = changeOf(row, context);
  const outcome: Outcome = { made: 0, changed: 0, kept: [] };
  for (const item of items) {
    if (item.action !== 'changed' || !item.listingId) continue;
    const saved = await saveListing(tx, { id: item.listingId, content: read(contentInput, item.content), revision: item.revision }, change);
    const last = row.input.publish ? await tryPublish(tx, saved, change, outcome) : saved;
    outcome.changed++;
    const published = last.stage === 'published' && !last.edited;
    await remember(tx, { item, source, listingId: saved.id, batchId: row.input.batchId ?? '', revision: last.revision, published });
  }
  return outcome;
}

type Saved = Awaited<ReturnType<typeof saveListing>>;

/** Publishes where Proof lets it; what it stops stays as it is for readers, and is named. */
async function tryPublish(tx: Db, row: Saved, change: Change, outcome: Outcome): Promise<Saved> {
  try {
    return await publishListing(tx, row.id, row.revision, change);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    outcome.kept.push({ title: row.title, reason: error.title });
    return row;
  }
}

interface Remembered {
  item: Planned;
  /** where the file comes from */
  source: string;
  listingId: string;
  batchId: string;
  revision: number;
  published: boolean;
}

/** What is needed to take a listing back, and what the file said, to compare with the next time. */
function rememberedRows({ item, source, listingId, batchId, revision, published }: Remembered): { item: object; source: object } {
  const before = item.before && {
    format: 1,
    content: item.before,
    edited: item.edited,
    source: item.source?.content ?? null,
    sequence: item.source?.sequence ?? 0,
  };
  return {
    item: { batch_id: batchId, uid: item.uid, listing_id: listingId, before, revision, published },
    source: { source, uid: item.uid, listing_id: listingId, hash: item.hash, sequence: item.sequence, content: item.imported },
  };
}

async function remember(tx: Db, cached: Remembered): Promise<void> {
  const { item, source } = rememberedRows(cached);
  const { uid } = cached.item;
  // A row from before sources had names belongs to this one from now on.
  await tx.delete(importSource).where(and(eq(importSource.uid, uid), inArray(importSource.source, ['', cached.source])));
  await insertTables(tx, { import_item: [item], import_source: [source] });
}

async function finishImport(tx: Db, row: Job, { now }: JobContext): Promise<Step> {
  const { batchId = '', made = 0, changed = 0, kept = [] } = row.input;
  const [batch] = await tx
    .update(importBatch)
    .set({ state: 'imported', made, changed, at: new Date(now.ms) })
    .where(eq(importBatch.id, batchId))
    .returning({ name: importBatch.name });
  if (batch) await note(tx, row, { code: 'importDone', name: batch.name, made, changed }, now.ms);
  const first = kept[0]
    ? texts.proofKeepsFromReaders({ what: kept.length === 1 ? 'one' : kept.length, title: kept[0].title, reason: kept[0].reason })
    : '';
  return { did: 0, finished: true, changed: true, said: texts.importedNewChanged({ made, changed, first }) };
}

/** Begins to take a batch back; the answer is the job's id. */
export async function startImportUndo(tx: Db, batchId: string, change: Change): Promise<string> {
  const lines = { id: importBatch.id, state: importBatch.state, jobId: importBatch.jobId };
  const [batch] = await tx.select(lines).from(importBatch).where(eq(importBatch.id, batchId)).for('update');
  if (batch?.state !== 'imported')
    throw new Problem('conflict', batch?.state === 'undone' ? texts.thisWasUndoneAlready() : texts.thisHasNotBeen());
  const [count] = await tx.select({ n: sql<number>`count(*)::int` }).from(importItem).where(eq(importItem.batchId, batchId));
  const id = await startJob(tx, { kind: 'import-undo', total: count?.n ?? 0, input: { batchId }, by: change.by, now: change.now });
  await tx.update(importBatch).set({ state: 'undoing' }).where(eq(importBatch.id, batchId));
  await hideAgain(tx, batch);
  return id;
}

/** What a batch made vanishes at once, except for what somebody worked on since: that is theirs now. */
async function hideAgain(tx: Db, batch: Pick<Batch, 'id' | 'jobId'>): Promise<void> {
  if (!batch.jobId) return;
  const worked = sql`select i.listing_id from import_item i join listing w on w.id = i.listing_id where i.batch_id = ${batch.id} and w.revision <> i.revision`;
  await tx.execute(sql`update listing set job_id = null where id in (${worked})`);
  await tx.execute(sql`update published set job_id = null where listing_id in (${worked})`);
  await tx.update(job).set({ hidden: true }).where(eq(job.id, batch.jobId));
}

/** The work of taking an import back. */
export const undoingImport: Work = {
  step: async (tx, row, size, context) => {
    const { input } = row;
    const { batchId = '' } = input;
    const { did, undone, stayed } = await takeBackSome(tx, batchId, size, changeOf(row, context));
    const kept = [...(input.kept ?? []), ...stayed].slice(0, MOST_WORDS);
    const made = (input.made ?? 0) + undone;
    if (did) return { did, finished: false, input: { ...input, kept, made } };
    const batch = await readBatch(tx, batchId);
    await tx.update(importBatch).set({ state: 'undone' }).where(eq(importBatch.id, batchId));
    if (batch.jobId) await tx.update(job).set({ hidden: false }).where(eq(job.id, batch.jobId));
    await note(tx, row, { code: 'importTakenBack', name: batch.name }, context.now.ms);
    const names = kept.slice(0, 5).map(({ title }) => title);
    const rest = kept.length ? texts.andOthersStayedSomebody({ names: names.join(', '), others: kept.length > 5 ? 'yes' : 'no' }) : '';
    return {
      did: 0,
      finished: true,
      changed: true,
      said: texts.takenBackListing({ made, rest }),
    };
  },
};

/** Takes some of a batch's listings back: what it made goes, what it changed is as before, what was worked on since stays. */
async function takeBackSome(
  tx: Db,
  batchId: string,
  size: number,
  change: Change,
): Promise<{ did: number; undone: number; stayed: { title: string; reason: string }[] }> {
  const made = await tx
    .select()
    .from(importItem)
    .where(and(eq(importItem.batchId, batchId), isNull(importItem.before)))
    .limit(size);
  const items = made.length
    ? made
    : await tx
        .select()
        .from(importItem)
        .where(eq(importItem.batchId, batchId))
        .limit(Math.max(1, size >> 2));
  if (!items.length) return { did: 0, undone: 0, stayed: [] };
  const ids = items.map((item) => item.listingId);
  const rows = await tx
    .select({ id: listing.id, title: listing.title, revision: listing.revision })
    .from(listing)
    .where(inArray(listing.id, ids))
    .for('update');
  const rowOf = new Map(rows.map((row) => [row.id, row]));
  const stayed: { title: string; reason: string }[] = [];
  const gone: string[] = [];
  let undone = 0;
  for (const item of items) {
    const row = rowOf.get(item.listingId);
    if (!row) continue;
    if (row.revision !== item.revision) stayed.push({ title: row.title, reason: texts.somebodyWorkedOnIt() });
    else {
      undone++;
      if (item.before) await putBack(tx, item, change);
      else gone.push(row.id);
    }
  }
  if (gone.length) await tx.delete(listing).where(inArray(listing.id, gone));
  const uids = items.map((item) => item.uid);
  await tx.delete(importItem).where(and(eq(importItem.batchId, batchId), inArray(importItem.uid, uids)));
  return { did: items.length, undone, stayed };
}

/** A changed listing as it was, published again where it was published. */
async function putBack(tx: Db, item: typeof importItem.$inferSelect, change: Change): Promise<void> {
  const { before } = item;
  if (!before) return;
  const saved = await saveListing(tx, { id: item.listingId, content: before.content, revision: item.revision }, change);
  if (item.published && !before.edited) await publishListing(tx, saved.id, saved.revision, change);
  if (before.source)
    await tx
      .update(importSource)
      .set({ content: before.source, sequence: before.sequence, hash: '' })
      .where(and(eq(importSource.uid, item.uid), eq(importSource.listingId, item.listingId)));
  else await tx.delete(importSource).where(and(eq(importSource.uid, item.uid), eq(importSource.listingId, item.listingId)));
}

async function note(tx: Db, row: Job, what: Happening, ms: number): Promise<void> {
  await tx.insert(audit).values({
    id: newId(),
    at: new Date(ms),
    byId: row.byId,
    byName: row.byName,
    what: toKeep(what),
    kind: 'import',
    subjectId: row.input.batchId ?? row.id,
  });
}

/** An import as the list of imports shows it. */
export type BatchLine = Omit<Batch, 'summary' | 'options'> & { job: Job | null };

/** What was brought in, or is on its way, the newest first. */
export async function readBatches(db: Db): Promise<BatchLine[]> {
  const { file: _file, summary: _summary, options: _options, ...columns } = getTableColumns(importBatch);
  return db
    .select({ ...columns, job })
    .from(importBatch)
    .leftJoin(job, eq(job.id, importBatch.jobId))
    .where(sql`${importBatch.state} not in ('previewed', 'previewing')`)
    .orderBy(desc(importBatch.at))
    .limit(30);
}
