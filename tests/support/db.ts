/** A database for tests: one in memory for each worker, emptied for each file. */
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/pglite';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { dayOf } from '@/core/day/day';
import { dateTimeToInstant } from '@/core/day/zone';
import type { Actor } from '@/server/accounts/roles';
import { makeFallback, saveCategory } from '@/server/categories/write';
import type { Db } from '@/server/db/client';
import * as schema from '@/server/db/schema';
import type { Change } from '@/server/listings/write';
import { DEFAULT_SETTINGS, type SiteSettings } from '@/server/site/settings';
import { BLANK_VENUE } from '@/server/venues/input';
import { saveVenue } from '@/server/venues/write';
import { emptyPg } from './empty-pg';

const store = globalThis as { almanacTestDb?: Promise<Db> };

async function open(): Promise<Db> {
  const db = drizzle({ client: await emptyPg({ inMemory: true }), schema });
  return db as unknown as Db;
}

/** The worker's database, emptied. */
export async function freshDb(): Promise<Db> {
  store.almanacTestDb ??= open();
  const db = await store.almanacTestDb;
  await emptyTables(db);
  return db;
}

export async function emptyTables(db: Db): Promise<void> {
  const found = (await db.execute(sql`select tablename from pg_tables where schemaname = 'public'`)) as unknown as {
    rows: { tablename: string }[];
  };
  const names = found.rows.map((r) => `"${r.tablename}"`).join(', ');
  await db.execute(sql.raw(`truncate ${names} restart identity cascade`));
}

export const SETTINGS: SiteSettings = {
  ...DEFAULT_SETTINGS,
  name: 'Kittiwick Isles Almanac',
  address: 'https://almanac.example',
  zone: 'America/Halifax',
  lat: 43.2,
  lng: -57.5,
};
const day = dayOf(2027, 3, 17);
export const NOW = { day, minute: 540, ms: dateTimeToInstant(SETTINGS.zone, { day, minute: 540 }).ms };

export const EDITOR: Actor = { id: null, name: 'Ivo Skerrit', role: 'editor' };
export const change = (by: Actor = EDITOR): Change => ({ by, now: NOW, settings: SETTINGS });

/** One transaction, typed as the functions take it. */
export function inTx<T>(db: Db, run: (tx: Db) => Promise<T>): Promise<T> {
  return db.transaction((tx) => run(tx));
}

export interface Places {
  category: string;
  venue: string;
}

export async function seedPlaces(db: Db): Promise<Places> {
  return inTx(db, async (tx) => {
    const category = await saveCategory(tx, null, { name: 'Music & dance', shape: 'disc', ink: '#86308f', parentId: null }, EDITOR);
    await makeFallback(tx, category);
    const { id } = await saveVenue(
      tx,
      null,
      { ...BLANK_VENUE, name: 'Net Loft', town: 'Gannet Bay', island: 'Gannet', lat: 43.12, lng: -57.4 },
      EDITOR,
    );
    return { category, venue: id };
  });
}

/** A weekly listing on Tuesdays, 19:00-21:00, from 23 March 2027. */
export function choir(places: Places, part: Partial<ListingContent> = {}): ListingContent {
  return {
    ...emptyContent(),
    title: 'Harbour Choir',
    summary: 'Forty voices, no auditions.',
    categoryIds: [places.category],
    venueIds: [places.venue],
    cost: { kind: 'free' },
    recurrence: {
      format: 3,
      zone: SETTINGS.zone,
      parts: [
        {
          start: '2027-03-23T19:00',
          length: { days: 0, minute: 1260 },
          rule: { freq: 'weekly', interval: 1, byMonth: [], byMonthDay: [], byDay: [{ weekday: 1, nth: 0 }], weekStart: 0 },
          limit: { kind: 'count', count: 10 },
        },
      ],
      exdates: [],
      breaks: [],
    },
    ...part,
  };
}
