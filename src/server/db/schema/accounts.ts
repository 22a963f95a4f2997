/** Accounts: the shape better-auth asks for, and invitations. */
import { boolean, customType, index, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { at } from './column-types';

/** People of the team. Columns as better-auth names them, and their role. */
export const user = pgTable('account_user', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  email: text('email').notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  role: text('role').$type<'coordinator' | 'editor' | 'contributor'>().notNull().default('contributor'),
  active: boolean('active').notNull().default(true),
  createdAt: at('created_at').notNull().defaultNow(),
  updatedAt: at('updated_at').notNull().defaultNow(),
});
/** Who is signed in, until when. */
export const session = pgTable(
  'account_session',
  {
    id: text('id').primaryKey(),
    expiresAt: at('expires_at').notNull(),
    token: text('token').notNull().unique(),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
    ipAddress: text('ip_address'),
    userAgent: text('user_agent'),
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
  },
  (t) => [index('session_user').on(t.userId)],
);
/** Password hashes, as better-auth keeps them. */
export const account = pgTable(
  'account_credential',
  {
    id: text('id').primaryKey(),
    accountId: text('account_id').notNull(),
    providerId: text('provider_id').notNull(),
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    idToken: text('id_token'),
    accessTokenExpiresAt: at('access_token_expires_at'),
    refreshTokenExpiresAt: at('refresh_token_expires_at'),
    scope: text('scope'),
    password: text('password'),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [index('credential_user').on(t.userId)],
);
/** Resets of passwords that are under way. */
export const verification = pgTable(
  'account_verification',
  {
    id: text('id').primaryKey(),
    identifier: text('identifier').notNull(),
    value: text('value').notNull(),
    expiresAt: at('expires_at').notNull(),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [index('verification_identifier').on(t.identifier)],
);
/** The sign-in library's own counts. It clears away old rows by its own windows, so nobody else may keep counts here. */
export const rateLimit = pgTable('rate_limit', {
  id: text('id').primaryKey(),
  key: text('key').notNull().unique(),
  count: integer('count').notNull(),
  lastRequest: customType<{ data: number }>({ dataType: () => 'bigint', fromDriver: Number })('last_request').notNull(),
});
/** How often something bounded was done since its window began: `rate-limits.ts`. */
export const rateBound = pgTable('rate_bound', {
  key: text('key').primaryKey(),
  count: integer('count').notNull(),
  /** when the window ends, in milliseconds of real time */
  ends: customType<{ data: number }>({ dataType: () => 'bigint', fromDriver: Number })('ends').notNull(),
});
/** Invitations that nobody took yet, by the hash of their token. */
export const invitation = pgTable('invitation', {
  id: uuid('id').primaryKey(),
  tokenHash: text('token_hash').notNull().unique(),
  email: text('email').notNull(),
  name: text('name').notNull(),
  role: text('role').$type<'coordinator' | 'editor' | 'contributor'>().notNull(),
  invitedBy: text('invited_by').references(() => user.id, { onDelete: 'set null' }),
  expiresAt: at('expires_at').notNull(),
  acceptedAt: at('accepted_at'),
  createdAt: at('created_at').notNull().defaultNow(),
});
