/** Published listings as other programs read them. */
import { and, inArray, sql } from 'drizzle-orm';
import type { EpochDay } from '@/core/day/day';
import { type DateTimes, listingVenues } from '@/core/dates/effective-date';
import type { Language } from '@/core/phrase/language';
import { sayRecurrence } from '@/core/phrase/say';
import type { EventStatus } from '@/core/recurrence/model';
import { fromStored } from '@/core/recurrence/stored';
import { horizonOf, shownZone } from '../dates/date-index';
import type { Db } from '../db/client';
import { jsonRows } from '../db/json-rows';
import { published } from '../db/schema';
import { shown } from '../jobs/hidden';
import { type PictureRow, pictureFileOf, readPictures } from '../pictures/read';
import { withWholeAddresses } from '../listings/html';
import { notFound } from '../problem';
import { findPublished, type PublishedRow, rowIn } from '../public/listing';
import { EVENT_STATUS, TABLES } from '../public/public-dates';
import { readersDates } from '../public/readers-dates';
import type { Runtime } from '../runtime-type';
import { styleOf } from '../site/settings';
import type { OpenQuery } from './query';
import type { OpenListing, OpenPicture } from './shapes';
import type { ListingContent } from '@/core/listing/content';
import { costOf, linkTo, type OpenPage, refuseUnknown, takenFor, type Telling, tellingOf, timesOf, venuesOf, webAddress } from './telling';

/** Listings with a date that is asked for, in the order of their ids. */
export async function openListings(rt: Runtime, query: OpenQuery): Promise<OpenPage<OpenListing, string>> {
  const telling = await tellingOf(rt, query.language);
  const found = await readersDates(rt, query.filters);
  refuseUnknown(query, telling.reference, found);
  const today = rt.now().day;
  const ids = (await found.listingIds({ from: found.days.from ?? today, to: horizonOf(today, rt.settings().horizonMonths) })).sort();
  const after = query.cursor === undefined ? ids : ids.filter((id) => id > (query.cursor ?? ''));
  const chosen = after.slice(0, query.limit);
  const rows = chosen.length
    ? await rt.db
        .select()
        .from(published)
        .where(and(inArray(published.listingId, chosen), shown(published.jobId)))
    : [];
  rows.sort((a, b) => (a.listingId < b.listingId ? -1 : 1));
  return {
    data: await tellListings(rows, telling),
    next: after.length > chosen.length ? chosen.at(-1) : undefined,
    taken: takenFor(found),
  };
}

/** The listing at an address; who has that of one by address only may read it here too. @throws Problem "missing" */
export async function openListing(rt: Runtime, slug: string, language: Language): Promise<OpenListing> {
  const found = await findPublished(rt.db, slug);
  if (found && 'movedTo' in found) return openListing(rt, found.movedTo, language);
  const [told] = found ? await tellListings([found.row], await tellingOf(rt, language)) : [];
  if (!told) throw notFound('listing');
  return told;
}

async function tellListings(rows: readonly PublishedRow[], telling: Telling): Promise<OpenListing[]> {
  const { rt } = telling;
  const pictures = await readPictures(
    rt.db,
    rows.map(({ content }) => content.pictureId),
  );
  const coming = await readNext(
    rt.db,
    rows.map(({ listingId }) => listingId),
    rt.now().day,
  );
  return rows.map((row) => listingOf(row, pictures.get(row.content.pictureId ?? ''), coming.get(row.listingId), telling));
}

type NextRow = DateTimes & { listingId: string; slug: string; eventStatus: EventStatus; n: number };

/** The next date of each of these listings, and how many it has to come. */
async function readNext(db: Db, ids: readonly string[], today: EpochDay): Promise<Map<string, NextRow>> {
  if (!ids.length) return new Map();
  const rows = await jsonRows<NextRow>(
    db,
    sql`select distinct on (o.listing_id) o.listing_id as "listingId", o.slug, ${sql.raw(EVENT_STATUS)} as "eventStatus", o.original, o.moved,
        o.start_day as "startDay", o.start_minute as "startMinute", o.end_day as "endDay", o.end_minute as "endMinute", o.last_day as "lastDay",
        count(*) over (partition by o.listing_id)::int as n
      ${TABLES} where o.listing_id in ${ids} and o.last_day >= ${today}
      order by o.listing_id, o.start_day, o.start_minute nulls first, o.original`,
  );
  return new Map(rows.map((row) => [row.listingId, row]));
}

/** What its page calls readers to do; null where it has no button. */
function callOf({ callKind: kind, callAddress }: ListingContent): OpenListing['call'] {
  const address = webAddress(callAddress);
  return address ? { kind, address } : null;
}

function listingOf(row: PublishedRow, picture: PictureRow | undefined, next: NextRow | undefined, telling: Telling): OpenListing {
  const { rt, reference, language, site, page, self } = telling;
  const { content, title, shortTitle, summary } = rowIn(row, language);
  const recurrence = content.recurrence && fromStored(content.recurrence);
  const zone = shownZone(content, rt.settings().zone);
  return {
    id: row.listingId,
    slug: row.slug,
    page: page(`/what/${row.slug}`),
    self: self(`/listings/${row.slug}`),
    title,
    shortTitle,
    summary,
    text: withWholeAddresses(content.text, site),
    repeats: recurrence ? sayRecurrence(recurrence, styleOf(rt.settings(), language)) : '',
    zone: recurrence?.zone ?? zone,
    status: content.eventStatus,
    statusNote: content.eventStatusNote,
    attendance: content.attendance,
    online: content.attendance === 'in-person' ? null : webAddress(content.onlineAddress),
    venues: venuesOf(listingVenues(content), telling),
    organizers: content.organizerIds.flatMap((id) => reference.organizer.get(id) ?? []).map((one) => linkTo(one, '/organizers', telling)),
    categories: content.categoryIds.flatMap((id) => reference.category.get(id) ?? []).map((one) => linkTo(one, '/categories', telling)),
    tags: content.tagIds.flatMap((id) => reference.tag.get(id) ?? []).map(({ slug, name }) => ({ slug, name })),
    ...costOf(content.cost, language),
    website: webAddress(content.website),
    call: callOf(content),
    access: content.access,
    picture: picture ? pictureOf(picture, site) : null,
    next: next ? { start: timesOf(next, zone).start, page: page(`/what/${row.slug}/${next.slug}`), status: next.eventStatus } : null,
    coming: next?.n ?? 0,
    dates: page(`/what/${row.slug}/dates.ics`),
    published: row.publishedAt.toISOString(),
    changed: row.changedAt.toISOString(),
  };
}

/** The whole picture in the widest of the sizes that it is made in. */
function pictureOf(picture: PictureRow, site: string): OpenPicture {
  const { src, width, height } = pictureFileOf(picture, 'whole', picture.width);
  return { url: site + src, width, height, alt: picture.alt, credit: picture.credit };
}
