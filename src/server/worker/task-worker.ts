/**
 * Asks the worker thread. Where none is built (in tests) the same is computed here. Parts come as they are made, so that no
 * answer is ever whole in memory on both sides.
 */
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

/** Hands tasks to a thread, which is started at the first; without a built one they are computed here. */
export class TaskWorker {
  #worker: Worker | undefined;
  #next = 1;
  #waiting = new Map<number, Waiting>();

  /** @param file the built worker; without one everything is computed in this thread */
  constructor(private readonly file: string | undefined) {}

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
      this.#open(this.file).postMessage({ id, task });
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

  #open(file: string): Worker {
    if (this.#worker) return this.#worker;
    const worker = new Worker(file);
    // A worker that has nothing to do keeps no process.
    worker.unref();
    worker.on('message', ({ id, part, done, failure }: Message) => {
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
    worker.on('error', lose);
    worker.on('exit', () => lose(new Error('the worker thread ended')));
    this.#worker = worker;
    return worker;
  }

  async close(): Promise<void> {
    const worker = this.#worker;
    this.#worker = undefined;
    await worker?.terminate();
  }
}
