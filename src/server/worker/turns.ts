/** Long work on the thread that also answers readers, done in turns with them. */

/** So long at a time, in milliseconds, before others have their turn. */
const TURN_MS = 15;

/** What is made of each item, in order; whoever else waits for this thread goes between them. */
export async function inTurns<T, R>(items: Iterable<T>, make: (item: T) => R): Promise<R[]> {
  const made: R[] = [];
  let began = performance.now();
  for (const item of items) {
    made.push(make(item));
    if (performance.now() - began < TURN_MS) continue;
    await new Promise((resolve) => setImmediate(resolve));
    began = performance.now();
  }
  return made;
}

/** Goes through the steps of something long, in turns with whoever else waits for this thread; what it comes to. */
export async function inSteps<R>(steps: Generator<unknown, R, void>): Promise<R> {
  let began = performance.now();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - began < TURN_MS) continue;
    await new Promise((resolve) => setImmediate(resolve));
    began = performance.now();
  }
}
