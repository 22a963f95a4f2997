import { eq } from 'drizzle-orm';
import { beforeEach, describe, expect, it } from 'vitest';
import { EDITOR, freshDb, inTx } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import type { Db } from '../db/client';
import { account, invitation, outbox, session, user } from '../db/schema';
import { type Auth, createAuth } from './auth';
import type { Actor } from './roles';
import { acceptInvitation, changeAccount, createAccount, invite, openInvitation } from './write';

let db: Db;
let auth: Auth;
const BY: Actor = { id: null, name: 'Operator', role: 'coordinator' };
const LONG = `herring ladder plum ${'x'.repeat(120)}`;
beforeEach(async () => {
  db = await freshDb();
  auth = createAuth(db, {
    secret: 's'.repeat(40),
    siteUrl: () => 'http://127.0.0.1',
    siteName: () => 'Kittiwick Isles Almanac',
  });
});

const make = (part: Partial<Parameters<typeof createAccount>[2]> = {}) =>
  inTx(db, (tx) =>
    createAccount(tx, auth, { name: 'Maud Ternby', email: 'Maud@Almanac.example', role: 'coordinator', password: LONG, ...part }, BY),
  );
const signIn = (password: string) =>
  auth.api.signInEmail({ body: { email: 'maud@almanac.example', password }, asResponse: true }).then(
    (r) => r.status,
    (error: { statusCode: number }) => error.statusCode,
  );

describe('accounts', () => {
  it('sign in with the whole password, of which nothing is cut off or kept', async () => {
    const id = await make();
    expect(await signIn(LONG)).toBe(200);
    expect(await signIn(LONG.slice(0, -1))).toBe(401);
    const [stored] = await db.select().from(account).where(eq(account.userId, id));
    expect(stored?.password).not.toContain('herring');
  });

  it('are refused at the field: no name, no mail address, a short or endless password, a taken address', async () => {
    expect((await problem(make({ name: ' ' }))).fields[0]?.field).toBe('name');
    expect((await problem(make({ email: 'maud' }))).fields[0]?.field).toBe('email');
    expect((await problem(make({ password: 'elevenchars' }))).fields[0]?.field).toBe('password');
    expect((await problem(make({ password: 'x'.repeat(257) }))).title).toContain('at most 256');
    await make();
    expect((await problem(make({ email: ' MAUD@almanac.example' }))).title).toContain('already');
    expect(await db.select().from(user)).toHaveLength(1);
  });

  it('keep at least one coordinator, and sign out at once whoever is shut out', async () => {
    const maud = await make();
    const close = () => inTx(db, (tx) => changeAccount(tx, maud, { role: 'coordinator', active: false }, BY));
    expect((await problem(close())).title).toContain('last coordinator');
    expect((await problem(inTx(db, (tx) => changeAccount(tx, maud, { role: 'editor', active: true }, BY)))).kind).toBe('refused');
    await make({ name: 'Ivo Skerrit', email: 'ivo@almanac.example' });
    await signIn(LONG);
    expect(await db.select().from(session)).toHaveLength(1);
    await close();
    expect(await db.select().from(session)).toHaveLength(0);
    expect((await problem(inTx(db, (tx) => changeAccount(tx, 'nobody', { role: 'editor', active: true }, BY)))).kind).toBe('missing');
  });
});

describe('invitations', () => {
  const send = (part = {}) =>
    inTx(db, (tx) =>
      invite(
        tx,
        { name: 'Nan Puffer', email: 'nan@almanac.example', role: 'editor', siteName: 'Almanac', address: 'http://x', ...part },
        EDITOR,
      ),
    );
  const tokenInMail = async (): Promise<string> => {
    const mails = await db.select().from(outbox).orderBy(outbox.createdAt, outbox.id);
    return /invitation\/(\S+)$/.exec(mails.at(-1)?.text ?? '')?.[1] ?? '';
  };
  const accept = (token: string) => inTx(db, (tx) => acceptInvitation(tx, auth, token, { name: 'Nan Puffer', password: LONG }));

  it('come by mail, make one account with the role that was offered, and work once', async () => {
    await send();
    const token = await tokenInMail();
    expect((await db.select().from(invitation))[0]?.tokenHash).not.toContain(token);
    await accept(token);
    expect((await db.select().from(user))[0]).toMatchObject({ email: 'nan@almanac.example', role: 'editor' });
    expect((await problem(accept(token))).kind).toBe('missing');
    expect((await problem(send())).title).toContain('already');
  });

  it('end with the week, and when a newer one is sent', async () => {
    await send();
    const first = await tokenInMail();
    await send();
    const second = await tokenInMail();
    expect((await problem(accept(first))).kind).toBe('missing');
    await db.update(invitation).set({ expiresAt: new Date(Date.now() - 1000) });
    expect((await problem(openInvitation(db, second))).title).toContain('older than a week');
  });

  it('need a name and a mail address', async () => {
    expect((await problem(send({ name: '' }))).fields[0]?.field).toBe('name');
    expect((await problem(send({ email: 'nan@' }))).fields[0]?.field).toBe('email');
    expect(await db.select().from(outbox)).toHaveLength(0);
  });
});

describe('signing in', () => {
  const reset = async (): Promise<string> => {
    await auth.api.requestPasswordReset({ body: { email: 'maud@almanac.example' } });
    const mails = await db.select().from(outbox);
    return /token=([\w-]+)/.exec(mails.at(-1)?.text ?? '')?.[1] ?? '';
  };

  it('tells whoever knows the password that the account is closed, and nobody else', async () => {
    const maud = await make();
    await make({ name: 'Ivo Skerrit', email: 'ivo@almanac.example' });
    await inTx(db, (tx) => changeAccount(tx, maud, { role: 'editor', active: false }, BY));
    const answer = await auth.api.signInEmail({ body: { email: 'maud@almanac.example', password: LONG }, asResponse: true });
    expect([answer.status, ((await answer.json()) as { code: string }).code]).toEqual([403, 'ACCOUNT_CLOSED']);
    expect(await signIn('another password that is wrong')).toBe(401);
    expect(await db.select().from(session)).toHaveLength(0);
  });

  it('is bounded for one account, from wherever the tries come, and counts anew once it worked', async () => {
    await make();
    for (let i = 0; i < 19; i++) expect(await signIn('wrong-password-1')).toBe(401);
    expect(await signIn(LONG)).toBe(200);
    for (let i = 0; i < 20; i++) expect(await signIn('wrong-password-1')).toBe(401);
    expect(await signIn('wrong-password-1')).toBe(429);
    expect(await signIn(LONG)).toBe(429);
  });

  it('by a link for a new password ends the other links', async () => {
    await make();
    const [first, second] = [await reset(), await reset()];
    expect(first).not.toBe(second);
    await auth.api.resetPassword({ body: { newPassword: `${LONG} anew`, token: second } });
    await expect(auth.api.resetPassword({ body: { newPassword: 'somebody else’s words', token: first } })).rejects.toThrow();
    expect(await signIn(`${LONG} anew`)).toBe(200);
  });
});

describe('names of the team', () => {
  it.each([
    ['Maud Ternby', 'already'],
    ['  MAUD   térnby ', 'already'],
    ['Maud\u202e Ternby', 'already'],
    ['x'.repeat(40_000), 'at most 80'],
    ['\u200b \t', 'missing'],
  ])('%s is refused at its field', async (name, said) => {
    await make();
    for (const refused of [
      () => make({ name, email: 'other@almanac.example' }),
      () =>
        inTx(db, (tx) =>
          invite(tx, { name, email: 'new@almanac.example', role: 'editor', siteName: 'x', address: 'http://127.0.0.1' }, BY),
        ),
    ]) {
      const { fields } = await problem(refused());
      expect([fields[0]?.field, fields[0]?.message]).toEqual(['name', expect.stringContaining(said)]);
    }
  });
});
