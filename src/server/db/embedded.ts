/**
 * The embedded database behind a worker thread: the part of PGlite's interface that Drizzle's driver calls, with a
 * deadline for each query. A query past its deadline ends the thread; a new one opens the folder again, and nothing
 * that was acknowledged is lost, since PostgreSQL recovers from its log.
 */
import { AsyncLocalStorage } from 'node:async_hooks';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { copyFolder } from './copy-folder';

interface QueryOptions {
  rowMode?: 'array' | 'object';
}
interface Results {
  rows: unknown[];
  fields: unknown[];
  affectedRows?: number;
}
interface Answer {
  id: number;
  value?: unknown;
  failure?: Record<string, string | undefined>;
}
interface Waiting {
  resolve: (value: unknown) => void;
  reject: (error: Error) => void;
  timer: NodeJS.Timeout;
}

/** What PostgreSQL refused; its fields are those of the protocol. Messages may hold values: not for readers. */
export class DatabaseError extends Error {
  override name = 'DatabaseError';
  code?: string;
  constraint?: string;
  constructor(failure: Record<string, string | undefined>) {
    super(failure.message ?? 'the database refused');
    Object.assign(this, failure);
  }
}

/** A query that took too long and was stopped. */
export class DeadlineError extends Error {
  override name = 'DeadlineError';
}

/** The database cannot be had at the moment: its thread ended, or could not be started. It is tried again by later questions. */
export class UnavailableError extends Error {
  override name = 'UnavailableError';
}

/** After the database could not be opened, questions fail at once for so long before it is tried again, in milliseconds. */
const OPEN_AGAIN_MS = 1_000;
/** After these the database has ended, whatever it still says (PostgreSQL's severities). */
const ENDED = new Set(['PANIC', 'FATAL']);

/** A query of the embedded database that takes longer is ended with its thread. */
export const QUERY_DEADLINE_MS = 30_000;

/** A transaction that asks nothing for so long waits for somebody who waits for it, and with it everybody else: it is given up. */
const IDLE_DEADLINE_MS = 120_000;

/** PGlite in a worker thread: one query at a time, each with a deadline, opened again after a failure. */
export class EmbeddedDatabase {
  #worker: Worker | undefined;
  #opening: Promise<void> | undefined;
  #next = 1;
  #waiting = new Map<number, Waiting>();
  #turn: Promise<unknown> = Promise.resolve();
  #inside = new AsyncLocalStorage<true>();
  #closed = false;
  #failed: { at: number; error: Error } | undefined;

  constructor(
    private readonly folder: string,
    private readonly root: string,
    private readonly deadline = QUERY_DEADLINE_MS,
    private readonly idleDeadline = IDLE_DEADLINE_MS,
  ) {}

  async open(): Promise<void> {
    await this.#ready();
  }

  #ready(): Promise<void> {
    if (this.#failed && performance.now() - this.#failed.at < OPEN_AGAIN_MS) return Promise.reject(this.#failed.error);
    this.#opening ??= new Promise((resolve, reject) => {
      const worker = new Worker(path.join(this.root, 'src/server/db/pglite-worker.mjs'), { workerData: { folder: this.folder } });
      this.#worker = worker;
      const fail = (error: Error): void => {
        const lost = new UnavailableError(`the database could not be opened: ${error.message}`, { cause: error });
        this.#failed = { at: performance.now(), error: lost };
        reject(lost);
        this.#end(worker, lost);
      };
      worker.on('message', (answer: Answer & { ready?: boolean }) => {
        if (answer.ready === true) {
          this.#failed = undefined;
          resolve();
        } else if (answer.ready === false) fail(new DatabaseError(answer.failure ?? {}));
        else this.#settle(worker, answer);
      });
      worker.on('error', fail);
      worker.on('exit', () => {
        const lost = new UnavailableError('the database thread ended');
        reject(lost);
        this.#end(worker, lost);
      });
    });
    return this.#opening;
  }

  /** A thread is given up: everything asked of it fails, and a later question opens a new one. */
  #end(worker: Worker, error: Error): void {
    if (this.#worker !== worker) return;
    this.#lose(error);
    void worker.terminate();
  }

  #settle(worker: Worker, { id, value, failure }: Answer): void {
    const waiting = this.#waiting.get(id);
    if (!waiting) return;
    this.#waiting.delete(id);
    clearTimeout(waiting.timer);
    if (failure) waiting.reject(new DatabaseError(failure));
    else waiting.resolve(value);
    // It says so once and then no more: without its log it cannot go on, and recovers when it is opened again.
    if (ENDED.has(failure?.severity ?? '')) this.#end(worker, new UnavailableError(`the database ended: ${failure?.message}`));
  }

  /** The thread is gone: everything asked of it fails, and the next question opens a new one. */
  #lose(error: Error): void {
    this.#worker = undefined;
    this.#opening = undefined;
    for (const waiting of this.#waiting.values()) {
      clearTimeout(waiting.timer);
      waiting.reject(error);
    }
    this.#waiting.clear();
  }

  async #ask(message: Record<string, unknown>, deadline = this.deadline): Promise<unknown> {
    if (this.#closed) throw new Error('the database is closed');
    await this.#ready();
    const id = this.#next++;
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        if (this.#worker) this.#end(this.#worker, new DeadlineError(`a query took longer than ${deadline / 1000} s and was stopped`));
      }, deadline);
      this.#waiting.set(id, { resolve, reject, timer });
      this.#worker?.postMessage({ id, ...message });
    });
  }

  /** One after the other: the embedded database has one connection. */
  #inTurn<T>(run: () => Promise<T>): Promise<T> {
    if (this.#inside.getStore()) {
      return Promise.reject(new Error('the database was asked outside of the transaction that is under way: pass tx on'));
    }
    const result = this.#turn.then(run, run);
    this.#turn = result.catch(() => undefined);
    return result;
  }

  query(text: string, params: unknown[] = [], options: QueryOptions = {}): Promise<Results> {
    return this.#inTurn(() => this.#query(text, params, options));
  }

  #query(text: string, params: unknown[] = [], { rowMode }: QueryOptions = {}): Promise<Results> {
    return this.#ask({ action: 'query', text, params, rowMode }) as Promise<Results>;
  }

  exec(text: string): Promise<unknown> {
    return this.#inTurn(() => this.#ask({ action: 'exec', text }));
  }

  transaction<T>(run: (tx: Pick<EmbeddedDatabase, 'query' | 'exec'>) => Promise<T>): Promise<T> {
    return this.#inTurn(() =>
      this.#inside.run(true, async () => {
        let thread: Worker | undefined;
        // A thread that was opened meanwhile knows nothing of this transaction: it would keep each part by itself, or commit nothing.
        const idle = new IdleWatch(this.idleDeadline);
        const bound = <R>(ask: () => Promise<R>): Promise<R> => {
          if (idle.over) return Promise.reject(new UnavailableError('the transaction is over'));
          return thread && this.#worker !== thread
            ? Promise.reject(new UnavailableError('the database was opened anew during a transaction'))
            : idle.during(ask);
        };
        const tx = {
          query: (text: string, params?: unknown[], options?: QueryOptions) => bound(() => this.#query(text, params, options)),
          exec: (text: string) => bound(() => this.#ask({ action: 'exec', text })),
        };
        await tx.exec('begin');
        thread = this.#worker;
        try {
          const value = await Promise.race([run(tx), idle.tooLong]);
          await tx.exec('commit');
          return value;
        } catch (error) {
          await tx.exec('rollback').catch(() => undefined);
          throw error;
        } finally {
          idle.end();
        }
      }),
    );
  }

  /**
   * Copies the database's files to a new folder, as they are at one moment. Questions wait meanwhile: for as long as the copy of the files takes,
   * not for what is read from it.
   */
  copyTo(folder: string): Promise<void> {
    return this.#inTurn(async () => {
      // What is in the log alone is in the tables' files then, so that the copy opens at once.
      await this.#ask({ action: 'exec', text: 'checkpoint' });
      await copyFolder(this.folder, folder);
    });
  }

  async close(): Promise<void> {
    if (this.#closed || !this.#worker) return;
    await this.#inTurn(() => this.#ask({ action: 'close' }));
    this.#closed = true;
    const worker = this.#worker;
    this.#worker = undefined;
    await worker?.terminate();
  }
}

/** Watches that a transaction goes on asking. */
class IdleWatch {
  over = false;
  /** fails when nothing was asked for too long */
  readonly tooLong: Promise<never>;
  #fail: (error: Error) => void = () => undefined;
  #timer: NodeJS.Timeout | undefined;
  #asking = 0;

  constructor(private readonly longest: number) {
    this.tooLong = new Promise((_, reject) => {
      this.#fail = reject;
    });
    // Whoever does not wait for it is told nothing.
    this.tooLong.catch(() => undefined);
  }

  /** While something is asked it is not idle: a query has a deadline of its own. */
  async during<R>(ask: () => Promise<R>): Promise<R> {
    clearTimeout(this.#timer);
    this.#asking++;
    try {
      return await ask();
    } finally {
      this.#asking--;
      if (!this.#asking && !this.over) this.#timer = setTimeout(() => this.#giveUp(), this.longest);
    }
  }

  #giveUp(): void {
    this.#fail(new DeadlineError(`a transaction asked nothing for ${this.longest / 1000} s and was given up`));
  }

  end(): void {
    this.over = true;
    clearTimeout(this.#timer);
  }
}
