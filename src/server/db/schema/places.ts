/** What listings point to: categories, venues, organizers, pictures. */
import { sql } from 'drizzle-orm';
import {
  type AnyPgColumn,
  boolean,
  doublePrecision,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Shape } from '@/core/colour/mark';
import { at, bytes } from './columns';

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
