/** Sites with many listings, as measurements need them. */
import { sql } from 'drizzle-orm';
import { dayOf, isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { rule } from '@/core/recurrence/model';
import { SITE_ACTOR } from '@/server/accounts/roles';
import { openDatabase } from '@/server/db/client';
import { category, organizer, venue } from '@/server/db/schema';
import { buildMany, insertTables } from '@/server/listings/insert-many';
import { BLANK_ORGANIZER, saveOrganizer } from '@/server/organizers/write';
import { BLANK_VENUE } from '@/server/venues/input';
import { saveVenue } from '@/server/venues/write';
import { DEMO_SETTINGS } from '../../demo/seed';

const TODAY = dayOf(2027, 3, 17);
const FIRST = ['Harbour', 'Lantern', 'Shore', 'Kelp', 'Causeway', 'Skerry', 'Island', 'Quay', 'Spring', 'Winter', 'Salt', 'Gannet'];
const SECOND = ['Choir', 'Seed', 'Rope', 'Boat', 'Bird', 'Bread', 'Star', 'Lamp', 'Book', 'Skiff', 'Story', 'Fiddle', 'Chart', 'Film'];
const THIRD = ['Evening', 'Swap', 'Workshop', 'Walk', 'Fair', 'Supper', 'Concert', 'Talk', 'Class', 'Club', 'Market', 'Count', 'Gathering'];

const at = <T>(list: readonly T[], i: number): T => list[i % list.length] as T;
function content(i: number, count: number, ids: { categories: string[]; venues: string[]; organizers: string[] }): ListingContent {
  const hour = 8 + (i % 12);
  return {
    ...emptyContent(),
    title: `${at(FIRST, i)} ${at(SECOND, i * 7)} ${at(THIRD, i * 11)} ${i}`,
    summary: 'Rope, tea and a story from the outer islands.',
    text: '<p>Come as you are.</p>',
    categoryIds: [at(ids.categories, i)],
    venueIds: [at(ids.venues, i * 7)],
    organizerIds: [at(ids.organizers, i * 7)],
    cost: { kind: 'free' },
    recurrence: {
      format: 3,
      zone: 'America/Halifax',
      parts: [
        {
          start: `${isoDay(TODAY - 60 + (i % 700))}T${String(hour).padStart(2, '0')}:00`,
          length: { days: 0, minute: hour * 60 + 90 },
          rule: rule('weekly'),
          limit: { kind: 'count', count },
        },
      ],
      exdates: [],
      breaks: [],
    },
  };
}

/** As many halls and clubs as a site of this size has: about thirty listings each. */
const PLACES = 300;

/** How many there are to be. */
export interface ManyInput {
  listings: number;
  /** weekly dates of each */
  dates: number;
  /** which of them are published */
  published: (i: number) => boolean;
}

/** Fills a demo's folder, which nobody serves; how many dates it has. */
export async function fillSite(folder: string, { listings, dates: count, published }: ManyInput): Promise<number> {
  const { db, close } = await openDatabase({ folder, root: process.cwd() });
  await db.transaction(async (tx) => {
    for (let i = 0; i < PLACES; i++) {
      const name = `${at(FIRST, i)} ${at(SECOND, i * 5)} ${i}`;
      await saveVenue(
        tx,
        null,
        { ...BLANK_VENUE, name: `${name} Hall`, town: 'Port Amble', lat: 43.1 + (i % 17) / 200, lng: -57.4 - (i % 19) / 200 },
        SITE_ACTOR,
      );
      await saveOrganizer(tx, null, { ...BLANK_ORGANIZER, name: `${name} Club` }, SITE_ACTOR);
    }
  });
  const ids = {
    categories: (await db.select({ id: category.id }).from(category)).map((r) => r.id),
    venues: (await db.select({ id: venue.id }).from(venue)).map((r) => r.id),
    organizers: (await db.select({ id: organizer.id }).from(organizer)).map((r) => r.id),
  };
  const change = { by: SITE_ACTOR, now: { day: TODAY, minute: 540, ms: TODAY * 86_400_000 }, settings: DEMO_SETTINGS };
  let dates = 0;
  for (let from = 0; from < listings; from += 200) {
    await db.transaction(async (tx) => {
      const items = Array.from({ length: 200 }, (_, k) => ({ content: content(from + k, count, ids), publish: published(from + k) }));
      const { rows } = await buildMany(tx, items, { jobId: null, change, fallback: ids.categories[0] as string });
      dates += rows.occurrence?.length ?? 0;
      await insertTables(tx, rows);
    });
  }
  // Proof has looked at all of them: its turns in the background would be measured too.
  await db.execute(
    sql`insert into validation_state (listing_id, revision, day) select id, revision, ${TODAY} from listing on conflict do nothing`,
  );
  await close();
  return dates;
}
