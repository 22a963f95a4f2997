/**
 * What an archive's parts hold, checked as strictly as what people type: lengths, kinds, sanitised HTML. Names are the
 * document's own (docs/formats.md); the order of keys here is the order in which they are written.
 */
import { LONGEST_ADDRESS } from '@/core/text/old-addresses';
import { LONGEST_HOLIDAY_NAME, MOST_HOLIDAY_LINES } from '@/core/holidays/holiday-lines';
import type { HolidayRule } from '@/core/holidays/holidays';
import { SECOND_CALENDARS } from '@/core/phrase/second-calendar';
import { HAPPENING_CODES, type StoredHappening, toKeep } from '../history/happening';
import { z } from 'zod';
import { PICTURE_FILE } from '@/core/exchange/archive';
import { GAZETTEER_KINDS } from '@/core/geo/gazetteer';
import { CHART_KINDS } from '@/core/geo/geo';
import { FILTER_GROUPS } from '@/core/filters/filters';
import { VIEW_NAMES } from '@/core/views/views';
import { STAGES } from '@/core/listing/content';
import { LANGUAGES } from '@/core/phrase/language';
import { PART_WORDS, type SentPart } from '@/core/listing/sent';
import { categoryInput } from '../categories/write';
import { contentInput } from '../listings/input';
import { organizerInput } from '../organizers/write';
import { DEFAULT_SETTINGS, MOST_DAY_PICTURES, type SiteSettings, YEAR_MARKS } from '../site/settings';
import { settingsInput } from '../site/write';
import { ORGANIZER_FACTS, VENUE_FACTS } from '@/core/venue/shown-facts';
import { openingHours, venueInput } from '../venues/input';

const id = z.uuid();
const words = (most: number) => z.string().max(most, `At most ${most.toLocaleString('en')} characters`);
const instant = z.iso.datetime({ offset: true }).transform((text) => new Date(text));
const slug = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'A web address has small letters, digits and hyphens')
  .max(200);
const revision = z.number().int().min(0).max(1_000_000_000);
const hash = z.string().regex(/^[0-9a-f]{64}$/, 'A hash is 64 hexadecimal digits');
const fraction = z.number().min(0).max(1);

const { twice: _twice, ...categoryFields } = categoryInput.shape;
/** A category's row in an archive. */
export const categoryShape = z.object({
  id,
  slug,
  ...categoryFields,
  tinted: z.boolean(),
  position: z.number().int().min(0).max(100_000),
  fallback: z.boolean(),
  revision,
});
/** A tag's row in an archive. */
export const tagShape = z.object({ id, slug, name: words(40), folded: words(120), revision });
/** A venue's row in an archive, notes included. */
export const venueShape = z.object({ id, slug, ...venueInput.shape, binnedAt: instant.nullable(), revision });
/** An organizer's row in an archive, notes included. */
export const organizerShape = z.object({ id, slug, ...organizerInput.shape, binnedAt: instant.nullable(), revision });
/** A former slug of a place in an archive. */
export const oldPlaceShape = z.object({ kind: z.enum(['venue', 'organizer']), slug, targetId: id });

const box = z.object({ x: fraction, y: fraction, w: fraction, h: fraction }).optional();
/** A picture's row in an archive; its bytes stand apart. */
export const pictureShape = z.object({
  id,
  hash,
  /** where its bytes are */
  file: z.string().regex(PICTURE_FILE, 'A picture’s file is written pictures/<hash>.png'),
  name: words(200),
  alt: words(300),
  credit: words(120),
  width: z.number().int().min(1).max(100_000),
  height: z.number().int().min(1).max(100_000),
  detail: fraction,
  focusX: fraction,
  focusY: fraction,
  crops: z.object({ format: z.literal(1), wide: box, square: box, share: box }),
  version: revision,
  createdAt: instant,
  binnedAt: instant.nullable(),
});

const dateNameShape = z.object({ dateId: words(40), original: words(40), former: z.boolean() });
/** What happened, as it is kept; in archives of before there were codes, its words. */
const happened = z.union([
  words(200).transform((text) => toKeep({ code: 'words', text })),
  z
    .object({ format: z.literal(1), code: z.enum(HAPPENING_CODES), ended: z.number().int().min(0).optional() })
    .catchall(z.union([words(400), z.number()])),
]) as unknown as z.ZodType<StoredHappening>;
/** A version's row in an archive. */
export const versionShape = z.object({ id, revision, content: contentInput, what: happened, byName: words(200), at: instant });
const waiverShape = z.object({ key: words(200), reason: words(2000), byName: words(200), at: instant });
const copyShape = z.object({ fromTitle: words(200), fromId: id.nullable(), unlooked: z.array(z.enum(['title', 'when'])).max(2) });
const sourceShape = z.object({ source: words(200), uid: words(1000), hash: words(200), sequence: z.number().int(), content: contentInput });
const said = z.object({ where: words(500), who: words(500) });
const submissionShape = z.object({
  id,
  tokenHash: hash.nullable(),
  state: z.enum(['waiting', 'returned', 'published', 'declined', 'taken-back', 'merged']),
  senderName: words(200),
  senderMail: words(300),
  senderPhone: words(100),
  message: words(5000),
  said: said.extend({ format: z.literal(1) }),
  language: z.enum(LANGUAGES).default('en'),
  note: words(5000),
  decidedBy: words(200).nullable(),
  decidedAt: instant.nullable(),
  sentAt: instant,
  changes: z.number().int().min(0),
  sentRevision: z.number().int().nullable(),
  proposal: z
    .object({
      format: z.literal(1),
      parts: z.array(z.enum(Object.keys(PART_WORDS) as SentPart[])).max(40),
      content: contentInput,
      said,
      at: z.iso.datetime(),
    })
    .nullable(),
  intoId: id.nullable(),
  revision,
});
const publishedShape = z.object({ content: contentInput, sequence: revision, publishedAt: instant, changedAt: instant });

/** A listing as the Desk gives out a selection: without its history. */
export const selectedShape = z.object({
  id,
  slug,
  stage: z.enum(STAGES),
  /** what editors work on */
  content: contentInput,
  /** what readers see */
  published: publishedShape.nullable().default(null),
  createdAt: instant,
  changedAt: instant,
});

/** One listing with everything that is kept of it. */
export const listingShape = z
  .object({
    ...selectedShape.shape,
    edited: z.boolean().default(false),
    revision: revision.default(1),
    publishAt: instant.nullable().default(null),
    withdrawAt: instant.nullable().default(null),
    scheduledBy: words(200).default(''),
    scheduleWrong: words(2000).default(''),
    firstPublishedAt: instant.nullable().default(null),
    oldSlugs: z.array(slug).max(1000).default([]),
    dateNames: z.array(dateNameShape).max(100_000).default([]),
    versions: z.array(versionShape).max(100_000).default([]),
    waivers: z.array(waiverShape).max(1000).default([]),
    copy: copyShape.nullable().default(null),
    sources: z.array(sourceShape).max(1000).default([]),
    submission: submissionShape.nullable().default(null),
  })
  .refine((row) => (row.stage === 'published') === (row.published !== null), {
    error: 'A published listing has a copy for readers, and no other has one',
    path: ['published'],
  });

const degrees = z.number().min(-180).max(180);
/** A chart over the date line goes on beyond 180. */
const turned = z.number().min(-540).max(540);
const position = z.tuple([turned, degrees]);
const geometry = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Polygon'), coordinates: z.array(z.array(position).max(100_000)).max(1000) }),
  z.object({ type: z.literal('LineString'), coordinates: z.array(position).max(100_000) }),
  z.object({ type: z.literal('Point'), coordinates: position }),
]);
const drawn = {
  bounds: z.object({ west: turned, south: degrees, east: turned, north: degrees }),
  features: z
    .array(
      z.object({
        type: z.literal('Feature'),
        properties: z.object({
          kind: z.enum(CHART_KINDS),
          name: words(200).optional(),
          water: z.boolean().optional(),
          rank: z.number().int().min(0).optional(),
          own: z.boolean().optional(),
        }),
        geometry,
      }),
    )
    .max(60_000),
};
const chart = z.discriminatedUnion('format', [
  z.object({ format: z.literal(1), source: z.literal('base').optional(), ...drawn }),
  z.object({
    format: z.literal(2),
    world: words(40).optional(),
    ...drawn,
    own: z.object({ name: words(400), at: words(40), credit: words(400), off: z.boolean().optional(), ...drawn }).optional(),
  }),
]);
const gazetteer = z.object({
  format: z.literal(1),
  entries: z
    .array(
      z.object({
        kind: z.enum(GAZETTEER_KINDS),
        name: words(200),
        town: words(200),
        island: words(200),
        line: z
          .array(z.object({ lat: degrees, lng: degrees }))
          .min(1)
          .max(10_000),
        numbers: z.tuple([z.number().int(), z.number().int()]).optional(),
      }),
    )
    .max(100_000),
});

const month = z.number().int().min(1).max(12);
const weekday = z.number().int().min(0).max(6);
const year = z.number().int().min(1).max(9999);
const monthDay = z.object({ month, day: z.number().int().min(1).max(31) });
const line = z.object({ name: words(LONGEST_HOLIDAY_NAME).min(1), from: year.optional(), until: year.optional() });
const holiday: z.ZodType<HolidayRule> = z.discriminatedUnion('kind', [
  line.extend({ kind: z.literal('fixed'), ...monthDay.shape }),
  line.extend({ kind: z.literal('easter'), offset: z.number().int().min(-999).max(999) }),
  line.extend({ kind: z.literal('weekday'), month, weekday, nth: z.number().int().min(-5).max(5) }),
  line.extend({ kind: z.literal('span'), first: monthDay, last: monthDay }),
  line.extend({
    kind: z.literal('sun'),
    event: z.enum(['sunrise', 'sunset']),
    minutes: z.number().int().min(-999).max(999),
    weekdays: z.array(weekday).max(7),
  }),
]);

/** Every setting: one that is forgotten here does not compile, since an archive would lose it without a word. */
const settings: z.ZodType<SiteSettings> = z.object({
  format: z.literal(2),
  ...settingsInput.shape,
  views: z.array(z.enum(VIEW_NAMES)).min(1).max(VIEW_NAMES.length).default(DEFAULT_SETTINGS.views),
  filters: z.array(z.enum(FILTER_GROUPS)).max(FILTER_GROUPS.length).default(DEFAULT_SETTINGS.filters),
  venueShows: z.array(z.enum(VENUE_FACTS)).max(VENUE_FACTS.length).default(DEFAULT_SETTINGS.venueShows),
  organizerShows: z.array(z.enum(ORGANIZER_FACTS)).max(ORGANIZER_FACTS.length).default(DEFAULT_SETTINGS.organizerShows),
  holidays: z.array(holiday).max(MOST_HOLIDAY_LINES),
  holidayCountry: z.string().max(2).default(''),
  holidayRegion: z.string().max(12).default(''),
  holidayChoice: z.record(z.string().max(300), z.boolean()).default({}),
  yearMarks: z.array(z.enum(YEAR_MARKS)).max(YEAR_MARKS.length).default([]),
  secondCalendar: z.enum(['', ...SECOND_CALENDARS]).default(''),
  dayPictures: z
    .array(z.object({ name: z.string().max(300), pictureId: id }))
    .max(MOST_DAY_PICTURES)
    .default([]),
  openHours: openingHours.nullable().default(null),
  closedOnRedDays: z.boolean().default(true),
});

/** The site itself. `uidHost` is the part behind the @ of its calendars' UIDs. */
export const siteShape = z.object({
  settings: settings.nullable(),
  chart: chart.nullable(),
  gazetteer: gazetteer.nullable(),
  uidHost: words(253).nullable(),
  /** where addresses of a former site lead */
  oldAddresses: z
    .array(z.object({ from: words(LONGEST_ADDRESS), to: words(LONGEST_ADDRESS).regex(/^\/(?![/\\])/) }))
    .max(50_000)
    .default([]),
});

/** What the words of files were decided to mean: places, people and categories; and the columns of tables. */
export const matchShape = z.object({ kind: z.enum(['venue', 'organizer', 'category']), said: words(1000), target: id.nullable() });
/** How the columns of a table were understood, in an archive. */
export const columnsShape = z.object({
  headers: words(1000),
  columns: z.object({ format: z.literal(1), columns: z.array(words(100)).max(500), order: z.enum(['day-month', 'month-day']).optional() }),
});

/** The parts that are lists, in the order in which they are written and taken in: what is pointed to comes first. */
export const LISTS = {
  pictures: pictureShape,
  categories: categoryShape,
  tags: tagShape,
  venues: venueShape,
  organizers: organizerShape,
  oldPlaces: oldPlaceShape,
  words: matchShape,
  tables: columnsShape,
  listings: listingShape,
} as const;
/** The name of one of an archive's lists. */
export type ListName = keyof typeof LISTS;
/** An entry of one of an archive's lists. */
export type Part<K extends ListName> = z.infer<(typeof LISTS)[K]>;
/** A listing as an archive has it. */
export type ArchivedListing = Part<'listings'>;

/** A row with the keys of a shape, in its order; what the shape does not name stays out. */
export function inShape(shape: z.ZodObject, row: Readonly<Record<string, unknown>>): Record<string, unknown> {
  return Object.fromEntries(Object.keys(shape.shape).map((key) => [key, row[key]]));
}
