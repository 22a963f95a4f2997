/** Accounts by better-auth: sign-in, sessions in the database, bounded tries, password reset by mail. No sign-up. */
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import type { Db } from '../db/client';
import * as schema from '../db/schema';
import { queueMail } from '../mail/outbox';

/** How long a password is, in characters. */
export const PASSWORD = { min: 12, max: 256 } as const;
/** The header that carries the address of whoever asks, set by our own code from the connection. */
export const ADDRESS_HEADER = 'x-almanac-address';

/** What signing in needs to know of the site. */
export interface AuthOptions {
  secret: string;
  /** where the site is reached, for links in mails */
  siteUrl: () => string;
  siteName: () => string;
  /** the site is reached by https: its cookies go nowhere else */
  secure: boolean;
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
      sendResetPassword: async ({ user, token }) => {
        const text = `Somebody, probably you, asked for a new password for the Desk of ${options.siteName()}.\n\nChoose one here, within an hour:\n${options.siteUrl()}/desk/new-password?token=${token}\n\nIf it was not you, do nothing: the old password stays.`;
        await queueMail(db, { to: user.email, subject: `A new password for ${options.siteName()}`, text }, new Date());
      },
    },
    user: { additionalFields: { role: { type: 'string', input: false }, active: { type: 'boolean', input: false } } },
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
      useSecureCookies: options.secure,
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
