/** A submitted event from its form to its decision. Each step is one transaction, its mail included. */
import { and, eq, isNotNull, sql } from 'drizzle-orm';
import type { ListingContent } from '@/core/listing/content';
import { differingParts, type SentPart, withParts } from '@/core/listing/sent';
import { audited } from '../accounts/audit';
import type { Db } from '../db/client';
import { hashToken, isId, newId, newToken } from '../db/ids';
import { edit, listing, type Proposal, published, submission } from '../db/schema';
import { invalid, notFound, Problem, type Say } from '../problem';
import { type Change, createListing, moveToStage, publishListing, saveListing } from '../listings/write';
import { type Language, languagePrefix } from '@/core/phrase/language';
import { SENDING_WORDS } from '@/words/sending';
import { queueMail } from '../mail/outbox';
import type { FormResult } from './form';
import type { SenderChanges } from './sender-changes';
import { type NewPlaces, placesMade } from './sent-places';
import type { SubmissionRow } from './read';
import { settleSubmission } from './settle';
import { serverWords } from '@/words/desk';

const texts = serverWords.moderationWrite;

/** Takes in a stranger's event: a listing in review, its receipt, and the mail that says so. Returns the receipt's token. */
export async function submitEvent(tx: Db, sent: FormResult & { language?: Language }, change: Change): Promise<string> {
  const token = newToken();
  const language = sent.language ?? 'en';
  const { mail: w } = SENDING_WORDS[language];
  const row = await createListing(tx, sent.content, change, 'in-review');
  const id = newId();
  const at = new Date(change.now.ms);
  await tx.insert(submission).values({
    ...{ id, listingId: row.id, tokenHash: hashToken(token), state: 'waiting', sentRevision: row.revision, sentAt: at },
    ...{ senderName: sent.name, senderMail: sent.mail, senderPhone: sent.phone, message: sent.message },
    said: { format: 1, where: sent.where, who: sent.who },
    language,
  });
  await audited(tx, change.by, { kind: 'submission', id, what: { code: 'sent' } }, at);
  const { title } = sent.content;
  const { name: site, address } = change.settings;
  const text = w.received({ name: sent.name, title, site, address: `${address}${languagePrefix(language)}/receipt/${token}` });
  await queueMail(tx, { to: sent.mail, subject: w.receivedSubject({ title }), text }, at);
  return token;
}

/** A contributor sends a listing of their own for review. Sending it again after a return puts it back in the pile. */
export async function sendForReview(tx: Db, listingId: string, revision: number, mail: string, change: Change): Promise<void> {
  const [row] = await tx.select().from(listing).where(eq(listing.id, listingId)).for('update');
  if (!row || row.ownerId !== change.by.id) throw notFound('listing');
  if (row.revision !== revision) throw new Problem('conflict', texts.theListingWasSaved());
  // A published listing stays with its readers while its changes wait.
  const sent = row.stage === 'published' ? row : await moveToStage(tx, listingId, 'in-review', change);
  const at = new Date(change.now.ms);
  const values = { state: 'waiting' as const, sentAt: at, sentRevision: sent.revision, decidedBy: null, decidedAt: null, note: '' };
  const [kept] = await tx
    .insert(submission)
    .values({ id: newId(), listingId, ...values, senderName: change.by.name, senderMail: mail, said: { format: 1, where: '', who: '' } })
    .onConflictDoUpdate({
      target: submission.listingId,
      set: { ...values, changes: sql`${submission.changes} + 1`, revision: sql`${submission.revision} + 1` },
    })
    .returning({ id: submission.id });
  if (kept) await audited(tx, change.by, { kind: 'submission', id: kept.id, what: { code: 'sent' } }, at);
}

interface Open {
  row: SubmissionRow;
  listing: typeof listing.$inferSelect;
}

const OPEN: readonly SubmissionRow['state'][] = ['waiting', 'returned'];

/** Locks the listing, then its submission: the order in which every change of a listing takes them. */
async function lockBoth(tx: Db, id: string): Promise<Open> {
  if (!isId(id)) throw notFound('submission');
  const [found] = await tx.select({ listingId: submission.listingId }).from(submission).where(eq(submission.id, id));
  if (!found) throw notFound('submission');
  const [own] = await tx.select().from(listing).where(eq(listing.id, found.listingId)).for('update');
  const [row] = await tx.select().from(submission).where(eq(submission.id, id)).for('update');
  if (!own || !row) throw notFound('submission');
  return { row, listing: own };
}

async function lockOpen(tx: Db, id: string, states: readonly SubmissionRow['state'][]): Promise<Open> {
  const both = await lockBoth(tx, id);
  const { row } = both;
  if (!states.includes(row.state)) {
    const words = {
      published: texts.publishedIt(),
      declined: texts.declinedIt(),
      returned: texts.returnedIt(),
      'taken-back': texts.tookItBack(),
      merged: texts.madeItPartOf(),
      waiting: texts.sentItAgain(),
    };
    throw new Problem('conflict', texts.already({ decidedBy: row.decidedBy ?? texts.theSender(), words: words[row.state] }), [], {
      decidedBy: row.decidedBy,
      state: row.state,
    });
  }
  return both;
}

/** Did an editor begin? They saved something since it was sent, or have words in its form that are not saved yet. */
async function editorBegan(tx: Db, { row, listing: own }: Open): Promise<boolean> {
  if (own.stage === 'published') return true;
  if (row.sentRevision !== null && row.sentRevision !== own.revision) return true;
  const [typing] = await tx
    .select({ key: edit.key })
    .from(edit)
    .where(and(eq(edit.listingId, own.id), isNotNull(edit.content)))
    .limit(1);
  return typing !== undefined;
}

/**
 * The sender mends what was returned or still waits, and it waits again. Until an editor has begun, it is mended in place; from then on what
 * the sender touched lies beside the editor's text, to be taken or left.
 */
export async function changeSubmission(tx: Db, row: SubmissionRow, senderChanges: SenderChanges, change: Change): Promise<void> {
  const open = await lockOpen(tx, row.id, OPEN);
  const { listing: own } = open;
  const at = new Date(change.now.ms);
  const site = { ...change, by: { ...change.by, role: 'site' as const } };
  const proposing = open.row.proposal !== null || (await editorBegan(tx, open));
  const values: Partial<SubmissionRow> = {};
  if (proposing) {
    const before = open.row.proposal;
    const content = withParts(senderView(own.working, before), senderChanges.content, senderChanges.parts);
    const parts = differingParts(own.working, content, [...new Set([...(before?.parts ?? []), ...senderChanges.parts])]);
    const said = { where: senderChanges.where, who: senderChanges.who };
    // A place that is in no list is a change too, though the content names none.
    const places = senderChanges.parts.filter((part) => (part === 'where' && said.where) || (part === 'who' && said.who));
    const all = [...new Set([...parts, ...places])];
    values.proposal = all.length ? ({ format: 1, parts: all, content, said, at: at.toISOString() } satisfies Proposal) : null;
  } else {
    const saved = senderChanges.parts.length
      ? await saveListing(tx, { id: own.id, content: senderChanges.content, revision: own.revision }, site)
      : own;
    values.sentRevision = saved.revision;
    values.said = { format: 1, where: senderChanges.where, who: senderChanges.who };
  }
  await tx
    .update(submission)
    .set({
      ...values,
      ...{
        state: 'waiting',
        message: senderChanges.message,
        senderName: senderChanges.name,
        senderMail: senderChanges.mail,
        senderPhone: senderChanges.phone,
      },
      ...{ changes: open.row.changes + 1, revision: open.row.revision + 1, sentAt: at },
    })
    .where(eq(submission.id, row.id));
  await audited(tx, change.by, { kind: 'submission', id: row.id, what: { code: 'sent again' } }, at);
}

/** The sender takes it back before it is decided. */
export async function takeBack(tx: Db, row: SubmissionRow, change: Change): Promise<void> {
  const { listing: own } = await lockOpen(tx, row.id, OPEN);
  // What an editor published by another way is public: no receipt takes it from readers.
  if (own.stage === 'published') {
    const say: Say = ({ wrong }) => wrong.alreadyPublished();
    throw new Problem('conflict', say(SENDING_WORDS.en), [], {}, say);
  }
  await settleSubmission(tx, own, { fate: 'taken-back' }, change);
  await moveToStage(tx, own.id, 'binned', { ...change, by: { ...change.by, role: 'site' } });
}

/** What an editor can decide about a submission. */
export const DECISIONS = ['publish', 'return', 'decline'] as const;
/** One of {@link DECISIONS}. */
export type Decision = (typeof DECISIONS)[number];

/** A decision, with its words for the sender. */
export interface Decide {
  id: string;
  decision: Decision;
  note: string;
  /** what to do with a place and people that the site does not know yet */
  places?: NewPlaces | undefined;
}

/** Decides on what waits. The row is locked, so of two who decide at once the second is told who was first. */
export async function decide(tx: Db, { id, decision, note, places }: Decide, change: Change): Promise<{ slug: string }> {
  const { row, listing: own } = await lockOpen(tx, id, ['waiting']);
  const said = note.trim();
  if (decision !== 'publish' && !said) throw invalid('note', texts.writeALineTo());
  if (decision === 'publish') {
    if (row.proposal) throw new Problem('conflict', texts.changedSomethingAfterYou({ senderName: row.senderName }));
    const content = await placesMade(tx, own.working, row.said, places, change.by);
    const saved =
      content === own.working ? own : await saveListing(tx, { id: own.id, content, revision: own.revision }, change, { code: 'placed' });
    await settleSubmission(tx, saved, { fate: 'published', note: said }, change);
    return { slug: (await publishListing(tx, own.id, saved.revision, change)).slug };
  }
  if (decision === 'decline') {
    await settleSubmission(tx, own, { fate: 'declined', note: said }, change);
    if (own.stage !== 'published') await moveToStage(tx, own.id, 'withdrawn', change);
    return { slug: own.slug };
  }
  await giveBack(tx, { row, listing: own }, said, change);
  return { slug: own.slug };
}

/** Returns it to its sender with a question; it stays theirs to mend. */
async function giveBack(tx: Db, { row, listing: own }: Open, note: string, change: Change): Promise<void> {
  const at = new Date(change.now.ms);
  await tx
    .update(submission)
    .set({ state: 'returned', note, decidedBy: change.by.name, decidedAt: at, revision: row.revision + 1 })
    .where(eq(submission.id, row.id));
  // A contributor's goes back to them as a draft, a stranger's stays here.
  if (own.stage !== 'published' && own.ownerId) await moveToStage(tx, own.id, 'draft', change);
  await audited(tx, change.by, { kind: 'submission', id: row.id, what: { code: 'returned' } }, at);
  if (!row.senderMail) return;
  const { mail: w } = SENDING_WORDS[row.language];
  const text = w.question({ title: own.title, editor: change.by.name, note });
  await queueMail(tx, { to: row.senderMail, subject: w.questionSubject({ title: own.title }), text }, at);
}

/** Takes the named parts of what a sender changed after an editor began, and leaves the others. What readers see follows where nothing else waits. */
export async function decideProposal(
  tx: Db,
  id: string,
  take: readonly SentPart[],
  change: Change,
): Promise<{ taken: number; left: number }> {
  const { row, listing: own } = await lockBoth(tx, id);
  const { proposal } = row;
  if (!proposal) throw new Problem('conflict', texts.theseChangesWereDecided());
  const parts = proposal.parts.filter((part) => take.includes(part));
  const content = withParts(own.working, proposal.content, parts);
  let revision = own.revision;
  if (parts.length) {
    const [copy] = await tx.select({ id: published.listingId }).from(published).where(eq(published.listingId, own.id));
    const saved = await saveListing(tx, { id: own.id, content, revision }, change, { code: 'tookChanges', sender: row.senderName });
    revision = saved.revision;
    if (copy && !own.edited && saved.edited) await publishListing(tx, own.id, saved.revision, change);
  }
  const said = {
    ...row.said,
    ...(parts.includes('where') ? { where: proposal.said.where } : {}),
    ...(parts.includes('who') ? { who: proposal.said.who } : {}),
  };
  await tx
    .update(submission)
    .set({ proposal: null, said, revision: row.revision + 1 })
    .where(eq(submission.id, id));
  const left = proposal.parts.length - parts.length;
  const code = left ? (parts.length ? 'changes taken in part' : 'changes left') : 'changes taken';
  await audited(tx, change.by, { kind: 'submission', id, what: { code } }, new Date(change.now.ms));
  return { taken: parts.length, left };
}

/** The content that a sender's form shows: their own latest, the editor's text where they proposed nothing. */
export function senderView(working: ListingContent, proposal: Proposal | null): ListingContent {
  return proposal ? withParts(working, proposal.content, proposal.parts) : working;
}
