/**
 * Asks the worker thread. Where none is built (in tests) the same is computed here. Parts come as they are made, so that no
 * answer is ever whole in memory on both sides.
 */
import { fork } from 'node:child_process';
import { setPriority } from 'node:os';
import { Worker } from 'node:worker_threads';
import { type Part, perform, type Task } from './tasks';

interface Message {
  id: number;
  part?: Part;
  done?: true;
  failure?: string;
}

interface Waiting {
  parts: Part[];
  ended: boolean;
  failure: Error | undefined;
  wake: () => void;
}

/** Where tasks are done, as far as it is spoken to. */
interface Helper {
  post: (message: object) => void;
  end: () => Promise<unknown>;
  onMessage: (take: (message: Message) => void) => void;
  onLost: (lose: (error: Error) => void) => void;
}

/** A thread of this process. */
function thread(file: string): Helper {
  const worker = new Worker(file);
  // A worker that has nothing to do keeps no process.
  worker.unref();
  return {
    post: (message) => worker.postMessage(message),
    end: () => worker.terminate(),
    onMessage: (take) => worker.on('message', take),
    onLost: (lose) => {
      worker.on('error', lose);
      worker.on('exit', () => lose(new Error('the worker thread ended')));
    },
  };
}

/** How far behind readers' pages a process of its own stands (nice). */
const BEHIND = 10;

/** A process of its own, which has processors when nobody else wants them: readers come before pictures. */
function apart(file: string): Helper {
  const child = fork(file, [], { serialization: 'advanced', execArgv: [] });
  try {
    if (child.pid !== undefined) setPriority(child.pid, BEHIND);
  } catch {
    // Where that is not allowed it works all the same.
  }
  child.unref();
  child.channel?.unref();
  return {
    post: (message) => void child.send(message),
    end: () =>
      new Promise((ended) => {
        child.once('exit', ended);
        child.kill('SIGKILL');
      }),
    onMessage: (take) => child.on('message', (message) => take(message as unknown as Message)),
    onLost: (lose) => {
      child.on('error', lose);
      child.on('exit', () => lose(new Error('the worker process ended')));
    },
  };
}

/** Hands tasks to a thread or a process, which is started at the first; without a built one they are computed here. */
export class TaskWorker {
  #worker: Helper | undefined;
  #next = 1;
  #waiting = new Map<number, Waiting>();

  /**
   * @param file the built worker; without one everything is computed in this thread
   * @param where a thread of this process, or a process of its own that stands behind this one
   */
  constructor(
    private readonly file: string | undefined,
    private readonly where: 'thread' | 'apart' = 'thread',
  ) {}

  /** The parts of a task's answer, in order. */
  async *run(task: Task): AsyncGenerator<Part> {
    if (!this.file) {
      for await (const part of perform(task)) yield part;
      return;
    }
    const id = this.#next++;
    const waiting: Waiting = { parts: [], ended: false, failure: undefined, wake: () => undefined };
    this.#waiting.set(id, waiting);
    try {
      this.#open(this.file).post({ id, task });
      while (true) {
        const part = waiting.parts.shift();
        if (part) yield part;
        else if (waiting.failure) throw waiting.failure;
        else if (waiting.ended) return;
        else
          await new Promise<void>((resolve) => {
            waiting.wake = resolve;
          });
      }
    } finally {
      this.#waiting.delete(id);
    }
  }

  #open(file: string): Helper {
    if (this.#worker) return this.#worker;
    const worker = this.where === 'apart' ? apart(file) : thread(file);
    worker.onMessage(({ id, part, done, failure }) => {
      const waiting = this.#waiting.get(id);
      if (!waiting) return;
      if (part) waiting.parts.push(part);
      if (done) waiting.ended = true;
      if (failure) waiting.failure = new Error(failure);
      waiting.wake();
    });
    const lose = (error: Error): void => {
      if (this.#worker === worker) this.#worker = undefined;
      for (const waiting of this.#waiting.values()) {
        waiting.failure ??= error;
        waiting.wake();
      }
    };
    worker.onLost(lose);
    this.#worker = worker;
    return worker;
  }

  async close(): Promise<void> {
    const worker = this.#worker;
    this.#worker = undefined;
    await worker?.end();
  }
}
