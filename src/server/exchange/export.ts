/** Listings given out to those who edit them, a selection or all: working copies as iCalendar, tables and JSON. */
import { effectiveStatus, effectiveVenues } from '@/core/dates/effective-date';
import { asc } from 'drizzle-orm';
import { isoDay } from '@/core/day/day';
import { isoTime } from '@/core/day/plain-date-time';
import { CSV_COLUMNS, CSV_DATE_COLUMNS, type CsvColumn, csvDateRow, writeCsv } from '@/core/exchange/csv';
import { IcalFile } from '@/core/exchange/ical';
import { type ListingContent, sayCost } from '@/core/listing/content';
import type { Style } from '@/core/phrase/format';
import { sayChange, sayRecurrence } from '@/core/phrase/say';
import { endOf } from '@/core/recurrence/expand';
import { withOwnFirstDates } from '@/core/recurrence/first-dates';
import { ruleText } from '@/core/recurrence/rule-text';
import { changesFromStored, fromStored } from '@/core/recurrence/stored';
import { hasTimes } from '@/core/recurrence/sub-daily';
import { plainText } from '@/core/text/text';
import type { Actor } from '../accounts/roles';
import { partDocument } from '../archive/write';
import { listing, published } from '../db/schema';
import { horizonOf, shownZone } from '../dates/date-index';
import { selectingOf, selectTable, type TableQuery } from '../desk/table';
import { icalOf } from '../public/feed';
import { wholeReference, namesOf } from '../reference/read';
import type { Runtime } from '../runtime-type';
import { styleOf } from '../site/settings';
import { inTurns } from '../worker/turns';

/** The files that listings are exported as. */
export const EXPORT_FILES = ['listings.ics', 'listings.csv', 'dates.csv', 'listings.json'] as const;
/** One of {@link EXPORT_FILES}. */
export type ExportFile = (typeof EXPORT_FILES)[number];

type Row = typeof listing.$inferSelect;

/** The listings of a table's selection, in the table's order of titles; without one, all. */
async function rowsOf(rt: Runtime, selection: { actor: Actor; query: TableQuery } | undefined): Promise<Row[]> {
  const where = selection && selectTable(selection.actor, selection.query, await selectingOf(rt, selection.query));
  return rt.db.select().from(listing).where(where).orderBy(asc(listing.title), asc(listing.id));
}

/** The listings of a selection, or all, as a file of one of these kinds. */
export async function exportListings(
  rt: Runtime,
  what: ExportFile,
  selection?: { actor: Actor; query: TableQuery },
): Promise<{ text: string; type: string }> {
  const rows = await rowsOf(rt, selection);
  switch (what) {
    case 'listings.ics':
      return { text: await asIcal(rt, rows), type: 'text/calendar; charset=utf-8' };
    case 'listings.csv':
      return { text: await asTable(rt, rows), type: 'text/csv; charset=utf-8' };
    case 'dates.csv':
      return { text: await asDates(rt, rows), type: 'text/csv; charset=utf-8' };
    case 'listings.json':
      return { text: await asJson(rt, rows, selection?.actor), type: 'application/json' };
  }
}

async function asIcal(rt: Runtime, rows: readonly Row[]): Promise<string> {
  const { name, horizonMonths } = rt.settings();
  const reference = await wholeReference(rt);
  const sequences = new Map(
    (await rt.db.select({ id: published.listingId, sequence: published.sequence }).from(published)).map((row) => [row.id, row.sequence]),
  );
  const file = new IcalFile(horizonOf(rt.now().day, horizonMonths));
  await inTurns(rows, ({ id, stage, slug, working: content, createdAt, changedAt }) => {
    // Of what is not published readers have no page.
    const one = { id, slug: stage === 'published' ? slug : '', content, sequence: sequences.get(id) ?? 0, createdAt, changedAt };
    const given = icalOf(one, reference, rt);
    if (given) file.add(given);
  });
  return file.text({ name, url: rt.siteUrl() });
}

const names = (ids: readonly string[], of: ReadonlyMap<string, { name: string }>): string => namesOf(ids, of, '; ');

type WhenColumns = Record<'When' | 'Start date' | 'Start time' | 'End date' | 'End time' | 'Repeats' | 'Time zone', string>;

/**
 * When, in words that are read again as the same dates, in the style of the site whose reader it will be. A rule with times
 * of its own has the columns for days and times and its own text instead.
 */
function whenOf({ recurrence: stored }: ListingContent, style: Style, weekStart: number): WhenColumns {
  const none = {
    When: '',
    'Start date': '',
    'Start time': '',
    'End date': '',
    'End time': '',
    Repeats: '',
    'Time zone': stored?.zone ?? '',
  };
  if (!stored) return none;
  const recurrence = fromStored(stored);
  const [only, ...more] = recurrence.parts;
  const strange = only?.rule && hasTimes(only.rule);
  if (!only || !strange || more.length) {
    return { ...none, When: sayRecurrence(withOwnFirstDates(recurrence), style, { whole: true, weekStart }) };
  }
  const end = endOf(only.start, only.length);
  return {
    ...none,
    'Start date': isoDay(only.start.day),
    'Start time': only.start.minute === null ? '' : isoTime(only.start.minute),
    'End date': end ? isoDay(end.minute === null ? end.day - 1 : end.day) : '',
    'End time': end && end.minute !== null ? isoTime(end.minute) : '',
    Repeats: ruleText(only, recurrence.zone) ?? '',
  };
}

async function asTable(rt: Runtime, rows: readonly Row[]): Promise<string> {
  const settings = rt.settings();
  const style = styleOf(settings);
  const reference = await wholeReference(rt);
  const table = await inTurns(
    rows,
    ({ id, slug, stage, working: c }): Record<CsvColumn, string> => ({
      ...whenOf(c, style, settings.firstWeekday),
      Id: id,
      Title: c.title,
      'Short title': c.shortTitle,
      Venue: names(c.venueIds, reference.venue),
      Organizer: names(c.organizerIds, reference.organizer),
      Categories: names(c.categoryIds, reference.category),
      Cost: sayCost(c.cost),
      Summary: c.summary,
      Text: plainText(c.text),
      Website: c.website,
      'Online address': c.onlineAddress,
      Access: c.access,
      Contact: c.contact.name,
      Phone: c.contact.phone,
      Mail: c.contact.mail,
      Status: c.eventStatus.replace('-', ' '),
      'Changed dates': changesFromStored(c.changes)
        .map((change) => sayChange(change, style))
        .join('; '),
      Stage: stage,
      Page: stage === 'published' ? `${rt.siteUrl()}/what/${slug}` : '',
    }),
  );
  return writeCsv(CSV_COLUMNS, table);
}

/** A row for each date until the horizon, by the clock that readers see. */
async function asDates(rt: Runtime, rows: readonly Row[]): Promise<string> {
  const settings = rt.settings();
  const reference = await wholeReference(rt);
  const horizon = horizonOf(rt.now().day, settings.horizonMonths);
  const rowOf = new Map(rows.map((row) => [row.id, row]));
  const listings = rows.map(({ id, working }) => ({ listingId: id, content: working, isPublic: false }));
  const all = [];
  for await (const part of rt.worker.run({ task: 'expand', listings, settings, horizon })) {
    for (const one of part.part === 'rows' ? part.rows : []) {
      const row = rowOf.get(one.listingId);
      if (row) all.push(...one.rows.map((date) => ({ id: row.id, slug: row.slug, stage: row.stage, c: row.working, date })));
    }
  }
  all.sort((a, b) => a.date.start_day - b.date.start_day || (a.date.start_minute ?? -1) - (b.date.start_minute ?? -1));
  const table = await inTurns(all, ({ id, slug, stage, c, date }) => {
    return csvDateRow({
      id,
      title: c.title,
      startDay: date.start_day,
      startMinute: date.start_minute,
      endDay: date.end_day,
      endMinute: date.end_minute,
      zone: shownZone(c, settings.zone),
      venues: effectiveVenues(c, date.venue_id).flatMap((id) => reference.venue.get(id) ?? []),
      organizer: names(c.organizerIds, reference.organizer),
      categories: names(c.categoryIds, reference.category),
      cost: sayCost(c.cost),
      eventStatus: effectiveStatus(c.eventStatus, date.event_status),
      note: date.note,
      page: stage === 'published' ? `${rt.siteUrl()}/what/${slug}/${date.slug}` : '',
    });
  });
  return writeCsv(CSV_DATE_COLUMNS, table);
}

/** The listings as an archive's document; a contributor's has nothing that is for editors alone. */
function asJson(rt: Runtime, rows: readonly Row[], actor: Actor | undefined): Promise<string> {
  return partDocument(rt.db, rows, { madeAt: new Date(rt.now().ms), forEditors: actor?.role !== 'contributor' });
}
