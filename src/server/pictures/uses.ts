/** Where a picture is shown. */
import { asc, eq, sql } from 'drizzle-orm';
import type { Stage } from '@/core/listing/content';
import { STAGE_WORDS } from '@/core/listing/content';
import type { Db } from '../db/client';
import { category, link, listing, organizer, picture, setting, venue } from '../db/schema';
import { jsonRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';
import { PICTURE_AT } from '../listings/links';
import { serverWords } from '@/words/desk';

const w = serverWords.picturesUses;

/** Where a picture is shown. */
export interface Use {
  kind: 'listing' | 'venue' | 'organizer' | 'category' | 'day';
  /** of a day of the year: none */
  id: string;
  name: string;
  /** "cover, published" */
  how: string;
}

/** What shows a picture, listings first. */
export async function usesOf(db: Db, id: string): Promise<Use[]> {
  const listings = await db
    .select({
      id: listing.id,
      name: listing.title,
      stage: listing.stage,
      at: sql<number>`min(${link.position})::int`,
      working: sql<boolean>`bool_or(${link.copy} = 'working')`,
    })
    .from(link)
    .innerJoin(listing, eq(listing.id, link.listingId))
    .where(sql`${link.pictureId} = ${id} and ${shown(listing.jobId)}`)
    .groupBy(listing.id)
    .orderBy(asc(listing.title))
    .limit(500);
  const rest: Use[] = [];
  for (const [kind, table] of [
    ['venue', venue],
    ['organizer', organizer],
    ['category', category],
  ] as const) {
    const rows = await db.select({ id: table.id, name: table.name }).from(table).where(eq(table.pictureId, id)).orderBy(asc(table.name));
    rest.push(...rows.map((row): Use => ({ kind, ...row, how: kind })));
  }
  const days = await jsonRows<{ name: string }>(
    db,
    sql`select d->>'name' as name from ${setting}, ${daysWith} where d->>'pictureId' = ${id}`,
  );
  rest.push(...days.map(({ name }): Use => ({ kind: 'day', id: '', name, how: w.dayOfTheYear() })));
  return [...listings.map((row): Use => ({ kind: 'listing', id: row.id, name: row.name, how: howShown(row) })), ...rest];
}

function howShown({ stage, at, working }: { stage: Stage; at: number; working: boolean }): string {
  const place = at === PICTURE_AT.cover ? w.cover() : at < PICTURE_AT.text ? w.gallery() : w.inTheText();
  return `${place}, ${STAGE_WORDS[stage].toLowerCase()}${working ? '' : w.untilItsChangesAre()}`;
}

/** Days of the year that carry a picture, in the site's settings. */
const daysWith = sql`jsonb_array_elements(case when ${setting.key} = 'site' then coalesce(${setting.value}->'dayPictures', '[]') else '[]' end) as d`;

/** How many places show a picture, for a query over `picture`. */
export const countOfUses = sql<number>`(
  (select count(distinct ${link.listingId}) from ${link} where ${link.pictureId} = ${picture.id})
  + (select count(*) from ${venue} where ${venue.pictureId} = ${picture.id})
  + (select count(*) from ${organizer} where ${organizer.pictureId} = ${picture.id})
  + (select count(*) from ${category} where ${category.pictureId} = ${picture.id})
  + (select count(*) from ${setting}, ${daysWith} where d->>'pictureId' = ${picture.id}::text))::int`;
