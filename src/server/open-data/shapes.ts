/**
 * What other programs read of the site: the shapes of every answer, from which the OpenAPI document is made and by which tests check the answers.
 * A field is never taken out or given another meaning within a version; new ones may come.
 */
import { z } from 'zod';
import { FEATURES } from '@/core/venue/features';
import { ATTENDANCE, CALLS } from '@/core/listing/content';
import { EVENT_STATUSES } from '@/core/recurrence/model';

const id = z.uuid();
const slug = z
  .string()
  .describe('The last part of its page’s address. A former one is answered with what it is now; ask by `self`, and keep `id`.');
const page = z.url().describe('Its page for readers.');
const self = z.url().describe('This, with all that is told of it.');
const moment = z
  .string()
  .describe('An instant with its offset (RFC 3339), `2027-03-17T19:30:00-03:00`; of whole days the day alone, `2027-03-17`.');
const position = z
  .object({ lat: z.number().min(-90).max(90), lng: z.number().min(-180).max(180) })
  .nullable()
  .describe('WGS 84 degrees; null where none is known. Of a place that is told as an area it is rounded.');

const venueRef = z
  .object({ id, slug, name: z.string(), town: z.string(), position, areaOnly: z.boolean(), self })
  .meta({ id: 'VenueLink' });
const organizerRef = z.object({ id, slug, name: z.string(), self }).meta({ id: 'OrganizerLink' });
const categoryRef = z.object({ id, slug, name: z.string(), self }).meta({ id: 'CategoryLink' });

const status = z.enum(EVENT_STATUSES).describe('What its listing says, and where that goes ahead, what this date says itself.');
const price = z
  .object({ amount: z.string(), currency: z.string().length(3).describe('ISO 4217') })
  .nullable()
  .describe('Where the cost is one amount.');
const cost = { free: z.boolean(), cost: z.string().describe('In words; empty where nothing is said.'), price };
const picture = z
  .object({ url: z.url(), width: z.int().positive(), height: z.int().positive(), alt: z.string(), credit: z.string() })
  .meta({ id: 'Picture' });
/** A picture in the widest of its sizes. */
export type OpenPicture = z.infer<typeof picture>;

/** One date of a listing. */
export const openDate = z
  .object({
    id: z.string().describe('Stays the same when the date moves: the listing’s id and the start that it had first.'),
    listing: z.object({ id, slug, self }),
    page,
    title: z.string(),
    summary: z.string(),
    start: moment,
    end: moment.nullable().describe('As `start`; of whole days the last one, included; null where no end is given.'),
    allDay: z.boolean(),
    zone: z.string().describe('The IANA time zone of its times.'),
    status,
    moved: z.boolean().describe('It is not where its rule had put it.'),
    note: z.string().describe('What is said of this date alone.'),
    attendance: z.enum(ATTENDANCE),
    venues: z.array(venueRef),
    category: categoryRef.nullable(),
    ...cost,
  })
  .meta({ id: 'Date' });
/** One of {@link openDate}. */
export type OpenDate = z.infer<typeof openDate>;

/** A published listing with its next date. */
export const openListing = z
  .object({
    id,
    slug,
    page,
    self,
    title: z.string(),
    shortTitle: z.string(),
    summary: z.string(),
    text: z.string().describe('HTML: headings, paragraphs, lists, quotes, links and pictures, sanitised.'),
    repeats: z.string().describe('When it is, in a sentence.'),
    zone: z.string().describe('The IANA time zone that its repeats are reckoned in.'),
    status,
    statusNote: z.string(),
    attendance: z.enum(ATTENDANCE),
    online: z.url().nullable().describe('Where to join.'),
    venues: z.array(venueRef),
    organizers: z.array(organizerRef),
    categories: z.array(categoryRef).describe('The first is the one that it stands under.'),
    tags: z.array(z.object({ slug, name: z.string() })),
    ...cost,
    website: z.url().nullable(),
    call: z
      .object({ kind: z.enum(CALLS), address: z.url() })
      .nullable()
      .describe('What its page calls readers to do, and where: a button there.'),
    access: z.string(),
    picture: picture.nullable(),
    next: z.object({ start: moment, page, status }).nullable().describe('Its next date; null where it has none to come.'),
    coming: z.int().min(0).describe('How many of its dates are to come.'),
    dates: z.url().describe('All of its dates as a calendar file (RFC 5545).'),
    published: z.iso.datetime(),
    changed: z.iso.datetime(),
  })
  .meta({ id: 'Listing' });
/** One of {@link openListing}. */
export type OpenListing = z.infer<typeof openListing>;

/** A venue or a room of one. */
export const openVenue = z
  .object({
    id,
    slug,
    page,
    self,
    name: z.string(),
    hall: z.object({ id, slug, name: z.string(), self }).nullable().describe('The hall that this is a room of.'),
    street: z.string(),
    town: z.string(),
    area: z.string().describe('An island or another part of the country.'),
    region: z.string(),
    postcode: z.string(),
    country: z.string(),
    position,
    areaOnly: z.boolean().describe('Readers learn the area alone, no street.'),
    phone: z.string(),
    website: z.url().nullable(),
    access: z.string(),
    features: z.array(z.enum(FEATURES)),
    coming: z.int().min(0),
  })
  .meta({ id: 'Venue' });
/** One of {@link openVenue}. */
export type OpenVenue = z.infer<typeof openVenue>;

/** An organizer, with what may be told of it. */
export const openOrganizer = z
  .object({ id, slug, page, self, name: z.string(), text: z.string(), website: z.url().nullable(), coming: z.int().min(0) })
  .meta({ id: 'Organizer' });
/** One of {@link openOrganizer}. */
export type OpenOrganizer = z.infer<typeof openOrganizer>;

/** A category. */
export const openCategory = z
  .object({
    id,
    slug,
    self,
    name: z.string(),
    parent: z.object({ id, slug, name: z.string(), self }).nullable(),
    ink: z.string().regex(/^#[0-9a-f]{6}$/i),
    coming: z.int().min(0).describe('Dates to come under it and under those below it.'),
  })
  .meta({ id: 'Category' });
/** One of {@link openCategory}. */
export type OpenCategory = z.infer<typeof openCategory>;

const taken = z
  .object({ word: z.string(), others: z.array(z.string()).describe('What was looked for instead; empty where nothing is like it.') })
  .meta({ id: 'TakenWord' });
/** A word that was taken for others. */
export type Taken = z.infer<typeof taken>;

/** A page of something, and where the next one is. */
export const pageOf = <T extends z.ZodType>(of: T, name: string) =>
  z
    .object({
      data: z.array(of),
      next: z.url().nullable().describe('The next page; null on the last.'),
      taken: z.array(taken).describe('Words of the question that nothing has.'),
    })
    .meta({ id: name });

/** What went wrong (RFC 9457). */
export const openProblem = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    fields: z.array(z.object({ field: z.string(), message: z.string() })).describe('Which parts of the question, and what would be right.'),
  })
  .meta({ id: 'Problem' });

/** What the shapes have in common, each under its name. */
export const PARTS = [venueRef, organizerRef, categoryRef, picture, taken] as const;
