/**
 * A submission has one fate: whatever publishes, withdraws, bins, declines or merges its listing settles it in the same transaction, with
 * the sender's mail. Called by the listing's own writes, so that no way past Intake leaves it open.
 */
import { eq, sql } from 'drizzle-orm';
import type { Actor } from '../accounts/roles';
import { audited } from '../accounts/audit';
import type { Db } from '../db/client';
import { type SubmissionState, submission } from '../db/schema';
import { languagePrefix } from '@/core/phrase/language';
import { SENDING_WORDS, type SendingWords } from '@/words/sending';
import { queueMail } from '../mail/outbox';
import type { Now } from '../site/clock';
import type { SiteSettings } from '../site/settings';

/** What became of a listing, as its sender hears it. `waiting`: a decision was taken back, and it is read again. */
export type Fate = 'published' | 'declined' | 'merged' | 'taken-back' | 'waiting';

/** What happens to a listing that settles its submission. */
export interface Settling {
  by: Actor;
  now: Now;
  /** `address`: where the site is reached, for the mail */
  settings: SiteSettings;
}

/** The listing, as settling needs it. */
export interface SettledListing {
  id: string;
  title: string;
  slug: string;
  ownerId: string | null;
}

/** How a submission ended, with what its sender is told. */
export interface Settlement {
  fate: Fate;
  /** the editor's words to the sender */
  note?: string;
  /** the listing in which it lives on; `isPublic`: readers see it */
  into?: { id: string; title: string; slug: string; isPublic: boolean };
}

/** Which states a fate may follow. A listing that goes out is published whatever was said before; only what is open can be declined. */
const FOLLOWS: Record<Fate, readonly SubmissionState[]> = {
  published: ['waiting', 'returned', 'declined', 'taken-back', 'merged'],
  declined: ['waiting', 'returned'],
  merged: ['waiting', 'returned'],
  'taken-back': ['waiting', 'returned'],
  waiting: ['published', 'declined', 'merged'],
};

/** May a submission in this state become settled so? Empty = there is no submission. */
export const settles = (state: SubmissionState | '', fate: Fate): boolean => state !== '' && FOLLOWS[fate].includes(state);

/** Settles a listing's submission and writes to its sender; does nothing where there is none, or where that was its fate already. */
export async function settleSubmission(
  tx: Db,
  listing: SettledListing,
  { fate, note = '', into }: Settlement,
  change: Settling,
): Promise<void> {
  const [row] = await tx.select().from(submission).where(eq(submission.listingId, listing.id)).for('update');
  if (!row || !settles(row.state, fate)) return;
  const at = new Date(change.now.ms);
  const own = change.by.id !== null && change.by.id === listing.ownerId;
  // Whoever takes their own listing out of review was not declined.
  const state = own && (fate === 'declined' || fate === 'merged') ? 'taken-back' : fate;
  await tx
    .update(submission)
    .set({
      ...{ state, note, intoId: into?.id ?? null, revision: sql`${submission.revision} + 1` },
      ...(state === 'waiting' ? { decidedBy: null, decidedAt: null } : { decidedBy: change.by.name, decidedAt: at }),
      // What was proposed for a listing that does not go out has nothing left to change.
      ...(state === 'published' || state === 'waiting' ? {} : { proposal: null }),
    })
    .where(eq(submission.id, row.id));
  await audited(tx, change.by, { kind: 'submission', id: row.id, what: { code: state === 'waiting' ? 'opened again' : state } }, at);
  if (!row.senderMail || own || state === 'taken-back') return;
  const { name, address: site } = change.settings;
  const { mail: w } = SENDING_WORDS[row.language];
  const mail = mailOf(state, w, { listing, site: site + languagePrefix(row.language), siteName: name, into });
  const words = note ? `\n\n${w.writes({ editor: change.by.name, note })}` : '';
  await queueMail(tx, { to: row.senderMail, subject: mail.subject, text: mail.text + words }, at);
}

interface MailParts {
  listing: SettledListing;
  site: string;
  siteName: string;
  into: Settlement['into'];
}

function mailOf(
  state: Exclude<Fate, 'taken-back'>,
  w: SendingWords['mail'],
  { listing: { title, slug }, site, siteName, into }: MailParts,
): { subject: string; text: string } {
  switch (state) {
    case 'published':
      return { subject: w.publishedSubject({ title }), text: w.published({ title, site: siteName, address: `${site}/what/${slug}` }) };
    case 'declined':
      return { subject: w.declinedSubject({ title }), text: w.declined({ title, site: siteName }) };
    case 'waiting':
      return { subject: w.waitingSubject({ title }), text: w.waiting({ title, site: siteName }) };
    case 'merged': {
      const d = { title, site: siteName, into: into?.title ?? '' };
      const text = into?.isPublic ? w.mergedPublic({ ...d, address: `${site}/what/${into.slug}` }) : w.mergedLater(d);
      return { subject: w.mergedSubject({ title }), text };
    }
  }
}
