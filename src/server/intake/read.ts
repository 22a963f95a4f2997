/** What waits in Intake, and one submission by its private address. */
import { asc, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { hashToken } from '../db/ids';
import { listing, submission } from '../db/schema';

export type SubmissionRow = typeof submission.$inferSelect;
export type Waiting = { submission: SubmissionRow; listing: typeof listing.$inferSelect };

export async function countWaiting(db: Db): Promise<number> {
  const [row] = await db.select({ n: sql<number>`count(*)::int` }).from(submission).where(eq(submission.state, 'waiting'));
  return row?.n ?? 0;
}

/** What waits, oldest first. */
export function readWaiting(db: Db): Promise<Waiting[]> {
  return db
    .select({ submission, listing })
    .from(submission)
    .innerJoin(listing, eq(listing.id, submission.listingId))
    .where(eq(submission.state, 'waiting'))
    .orderBy(asc(submission.sentAt), asc(submission.id))
    .limit(200);
}

export async function readSubmission(db: Db, id: string): Promise<Waiting | undefined> {
  const [row] = await db
    .select({ submission, listing })
    .from(submission)
    .innerJoin(listing, eq(listing.id, submission.listingId))
    .where(eq(submission.id, id));
  return row;
}

export async function readReceipt(db: Db, token: string): Promise<Waiting | undefined> {
  const [row] = await db
    .select({ submission, listing })
    .from(submission)
    .innerJoin(listing, eq(listing.id, submission.listingId))
    .where(eq(submission.tokenHash, hashToken(token)));
  return row;
}
