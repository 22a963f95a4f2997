/** A name for each request: it goes out with the answer and stands in every line that the log has of it. Nothing of whoever asks is in it. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { randomBytes } from 'node:crypto';

const current = new AsyncLocalStorage<string>();

/** The request that is being answered; undefined for what the server does by itself. */
export const requestId = (): string | undefined => current.getStore();

/** Answers a request under a name of its own; within another's it keeps that one. */
export function withRequestId<T>(answer: (id: string) => Promise<T>): Promise<T> {
  const own = requestId();
  if (own) return answer(own);
  const id = randomBytes(6).toString('hex');
  return current.run(id, () => answer(id));
}
