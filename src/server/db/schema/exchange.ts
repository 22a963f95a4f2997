/** What comes in from files. */
import { type AnyPgColumn, boolean, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { ListingContent } from '@/core/listing/content';
import type { Incoming } from '@/core/exchange/incoming';
import { at } from './column-types';
import { listing } from './listings';
import { job } from './jobs';

/** What an imported event was when it last came in, so that a second run of the same file changes nothing. */
export const importSource = pgTable(
  'import_source',
  {
    /** where it comes from, as somebody named it; empty = from before sources had names */
    source: text('source').notNull().default(''),
    /** the same in every version of that source's file */
    uid: text('uid').notNull(),
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    /** of what the file said, so that a file that says the same again is known at once; empty = not made yet */
    hash: text('hash').notNull().default(''),
    sequence: integer('sequence').notNull(),
    /** the fields as the file had them: an editor's own changes since then stay */
    content: jsonb('content').$type<ListingContent>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.source, t.uid] }), index('import_source_uid').on(t.uid), index('import_source_listing').on(t.listingId)],
);

/** How far an import is. */
export type ImportState = 'previewing' | 'previewed' | 'importing' | 'imported' | 'undoing' | 'undone';
/** Which kind of file it is. */
export type ImportKind = 'ical' | 'csv' | 'json';
/** What somebody chose for an import: columns, order of dates, answers. */
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
  /** where it comes from: numbers and names of rows hold within one source */
  source: text('source').notNull().default(''),
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
    action: text('action').$type<'' | 'new' | 'changed' | 'same' | 'older' | 'maybe'>().notNull().default(''),
    /** what somebody said of a row that may be a listing of ours: it is the same, or another */
    answer: text('answer').$type<'' | 'same' | 'new'>().notNull().default(''),
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
