/**
 * Work in the background, in short pieces: each is a transaction of its own that also writes how far the job is, so that a
 * crash loses nothing and a restart goes on. Between two pieces everybody else has their turn at the database.
 */
import { asc, eq, inArray, sql } from 'drizzle-orm';
import { type Actor, editsAll } from '../accounts/roles';
import type { Db } from '../db/client';
import { log } from '../health/log';
import type { Tasks } from '../health/tasks';
import { newId } from '../db/ids';
import { job, type JobInput, type JobKind } from '../db/schema';
import { notFound, Problem } from '../problem';
import type { YearMarks } from '../holidays/year-marks';
import type { ReferenceData } from '../reference/read';
import type { Now } from '../site/clock';
import type { ContentCache } from '../site/content-cache';
import type { SiteSettings } from '../site/settings';
import type { TaskWorker } from '../worker/task-worker';
import { serverWords } from '@/words/desk';

const w = serverWords.jobsRunner;

/** A job's row. */
export type Job = typeof job.$inferSelect;

/** What a piece of work may know of the site. */
export interface JobContext {
  settings: SiteSettings;
  now: Now;
  reference: ReferenceData;
  worker: TaskWorker;
  yearMarks: YearMarks;
  /** what is known of the content */
  cache: ContentCache;
  /** what was read once for all pieces of a job */
  memo: Map<string, unknown>;
}

/** Reads something at a job's first piece and keeps it for the others. */
export async function once<T>({ memo }: JobContext, name: string, read: () => Promise<T>): Promise<T> {
  if (!memo.has(name)) memo.set(name, await read());
  return memo.get(name) as T;
}

/** What a piece did. */
export interface Step {
  did: number;
  finished: boolean;
  input?: JobInput;
  /** from now on what it made is seen */
  show?: true;
  /** readers or editors see something else than before */
  changed?: boolean;
  said?: string;
  /** how many times as long as the piece took the others have the database to themselves before the next */
  rest?: number;
}

/** What a kind of job does, piece by piece. */
export interface Work {
  /** one piece; `size` is about how many it may take on */
  step: (tx: Db, job: Job, size: number, context: JobContext) => Promise<Step>;
  /** the same, taking back what was done */
  undo?: (tx: Db, job: Job, size: number, context: JobContext) => Promise<Step>;
}

/** What the runner needs of a site. */
export interface JobSite {
  db: Db;
  jobContext: () => Promise<Omit<JobContext, 'memo'>>;
  contentChanged: () => Promise<void>;
  /** where failures of the site’s own are seen */
  tasks?: Tasks;
  /** may something be written? Jobs wait until then */
  hasRoom?: () => boolean;
}

/**
 * A piece aims at this many milliseconds of its own work; it should stay under 50. Its questions cost as much for one listing as for
 * a few, so that smaller pieces than these only take longer in all.
 */
const AIM_MS = 40;
const LEAST_SIZE = 12;
const MOST_SIZE = 500;

/** How a piece went: how long its work took, before it was synced to disk. */
interface Outcome {
  over: boolean;
  changed: boolean;
  ms: number;
  rest?: number | undefined;
}

/** After the database itself failed, jobs are taken up again so much later. */
const AGAIN_MS = 5_000;

/** A job to be started. */
export interface StartInput {
  kind: JobKind;
  total: number;
  input: Omit<JobInput, 'format'>;
  hidden?: boolean;
  by: Actor;
  now: Now;
}

/** Writes a job down; it begins when the transaction is over and the runner is woken. */
export async function startJob(tx: Db, { kind, total, input, hidden = false, by, now }: StartInput): Promise<string> {
  const id = newId();
  const at = new Date(now.ms);
  await tx.insert(job).values({
    id,
    kind,
    state: 'running',
    hidden,
    total,
    input: { format: 1, ...input },
    byId: by.id,
    byName: by.name,
    startedAt: at,
    changedAt: at,
  });
  return id;
}

/** How a job stands. Throws a Problem when there is none. */
export async function readJob(db: Db, id: string): Promise<Job> {
  const [row] = await db.select().from(job).where(eq(job.id, id));
  if (!row) throw notFound('job');
  return row;
}

/** What it did so far is taken back; a job that is over stays as it is. Contributors cancel their own; to them others' are not there. */
export async function cancelJob(tx: Db, id: string, by: Actor): Promise<void> {
  const [row] = await tx.select().from(job).where(eq(job.id, id)).for('update');
  if (!row || (!editsAll(by) && row.byId !== by.id)) throw notFound('job');
  if (row.state !== 'running') throw new Problem('conflict', w.itIsOverAlready());
  await tx.update(job).set({ state: 'cancelling' }).where(eq(job.id, id));
}

/** Works on the jobs that are under way, one after the other, piece by piece. */
export class JobRunner {
  #running: Promise<void> | undefined;
  #again = false;
  #stopped = false;
  #ended = new Set<() => void>();

  constructor(
    private readonly site: JobSite,
    private readonly works: Record<JobKind, Work>,
  ) {}

  /** Looks for jobs that are under way and works on them, one after the other. */
  wake(): void {
    if (this.#stopped) return;
    this.#again = true;
    this.#running ??= this.#runAll()
      .then(() => this.site.tasks?.done('jobs'))
      .catch((error: unknown) => {
        // What a job did so far is written down: it goes on when the database answers again.
        this.site.tasks?.failed('jobs', error);
        setTimeout(() => this.wake(), AGAIN_MS).unref();
      })
      .finally(() => {
        this.#running = undefined;
        // Somebody may have asked while this run was ending.
        if (this.#again) this.wake();
      });
  }

  /** Waits until a job is over, or for so many milliseconds; says how it stands. */
  async wait(id: string, ms: number): Promise<Job> {
    const until = Date.now() + ms;
    while (true) {
      const row = await readJob(this.site.db, id);
      const left = until - Date.now();
      if ((row.state !== 'running' && row.state !== 'cancelling') || left <= 0) return row;
      this.wake();
      await new Promise<void>((resolve) => {
        const timer = setTimeout(done, Math.min(left, 250));
        const ended = this.#ended;
        function done(): void {
          clearTimeout(timer);
          ended.delete(done);
          resolve();
        }
        ended.add(done);
      });
    }
  }

  /** Ends after the piece that is under way. */
  async stop(): Promise<void> {
    this.#stopped = true;
    await this.#running;
  }

  /** May something be written? Else what is under way is taken up again later. */
  #hasRoom(): boolean {
    const has = this.site.hasRoom?.() ?? true;
    if (!has) setTimeout(() => this.wake(), AGAIN_MS).unref();
    return has;
  }

  async #runAll(): Promise<void> {
    while (this.#again && !this.#stopped) {
      this.#again = false;
      if (!this.#hasRoom()) return;
      const open = await this.site.db
        .select({ id: job.id })
        .from(job)
        .where(inArray(job.state, ['running', 'cancelling']))
        .orderBy(asc(job.startedAt), asc(job.id));
      for (const { id } of open) {
        await this.#runOne(id);
        for (const tell of [...this.#ended]) tell();
      }
    }
  }

  async #runOne(id: string): Promise<void> {
    let size = LEAST_SIZE;
    const memo = new Map<string, unknown>();
    while (!this.#stopped) {
      if (!this.#hasRoom()) return;
      const around = { ...(await this.site.jobContext()), memo };
      const outcome = await this.#piece(id, size, around).catch((error: unknown) => this.#fail(id, error));
      if (outcome.changed) await this.site.contentChanged();
      if (outcome.over) return;
      size = Math.max(LEAST_SIZE, Math.min(MOST_SIZE, size * 2, Math.round((size * AIM_MS) / Math.max(1, outcome.ms))));
      // Whoever waits for the database goes first.
      await new Promise((resolve) => setTimeout(resolve, Math.max(1, outcome.ms * (outcome.rest ?? 0))));
    }
  }

  #piece(id: string, size: number, context: JobContext): Promise<Outcome> {
    return this.site.db.transaction(async (tx) => {
      // Where several processes share a database, one of them works on a job.
      const [row] = await tx.select().from(job).where(eq(job.id, id)).for('update', { skipLocked: true });
      if (!row || (row.state !== 'running' && row.state !== 'cancelling')) return { over: true, changed: false, ms: 0 };
      const start = performance.now();
      const done = await this.#step(tx, row, size, context);
      // Nobody was told of a piece: after a crash the job goes on from the last that reached the disk. The end waits for the disk.
      if (!done.finished && !done.show) await tx.execute(sql`set local synchronous_commit = off`);
      await tx
        .update(job)
        .set(noted(row, done, context.now))
        .where(eq(job.id, id));
      return { over: done.finished, changed: done.show === true || done.changed === true, ms: performance.now() - start, rest: done.rest };
    });
  }

  #step(tx: Db, row: Job, size: number, context: JobContext): Promise<Step> {
    const { step, undo } = this.works[row.kind];
    if (row.state === 'running') return step(tx, row, size, context);
    return undo ? undo(tx, row, size, context) : Promise.resolve({ did: 0, finished: true });
  }

  /** A piece that failed is taken back by its transaction; so is, then, what the job did before. */
  async #fail(id: string, error: unknown): Promise<Outcome> {
    const said = error instanceof Problem ? error.title : w.somethingFailedOnOur();
    if (!(error instanceof Problem)) log.error({ job: id, err: error }, 'A job failed');
    const row = await readJob(this.site.db, id);
    const undoes = row.state === 'running' && this.works[row.kind].undo !== undefined;
    await this.site.db
      .update(job)
      .set({ said, state: undoes ? 'cancelling' : 'failed' })
      .where(eq(job.id, id));
    return { over: !undoes, changed: false, ms: 0 };
  }
}

/** What is written down of a piece. A job that failed and was taken back has failed. */
function noted(row: Job, done: Step, now: Now): Partial<Job> {
  const back = row.state === 'cancelling';
  const over: Job['state'] = back ? (row.said ? 'failed' : 'cancelled') : 'done';
  return {
    done: Math.max(0, row.done + (back ? -done.did : done.did)),
    changedAt: new Date(now.ms),
    ...(done.input ? { input: done.input } : {}),
    ...(done.said === undefined ? {} : { said: done.said }),
    ...(done.show || done.finished ? { hidden: false } : {}),
    ...(done.finished ? { state: over } : {}),
  };
}
