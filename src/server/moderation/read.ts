/** What waits in Intake, and one submission by its private address. */
import { type StoredHappening, toKeep } from '../history/happening';
import { and, asc, eq, isNotNull, or, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { hashToken } from '../db/ids';
import { audit, listing, submission, version } from '../db/schema';

/** A submission's row. */
export type SubmissionRow = typeof submission.$inferSelect;
/** A submission with its listing. */
export type Waiting = { submission: SubmissionRow; listing: typeof listing.$inferSelect };

/** A decision is owed: on all of it, or on what its sender changed after an editor began. */
const OWED = or(eq(submission.state, 'waiting'), isNotNull(submission.proposal));

/** How many events wait for a decision. */
export async function countWaiting(db: Db): Promise<number> {
  const [row] = await db.select({ n: sql<number>`count(*)::int` }).from(submission).where(OWED);
  return row?.n ?? 0;
}

/** What waits, oldest first. */
export function readWaiting(db: Db): Promise<Waiting[]> {
  return db
    .select({ submission, listing })
    .from(submission)
    .innerJoin(listing, eq(listing.id, submission.listingId))
    .where(OWED)
    .orderBy(asc(submission.sentAt), asc(submission.id))
    .limit(200);
}

/** One submission with its listing. */
export async function readSubmission(db: Db, id: string): Promise<Waiting | undefined> {
  const [row] = await db
    .select({ submission, listing })
    .from(submission)
    .innerJoin(listing, eq(listing.id, submission.listingId))
    .where(eq(submission.id, id));
  return row;
}

/** The submission behind a receipt’s private address. */
export async function readReceipt(db: Db, token: string): Promise<Waiting | undefined> {
  const [row] = await db
    .select({ submission, listing })
    .from(submission)
    .innerJoin(listing, eq(listing.id, submission.listingId))
    .where(eq(submission.tokenHash, hashToken(token)));
  return row;
}

/** What happened to a submission, when, and by whom. */
export interface SubmissionStep {
  /** sent, sent again, returned, published … */
  what: StoredHappening;
  byName: string;
  at: Date;
}

/** What happened to a submission, in order. Rows from before steps were kept have at least when they were sent and decided. */
export async function readSteps(db: Db, row: SubmissionRow): Promise<SubmissionStep[]> {
  const steps = await db
    .select({ what: audit.what, byName: audit.byName, at: audit.at })
    .from(audit)
    .where(sql`${audit.kind} = 'submission' and ${audit.subjectId} = ${row.id}`)
    .orderBy(asc(audit.at), asc(audit.id))
    .limit(100);
  if (steps.some((step) => step.what.code === 'sent')) return steps;
  return [{ what: toKeep({ code: row.changes ? 'sent again' : 'sent' }), byName: row.senderName, at: row.sentAt }, ...steps].sort(
    (a, b) => a.at.getTime() - b.at.getTime(),
  );
}

/** A listing as it was at a revision; undefined when there is no such. */
export async function readSentContent(db: Db, listingId: string, revision: number): Promise<ListingContent | undefined> {
  if (!Number.isInteger(revision) || revision < 1 || revision > 2_000_000_000) return undefined;
  const [row] = await db
    .select({ content: version.content })
    .from(version)
    .where(and(eq(version.listingId, listingId), eq(version.revision, revision)));
  return row?.content;
}
