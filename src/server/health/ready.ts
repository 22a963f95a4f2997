/** Can the site answer and take changes now? For whoever watches over it: a load balancer, a container's host, a monitor. */
import { and, isNull, lt, sql } from 'drizzle-orm';
import { queryRows } from '../db/json-rows';
import { outbox } from '../db/schema';
import { MAX_TRIES } from '../mail/outbox';
import type { Runtime } from '../runtime-type';

/** The database has so long to answer, in milliseconds. */
const ANSWER_WITHIN = 2_000;

/** What was found, in words for an operator. Only the first two decide whether the site is ready. */
export interface Readiness {
  ready: boolean;
  database: 'ok' | 'no-answer';
  disk: 'ok' | 'full';
  /** seconds since a job that is under way last got on; null = none is */
  oldestJobSeconds: number | null;
  /** seconds that the oldest mail waits which is not given up; null = none waits */
  oldestMailSeconds: number | null;
}

async function within<T>(ms: number, question: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('no answer')), ms);
  });
  return Promise.race([question, late]).finally(() => clearTimeout(timer));
}

/** @param now of real time: jobs and mails are stamped by it */
export async function readReadiness(
  { db, hasRoom, sendsMail }: Pick<Runtime, 'db' | 'hasRoom' | 'sendsMail'>,
  now: Date,
): Promise<Readiness> {
  const room = hasRoom();
  const disk = room ? 'ok' : 'full';
  const ages = async (): Promise<[number | null, number | null]> => {
    const [job] = await queryRows<{ at: string | Date | null }>(
      db,
      sql`select min(changed_at) as at from job where state in ('running', 'cancelling')`,
    );
    const waiting = and(isNull(outbox.sentAt), lt(outbox.tries, MAX_TRIES));
    const [mail] = await db
      .select({ at: sql<string | Date | null>`min(${outbox.createdAt})` })
      .from(outbox)
      .where(waiting);
    const age = (at: string | Date | null | undefined): number | null =>
      at ? Math.max(0, Math.round((now.getTime() - new Date(at).getTime()) / 1000)) : null;
    // Without a mail service mails are read in the tray, and none waits.
    return [age(job?.at), sendsMail ? age(mail?.at) : null];
  };
  try {
    const [oldestJobSeconds, oldestMailSeconds] = await within(ANSWER_WITHIN, ages());
    return { ready: room, database: 'ok', disk, oldestJobSeconds, oldestMailSeconds };
  } catch {
    return { ready: false, database: 'no-answer', disk, oldestJobSeconds: null, oldestMailSeconds: null };
  }
}
