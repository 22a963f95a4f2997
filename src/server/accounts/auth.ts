/** Accounts by better-auth: sign-in, sessions in the database, bounded tries, password reset by mail. No sign-up. */
import { createHash } from 'node:crypto';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { APIError, createAuthMiddleware } from 'better-auth/api';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/client';
import * as schema from '../db/schema';
import { queueMail } from '../mail/outbox';
import { Problem } from '../problem';
import { countOne, forget } from '../site/rate-limits';
import { serverWords } from '@/words/desk';

const w = serverWords.accountsAuth;

/** How long a password is, in characters. */
export const PASSWORD = { min: 12, max: 256 } as const;
/** So many wrong passwords for one account, from wherever they come, in so many seconds. */
const TRIES = { most: 20, seconds: 900 } as const;
/** What a sign-in is answered with, in `code`, when the password is right and the account is closed. */
export const ACCOUNT_CLOSED = 'ACCOUNT_CLOSED';

/** One account's tries; by a hash, so that what is counted tells of nobody. */
const triesOf = (email: unknown): string =>
  `sign-in:${createHash('sha256').update(String(email).trim().toLowerCase()).digest('base64url')}`;

/** The header that carries the address of whoever asks, set by our own code from the connection. */
export const ADDRESS_HEADER = 'x-almanac-address';

/** What signing in needs to know of the site. */
export interface AuthOptions {
  secret: string;
  /** where the site is reached, for links in mails */
  siteUrl: () => string;
  siteName: () => string;
}

/** Tries at one account are counted, whoever makes them, and forgotten once its password was right. */
function boundedTries(db: Db) {
  return {
    before: createAuthMiddleware(async ({ path, body }) => {
      if (path !== '/sign-in/email') return;
      try {
        await countOne(db, { key: triesOf(body?.email), ...TRIES }, Date.now());
      } catch (error) {
        if (error instanceof Problem) throw new APIError('TOO_MANY_REQUESTS', { message: error.title });
        throw error;
      }
    }),
    after: createAuthMiddleware(async ({ path, body, context }) => {
      if (path === '/sign-in/email' && context.newSession) await forget(db, triesOf(body?.email));
    }),
  };
}

/** A closed account has no session. */
function onlyOpenAccounts(db: Db) {
  return {
    session: {
      create: {
        before: async ({ userId }: { userId: string }) => {
          const [own] = await db.select({ active: schema.user.active }).from(schema.user).where(eq(schema.user.id, userId));
          // The password was right: whoever knows it may know this.
          if (!own?.active) throw new APIError('FORBIDDEN', { code: ACCOUNT_CLOSED, message: w.accountClosed() });
        },
      },
    },
  };
}

/** Passwords, sessions, bounded tries and resets over the site's database. */
export function createAuth(db: Db, options: AuthOptions) {
  return betterAuth({
    secret: options.secret,
    basePath: '/api/auth',
    database: drizzleAdapter(db, {
      provider: 'pg',
      schema: {
        user: schema.user,
        session: schema.session,
        account: schema.account,
        verification: schema.verification,
        rateLimit: schema.rateLimit,
      },
    }),
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: PASSWORD.min,
      maxPasswordLength: PASSWORD.max,
      revokeSessionsOnPasswordReset: true,
      // A link that was asked for before ends with the one that was used.
      onPasswordReset: async ({ user }) => {
        await db.delete(schema.verification).where(eq(schema.verification.value, user.id));
      },
      sendResetPassword: async ({ user, token }) => {
        const text = w.somebodyProbablyYouAsked({ siteName: options.siteName(), siteUrl: options.siteUrl(), token });
        await queueMail(db, { to: user.email, subject: w.aNewPasswordFor({ siteName: options.siteName() }), text }, new Date());
      },
    },
    user: { additionalFields: { role: { type: 'string', input: false }, active: { type: 'boolean', input: false } } },
    // Everything else about accounts is done by invitation and on the page People; nobody renames themselves into somebody else.
    disabledPaths: ['/update-user', '/change-email', '/change-password', '/delete-user', '/set-password', '/sign-up/email'],
    hooks: boundedTries(db),
    databaseHooks: onlyOpenAccounts(db),
    session: { expiresIn: 60 * 60 * 24 * 14, updateAge: 60 * 60 * 24 },
    rateLimit: {
      enabled: true,
      storage: 'database',
      window: 60,
      max: 100,
      customRules: { '/sign-in/email': { window: 60, max: 8 }, '/request-password-reset': { window: 600, max: 5 } },
    },
    advanced: {
      cookiePrefix: 'almanac',
      // The middleware makes cookies Secure wherever the site is reached by https, so that their names stay.
      useSecureCookies: false,
      ipAddress: { ipAddressHeaders: [ADDRESS_HEADER] },
      defaultCookieAttributes: { sameSite: 'lax', httpOnly: true },
    },
    // Our own middleware compares the origin of each change with the host it was sent to.
    trustedOrigins: (request) => {
      const origin = request?.headers.get('origin');
      const host = request?.headers.get('host');
      return origin && host && origin.endsWith(`//${host}`) ? [origin] : [];
    },
    logger: { level: 'error', log: () => undefined },
    telemetry: { enabled: false },
  });
}

/** What {@link createAuth} gives. */
export type Auth = ReturnType<typeof createAuth>;
