import { Writable } from 'node:stream';
import { eq } from 'drizzle-orm';
import { describe, expect, it, vi } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { job, outbox } from '../db/schema';
import { JobRunner } from '../jobs/runner';
import { WORKS } from '../jobs/works';
import { MAX_TRIES, queueMail } from '../mail/outbox';
import { loggedError, makeLog } from './log';
import { explain } from '../explain';
import { readHealth } from './read';
import { withRequestId } from './request-id';
import { Tasks } from './tasks';

function caught(): { to: Writable; text: () => string } {
  let text = '';
  const to = new Writable({
    write(chunk, _encoding, next) {
      text += String(chunk);
      next();
    },
  });
  return { to, text: () => text };
}

/** What the database library throws: the words hold what somebody typed. */
function failedQuery(): Error {
  const cause = Object.assign(new Error('duplicate key'), { code: '23505', constraint: 'venue_slug_unique' });
  return Object.assign(new Error('Failed query: insert into venue params: rue@dunlin.example', { cause }), { name: 'DrizzleQueryError' });
}

describe('the log', () => {
  it('has an error’s kind, codes and stack, and nothing that somebody typed', () => {
    for (const format of ['json', 'lines']) {
      const { to, text } = caught();
      makeLog(format, to).error({ err: failedQuery() }, 'Sending mail: failed');
      expect(text()).not.toContain('dunlin');
      for (const part of ['23505', 'venue_slug_unique', 'health.test.ts', 'Sending mail: failed']) expect(text(), format).toContain(part);
    }
    expect(loggedError('oops')).toMatchObject({ message: 'a value that is no error was thrown' });
  });

  it('names the request that a line is about, the same as its answer and the number that is quoted', async () => {
    const { to, text } = caught();
    const log = makeLog('json', to);
    const id = await withRequestId(async (own) => {
      await withRequestId(async (within) => expect(within).toBe(own));
      log.info('one');
      expect(explain(new Error('x')).title).toContain(own);
      return own;
    });
    log.info('two');
    const lines = text()
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { request?: string });
    expect(lines.map(({ request }) => request)).toEqual([id, undefined]);
    expect(id).toMatch(/^[0-9a-f]{12}$/);
  });

  it('is a JSON object a line where that is asked for', () => {
    const { to, text } = caught();
    const log = makeLog('json', to);
    log.info({ task: 'mail' }, 'one');
    log.info('two');
    expect(
      text()
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line).msg),
    ).toEqual(['one', 'two']);
  });
});

describe('what the server does by itself', () => {
  it('is tried again after a failure, which is logged once each time and seen until it goes well again', async () => {
    const { to, text } = caught();
    let at = 0;
    const tick = (): Date => {
      at += 1000;
      return new Date(at);
    };
    const tasks = new Tasks(makeLog('json', to), tick);
    expect(tasks.report()).toEqual([]);
    await tasks.attempt('tidy', async () => 1);
    await tasks.attempt('mail', () => Promise.reject(new Error('connect ECONNREFUSED')));
    await tasks.attempt('mail', () => Promise.reject(failedQuery()));
    expect(tasks.report().map(({ task, inARow, failure }) => [task, inARow, failure])).toEqual([
      ['mail', 2, 'DrizzleQueryError: a query failed: 23505'],
      ['tidy', 0, ''],
    ]);
    expect(text().match(/"level":50/g)).toHaveLength(2);
    await tasks.attempt('mail', async () => undefined);
    const [mail] = tasks.report().filter(({ task }) => task === 'mail');
    expect(mail).toMatchObject({ inARow: 0, failedAt: new Date(3000), doneAt: new Date(4000) });
    expect(text()).toContain('went well again');
  });
});

describe('the background jobs', () => {
  it('are seen failing while the database does not answer, and well again once they ran', async () => {
    const db = await freshDb();
    const tasks = new Tasks(makeLog('json', caught().to));
    const runnerOn = (on: Db): JobRunner =>
      new JobRunner(
        { db: on, tasks, contentChanged: async () => undefined, jobContext: () => Promise.reject(new Error('no job is there')) },
        WORKS,
      );
    const silent = new Proxy(db, {
      get: () => () => {
        throw new Error('the database does not answer');
      },
    });
    const first = runnerOn(silent);
    first.wake();
    await vi.waitFor(() => expect(tasks.report()).toMatchObject([{ task: 'jobs', inARow: 1, failure: 'the database does not answer' }]));
    await first.stop();
    const second = runnerOn(db);
    second.wake();
    await vi.waitFor(() => expect(tasks.report()).toMatchObject([{ task: 'jobs', inARow: 0 }]));
    await second.stop();
  });
});

describe('the site’s health', () => {
  it('counts mails that wait and that were given up, and jobs that failed in the last week', async () => {
    const db = await freshDb();
    const now = new Date('2027-03-17T12:00:00Z');
    expect(await readHealth(db, now)).toMatchObject({ mails: { waiting: 0, givenUp: 0 }, failedJobs: [], running: 0 });
    for (const to of ['nan', 'ivo', 'maud']) await queueMail(db, { to: `${to}@almanac.example`, subject: 'One', text: 'Two' }, now);
    await db.update(outbox).set({ tries: MAX_TRIES }).where(eq(outbox.to, 'ivo@almanac.example'));
    await db.update(outbox).set({ sentAt: now }).where(eq(outbox.to, 'maud@almanac.example'));
    const row = (state: 'failed' | 'running' | 'done', days: number) => ({
      ...{ id: newId(), kind: 'bulk' as const, state, input: { format: 1 as const }, byName: 'Maud Petrel', said: `${state} ${days}` },
      ...{ startedAt: now, changedAt: new Date(now.getTime() - days * 86_400_000) },
    });
    await db.insert(job).values([row('failed', 1), row('failed', 8), row('failed', 0), row('running', 0), row('done', 0)]);
    const health = await readHealth(db, now);
    expect(health.mails).toEqual({ waiting: 1, givenUp: 1 });
    expect(health.failedJobs.map(({ said }) => said)).toEqual(['failed 0', 'failed 1']);
    expect(health.running).toBe(1);
    expect(health.database.bytes).toBeGreaterThan(1_000_000);
    expect(health.database.version).toMatch(/^\d+/);
  });
});
