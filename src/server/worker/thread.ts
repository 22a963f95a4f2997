/** The thread or process itself: one task at a time, its parts sent as they come. */
import { parentPort } from 'node:worker_threads';
import { perform, type Task } from './tasks';

interface Asked {
  id: number;
  task: Task;
}

/** Says something to whoever asks. */
const say = (message: object): void => {
  if (parentPort) parentPort.postMessage(message);
  // Whoever asked may have ended meanwhile; so does this process then.
  else process.send?.(message, () => undefined);
};

const waiting: Asked[] = [];
let busy = false;

async function work(): Promise<void> {
  if (busy) return;
  busy = true;
  for (let next = takeNext(); next; next = takeNext()) {
    const { id, task } = next;
    try {
      for await (const part of perform(task)) say({ id, part });
      say({ id, done: true });
    } catch (error) {
      say({ id, failure: error instanceof Error ? error.message : String(error) });
    }
  }
  busy = false;
}

/** A reader waits for a cut; whoever sends twenty pictures has a bar to look at. */
function takeNext(): Asked | undefined {
  const cut = waiting.findIndex(({ task }) => task.task === 'cut-picture');
  return waiting.splice(Math.max(0, cut), 1)[0];
}

function take(asked: Asked): void {
  waiting.push(asked);
  void work();
}

if (parentPort) parentPort.on('message', take);
else {
  process.on('message', take);
  // It ends with the site that started it, and not before: a signal to both is answered by that one.
  process.on('disconnect', () => process.exit(0));
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => undefined);
}
