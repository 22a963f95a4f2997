/** What Proof found, so that tables can ask for it; derived, and made anew when a listing or the day changes. */
import { index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { QuickFix, ValidationField, Severity } from '@/core/validation/note';
import { at } from './column-types';
import { listing } from './listings';
import type { Saying } from '@/core/validation/saying';

/** One open matter of a listing's working copy. */
export const validationNote = pgTable(
  'validation_note',
  {
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    /** the kind, and the listing that it is about */
    key: text('key').notNull(),
    kind: text('kind').notNull(),
    severity: text('severity').$type<Severity>().notNull(),
    field: text('field').$type<ValidationField>().notNull(),
    says: jsonb('says').$type<{ format: 1 } & Saying>().notNull(),
    quickFix: jsonb('quick_fix').$type<{ format: 2 } & QuickFix>(),
  },
  (t) => [primaryKey({ columns: [t.listingId, t.key] }), index('validation_note_kind').on(t.kind, t.listingId)],
);

/** Which revision was looked at, and on which day of the site. */
export const validationState = pgTable('validation_state', {
  listingId: uuid('listing_id')
    .primaryKey()
    .references(() => listing.id, { onDelete: 'cascade' }),
  revision: integer('revision').notNull(),
  day: integer('day').notNull(),
});

/** A "look" that somebody answered for; the next editor sees the reason. */
export const validationWaiver = pgTable(
  'validation_waiver',
  {
    listingId: uuid('listing_id')
      .notNull()
      .references(() => listing.id, { onDelete: 'cascade' }),
    key: text('key').notNull(),
    reason: text('reason').notNull(),
    byName: text('by_name').notNull(),
    at: at('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.listingId, t.key] })],
);

/** A listing that was begun as a copy, and what of it nobody looked at yet. */
export const listingCopy = pgTable('listing_copy', {
  listingId: uuid('listing_id')
    .primaryKey()
    .references(() => listing.id, { onDelete: 'cascade' }),
  fromTitle: text('from_title').notNull(),
  /** the listing that it was copied from, while that is there */
  fromId: uuid('from_id').references(() => listing.id, { onDelete: 'set null' }),
  unlooked: text('unlooked').array().$type<('title' | 'when')[]>().notNull(),
});
