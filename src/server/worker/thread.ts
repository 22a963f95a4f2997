/** The thread itself: one task at a time, its parts sent as they come. */
import { parentPort } from 'node:worker_threads';
import { perform, type Task } from './tasks';

interface Asked {
  id: number;
  task: Task;
}

const waiting: Asked[] = [];
let busy = false;

async function work(): Promise<void> {
  if (busy) return;
  busy = true;
  for (let next = takeNext(); next; next = takeNext()) {
    const { id, task } = next;
    try {
      for await (const part of perform(task)) parentPort?.postMessage({ id, part });
      parentPort?.postMessage({ id, done: true });
    } catch (error) {
      parentPort?.postMessage({ id, failure: error instanceof Error ? error.message : String(error) });
    }
  }
  busy = false;
}

/** A reader waits for a cut; whoever sends twenty pictures has a bar to look at. */
function takeNext(): Asked | undefined {
  const cut = waiting.findIndex(({ task }) => task.task === 'cut-picture');
  return waiting.splice(Math.max(0, cut), 1)[0];
}

parentPort?.on('message', (asked: Asked) => {
  waiting.push(asked);
  void work();
});
