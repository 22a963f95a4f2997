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
import { serverWords } from '@/words/desk';

const w = serverWords.accountsWrite;

/** An account to be made at once, by the operator. */
export interface NewAccount {
  name: string;
  email: string;
  role: Role;
  password: string;
}

/** The rule for passwords: only their length. Nothing is cut off. */
export function checkPassword(password: string): void {
  if (password.length < PASSWORD.min) throw invalid('password', w.aPasswordHasAt({ min: PASSWORD.min }));
  if (password.length > PASSWORD.max) throw invalid('password', w.aPasswordHasAtMost({ max: PASSWORD.max }));
}

/** So long is a name at most; it stands beside what somebody did. */
const NAME_LENGTH = 80;

/**
 * A name as it is kept: one line, bounded, and not that of somebody else on the team, whatever its capitals and accents.
 * @throws Problem at `name`
 */
async function nameToKeep(tx: Db, typed: string): Promise<string> {
  const name = typed
    .normalize('NFC')
    .replace(/[\p{C}\s]+/gu, ' ')
    .trim();
  if (!name) throw invalid('name', w.theNameIsMissing());
  if (name.length > NAME_LENGTH) throw invalid('name', w.theNameHasAtMost({ most: NAME_LENGTH }));
  const others = await tx.select({ name: user.name }).from(user);
  if (others.some((other) => foldedName(other.name) === foldedName(name))) throw invalid('name', w.somebodyIsCalledThat({ name }));
  return name;
}

const foldedName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]/gu, '')
    .toLowerCase();

/** Makes an account with a password. The mail address must not have one yet. */
export async function createAccount(tx: Db, auth: Auth, input: NewAccount, by: Actor): Promise<string> {
  const email = input.email.trim().toLowerCase();
  if (!isMail(email)) throw invalid('email', w.theMailAddressNeeds());
  checkPassword(input.password);
  const [taken] = await tx.select({ id: user.id }).from(user).where(eq(user.email, email));
  if (taken) throw invalid('email', w.thereIsAnAccount());
  const name = await nameToKeep(tx, input.name);
  const context = await auth.$context;
  const hash = await context.password.hash(input.password);
  const id = newId();
  await tx.insert(user).values({ id, name, email, emailVerified: true, role: input.role });
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
  if (!isMail(mail)) throw invalid('email', w.theMailAddressNeeds());
  const [taken] = await tx.select({ id: user.id }).from(user).where(eq(user.email, mail));
  if (taken) throw invalid('email', w.thereIsAnAccount());
  const called = await nameToKeep(tx, name);
  const token = newToken();
  const now = new Date();
  const expiresAt = new Date(now.getTime() + INVITATION_DAYS * 24 * 3_600_000);
  await tx.delete(invitation).where(and(eq(invitation.email, mail), isNull(invitation.acceptedAt)));
  await tx
    .insert(invitation)
    .values({ id: newId(), tokenHash: hashToken(token), email: mail, name: called, role, invitedBy: by.id, expiresAt });
  await tx.insert(audit).values({
    id: newId(),
    at: now,
    byId: by.id,
    byName: by.name,
    what: toKeep({ code: 'invited', role }),
    kind: 'account',
    subjectId: mail,
  });
  const text = w.invitesYouToThe({ name: by.name, siteName, role, invitationDays: INVITATION_DAYS, address, token });
  await queueMail(tx, { to: mail, subject: w.yourInvitationTo({ siteName }), text }, now);
}

/** The invitation behind a private address. Throws a Problem when it is used, over or none. */
export async function openInvitation(tx: Db, token: string): Promise<typeof invitation.$inferSelect> {
  const [row] = await tx
    .select()
    .from(invitation)
    .where(and(eq(invitation.tokenHash, hashToken(token)), isNull(invitation.acceptedAt), gt(invitation.expiresAt, new Date())));
  if (!row) throw new Problem('missing', w.thisInvitationIsNot());
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
    if (!others?.n) throw refused(w.thisIsTheLast());
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
