/** Any error as a Problem: what is ours becomes a number to quote, and a line in the log. */
import { randomBytes } from 'node:crypto';
import { DeadlineError } from './db/embedded';
import { BrokenFolderError } from './db/client';
import { FolderInUseError } from './db/lock';
import { isAskerGone, isConnectionLost, isDiskFull } from './db/lost';
import { log } from './health/log';
import { requestId } from './health/request-id';
import { invalid, Problem, problemIn } from './problem';
import { serverWords } from '@/words/desk';

const w = serverWords.explain;

/** What a reader may know of any error: a Problem as it is, anything else as a number to quote. */
export function explain(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (isAskerGone(error)) return new Problem('malformed', w.endedEarly());
  const busy = error instanceof DeadlineError || (error as { cause?: unknown })?.cause instanceof DeadlineError;
  if (busy) return new Problem('busy', w.thatTookTooLong());
  if (isDiskFull(error)) {
    log.error({ err: error }, 'The disk of the database is full');
    return problemIn('busy', (words) => words.wrong.full());
  }
  if (isConnectionLost(error)) {
    log.error({ err: error }, 'The database could not be reached');
    return problemIn('busy', (words) => words.wrong.unreachable());
  }
  if (error instanceof FolderInUseError || error instanceof BrokenFolderError) return new Problem('conflict', error.message);
  const gone = goneReference(error);
  if (gone) return gone;
  // The number that somebody quotes is the one that the answer and the log have.
  const reference = requestId() ?? randomBytes(4).toString('hex');
  log.error({ reference, err: error }, 'A request failed');
  return new Problem('failed', w.somethingFailedOnOur({ reference }));
}

/** A listing that points to what somebody removed meanwhile: the database knows, the editor is told which. */
function goneReference(error: unknown): Problem | undefined {
  const cause = (error as { cause?: { code?: string; constraint?: string } })?.cause;
  if (cause?.code !== '23503') return undefined;
  const kind = /(venue|organizer|category|picture)_id/.exec(cause.constraint ?? '')?.[1];
  if (!kind) return undefined;
  const field = kind === 'picture' ? 'pictureId' : `${kind}Ids`;
  return invalid(field, w.aChosenWasRemoved({ kind }));
}
