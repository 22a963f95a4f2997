/** A submitted event from its form to its decision. Each step is one transaction, its mail included. */
import { eq, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { hashToken, isId, newId, newToken } from '../db/ids';
import { audit, listing, submission } from '../db/schema';
import { invalid, notFound, Problem } from '../http/problem';
import { type Change, createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import { queueMail } from '../mail/outbox';
import type { FormResult } from './form';
import type { SubmissionRow } from './read';

export interface Sent extends FormResult {
  /** the address of the site, for the receipt's link */
  site: string;
}

/** Takes in a stranger's event: a listing in review, its receipt, and the mail that says so. Returns the receipt's token. */
export async function submitEvent(tx: Db, sent: Sent, change: Change): Promise<string> {
  const token = newToken();
  const row = await createListing(tx, sent.content, change, 'in-review');
  await tx.insert(submission).values({
    id: newId(),
    listingId: row.id,
    tokenHash: hashToken(token),
    state: 'waiting',
    senderName: sent.name,
    senderMail: sent.mail,
    message: sent.message,
    said: { format: 1, where: sent.where, who: sent.who },
    sentAt: new Date(change.now.ms),
  });
  const text = `Thank you, ${sent.name}. “${sent.content.title}” has reached ${change.settings.name} and waits to be read.\n\nIts receipt, where you can see what becomes of it:\n${sent.site}/receipt/${token}\n\nThis address is yours alone: whoever has it can change what you sent.`;
  await queueMail(tx, { to: sent.mail, subject: `Received: ${sent.content.title}`, text }, new Date(change.now.ms));
  return token;
}

/** A contributor sends a listing of their own for review. Sending it again after a return puts it back in the pile. */
export async function sendForReview(tx: Db, listingId: string, revision: number, mail: string, change: Change): Promise<void> {
  const [row] = await tx.select().from(listing).where(eq(listing.id, listingId)).for('update');
  if (!row || row.ownerId !== change.by.id) throw notFound('listing');
  if (row.revision !== revision) throw new Problem(409, 'The listing was saved again after this page was opened; load it anew.');
  // A published listing stays with its readers while its changes wait.
  if (row.stage !== 'published') await moveToStage(tx, listingId, 'in-review', change);
  const values = { state: 'waiting' as const, sentAt: new Date(change.now.ms), decidedBy: null, decidedAt: null };
  await tx
    .insert(submission)
    .values({ id: newId(), listingId, ...values, senderName: change.by.name, senderMail: mail, said: { format: 1, where: '', who: '' } })
    .onConflictDoUpdate({
      target: submission.listingId,
      set: { ...values, changes: sql`${submission.changes} + 1`, revision: sql`${submission.revision} + 1` },
    });
}

/** The sender mends what was returned (or still waits); it waits again. */
export async function mendSubmission(tx: Db, row: SubmissionRow, content: ListingContent, message: string, change: Change): Promise<void> {
  const open = await lockOpen(tx, row.id, ['waiting', 'returned']);
  const [current] = await tx.select({ revision: listing.revision }).from(listing).where(eq(listing.id, open.listingId));
  await saveListing(
    tx,
    { id: open.listingId, content, revision: current?.revision ?? 0 },
    { ...change, by: { ...change.by, role: 'site' } },
  );
  await tx
    .update(submission)
    .set({ state: 'waiting', message, changes: open.changes + 1, revision: open.revision + 1, sentAt: new Date(change.now.ms) })
    .where(eq(submission.id, row.id));
}

/** The sender takes it back before it is decided. */
export async function takeBack(tx: Db, row: SubmissionRow, change: Change): Promise<void> {
  const open = await lockOpen(tx, row.id, ['waiting', 'returned']);
  await moveToStage(tx, open.listingId, 'binned', { ...change, by: { ...change.by, role: 'site' } });
  await tx
    .update(submission)
    .set({ state: 'taken-back', decidedAt: new Date(change.now.ms), revision: open.revision + 1 })
    .where(eq(submission.id, row.id));
}

export const DECISIONS = ['publish', 'return', 'decline'] as const;
export type Decision = (typeof DECISIONS)[number];

async function lockOpen(tx: Db, id: string, states: SubmissionRow['state'][]): Promise<SubmissionRow> {
  if (!isId(id)) throw notFound('submission');
  const [row] = await tx.select().from(submission).where(eq(submission.id, id)).for('update');
  if (!row) throw notFound('submission');
  if (!states.includes(row.state)) {
    const words = {
      published: 'published it',
      declined: 'declined it',
      returned: 'returned it with a note',
      'taken-back': 'took it back',
      waiting: 'sent it again',
    };
    throw new Problem(409, `${row.decidedBy ?? 'The sender'} ${words[row.state]} already.`, [], {
      decidedBy: row.decidedBy,
      state: row.state,
    });
  }
  return row;
}

export interface Decide {
  id: string;
  decision: Decision;
  note: string;
  site: string;
}

/** Decides on what waits. The row is locked, so of two who decide at once the second is told who was first. */
export async function decide(tx: Db, { id, decision, note, site }: Decide, change: Change): Promise<{ address: string }> {
  const row = await lockOpen(tx, id, ['waiting']);
  if (decision !== 'publish' && !note.trim()) throw invalid('note', 'Write a line to the sender: what should be different, or why not.');
  const [current] = await tx.select().from(listing).where(eq(listing.id, row.listingId));
  if (!current) throw notFound('listing');
  if (decision === 'publish') await publishListing(tx, current.id, current.revision, change);
  if (decision === 'decline' && current.stage !== 'published') await moveToStage(tx, current.id, 'withdrawn', change);
  if (decision === 'return' && current.stage !== 'published' && current.ownerId) await moveToStage(tx, current.id, 'draft', change);
  const state = { publish: 'published', return: 'returned', decline: 'declined' } as const;
  const at = new Date(change.now.ms);
  await tx
    .update(submission)
    .set({ state: state[decision], note: note.trim(), decidedBy: change.by.name, decidedAt: at, revision: row.revision + 1 })
    .where(eq(submission.id, id));
  await tx
    .insert(audit)
    .values({ id: newId(), at, byId: change.by.id, byName: change.by.name, what: state[decision], kind: 'submission', subjectId: id });
  if (row.senderMail) await queueMail(tx, decisionMail(row, current, decision, note.trim(), site, change.by, change.settings.name), at);
  return { address: current.address };
}

function decisionMail(
  row: SubmissionRow,
  current: { title: string; address: string },
  decision: Decision,
  note: string,
  site: string,
  by: Actor,
  siteName: string,
): { to: string; subject: string; text: string } {
  const said = note ? `\n\n${by.name} writes:\n${note}` : '';
  const words = {
    publish: {
      subject: `Published: ${current.title}`,
      text: `“${current.title}” is on ${siteName} now:\n${site}/what/${current.address}${said}`,
    },
    return: {
      subject: `A question about: ${current.title}`,
      text: `Before “${current.title}” can be published, something needs mending.${said}\n\nOpen your receipt, change what is needed and send it again.`,
    },
    decline: { subject: `Not published: ${current.title}`, text: `“${current.title}” will not be published on ${siteName}.${said}` },
  }[decision];
  return { to: row.senderMail, ...words };
}
