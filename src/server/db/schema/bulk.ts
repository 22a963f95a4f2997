/** Many listings at once: what was asked, what came of each, and what is needed to take it back. Views of the table that were kept. */
import { index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { BulkAction } from '@/core/listing/bulk-actions';
import type { ListingContent, Stage } from '@/core/listing/content';
import type { Role } from '../../accounts/roles';
import { user } from './accounts';
import { at } from './column-types';

/** A run over many listings: what was done, by whom, and how far it is. */
export const bulkRun = pgTable('bulk_run', {
  id: uuid('id').primaryKey(),
  action: jsonb('action').$type<{ format: 1; role: Role; do: BulkAction }>().notNull(),
  jobId: uuid('job_id').notNull(),
  byId: text('by_id'),
  byName: text('by_name').notNull(),
  at: at('at').notNull(),
  undoneAt: at('undone_at'),
});

/** How a listing was before. */
export interface BulkBefore {
  format: 1;
  stage: Stage;
  edited: boolean;
  working: ListingContent;
  /** what readers saw; null when nothing */
  published: ListingContent | null;
  /** when it was to go out and come down, ISO instants */
  times?: { publishAt: string | null; withdrawAt: string | null; by: string };
}

/** A listing of a run, with its content before and after. */
export const bulkItem = pgTable(
  'bulk_item',
  {
    runId: uuid('run_id')
      .notNull()
      .references(() => bulkRun.id, { onDelete: 'cascade' }),
    n: integer('n').notNull(),
    listingId: uuid('listing_id').notNull(),
    state: text('state').$type<'' | 'done' | 'stayed' | 'undone' | 'left'>().notNull().default(''),
    /** why it stayed, or could not be taken back */
    reason: text('reason').notNull().default(''),
    before: jsonb('before').$type<BulkBefore>(),
    /** the listing's revision afterwards */
    revision: integer('revision'),
  },
  (t) => [primaryKey({ columns: [t.runId, t.n] }), index('bulk_item_state').on(t.runId, t.state, t.n)],
);

/** A view of the table that somebody kept: filters, order and columns as they stand in its address. */
export const savedView = pgTable('saved_view', {
  id: uuid('id').primaryKey(),
  slug: text('slug').notNull().unique(),
  name: text('name').notNull(),
  query: text('query').notNull(),
  ownerId: text('owner_id').references(() => user.id, { onDelete: 'cascade' }),
});
