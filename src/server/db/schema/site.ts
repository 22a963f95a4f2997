/** The site itself: settings, what was done by whom, mail that goes out. */
import type { StoredHappening } from '../../history/happening';
import { index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import type { Gazetteer } from '@/core/geo/gazetteer';
import type { StoredChart, StoredChart1 } from '@/core/geo/geo';
import type { KeptStreets } from '../../map/kept-streets';
import type { LastChange } from '../../site/last-change';
import type { SiteSettings } from '../../site/settings';
import { at } from './column-types';

/** What a site is set to, one JSON value with a format number. */
export const setting = pgTable('setting', {
  key: text('key').primaryKey(),
  value: jsonb('value')
    .$type<
      | SiteSettings
      | StoredChart
      | StoredChart1
      | Gazetteer
      | { format: 1; day: number }
      | { format: 2; day: number; zones: string }
      | { format: 1; host: string }
      /** a first visit as far as it was answered, and what comes first afterwards */
      | { format: 1; answers: Readonly<Record<string, string>> }
      | { format: 1; hidden: boolean }
      /** what was changed last in a section of the settings */
      | LastChange
      | KeptStreets
    >()
    .notNull(),
  revision: integer('revision').notNull().default(1),
});

/** Where addresses of a former site lead, and how often somebody came by them. */
export const oldAddress = pgTable('old_address', {
  /** path and query, as `addressKey` writes them */
  from: text('from').primaryKey(),
  /** an address of this site, from its root */
  to: text('to').notNull(),
  hits: integer('hits').notNull().default(0),
  lastAt: at('last_at'),
});

/** Who did what, when, in the transaction in which it was done. */
export const audit = pgTable(
  'audit',
  {
    id: uuid('id').primaryKey(),
    at: at('at').notNull(),
    byId: text('by_id'),
    byName: text('by_name').notNull(),
    what: jsonb('what').$type<StoredHappening>().notNull(),
    kind: text('kind').notNull(),
    subjectId: text('subject_id').notNull(),
  },
  (t) => [index('audit_subject').on(t.subjectId)],
);

/** Mails, written with what caused them and sent after it. */
export const outbox = pgTable('outbox', {
  id: uuid('id').primaryKey(),
  to: text('to').notNull(),
  subject: text('subject').notNull(),
  text: text('text').notNull(),
  createdAt: at('created_at').notNull(),
  sentAt: at('sent_at'),
  /** how often sending was tried, the try that is under way included */
  tries: integer('tries').notNull().default(0),
  /** whoever sends it has it until then; a process that ended holds it no longer */
  claimedUntil: at('claimed_until'),
  /** not tried again before */
  nextTryAt: at('next_try_at'),
  failure: text('failure'),
});
