/** Work in the background. */
import { sql } from 'drizzle-orm';
import { boolean, index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { at } from './column-types';

/** What a job does; `jobs/works.ts` has the work of each. */
export type JobKind = 'import-preview' | 'import' | 'import-undo' | 'horizon' | 'rebuild' | 'validation' | 'bulk' | 'bulk-undo';
/** How a job stands. */
export type JobState = 'running' | 'cancelling' | 'done' | 'cancelled' | 'failed';
/** What a job needs to go on after any stop, and what it found. */
export interface JobInput {
  format: 1;
  batchId?: string;
  runId?: string;
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
  differed?: { slug: string; missing: number; surplus: number }[];
  /** the rules of time zones that dates were made with, and those they are made with now; `from` is empty when nobody noted them */
  zones?: { from: string; to: string };
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
