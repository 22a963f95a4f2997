/** What people type and have not saved, kept on the server as they type, and who has which listing open. */
import { integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { ListingContent } from '@/core/listing/content';
import { user } from './accounts';
import { at } from './column-types';
import { listing } from './listings';

/** What somebody typed and has not saved, one row a person and listing. */
export const edit = pgTable(
  'edit',
  {
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    /** the listing's id, or `new` */
    key: text('key').notNull(),
    listingId: uuid('listing_id').references(() => listing.id, { onDelete: 'cascade' }),
    /** null while nothing differs from what is saved */
    content: jsonb('content').$type<ListingContent>(),
    /** the revision that the form was opened with */
    revision: integer('revision').notNull(),
    changedAt: at('changed_at').notNull(),
    /** when the form last said that it is open */
    seenAt: at('seen_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.userId, t.key] })],
);
