import { afterEach, describe, expect, it, vi } from 'vitest';
import { DatabaseError, UnavailableError } from './db/embedded';
import { isConnectionLost } from './db/lost';
import { explain } from './explain';
import { log } from './health/log';

const coded = (message: string, code: string, cause?: Error): Error => Object.assign(new Error(message, cause && { cause }), { code });
const error = vi.spyOn(log, 'error').mockImplementation(() => undefined);
afterEach(() => error.mockClear());

describe('what a reader is told of an error', () => {
  it('whose reader went away is nothing, and is no line in the log', () => {
    expect(explain(coded('aborted', 'ECONNRESET')).kind).toBe('malformed');
    expect(error).not.toHaveBeenCalled();
  });
  it('of a database that cannot be reached, or has no room, says to come back', () => {
    for (const lost of [
      coded('read ECONNRESET', 'ECONNRESET'),
      new Error('Failed query: begin', { cause: coded('terminating connection due to administrator command', '57P01') }),
      new Error('Failed query: rollback', { cause: new Error('Client has encountered a connection error and is not queryable') }),
      new Error('a query failed', { cause: new UnavailableError('the database thread ended') }),
    ]) {
      expect(isConnectionLost(lost), lost.message).toBe(true);
      expect(explain(lost).kind).toBe('busy');
    }
    const full = new Error('a query failed', { cause: new DatabaseError({ code: '53100', message: 'No space left on device' }) });
    expect(explain(full).title).toContain('no room');
    expect(error).toHaveBeenCalledTimes(5);
  });
  it('of ours is a number to quote, and never what the error says', () => {
    const told = explain(new TypeError('secret of 10.0.0.1'));
    expect([told.kind, /[0-9a-f]{8}/.test(told.title), told.title.includes('secret')]).toEqual(['failed', true, false]);
  });
});
