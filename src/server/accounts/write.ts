/** Accounts: made by the operator or by invitation, never by signing up. */
import { toKeep } from '../history/happening';
import { and, eq, gt, isNull, ne, sql } from 'drizzle-orm';
import type { Db } from '../db/client';
import { hashToken, newId, newToken } from '../db/ids';
import { account, audit, invitation, session, user } from '../db/schema';
import { invalid, notFound, Problem, refused } from '../problem';
import { queueMail } from '../mail/outbox';
import { isMail } from '@/core/validation/links';
import { type Auth, PASSWORD } from './auth';
import type { Actor, Role } from './roles';

/** An account to be made at once, by the operator. */
export interface NewAccount {
  name: string;
  email: string;
  role: Role;
  password: string;
}

/** The rule for passwords: only their length. Nothing is cut off. */
export function checkPassword(password: string): void {
  if (password.length < PASSWORD.min)
    throw invalid('password', `A password has at least ${PASSWORD.min} characters; a few unrelated words do well.`);
  if (password.length > PASSWORD.max) throw invalid('password', `A password has at most ${PASSWORD.max} characters.`);
}

/** Makes an account with a password. The mail address must not have one yet. */
export async function createAccount(tx: Db, auth: Auth, input: NewAccount, by: Actor): Promise<string> {
  const email = input.email.trim().toLowerCase();
  if (!input.name.trim()) throw invalid('name', 'The name is missing.');
  if (!isMail(email)) throw invalid('email', 'The mail address needs a name, an @ and a domain.');
  checkPassword(input.password);
  const [taken] = await tx.select({ id: user.id }).from(user).where(eq(user.email, email));
  if (taken) throw invalid('email', 'There is an account with this mail address already.');
  const context = await auth.$context;
  const hash = await context.password.hash(input.password);
  const id = newId();
  await tx.insert(user).values({ id, name: input.name.trim().slice(0, 120), email, emailVerified: true, role: input.role });
  await tx.insert(account).values({ id: newId(), accountId: id, providerId: 'credential', userId: id, password: hash });
  await tx.insert(audit).values({
    id: newId(),
    at: new Date(),
    byId: by.id,
    byName: by.name,
    what: toKeep({ code: 'accountMade', role: input.role }),
    kind: 'account',
    subjectId: id,
  });
  return id;
}

/** Who is invited, by which mail address, to which role. */
export interface Invite {
  name: string;
  email: string;
  role: Role;
  siteName: string;
  address: string;
}

const INVITATION_DAYS = 7;

/** Invites somebody by mail; an invitation that they have already ends. Throws a Problem for an address that has an account. */
export async function invite(tx: Db, { name, email, role, siteName, address }: Invite, by: Actor): Promise<void> {
  const mail = email.trim().toLowerCase();
  if (!name.trim()) throw invalid('name', 'The name is missing.');
  if (!isMail(mail)) throw invalid('email', 'The mail address needs a name, an @ and a domain.');
  const [taken] = await tx.select({ id: user.id }).from(user).where(eq(user.email, mail));
  if (taken) throw invalid('email', 'There is an account with this mail address already.');
  const token = newToken();
  const now = new Date();
  const expiresAt = new Date(now.getTime() + INVITATION_DAYS * 24 * 3_600_000);
  await tx.delete(invitation).where(and(eq(invitation.email, mail), isNull(invitation.acceptedAt)));
  await tx
    .insert(invitation)
    .values({ id: newId(), tokenHash: hashToken(token), email: mail, name: name.trim().slice(0, 120), role, invitedBy: by.id, expiresAt });
  await tx.insert(audit).values({
    id: newId(),
    at: now,
    byId: by.id,
    byName: by.name,
    what: toKeep({ code: 'invited', role }),
    kind: 'account',
    subjectId: mail,
  });
  const text = `${by.name} invites you to the Desk of ${siteName}, as ${role}.\n\nChoose a password here, within ${INVITATION_DAYS} days:\n${address}/desk/invitation/${token}`;
  await queueMail(tx, { to: mail, subject: `Your invitation to ${siteName}`, text }, now);
}

/** The invitation behind a private address. Throws a Problem when it is used, over or none. */
export async function openInvitation(tx: Db, token: string): Promise<typeof invitation.$inferSelect> {
  const [row] = await tx
    .select()
    .from(invitation)
    .where(and(eq(invitation.tokenHash, hashToken(token)), isNull(invitation.acceptedAt), gt(invitation.expiresAt, new Date())));
  if (!row) throw new Problem('missing', 'This invitation is not valid: it was used, withdrawn, or is older than a week. Ask for another.');
  return row;
}

/** Makes the account of an invitation and ends that. Throws a Problem as {@link openInvitation} does. */
export async function acceptInvitation(tx: Db, auth: Auth, token: string, input: { name: string; password: string }): Promise<void> {
  const row = await openInvitation(tx, token);
  await createAccount(
    tx,
    auth,
    { name: input.name, email: row.email, role: row.role, password: input.password },
    { id: null, name: input.name, role: 'reader' },
  );
  await tx.update(invitation).set({ acceptedAt: new Date() }).where(eq(invitation.id, row.id));
}

/** Changes an account's role or closes it. The last active coordinator stays one. */
export async function changeAccount(tx: Db, id: string, change: { role: Role; active: boolean }, by: Actor): Promise<void> {
  const [row] = await tx.select().from(user).where(eq(user.id, id)).for('update');
  if (!row) throw notFound('account');
  if (row.role === 'coordinator' && (change.role !== 'coordinator' || !change.active)) {
    const [others] = await tx
      .select({ n: sql<number>`count(*)::int` })
      .from(user)
      .where(and(eq(user.role, 'coordinator'), eq(user.active, true), ne(user.id, id)));
    if (!others?.n) throw refused('This is the last coordinator; make somebody else one first.');
  }
  await tx
    .update(user)
    .set({ ...change, updatedAt: new Date() })
    .where(eq(user.id, id));
  // Whoever is shut out, or may do less, is signed out at once.
  if (!change.active || change.role !== row.role) await tx.delete(session).where(eq(session.userId, id));
  await tx.insert(audit).values({
    id: newId(),
    at: new Date(),
    byId: by.id,
    byName: by.name,
    what: toKeep(change.active ? { code: 'roleGiven', role: change.role } : { code: 'accountClosed' }),
    kind: 'account',
    subjectId: id,
  });
}
