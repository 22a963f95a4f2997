/** What Proof must know of everything else: venues, clashes, lookalikes, red-letter days. Reads only. */
import { and, inArray, ne, sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import type { PlainDateTime } from '@/core/day/plain-date-time';
import { isoDateTime } from '@/core/day/plain-date-time';
import { type Booking, clashesByVenue, clashesOf, spansOf } from '@/core/dates/clashes';
import { type ListingContent, picturesOf, venuesOf } from '@/core/listing/content';
import { LOOKALIKE, likenessOf, mayBeAlike, type Sighting } from '@/core/match/lookalike';
import type { TitleIndex } from '@/core/match/title-index';
import type { Clash, Lookalike } from '@/core/validation/neighbour-checks';
import { comingDates, type ValidationContext } from '@/core/validation/validate';
import type { Occurrence } from '@/core/recurrence/model';
import { fold } from '@/core/text/text';
import type { Db } from '../db/client';
import { type Asking, askOnce } from '../site/content-cache';
import { jsonRows } from '../db/json-rows';
import { listing } from '../db/schema';
import { shown } from '../jobs/hidden';
import { horizonOf } from '../dates/date-index';
import { venueChoice } from '../desk/editor-start';
import { pictureChoice, readPictures } from '../pictures/read';
import { linkToOriginal, readUnlooked } from './copies';
import { bookingsIn, bookingsOf } from './booking-cache';
import type { YearMarks } from '../holidays/year-marks';
import type { ReferenceData } from '../reference/read';
import type { Now } from '../site/clock';
import { type SiteSettings, styleOf } from '../site/settings';

/** What Proof needs of a site. */
export interface ValidationSite {
  db: Db;
  settings: SiteSettings;
  now: Now;
  reference: ReferenceData;
  titles: TitleIndex;
  /** what the year says of days */
  yearMarks: Pick<YearMarks, 'redNames'>;
  /** what is known of the content, where nothing of it is being changed */
  answers?: Asking;
}

/** Venues, pictures and what else belongs to a content itself. */
export async function ownContext(
  { db, settings, now, reference, yearMarks }: ValidationSite,
  content: ListingContent,
): Promise<ValidationContext> {
  const pictures = await readPictures(db, picturesOf(content));
  const category = reference.category.get(content.categoryIds[0] ?? '');
  const coming = { from: now.day, to: horizonOf(now.day, settings.horizonMonths) };
  const holidays = await yearMarks.redNames(settings, coming);
  return {
    today: now.day,
    horizon: coming.to,
    zone: settings.zone,
    style: styleOf(settings),
    picture: (id) => {
      const row = pictures.get(id);
      return row && pictureChoice(row);
    },
    category: category && { name: category.name, ink: category.ink, picture: category.pictureId !== null },
    venue: (id) => {
      const v = reference.venue.get(id);
      return v && venueChoice(v);
    },
    organizer: (id) => {
      const o = reference.organizer.get(id);
      return o && { name: o.name, binned: o.binnedAt !== null };
    },
    listPictures: settings.listPictures,
    holidays,
  };
}

/** The same with everything around it: clashes, lookalikes, what a copy still needs. `id`: the listing itself, when it is kept already. */
export async function fullContext(site: ValidationSite, id: string | null, content: ListingContent): Promise<ValidationContext> {
  const own = await ownContext(site, content);
  const coming = comingDates(content, own);
  return {
    ...own,
    unlooked: id ? await readUnlooked(site.db, id) : [],
    backLink: id ? await linkToOriginal(site.db, id, content) : undefined,
    venueClashes: await venueClashes(site, id, content, coming.slice(0, MOST_COMPARED)),
    organizerClashes: await organizerClashes(site, id, content, coming.slice(0, MOST_COMPARED)),
    ...(await lookalikes(site, id, content, coming)),
  };
}

/** So many coming dates are looked at for clashes: most of a year of weekly ones. */
const MOST_COMPARED = 40;

/** Each listing that needs the same once, with the first date of ours that it meets. */
function gathered(dates: readonly Occurrence[], met: ReadonlyMap<string, readonly Booking[]>): Clash[] {
  const byListing = new Map<string, Clash>();
  for (const date of dates) {
    for (const booking of met.get(isoDateTime(date.original)) ?? []) {
      const known = byListing.get(booking.listingId);
      if (known) known.count++;
      else byListing.set(booking.listingId, { booking, day: date.start.day, minute: date.start.minute, count: 1 });
    }
  }
  return [...byListing.values()].slice(0, MOST_NAMED);
}
/** So many others are named. */
const MOST_NAMED = 5;

async function venueClashes(
  site: ValidationSite,
  id: string | null,
  content: ListingContent,
  coming: readonly Occurrence[],
): Promise<Clash[]> {
  const venueIds = content.attendance === 'online' || content.eventStatus === 'cancelled' ? [] : venuesOf(content);
  if (!venueIds.length || !coming.length) return [];
  const margins = new Map(venueIds.map((v) => [v, site.reference.venue.get(v)?.setUpMinutes ?? 0]));
  const spans = spansOf(coming, Math.max(...margins.values()));
  const bookings = await bookingsIn(site.db, { venueIds, not: id, from: site.now.day, spans, answers: site.answers });
  return gathered(coming, clashesByVenue(coming, content.venueIds, bookings, margins));
}

async function organizerClashes(
  site: ValidationSite,
  id: string | null,
  content: ListingContent,
  coming: readonly Occurrence[],
): Promise<(Clash & { organizer: string })[]> {
  if (!content.organizerIds.length || !coming.length || content.eventStatus === 'cancelled') return [];
  const { organizerIds } = content;
  const query = { organizerIds, not: id, from: site.now.day, spans: spansOf(coming, 0), answers: site.answers };
  const bookings = await bookingsOf(site.db, query);
  const all: (Clash & { organizer: string })[] = [];
  for (const organizerId of content.organizerIds) {
    // A whole day asks nobody to be there at an hour.
    const theirs = bookings.filter((b) => b.venueId === organizerId && b.start.minute !== null);
    const timed = coming.filter((date) => date.start.minute !== null);
    const organizer = site.reference.organizer.get(organizerId)?.name ?? '';
    all.push(...gathered(timed, clashesOf(timed, theirs)).map((clash) => ({ ...clash, organizer })));
  }
  return all.slice(0, MOST_NAMED);
}

/** So many listings with a like title are looked at closely. */
const MOST_CANDIDATES = 24;
/** So many coming dates of each are compared. */
const MOST_DATES = 20;

interface Candidate {
  id: string;
  title: string;
  attendance: string;
  venues: string[];
  organizers: string[];
  dates: [day: number, minute: number | null][];
}

async function lookalikes(
  site: ValidationSite,
  id: string | null,
  content: ListingContent,
  coming: readonly Occurrence[],
): Promise<Pick<ValidationContext, 'lookalikes' | 'sameTitle'>> {
  if (!content.title.trim()) return {};
  // Titles are compared before anything is asked: most that share a word are not it.
  const { titles } = site;
  const like = async (): Promise<string[]> =>
    titles.near(content.title, MOST_CANDIDATES + 1).filter((other) => mayBeAlike(content.title, titles.title(other), titles.weight));
  const near = (await askOnce(site.answers, `like ${content.title}`, like)).filter((other) => other !== id);
  if (!near.length) return {};
  const today = site.now.day;
  const candidates = await askOnce(site.answers, `alike ${today} ${near.join()}`, () => readCandidates(site.db, near, today));
  const mine = sighting(site.reference, {
    title: content.title,
    online: content.attendance === 'online',
    venueIds: content.venueIds,
    organizerIds: content.organizerIds,
    dates: coming.slice(0, MOST_DATES).map((d) => d.start),
  });
  const found: Lookalike[] = [];
  for (const c of candidates) {
    const dates = c.dates.map(([day, minute]): PlainDateTime => ({ day, minute }));
    const theirs = sighting(site.reference, {
      title: c.title,
      online: c.attendance === 'online',
      venueIds: c.venues,
      organizerIds: c.organizers,
      dates,
    });
    const { likeness, because } = likenessOf(mine, theirs, site.titles.weight);
    if (likeness >= LOOKALIKE) found.push({ listingId: c.id, title: c.title, likeness, because });
  }
  const title = fold(content.title);
  const sameTitle = candidates
    .filter((c) => fold(c.title) === title && c.dates.length > 0)
    .map((c) => ({ listingId: c.id, title: c.title }));
  return { lookalikes: found.sort((a, b) => b.likeness - a.likeness).slice(0, MOST_NAMED), sameTitle };
}

interface Seen {
  title: string;
  online: boolean;
  venueIds: readonly string[];
  organizerIds: readonly string[];
  dates: readonly PlainDateTime[];
}

function sighting(reference: ReferenceData, { title, online, venueIds, organizerIds, dates }: Seen): Sighting {
  const venues = venueIds.flatMap((v) => {
    const venue = reference.venue.get(v);
    return venue ? [{ id: venue.id, name: venue.name, parentId: venue.parentId }] : [];
  });
  return { title, online, venues, organizers: organizerIds, dates };
}

async function readCandidates(db: Db, ids: readonly string[], today: EpochDay): Promise<Candidate[]> {
  return jsonRows<Candidate>(
    db,
    sql`select l.id, l.title, l.working->>'attendance' as attendance, l.working->'venueIds' as venues, l.working->'organizerIds' as organizers,
      coalesce((select json_agg(json_build_array(d.start_day, d.start_minute)) from (
        select o.start_day, o.start_minute from occurrence o where o.listing_id = l.id and o.last_day >= ${today} and coalesce(o.event_status, '') <> 'cancelled'
        order by o.start_day, o.start_minute limit ${MOST_DATES}) d), '[]') as dates
      from ${listing} l where ${and(inArray(sql`l.id`, [...ids]), ne(sql`l.stage`, 'binned'), ne(sql`l.stage`, 'withdrawn'), shown(sql.raw('l.job_id')))}`,
  );
}
