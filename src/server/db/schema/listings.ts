/** Listings: both copies, what they point to, their dates, their versions, and who sent them in. */
import type { StoredHappening } from '../../history/happening';
import { sql } from 'drizzle-orm';
import { type AnyPgColumn, bigserial, boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Attendance, Contact, Cost, ListingContent, Stage, Visibility } from '@/core/listing/content';
import type { Language } from '@/core/phrase/language';
import type { Translations } from '@/core/listing/content';
import type { SentPart } from '@/core/listing/sent';
import type { EventStatus } from '@/core/recurrence/model';
import { at, transactionId } from './column-types';
import { user } from './accounts';
import { picture } from './pictures';
import { category, organizer, tag, venue } from './places';
import { job } from './jobs';

/** What editors see. `working` is the working copy; readers never touch this table. */
export const listing = pgTable(
  'listing',
  {
    id: uuid('id').primaryKey(),
    slug: text('slug').notNull().unique(),
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
    /** its next date by the site's day when it was last looked at, derived from the date index; for sorting the table */
    nextDay: integer('next_day'),
    nextMinute: integer('next_minute'),
    /** the last day of that date: after it another one is next */
    nextLast: integer('next_last'),
    /** when it goes out by itself, and when it is taken from readers */
    publishAt: at('publish_at'),
    withdrawAt: at('withdraw_at'),
    /** who set these times: it is published in their name */
    scheduledBy: text('scheduled_by').notNull().default(''),
    /** when readers first had it: from then on its dates keep their ids */
    firstPublishedAt: at('first_published_at'),
    /** why it did not go out when it should have */
    scheduleWrong: text('schedule_wrong').notNull().default(''),
  },
  (t) => [
    index('listing_next').on(t.nextDay),
    index('listing_stage').on(t.stage, t.changedAt),
    index('listing_owner').on(t.ownerId),
    // Rows of files are looked for by their titles.
    index('listing_title').on(sql`lower(${t.title})`),
    index('listing_publish').on(t.publishAt).where(sql`publish_at is not null`),
    index('listing_withdraw').on(t.withdrawAt).where(sql`withdraw_at is not null`),
  ],
);

/** What readers see: the published copy, spread into the columns that views ask for. One row a published listing. */
export const published = pgTable(
  'published',
  {
    listingId: uuid('listing_id')
      .primaryKey()
      .references(() => listing.id, { onDelete: 'cascade' }),
    slug: text('slug').notNull().unique(),
    visibility: text('visibility').$type<Visibility>().notNull(),
    title: text('title').notNull(),
    shortTitle: text('short_title').notNull(),
    summary: text('summary').notNull(),
    eventStatus: text('event_status').$type<EventStatus>().notNull(),
    attendance: text('attendance').$type<Attendance>().notNull(),
    free: boolean('free').notNull(),
    cost: jsonb('cost').$type<Cost>().notNull(),
    contact: jsonb('contact').$type<Contact>().notNull(),
    headline: boolean('headline').notNull(),
    /** the last day on which it stands on top of lists */
    onTopUntil: integer('on_top_until'),
    categoryId: uuid('category_id')
      .notNull()
      .references(() => category.id),
    /** its first venue; all of them, in order, are `venueIds` */
    venueId: uuid('venue_id').references(() => venue.id),
    venueIds: jsonb('venue_ids').$type<string[]>().notNull().default([]),
    /** the zone by which its dates are shown; empty = the site's */
    zone: text('zone').notNull().default(''),
    pictureId: uuid('picture_id').references(() => picture.id),
    jobId: uuid('job_id').references((): AnyPgColumn => job.id, { onDelete: 'set null' }),
    /** title and summary in other languages; null = there are none */
    translations: jsonb('translations').$type<Translations>(),
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
    tagId: uuid('tag_id').references(() => tag.id),
  },
  (t) => [
    index('link_tag').on(t.tagId, t.copy),
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
    /** which date of its listing it is, whatever becomes of its start (core/dates/date-ids) */
    dateId: text('date_id').notNull(),
    /** its part of the web address: the original day, with the time where a day has several */
    slug: text('slug').notNull(),
    startDay: integer('start_day').notNull(),
    startMinute: integer('start_minute'),
    /** exclusive */
    endDay: integer('end_day'),
    endMinute: integer('end_minute'),
    /** the last day it touches, included, by the site's reading of nights */
    lastDay: integer('last_day').notNull(),
    startsAt: at('starts_at').notNull(),
    endsAt: at('ends_at').notNull(),
    eventStatus: text('event_status').$type<EventStatus>(),
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

/**
 * Which listings' public dates changed and in which transaction: written by the database itself (triggers on what readers see), so that no way
 * of changing something can forget it. Read by each process's finder, which takes over what changed since it last asked; kept for an hour.
 */
export const finderChange = pgTable(
  'finder_change',
  {
    id: bigserial('id', { mode: 'number' }).primaryKey(),
    /** null = something else that pages show: a venue, a kind, a setting */
    listingId: uuid('listing_id'),
    transaction: transactionId('transaction').notNull().default(sql`pg_current_xact_id()`),
    /** when it was written, not when its transaction began */
    at: at('at').notNull().default(sql`clock_timestamp()`),
  },
  (t) => [index('finder_change_transaction').on(t.transaction)],
);

/** Starts of dates that do not follow from their ids: those that they have now, and those that they had, for redirects. */
export const dateName = pgTable(
  'date_name',
  {
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    dateId: text('date_id').notNull(),
    original: text('original').notNull(),
    former: boolean('former').notNull(),
  },
  (t) => [primaryKey({ columns: [t.listingId, t.dateId, t.original] })],
);

/** Old web addresses of listings, for redirects. */
export const oldSlug = pgTable('old_slug', {
  slug: text('slug').primaryKey(),
  listingId: uuid('listing_id')
    .notNull()
    .references(() => listing.id, { onDelete: 'cascade' }),
});

/** A content as it was, with who made it so and why. */
export const version = pgTable(
  'version',
  {
    id: uuid('id').primaryKey(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    content: jsonb('content').$type<ListingContent>().notNull(),
    what: jsonb('what').$type<StoredHappening>().notNull(),
    byName: text('by_name').notNull(),
    at: at('at').notNull(),
  },
  (t) => [index('version_listing').on(t.listingId, t.revision)],
);

/** `merged`: it lives on in another listing, which is `intoId`. */
export type SubmissionState = 'waiting' | 'returned' | 'published' | 'declined' | 'taken-back' | 'merged';

/** What a sender changed after an editor began: waits beside the editor's text until somebody takes or leaves it. */
export interface Proposal {
  format: 1;
  /** the parts of the form that differ (`core/listing/sent.ts`) */
  parts: SentPart[];
  content: ListingContent;
  said: { where: string; who: string };
  /** when it came, ISO 8601 */
  at: string;
}

/** What a stranger sent, and its fate. */
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
    /** for editors; readers see it only where the sender said so, then it is in the content too */
    senderPhone: text('sender_phone').notNull().default(''),
    message: text('message').notNull().default(''),
    /** where and who in the sender's own words, when they are none that we know */
    said: jsonb('said').$type<{ format: 1; where: string; who: string }>().notNull(),
    /** in which its sender reads the receipt and gets mail */
    language: text('language').$type<Language>().notNull().default('en'),
    note: text('note').notNull().default(''),
    decidedBy: text('decided_by'),
    decidedAt: at('decided_at'),
    sentAt: at('sent_at').notNull(),
    changes: integer('changes').notNull().default(0),
    /** the listing's revision as the sender left it; another one now means that an editor began. Null in rows of before. */
    sentRevision: integer('sent_revision'),
    proposal: jsonb('proposal').$type<Proposal>(),
    /** the listing into which this one was merged */
    intoId: uuid('into_id').references(() => listing.id, { onDelete: 'set null' }),
    revision: integer('revision').notNull().default(1),
  },
  (t) => [index('submission_state').on(t.state, t.sentAt)],
);

/** What readers say is wrong with a listing; editors alone see it. */
export const remark = pgTable(
  'remark',
  {
    id: uuid('id').primaryKey(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    /** the date it is about, by its part of the address; empty = all of it */
    date: text('date').notNull().default(''),
    message: text('message').notNull(),
    senderName: text('sender_name').notNull().default(''),
    senderMail: text('sender_mail').notNull().default(''),
    sentAt: at('sent_at').notNull(),
    /** when an editor had seen to it; null = nobody has */
    settledAt: at('settled_at'),
    settledBy: text('settled_by'),
  },
  (t) => [index('remark_open').on(t.settledAt, t.sentAt), index('remark_listing').on(t.listingId)],
);
