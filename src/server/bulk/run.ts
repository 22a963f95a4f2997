/**
 * Many listings at once, as a job: each listing is changed whole or not at all, what came of it is written beside it, and all of it
 * is taken back as one.
 */
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { applied, type BulkAction, BULK_WORDS, staged, type Stays } from '@/core/listing/bulk-actions';
import { mergeContents } from '@/core/listing/merge';
import { type Actor, editsAll, type Role } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { type BulkBefore, bulkItem, bulkRun, type job, listing, published } from '../db/schema';
import { notFound, Problem } from '../problem';
import { type JobContext, type Step, startJob, type Work } from '../jobs/runner';
import { type Change, changeStage, moveToStage, publishListing, saveListing } from '../listings/write';
import { whyNot } from './plan';
import { readUnlooked } from '../validation/copies';
import { serverWords } from '@/words/desk';

const w = serverWords.bulkRun;

type Job = typeof job.$inferSelect;
type Run = typeof bulkRun.$inferSelect;
type Listing = typeof listing.$inferSelect;

/** Each needs a few questions of its own: fewer at once than other jobs. */
const AT_ONCE = 6;

/** Begins an action on many listings as a job; the answer is the ids of run and job. */
export async function startBulk(tx: Db, ids: readonly string[], action: BulkAction, change: Change): Promise<{ run: string; job: string }> {
  const runId = newId();
  const jobId = await startJob(tx, { kind: 'bulk', total: ids.length, input: { runId }, by: change.by, now: change.now });
  const role = change.by.role as Role;
  await tx.insert(bulkRun).values({
    id: runId,
    jobId,
    action: { format: 1, role, do: action },
    byId: change.by.id,
    byName: change.by.name,
    at: new Date(change.now.ms),
  });
  const rows = JSON.stringify(ids.map((id, n) => ({ run_id: runId, n, listing_id: id, state: '', reason: '' })));
  await tx.execute(sql`insert into bulk_item select * from json_populate_recordset(null::bulk_item, ${rows}::json)`);
  return { run: runId, job: jobId };
}

async function readRun(db: Db, id: string): Promise<Run> {
  const [row] = await db.select().from(bulkRun).where(eq(bulkRun.id, id));
  if (!row) throw notFound('action');
  return row;
}

/** A run of somebody's own; editors see every one. To others it is not there. */
async function ownRun(db: Db, id: string, actor: Actor): Promise<Run> {
  const run = await readRun(db, id);
  if (!editsAll(actor) && run.byId !== actor.id) throw notFound('action');
  return run;
}

const changeOf = (run: Run, { settings, now }: Pick<JobContext, 'settings' | 'now'>): Change => ({
  by: { id: run.byId, name: run.byName, role: run.action.role },
  settings,
  now,
});

/** The work of changing many listings: each in a savepoint, with how it was before. */
export const bulking: Work = {
  step: async (tx, row, size, context) => {
    const run = await readRun(tx, row.input.runId ?? '');
    const items = await tx
      .select()
      .from(bulkItem)
      .where(and(eq(bulkItem.runId, run.id), eq(bulkItem.state, '')))
      .orderBy(asc(bulkItem.n))
      .limit(Math.min(size, AT_ONCE));
    for (const { n, listingId } of items) {
      const done = await doOne(tx, listingId, run.action.do, changeOf(run, context));
      await tx
        .update(bulkItem)
        .set(done)
        .where(and(eq(bulkItem.runId, run.id), eq(bulkItem.n, n)));
    }
    const finished = items.length === 0;
    return { did: items.length, finished, changed: items.length > 0, ...(finished ? { said: await sayRun(tx, run) } : {}) };
  },
  // Cancelled half way: what was done is taken back.
  undo: (tx, row, size, context) => undoStep(tx, row, size, context),
};

/** The work of taking a run back. */
export const bulkUndoing: Work = { step: (tx, row, size, context) => undoStep(tx, row, size, context) };

type Outcome = Partial<typeof bulkItem.$inferInsert>;

/** One listing, in a savepoint: all of it or nothing. */
async function doOne(tx: Db, id: string, action: BulkAction, change: Change): Promise<Outcome> {
  const [row] = await tx.select().from(listing).where(eq(listing.id, id)).for('update');
  const unlooked = row ? (await readUnlooked(tx, id)).length : 0;
  const reason = whyNot(row, action, change, unlooked);
  if (reason !== undefined || !row) return { state: 'stayed', reason: reason ?? '' };
  const [copy] = await tx.select({ content: published.content }).from(published).where(eq(published.listingId, id));
  const iso = (at: Date | null): string | null => at?.toISOString() ?? null;
  const before: BulkBefore = {
    ...{ format: 1, stage: row.stage, edited: row.edited, working: row.working, published: copy?.content ?? null },
    ...(row.publishAt || row.withdrawAt
      ? { times: { publishAt: iso(row.publishAt), withdrawAt: iso(row.withdrawAt), by: row.scheduledBy } }
      : {}),
  };
  try {
    const revision = await tx.transaction((inner) => changeOne(inner, row, action, change));
    return { state: 'done', before, revision };
  } catch (error) {
    if (error instanceof Problem)
      return { state: 'stayed', reason: error.title.charAt(0).toLowerCase() + error.title.slice(1).replace(/\.$/, '') };
    throw error;
  }
}

async function changeOne(tx: Db, row: Listing, action: BulkAction, change: Change): Promise<number> {
  const to = staged(row.stage, row.edited, action.kind);
  if (to && 'to' in to) {
    if (to.to === 'published') return (await publishListing(tx, row.id, row.revision, change)).revision;
    return (await moveToStage(tx, row.id, to.to as 'draft' | 'withdrawn' | 'binned', change)).revision;
  }
  const content = applied(row.working, action);
  if (typeof content === 'string') throw new Problem('conflict', content);
  const live = row.stage === 'published' && !row.edited;
  const saved = await saveListing(tx, { id: row.id, content, revision: row.revision }, change);
  // Readers see it too where nothing else was waiting; contributors' changes wait for a decision.
  return live && change.by.role !== 'contributor' ? (await publishListing(tx, row.id, saved.revision, change)).revision : saved.revision;
}

async function undoStep(tx: Db, row: Job, size: number, context: JobContext): Promise<Step> {
  const run = await readRun(tx, row.input.runId ?? '');
  const items = await tx
    .select()
    .from(bulkItem)
    .where(and(eq(bulkItem.runId, run.id), eq(bulkItem.state, 'done')))
    .orderBy(desc(bulkItem.n))
    .limit(Math.min(size, AT_ONCE));
  for (const item of items) {
    const left = await undoOne(tx, item, run.action.do, changeOf(run, context));
    await tx
      .update(bulkItem)
      .set(left === undefined ? { state: 'undone', reason: '' } : { state: 'left', reason: left })
      .where(and(eq(bulkItem.runId, run.id), eq(bulkItem.n, item.n)));
  }
  const finished = items.length === 0;
  if (finished)
    await tx
      .update(bulkRun)
      .set({ undoneAt: new Date(context.now.ms) })
      .where(eq(bulkRun.id, run.id));
  return { did: items.length, finished, changed: items.length > 0, ...(finished ? { said: await sayUndo(tx, run) } : {}) };
}

/** Puts a listing back as it was; why it could not when it could not. What somebody changed since in other fields stays. */
async function undoOne(tx: Db, item: typeof bulkItem.$inferSelect, action: BulkAction, change: Change): Promise<string | undefined> {
  const { before } = item;
  const [row] = await tx.select().from(listing).where(eq(listing.id, item.listingId)).for('update');
  if (!before || !row) return w.itWasRemovedMeanwhile();
  try {
    return await tx.transaction((inner) => {
      const own = inner;
      return row.revision === item.revision ? putBack(own, row, before, change) : takeOut(own, row, before, action, change);
    });
  } catch (error) {
    if (error instanceof Problem) return error.title;
    throw error;
  }
}

/** Nobody touched it since: it stands again as it stood, for editors and for readers. */
async function putBack(tx: Db, row: Listing, before: BulkBefore, change: Change): Promise<undefined> {
  if (!before.published) {
    const stage = before.stage === 'published' || before.stage === 'scheduled' ? 'draft' : before.stage;
    const moved = row.stage === before.stage ? row : await moveToStage(tx, row.id, stage, change);
    const saved = await saveListing(tx, { id: row.id, content: before.working, revision: moved.revision }, change);
    await giveTimes(tx, saved, before, change);
    return undefined;
  }
  // What readers saw goes out again, then what waited waits again.
  const saved = await saveListing(tx, { id: row.id, content: before.published, revision: row.revision }, change);
  const out = await publishListing(tx, row.id, saved.revision, change);
  const last = before.edited ? await saveListing(tx, { id: row.id, content: before.working, revision: out.revision }, change) : out;
  await giveTimes(tx, last, before, change);
  return undefined;
}

/** Its times again, as far as they are still to come. */
async function giveTimes(tx: Db, row: Listing, { stage, times }: BulkBefore, change: Change): Promise<void> {
  if (!times) return;
  const coming = (text: string | null): Date | null => (text && Date.parse(text) > change.now.ms ? new Date(text) : null);
  const [publishAt, withdrawAt] = [coming(times.publishAt), coming(times.withdrawAt)];
  if (!publishAt && (!withdrawAt || stage === 'scheduled')) return;
  await changeStage(tx, row, { stage, publishAt, withdrawAt, scheduledBy: times.by }, change, { code: 'timesAgain' });
}

/** Somebody worked on it since: only what the action did is taken out, where nobody changed that too. */
async function takeOut(tx: Db, row: Listing, before: BulkBefore, action: BulkAction, change: Change): Promise<string | undefined> {
  const to = staged(before.stage, before.edited, action.kind);
  if (to) return w.somebodyWorkedOnIt();
  const after = applied(before.working, action);
  if (typeof after === 'string' || row.stage !== before.stage) return w.somebodyWorkedOnIt();
  const { merged, collisions } = mergeContents(after, before.working, row.working);
  if (collisions.length) return w.theSameWasChanged();
  const live = row.stage === 'published' && !row.edited;
  const saved = await saveListing(tx, { id: row.id, content: merged, revision: row.revision }, change);
  if (live) await publishListing(tx, row.id, saved.revision, change);
  return undefined;
}

async function countStates(db: Db, run: Run): Promise<Map<string, number>> {
  const rows = await db
    .select({ state: bulkItem.state, n: sql<number>`count(*)::int` })
    .from(bulkItem)
    .where(eq(bulkItem.runId, run.id))
    .groupBy(bulkItem.state);
  return new Map(rows.map((r) => [r.state, r.n]));
}

async function sayRun(db: Db, run: Run): Promise<string> {
  const counts = await countStates(db, run);
  const stayed = counts.get('stayed') ?? 0;
  return `${w.listing({ done: counts.get('done') ?? 0 })} ${BULK_WORDS[run.action.do.kind].done}${stayed ? w.stayedAsItWas({ stayed }) : ''}.`;
}

async function sayUndo(db: Db, run: Run): Promise<string> {
  const counts = await countStates(db, run);
  const left = counts.get('left') ?? 0;
  return w.listingPutBack({ undone: counts.get('undone') ?? 0, left: left ? w.couldNotBe({ left }) : '' });
}

/** What a run did, and which listings stayed and why. */
export interface RunReport {
  run: Run;
  done: number;
  undone: number;
  /** by reason, the commonest first */
  stayed: Stays[];
}

/** So many titles stand for each reason in a report. */
const MOST_NAMED = 20;

/** What came of an action, with those that stayed or could not be put back. */
export async function readReport(db: Db, id: string, actor: Actor): Promise<RunReport> {
  const run = await ownRun(db, id, actor);
  const counts = await countStates(db, run);
  const titles = sql`coalesce(nullif(${listing.title}, ''), 'one that is gone')`;
  const stayed = await db
    .select({
      reason: bulkItem.reason,
      count: sql<number>`count(*)::int`,
      titles: sql<string[]>`(array_agg(${titles} order by ${bulkItem.n}))[1:${sql.raw(String(MOST_NAMED))}]`,
    })
    .from(bulkItem)
    .leftJoin(listing, eq(listing.id, bulkItem.listingId))
    .where(and(eq(bulkItem.runId, id), inArray(bulkItem.state, ['stayed', 'left'])))
    .groupBy(bulkItem.reason)
    .orderBy(desc(sql`count(*)`), sql`min(${bulkItem.n})`)
    .limit(50);
  return {
    run,
    done: counts.get('done') ?? 0,
    undone: counts.get('undone') ?? 0,
    stayed,
  };
}

/** Begins to take an action back. */
export async function startUndo(tx: Db, id: string, change: Change): Promise<string> {
  const [locked] = await tx.select({ id: bulkRun.id }).from(bulkRun).where(eq(bulkRun.id, id)).for('update');
  if (!locked) throw notFound('action');
  const run = await ownRun(tx, id, change.by);
  if (run.undoneAt) throw new Problem('conflict', w.thatWasTakenBack());
  const counts = await countStates(tx, run);
  if (counts.get('')) throw new Problem('conflict', w.itIsStillUnder());
  const job = await startJob(tx, {
    kind: 'bulk-undo',
    total: counts.get('done') ?? 0,
    input: { runId: id },
    by: change.by,
    now: change.now,
  });
  await tx.update(bulkRun).set({ jobId: job }).where(eq(bulkRun.id, id));
  return job;
}
