/** The dates of everything that editors have, for the Desk's sheets: working copies, of every stage that is chosen. */
import { type SQL, sql } from 'drizzle-orm';
import { effectiveStatus, effectiveVenues } from '@/core/dates/effective-date';
import type { EpochDay } from '@/core/day/day';
import { type ListingContent, STAGES } from '@/core/listing/content';
import type { DeskDate, DeskDates, DeskFilters } from '@/core/sheet/desk-sheet';
import { type Actor, editsAll } from '../accounts/roles';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { shown } from '../jobs/hidden';
import { likePattern } from '@/core/filters/filters';
import { type ReferenceData, withChildren } from '../reference/read';
import type { SiteSettings } from '../site/settings';
import { indexRows, timesOfRow } from '../dates/date-index';

/** Reads a sheet's address; what is unknown is left out. */
export function readDeskFilters(query: URLSearchParams): DeskFilters {
  const stages = (query.get('stage') ?? '').split(',');
  return {
    stages: STAGES.filter((stage) => stages.includes(stage)),
    kind: (query.get('kind') ?? '').slice(0, 80),
    venue: (query.get('venue') ?? '').slice(0, 80),
    words: (query.get('words') ?? '').replace(/\s+/g, ' ').trim().slice(0, 80),
  };
}

/** Which days of the sheets are asked for, by whom, under which filters. */
export interface SheetInput {
  actor: Actor;
  from: EpochDay;
  /** included */
  to: EpochDay;
  filters: DeskFilters;
  reference: ReferenceData;
  settings: SiteSettings;
}

/** So many dates at most on one sheet; what is more is said. */
const MOST = 6000;

const COLUMNS = sql.raw(`
  o.listing_id as "listingId", o.original, coalesce(nullif(l.working->>'shortTitle', ''), l.title) as title, l.stage, l.edited,
  o.start_day as "startDay", o.start_minute as "startMinute", o.end_day as "endDay", o.end_minute as "endMinute", o.last_day as "lastDay",
  case when l.working->>'eventStatus' <> 'going-ahead' then l.working->>'eventStatus' else coalesce(o.event_status, 'going-ahead') end as "eventStatus",
  o.moved, (l.working->>'headline')::boolean as headline,
  jsonb_array_length(l.working->'recurrence'->'parts') > 1 or l.working->'recurrence'->'parts'->0->>'rule' is not null as repeats,
  l.working->'categoryIds'->>0 as "categoryId",
  case when o.venue_id is not null then jsonb_build_array(o.venue_id) when l.working->>'attendance' = 'online' then '[]'::jsonb else l.working->'venueIds' end as "venueIds"`);

function conditions({ actor, filters, reference }: SheetInput): SQL {
  const all: SQL[] = [shown(sql.raw('l.job_id'))];
  if (!editsAll(actor)) all.push(sql`l.owner_id = ${actor.id ?? ''}`);
  all.push(filters.stages.length ? sql`l.stage in ${filters.stages}` : sql`l.stage <> 'binned'`);
  if (filters.kind) {
    const kinds = withChildren(reference, filters.kind).map((c) => sql`l.working->'categoryIds' @> ${JSON.stringify([c.id])}::jsonb`);
    all.push(kinds.length ? sql`(${sql.join(kinds, sql` or `)})` : sql`false`);
  }
  if (filters.words)
    all.push(sql`(l.title ilike ${likePattern(filters.words)} or l.working->>'summary' ilike ${likePattern(filters.words)})`);
  return sql.join(all, sql` and `);
}

/**
 * Dates that touch a span. They come from the date index, but for published listings whose changes wait: the index has what
 * readers see, so theirs are computed from the working copy.
 */
export async function readDeskDates(db: Db, input: SheetInput): Promise<DeskDates> {
  const { from, to, filters, reference } = input;
  const where = conditions(input);
  const venue = reference.venues.find((v) => v.slug === filters.venue)?.id;
  if (filters.venue && !venue) return { dates: [], cut: false };
  const indexed = await jsonRows<DeskDate>(
    db,
    sql`select ${COLUMNS} from occurrence o join listing l on l.id = o.listing_id
      where o.start_day <= ${to} and o.last_day >= ${from} and ${where} and not (l.stage = 'published' and l.edited)
      order by o.start_day, o.start_minute nulls first, l.title, o.listing_id limit ${MOST + 1}`,
  );
  const waiting = await jsonRows<{ id: string; title: string; working: ListingContent }>(
    db,
    sql`select l.id, l.title, l.working from listing l where l.stage = 'published' and l.edited and ${where}`,
  );
  const all = [...indexed, ...waiting.flatMap((listing) => datesOf(listing, input))];
  const dates = venue ? all.filter((date) => date.venueIds.includes(venue)) : all;
  return { dates: dates.slice(0, MOST), cut: indexed.length > MOST || dates.length > MOST };
}

function datesOf(
  { id, title, working }: { id: string; title: string; working: ListingContent },
  { from, to, settings }: SheetInput,
): DeskDate[] {
  const { recurrence, shortTitle, headline } = working;
  const first = recurrence?.parts[0];
  const repeats = Boolean(first?.rule) || (recurrence?.parts.length ?? 0) > 1;
  return indexRows({ listingId: id, content: working, isPublic: false, settings, horizon: to })
    .filter((row) => row.start_day <= to && row.last_day >= from)
    .map((row) => ({
      ...timesOfRow(row),
      listingId: id,
      title: shortTitle || title,
      stage: 'published',
      edited: true,
      eventStatus: effectiveStatus(working.eventStatus, row.event_status),
      headline,
      repeats,
      categoryId: working.categoryIds[0] ?? null,
      venueIds: effectiveVenues(working, row.venue_id),
    }));
}
