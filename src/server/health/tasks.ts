/** What the server does by itself, again and again: when each last went well, and why it last did not. */
import type { Logger } from 'pino';
import { type LoggedError, loggedError } from './log';
import { serverWords } from '@/words/desk';

const w = serverWords.healthTasks;

/** Each of them as a coordinator reads it. */
export const TASK_WORDS = {
  mail: w.sendingMail(),
  times: w.scheduledPublishingAndWithdrawing(),
  validation: w.proofChecksOfRecent(),
  horizon: w.extendingOpenEndedListings(),
  chart: w.redrawingTheMap(),
  tidy: w.clearingOldItemsFrom(),
  notices: w.changesFromOtherServers(),
  jobs: w.backgroundJobs(),
  finder: w.findingDatesForReaders(),
  statistics: w.lookingAfterTheDatabase(),
  backup: w.makingBackups(),
  'plain-files': w.writingPlainFiles(),
} as const;
/** What the server does by itself. */
export type Task = keyof typeof TASK_WORDS;

/** How one of them went. */
export interface TaskHealth {
  task: Task;
  /** when it last went well; null = not yet since the start */
  doneAt: Date | null;
  failedAt: Date | null;
  /** why it failed last; empty = it never did since the start */
  failure: string;
  /** how many times in a row it failed; 0 = it went well last */
  inARow: number;
}

/** Remembers how each of them went. */
export class Tasks {
  readonly #tasks = new Map<Task, TaskHealth>();

  constructor(
    private readonly log: Pick<Logger, 'error' | 'info'>,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  /** Does a piece of work whose failure nobody waits for: it is logged and kept for the health page, and the next round tries again. */
  async attempt(task: Task, work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
      this.done(task);
    } catch (error) {
      this.failed(task, error);
    }
  }

  done(task: Task): void {
    const before = this.#of(task);
    if (before.inARow) this.log.info({ task }, `${TASK_WORDS[task]}: went well again`);
    this.#tasks.set(task, { ...before, doneAt: this.clock(), inARow: 0 });
  }

  failed(task: Task, error: unknown): void {
    const before = this.#of(task);
    const { type, message, code }: LoggedError = loggedError(error);
    this.log.error({ task, err: error }, `${TASK_WORDS[task]}: failed`);
    this.#tasks.set(task, {
      ...before,
      failedAt: this.clock(),
      failure: [type === 'Error' ? '' : type, message, code].filter(Boolean).join(': '),
      inARow: before.inARow + 1,
    });
  }

  /** Every task that was tried since the start, those that fail now first. */
  report(): TaskHealth[] {
    return [...this.#tasks.values()].sort((a, b) => Number(b.inARow > 0) - Number(a.inARow > 0));
  }

  #of(task: Task): TaskHealth {
    return this.#tasks.get(task) ?? { task, doneAt: null, failedAt: null, failure: '', inARow: 0 };
  }
}
