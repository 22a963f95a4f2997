/** The thread itself: one task at a time, its parts sent as they come. */
import { parentPort } from 'node:worker_threads';
import { perform, type Task } from './tasks';

parentPort?.on('message', ({ id, task }: { id: number; task: Task }) => {
  try {
    for (const part of perform(task)) parentPort?.postMessage({ id, part });
    parentPort?.postMessage({ id, done: true });
  } catch (error) {
    parentPort?.postMessage({ id, failure: error instanceof Error ? error.message : String(error) });
  }
});
