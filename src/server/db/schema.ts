/**
 * The tables. Ids are UUIDv7 made in code; every table that people edit has a revision. Days are integers since
 * 1970-01-01 and minutes count from midnight, as in the core; instants are timestamptz.
 */
import { sql } from 'drizzle-orm';
import {
  type AnyPgColumn,
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Chart } from '@/core/geo/geo';
import type { Attendance, Contact, Cost, ListingContent, Stage, Visibility } from '@/core/listing/content';
import type { Shape } from '@/core/colour/mark';
import type { Incoming } from '@/core/exchange/incoming';
import type { Standing } from '@/core/recurrence/model';
import type { SiteSettings } from '../site/settings';

const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

// Accounts: the shape better-auth asks for.
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
export const rateLimit = pgTable('rate_limit', {
  id: text('id').primaryKey(),
  key: text('key').notNull().unique(),
  count: integer('count').notNull(),
  lastRequest: customType<{ data: number }>({ dataType: () => 'bigint', fromDriver: Number })('last_request').notNull(),
});
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

export const setting = pgTable('setting', {
  key: text('key').primaryKey(),
  value: jsonb('value').$type<SiteSettings | Chart | { format: 1; day: number }>().notNull(),
  revision: integer('revision').notNull().default(1),
});

export const category = pgTable(
  'category',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    address: text('address').notNull().unique(),
    shape: text('shape').$type<Shape>().notNull(),
    ink: text('ink').notNull(),
    parentId: uuid('parent_id').references((): AnyPgColumn => category.id),
    position: integer('position').notNull().default(0),
    fallback: boolean('fallback').notNull().default(false),
    revision: integer('revision').notNull().default(1),
  },
  (t) => [uniqueIndex('one_fallback').on(t.fallback).where(sql`fallback`)],
);

export const venue = pgTable('venue', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  address: text('address').notNull().unique(),
  street: text('street').notNull().default(''),
  town: text('town').notNull().default(''),
  island: text('island').notNull().default(''),
  lat: doublePrecision('lat'),
  lng: doublePrecision('lng'),
  access: text('access').notNull().default(''),
  phone: text('phone').notNull().default(''),
  mail: text('mail').notNull().default(''),
  website: text('website').notNull().default(''),
  revision: integer('revision').notNull().default(1),
});

export const organizer = pgTable('organizer', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  address: text('address').notNull().unique(),
  text: text('text').notNull().default(''),
  phone: text('phone').notNull().default(''),
  mail: text('mail').notNull().default(''),
  website: text('website').notNull().default(''),
  revision: integer('revision').notNull().default(1),
});

export const picture = pgTable('picture', {
  id: uuid('id').primaryKey(),
  /** SHA-256 of the bytes that came in: the same picture is kept once */
  hash: text('hash').notNull().unique(),
  alt: text('alt').notNull().default(''),
  credit: text('credit').notNull().default(''),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  sizes: jsonb('sizes').$type<{ format: 1; widths: number[] }>().notNull(),
  createdAt: at('created_at').notNull().defaultNow(),
});
export const pictureFile = pgTable(
  'picture_file',
  {
    pictureId: uuid('picture_id')
      .notNull()
      .references(() => picture.id, { onDelete: 'cascade' }),
    width: integer('width').notNull(),
    bytes: bytes('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.pictureId, t.width] })],
);

/** What editors see. `working` is the working copy; readers never touch this table. */
export const listing = pgTable(
  'listing',
  {
    id: uuid('id').primaryKey(),
    address: text('address').notNull().unique(),
    stage: text('stage').$type<Stage>().notNull().default('draft'),
    title: text('title').notNull(),
    working: jsonb('working').$type<ListingContent>().notNull(),
    ownerId: text('owner_id').references(() => user.id, { onDelete: 'set null' }),
    /** the job that brings it in: nobody sees it while that is hidden */
    jobId: uuid('job_id').references((): AnyPgColumn => job.id, { onDelete: 'set null' }),
    /** the working copy differs from the published one */
    edited: boolean('edited').notNull().default(false),
    revision: integer('revision').notNull().default(1),
    createdAt: at('created_at').notNull(),
    changedAt: at('changed_at').notNull(),
  },
  (t) => [index('listing_stage').on(t.stage, t.changedAt), index('listing_owner').on(t.ownerId)],
);

/** What readers see: the published copy, spread into the columns that views ask for. One row a published listing. */
export const published = pgTable(
  'published',
  {
    listingId: uuid('listing_id')
      .primaryKey()
      .references(() => listing.id, { onDelete: 'cascade' }),
    address: text('address').notNull().unique(),
    visibility: text('visibility').$type<Visibility>().notNull(),
    title: text('title').notNull(),
    shortTitle: text('short_title').notNull(),
    summary: text('summary').notNull(),
    standing: text('standing').$type<Standing>().notNull(),
    attendance: text('attendance').$type<Attendance>().notNull(),
    free: boolean('free').notNull(),
    cost: jsonb('cost').$type<Cost>().notNull(),
    contact: jsonb('contact').$type<Contact>().notNull(),
    headline: boolean('headline').notNull(),
    categoryId: uuid('category_id')
      .notNull()
      .references(() => category.id),
    venueId: uuid('venue_id').references(() => venue.id),
    pictureId: uuid('picture_id').references(() => picture.id),
    jobId: uuid('job_id').references((): AnyPgColumn => job.id, { onDelete: 'set null' }),
    /** folded words of title, summary and text */
    search: text('search').notNull(),
    content: jsonb('content').$type<ListingContent>().notNull(),
    sequence: integer('sequence').notNull(),
    publishedAt: at('published_at').notNull(),
    changedAt: at('changed_at').notNull(),
  },
  (t) => [index('published_category').on(t.categoryId), index('published_venue').on(t.venueId)],
);

/** What a copy of a listing points to, in order. Derived from the contents in the same transaction. */
export const link = pgTable(
  'listing_link',
  {
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    copy: text('copy').$type<'working' | 'published'>().notNull(),
    position: integer('position').notNull(),
    categoryId: uuid('category_id').references(() => category.id),
    venueId: uuid('venue_id').references(() => venue.id),
    organizerId: uuid('organizer_id').references(() => organizer.id),
    pictureId: uuid('picture_id').references(() => picture.id),
  },
  (t) => [
    index('link_listing').on(t.listingId, t.copy),
    index('link_category').on(t.categoryId, t.copy),
    index('link_venue').on(t.venueId, t.copy),
    index('link_organizer').on(t.organizerId, t.copy),
    index('link_picture').on(t.pictureId),
  ],
);

/** The date index: derived, rebuildable. A published listing's rows come from its published copy, others' from the working one. */
export const occurrence = pgTable(
  'occurrence',
  {
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    /** the original start, `2027-03-07T07:40` */
    original: text('original').notNull(),
    /** its part of the web address: the original day, with the time where a day has several */
    address: text('address').notNull(),
    startDay: integer('start_day').notNull(),
    startMinute: integer('start_minute'),
    /** exclusive */
    endDay: integer('end_day'),
    endMinute: integer('end_minute'),
    /** the last day it touches, included, by the site's reading of nights */
    lastDay: integer('last_day').notNull(),
    startsAt: at('starts_at').notNull(),
    endsAt: at('ends_at').notNull(),
    standing: text('standing').$type<Standing>(),
    note: text('note').notNull(),
    /** where this date is, when it is elsewhere than its listing */
    venueId: uuid('venue_id'),
    moved: boolean('moved').notNull(),
    public: boolean('public').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.listingId, t.original] }),
    index('occurrence_public').on(t.startDay, t.lastDay).where(sql`public`),
    index('occurrence_several_days').on(t.lastDay).where(sql`public and last_day > start_day`),
  ],
);

/** Old web addresses of listings, for redirects. */
export const oldAddress = pgTable('old_address', {
  address: text('address').primaryKey(),
  listingId: uuid('listing_id')
    .notNull()
    .references(() => listing.id, { onDelete: 'cascade' }),
});

export const version = pgTable(
  'version',
  {
    id: uuid('id').primaryKey(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    content: jsonb('content').$type<ListingContent>().notNull(),
    what: text('what').notNull(),
    byName: text('by_name').notNull(),
    at: at('at').notNull(),
  },
  (t) => [index('version_listing').on(t.listingId, t.revision)],
);

export const audit = pgTable(
  'audit',
  {
    id: uuid('id').primaryKey(),
    at: at('at').notNull(),
    byId: text('by_id'),
    byName: text('by_name').notNull(),
    what: text('what').notNull(),
    kind: text('kind').notNull(),
    subjectId: text('subject_id').notNull(),
  },
  (t) => [index('audit_subject').on(t.subjectId)],
);

export const outbox = pgTable('outbox', {
  id: uuid('id').primaryKey(),
  to: text('to').notNull(),
  subject: text('subject').notNull(),
  text: text('text').notNull(),
  createdAt: at('created_at').notNull(),
  sentAt: at('sent_at'),
  /** how often sending was tried */
  tries: integer('tries').notNull().default(0),
  failure: text('failure'),
});

export type SubmissionState = 'waiting' | 'returned' | 'published' | 'declined' | 'taken-back';
export const submission = pgTable(
  'submission',
  {
    id: uuid('id').primaryKey(),
    listingId: uuid('listing_id')
      .notNull()
      .unique()
      .references(() => listing.id, { onDelete: 'cascade' }),
    tokenHash: text('token_hash').unique(),
    state: text('state').$type<SubmissionState>().notNull(),
    senderName: text('sender_name').notNull(),
    senderMail: text('sender_mail').notNull(),
    message: text('message').notNull().default(''),
    /** where and who in the sender's own words, when they are none that we know */
    said: jsonb('said').$type<{ format: 1; where: string; who: string }>().notNull(),
    note: text('note').notNull().default(''),
    decidedBy: text('decided_by'),
    decidedAt: at('decided_at'),
    sentAt: at('sent_at').notNull(),
    changes: integer('changes').notNull().default(0),
    revision: integer('revision').notNull().default(1),
  },
  (t) => [index('submission_state').on(t.state, t.sentAt)],
);

/** What an imported event was when it last came in, so that a second run of the same file changes nothing. */
export const importSource = pgTable(
  'import_source',
  {
    uid: text('uid').primaryKey(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    sequence: integer('sequence').notNull(),
    /** the fields as the file had them: an editor's own changes since then stay */
    content: jsonb('content').$type<ListingContent>().notNull(),
  },
  (t) => [index('import_source_listing').on(t.listingId)],
);

export type JobKind = 'look' | 'bring-in' | 'take-back' | 'horizon' | 'rebuild';
export type JobState = 'running' | 'cancelling' | 'done' | 'cancelled' | 'failed';
/** What a job needs to go on after any stop, and what it found. */
export interface JobInput {
  format: 1;
  batchId?: string;
  publish?: boolean;
  /** which part of its work it is at */
  phase?: 'new' | 'changed';
  /** the last id that was looked at */
  after?: string;
  made?: number;
  changed?: number;
  dates?: number;
  /** titles that stayed drafts, or as they were, and why; the first of many */
  kept?: { title: string; reason: string }[];
  differed?: { address: string; missing: number; surplus: number }[];
}
/** Work in the background: in short pieces, counted, ended by whoever asks. */
export const job = pgTable(
  'job',
  {
    id: uuid('id').primaryKey(),
    kind: text('kind').$type<JobKind>().notNull(),
    state: text('state').$type<JobState>().notNull(),
    /** what it makes is not to be seen yet */
    hidden: boolean('hidden').notNull().default(false),
    done: integer('done').notNull().default(0),
    total: integer('total').notNull().default(0),
    /** how it ended, in words */
    said: text('said').notNull().default(''),
    input: jsonb('input').$type<JobInput>().notNull(),
    byId: text('by_id'),
    byName: text('by_name').notNull(),
    startedAt: at('started_at').notNull(),
    changedAt: at('changed_at').notNull(),
  },
  (t) => [index('job_state').on(t.state), index('job_hidden').on(t.id).where(sql`hidden`)],
);

export type ImportState = 'looking' | 'previewed' | 'coming-in' | 'brought-in' | 'going' | 'undone';
export type ImportKind = 'ical' | 'csv' | 'json';
export interface ImportOptions {
  format: 1;
  /** IANA zones that somebody chose for the file's own names */
  zones: Record<string, string>;
  /** what the columns of a table are, and how its dates are written */
  columns?: string[];
  order?: 'day-month' | 'month-day';
}
/** What was found when a file was looked through. */
export interface ImportSummary {
  format: 1;
  counts: Record<string, number>;
  open: { kind: 'venue' | 'organizer' | 'category'; said: string; mail: string; events: number }[];
  unreadable: { line: number; title: string; reason: string }[];
  /** so many in all; the first of them are kept */
  unreadableCount: number;
  unknownZones: string[];
  /** a table's columns: their names, what they are taken for, and a value of each */
  table?: { headers: string[]; columns: string[]; samples: string[]; separator: string; ordered: boolean };
}
/** A file that somebody wants to bring in, kept while it is looked at, and what came of it. */
export const importBatch = pgTable('import_batch', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  kind: text('kind').$type<ImportKind>().notNull().default('ical'),
  state: text('state').$type<ImportState>().notNull(),
  file: text('file').notNull(),
  encoding: text('encoding').notNull(),
  options: jsonb('options').$type<ImportOptions>().notNull(),
  summary: jsonb('summary').$type<ImportSummary>(),
  jobId: uuid('job_id').references((): AnyPgColumn => job.id, { onDelete: 'set null' }),
  byName: text('by_name').notNull(),
  at: at('at').notNull(),
  made: integer('made').notNull().default(0),
  changed: integer('changed').notNull().default(0),
});

/** What a file says of each listing, in the file's order, while it is looked at and brought in. */
export const importRow = pgTable(
  'import_row',
  {
    batchId: uuid('batch_id')
      .notNull()
      .references(() => importBatch.id, { onDelete: 'cascade' }),
    n: integer('n').notNull(),
    uid: text('uid').notNull(),
    /** what would happen, when that was last looked at; empty = not yet */
    action: text('action').$type<'' | 'new' | 'changed' | 'same' | 'older'>().notNull().default(''),
    chosen: boolean('chosen').notNull().default(true),
    item: jsonb('item').$type<Incoming>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.batchId, t.n] }), index('import_row_action').on(t.batchId, t.action, t.n)],
);

/** What the columns of a table with these headers are, decided once. */
export const importColumns = pgTable('import_columns', {
  /** folded, one a line */
  headers: text('headers').primaryKey(),
  columns: jsonb('columns').$type<{ format: 1; columns: string[]; order?: 'day-month' | 'month-day' }>().notNull(),
});

/** One listing that a batch made or changed, with what is needed to take that back. */
export const importItem = pgTable(
  'import_item',
  {
    batchId: uuid('batch_id')
      .notNull()
      .references(() => importBatch.id, { onDelete: 'cascade' }),
    uid: text('uid').notNull(),
    listingId: uuid('listing_id').notNull(),
    /** null = it was made by the batch */
    before: jsonb('before').$type<{
      format: 1;
      content: ListingContent;
      edited: boolean;
      source: ListingContent | null;
      sequence: number;
    } | null>(),
    /** the listing's revision afterwards: another one means that somebody worked on it since */
    revision: integer('revision').notNull(),
    published: boolean('published').notNull(),
  },
  (t) => [primaryKey({ columns: [t.batchId, t.uid] })],
);

/** What a file's own words mean here, decided once: a place, an organizer, a category; no target = left aside. */
export const importMatch = pgTable(
  'import_match',
  {
    kind: text('kind').$type<'venue' | 'organizer' | 'category'>().notNull(),
    /** folded */
    said: text('said').notNull(),
    target: uuid('target'),
  },
  (t) => [primaryKey({ columns: [t.kind, t.said] })],
);
