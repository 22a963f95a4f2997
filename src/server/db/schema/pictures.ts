/** Pictures: what is said of them, the bytes they came from, and the files made of those. */
import { doublePrecision, index, integer, jsonb, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import type { Crops } from '@/core/picture/crop';
import { user } from './accounts';
import { at, bytes } from './column-types';

/** One picture as it was sent: upright, stripped of what the camera wrote, at most 2,400 pixels a side. Kept once, whoever sends it. */
export const pictureSource = pgTable('picture_source', {
  /** SHA-256 of the bytes that came in */
  hash: text('hash').primaryKey(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  /** of its width, how much would hold all that is in it (core/picture/detail.ts) */
  detail: doublePrecision('detail').notNull().default(1),
  bytes: bytes('bytes').notNull(),
  /** since when no picture shows it; it goes after a while, and until then replacing can be taken back */
  unusedSince: at('unused_since'),
});

/** What a picture shows, who made it, and how it is cropped. */
export const picture = pgTable(
  'picture',
  {
    id: uuid('id').primaryKey(),
    hash: text('hash')
      .notNull()
      .references(() => pictureSource.hash),
    /** the file's name, to find it by */
    name: text('name').notNull().default(''),
    alt: text('alt').notNull().default(''),
    credit: text('credit').notNull().default(''),
    /** folded words of its name, what it shows and who made it */
    search: text('search').notNull().default(''),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    detail: doublePrecision('detail').notNull().default(1),
    /** what must stay in sight, in fractions */
    focusX: doublePrecision('focus_x').notNull().default(0.5),
    focusY: doublePrecision('focus_y').notNull().default(0.5),
    crops: jsonb('crops').$type<Crops>().notNull().default({ format: 1 }),
    /** part of its files' addresses: rises with everything that changes what is seen */
    version: integer('version').notNull().default(1),
    ownerId: text('owner_id').references(() => user.id, { onDelete: 'set null' }),
    createdAt: at('created_at').notNull().defaultNow(),
    binnedAt: at('binned_at'),
  },
  (t) => [index('picture_hash').on(t.hash), index('picture_created').on(t.createdAt)],
);

/** Files as they are handed out. Which pixels they show is their name, so a crop that comes back finds its files again. */
export const pictureFile = pgTable(
  'picture_file',
  {
    hash: text('hash')
      .notNull()
      .references(() => pictureSource.hash, { onDelete: 'cascade' }),
    /** left, top, width and height in the source's pixels */
    box: text('box').notNull(),
    width: integer('width').notNull(),
    format: text('format').notNull(),
    bytes: bytes('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.hash, t.box, t.width, t.format] })],
);
