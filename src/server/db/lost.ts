/** What goes wrong with a database server that is not ours to mend: connections that break, and transactions that met another. */

/** SQLSTATE of connections that broke and servers that stop or start (PostgreSQL, appendix A: classes 08 and 57). */
const LOST_STATES = /^(08|57P0[123])/;
/** What the system says of a connection that cannot be had. */
const LOST_CODES = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EHOSTUNREACH', 'EAI_AGAIN']);
/** The driver has no codes for these. */
const LOST_WORDS =
  /Connection terminated|connection timeout|timeout exceeded when trying to connect|connection error and is not queryable|Client was closed/i;
/** Another transaction came first: a unique name, a serialization failure, a deadlock. The same once more may well go. */
const AGAIN_STATES = new Set(['23505', '40001', '40P01']);

interface Cause {
  code?: unknown;
  message?: unknown;
  name?: unknown;
}
/** An error and what caused it, from the outside in. */
function* causes(error: unknown): Generator<Cause> {
  for (let at = error, depth = 0; at instanceof Error && depth < 5; at = at.cause, depth++) yield at;
}

/** Did whoever asked go away before all of their request had come (Node's word for it)? Nobody reads the answer then. */
export const isAskerGone = (error: unknown): boolean =>
  error instanceof Error && error.message === 'aborted' && (error as { code?: unknown }).code === 'ECONNRESET';

/** Did the connection to the database break, or could none be had? */
export function isConnectionLost(error: unknown): boolean {
  if (isAskerGone(error)) return false;
  for (const { code, message, name } of causes(error)) {
    if (name === 'UnavailableError') return true;
    if (typeof code === 'string' && (LOST_STATES.test(code) || LOST_CODES.has(code))) return true;
    if (typeof message === 'string' && LOST_WORDS.test(message)) return true;
  }
  return false;
}

/** Was the disk full (SQLSTATE 53100)? */
export function isDiskFull(error: unknown): boolean {
  for (const { code } of causes(error)) if (code === '53100' || code === 'ENOSPC') return true;
  return false;
}

/** Did another transaction come first, so that the same once more may go? */
export function cameSecond(error: unknown): boolean {
  for (const { code } of causes(error)) if (typeof code === 'string' && AGAIN_STATES.has(code)) return true;
  return false;
}

/** So often a transaction is tried in all. */
export const MOST_TRIES = 6;
/** The pause before the next try, in milliseconds, is twice the one before, and up to as much again by chance. */
const FIRST_PAUSE = 40;

/**
 * Runs a transaction, and again from its beginning where another came first or the connection broke before it was to be committed. Where it
 * broke while committing, nobody knows whether it was: that is thrown. `transact` runs what it is given in a transaction of its own.
 */
export async function tryAgain<T, Tx>(
  transact: (run: (tx: Tx) => Promise<T>) => Promise<T>,
  run: (tx: Tx) => Promise<T>,
  pause: (ms: number) => Promise<void> = (ms) => new Promise((done) => setTimeout(done, ms)),
): Promise<T> {
  for (let tries = 1; ; tries++) {
    let committing = false;
    try {
      return await transact(async (tx) => {
        const value = await run(tx);
        committing = true;
        return value;
      });
    } catch (error) {
      const again = cameSecond(error) || (isConnectionLost(error) && !committing);
      if (!again || tries >= MOST_TRIES) throw error;
      await pause(FIRST_PAUSE * 2 ** (tries - 1) * (1 + Math.random()));
    }
  }
}
