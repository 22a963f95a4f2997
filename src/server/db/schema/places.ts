/** What listings point to: categories, venues, organizers, pictures. */
import { sql } from 'drizzle-orm';
import {
  type AnyPgColumn,
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Shape } from '@/core/colour/mark';
import type { Houses } from '@/core/geo/address-streets';
import type { Feature } from '@/core/venue/features';
import type { OpeningHours } from '@/core/venue/hours';
import { at } from './column-types';
import { picture } from './pictures';

/** Categories, in a tree of two levels. */
export const category = pgTable(
  'category',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    slug: text('slug').notNull().unique(),
    shape: text('shape').$type<Shape>().notNull(),
    ink: text('ink').notNull(),
    /** under another it shows a tint of that one's ink instead of its own */
    tinted: boolean('tinted').notNull().default(true),
    /** for readers, over the views that show this kind alone */
    text: text('text').notNull().default(''),
    /** a small drawing beside its name, from a known set; empty = none */
    icon: text('icon').notNull().default(''),
    /** what stands for listings of this kind that have no picture of their own */
    pictureId: uuid('picture_id').references(() => picture.id, { onDelete: 'set null' }),
    parentId: uuid('parent_id').references((): AnyPgColumn => category.id),
    position: integer('position').notNull().default(0),
    fallback: boolean('fallback').notNull().default(false),
    revision: integer('revision').notNull().default(1),
  },
  (t) => [uniqueIndex('one_fallback').on(t.fallback).where(sql`fallback`)],
);

/** Tags: words that belong together across categories. */
export const tag = pgTable('tag', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  slug: text('slug').notNull().unique(),
  /** folded, so that a tag is made once however it is written */
  folded: text('folded').notNull().unique(),
  revision: integer('revision').notNull().default(1),
});

/** Venues and their rooms. */
export const venue = pgTable(
  'venue',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    slug: text('slug').notNull().unique(),
    street: text('street').notNull().default(''),
    town: text('town').notNull().default(''),
    region: text('region').notNull().default(''),
    postcode: text('postcode').notNull().default(''),
    /** ISO 3166-1 alpha-2; empty = the site's */
    country: text('country').notNull().default(''),
    island: text('island').notNull().default(''),
    lat: doublePrecision('lat'),
    lng: doublePrecision('lng'),
    /** readers learn the area alone: no street, and a position to about two kilometres */
    areaOnly: boolean('area_only').notNull().default(false),
    hours: jsonb('hours').$type<OpeningHours>(),
    features: text('features').array().$type<Feature[]>().notNull().default([]),
    access: text('access').notNull().default(''),
    phone: text('phone').notNull().default(''),
    mail: text('mail').notNull().default(''),
    website: text('website').notNull().default(''),
    pictureId: uuid('picture_id').references(() => picture.id, { onDelete: 'set null' }),
    /** for editors alone */
    notes: text('notes').notNull().default(''),
    /** how many people it holds */
    capacity: integer('capacity'),
    /** minutes that it needs free before and after each date */
    setUpMinutes: integer('set_up_minutes').notNull().default(0),
    /** the hall that this is a room of */
    parentId: uuid('parent_id').references((): AnyPgColumn => venue.id),
    binnedAt: at('binned_at'),
    revision: integer('revision').notNull().default(1),
  },
  (t) => [index('venue_parent').on(t.parentId)],
);

/** Where else an organizer is found: an address and what it is called. */
export interface Profiles {
  format: 1;
  list: { label: string; address: string }[];
}

/** Organizers of events. */
export const organizer = pgTable('organizer', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  slug: text('slug').notNull().unique(),
  text: text('text').notNull().default(''),
  phone: text('phone').notNull().default(''),
  mail: text('mail').notNull().default(''),
  website: text('website').notNull().default(''),
  profiles: jsonb('profiles').$type<Profiles>().notNull().default({ format: 1, list: [] }),
  pictureId: uuid('picture_id').references(() => picture.id, { onDelete: 'set null' }),
  /** what new listings of theirs begin with */
  categoryId: uuid('category_id').references(() => category.id, { onDelete: 'set null' }),
  contactName: text('contact_name').notNull().default(''),
  contactPhone: text('contact_phone').notNull().default(''),
  contactMail: text('contact_mail').notNull().default(''),
  /** for editors alone */
  notes: text('notes').notNull().default(''),
  binnedAt: at('binned_at'),
  revision: integer('revision').notNull().default(1),
});

/** The two kinds of places that have pages, merging and former slugs in common. */
export type PlaceKind = 'venue' | 'organizer';

/** Web addresses that venues and organizers had: they lead on to what stands for them now. */
export const oldPlace = pgTable(
  'old_place',
  {
    kind: text('kind').$type<PlaceKind>().notNull(),
    slug: text('slug').notNull(),
    targetId: uuid('target_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.kind, t.slug] })],
);

/** What one copy of a listing named before a merge, and after it. */
export interface MergedListing {
  listingId: string;
  copy: 'working' | 'published';
  before: string[];
  after: string[];
  /** single dates that were in the place, by their original start */
  dates: string[];
}
/** What can be merged or removed, and brought back. */
export type KeptKind = PlaceKind | 'category' | 'tag';

/** What was merged into another or removed, with all that is needed to bring it back. `intoId` is itself where nothing stands for it. */
export const placeMerge = pgTable('place_merge', {
  id: uuid('id').primaryKey(),
  kind: text('kind').$type<KeptKind>().notNull(),
  fromId: uuid('from_id').notNull(),
  intoId: uuid('into_id').notNull(),
  record: jsonb('record')
    .$type<{ format: 2; row: Record<string, unknown>; listings: MergedListing[]; rooms: string[]; old: string[]; merged?: boolean }>()
    .notNull(),
  byName: text('by_name').notNull(),
  at: at('at').notNull(),
  undoneAt: at('undone_at'),
});

/** A file of addresses that an operator gave the site, for finding places. */
export const addressFile = pgTable('address_file', {
  id: uuid('id').primaryKey(),
  /** as it was called */
  name: text('name').notNull(),
  addresses: integer('addresses').notNull(),
  streets: integer('streets').notNull(),
  leftOut: integer('left_out').notNull(),
  /** whose data it is, as the operator says */
  credit: text('credit').notNull(),
  /** all of its streets are there; before that it is not asked */
  ready: boolean('ready').notNull().default(false),
  at: at('at').notNull(),
});

/** Its streets with their houses. */
export const addressStreet = pgTable(
  'address_street',
  {
    fileId: uuid('file_id')
      .notNull()
      .references(() => addressFile.id, { onDelete: 'cascade' }),
    n: integer('n').notNull(),
    name: text('name').notNull(),
    town: text('town').notNull(),
    region: text('region').notNull(),
    postcodes: text('postcodes').array().notNull(),
    lat: doublePrecision('lat').notNull(),
    lng: doublePrecision('lng').notNull(),
    /** by which it is found */
    words: text('words').array().notNull(),
    houses: jsonb('houses').$type<Houses>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.fileId, t.n] }),
    // Streets are written once and then asked: nothing is put off.
    index('address_street_words').using('gin', t.words).with({ fastupdate: false }),
  ],
);
