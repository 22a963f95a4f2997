/** What may be said of a venue. */
import { z } from 'zod';
import { isCountry } from '@/core/geo/countries';
import { WEEKDAYS } from '@/core/phrase/format';
import { FEATURES } from '@/core/venue/features';
import { type OpeningHours, readHours, type Span } from '@/core/venue/hours';
import { optionalId, optionalMail, optionalNumber, optionalWeb, placeName, tick, words } from '../places/input';
import { serverWords } from '@/words/desk';

const w = serverWords.venuesInput;

const degrees = (most: number, what: string) =>
  z
    .preprocess(
      (value) => (value === '' || value === undefined || value === null ? null : Number(value)),
      z
        .number({ error: w.isANumberSuch({ what }) })
        .min(-most, w.isAtLeast({ what, most }))
        .max(most, w.isAtMost({ what, most }))
        .nullable(),
    )
    .default(null);

const span = z.tuple([z.number().int().min(0).max(1440), z.number().int().min(0).max(2880)]).transform((s): Span => s);
/** Opening hours as they are kept. */
export const openingHours = z
  .object({ format: z.literal(1), week: z.array(z.array(span).max(6)).length(7) })
  .transform((h): OpeningHours => h);
const hours = openingHours.nullable().default(null);

/** What may come in as a venue. */
export const venueInput = z
  .object({
    name: placeName,
    street: words(200),
    town: words(80),
    region: words(80),
    postcode: words(20),
    country: words(2).refine((text) => !text || isCountry(text), { error: w.chooseOneOfThe() }),
    island: words(80),
    lat: degrees(90, w.aLatitude()),
    lng: degrees(180, w.aLongitude()),
    areaOnly: tick,
    hours,
    features: z.array(z.enum(FEATURES)).max(FEATURES.length).default([]),
    access: words(600),
    phone: words(60),
    mail: optionalMail,
    website: optionalWeb,
    pictureId: optionalId,
    notes: words(2000),
    capacity: optionalNumber(100_000, w.howManyItHolds()).default(null),
    setUpMinutes: optionalNumber(1440, w.theTimeToSet())
      .transform((n) => n ?? 0)
      .default(0),
    parentId: optionalId,
  })
  .refine((v) => (v.lat === null) === (v.lng === null), { error: w.giveBothLatitudeAnd(), path: ['lat'] });
/** A venue, checked. */
export type VenueInput = z.infer<typeof venueInput>;

/** A venue of which nothing is said. */
export const BLANK_VENUE: VenueInput = {
  name: '',
  street: '',
  town: '',
  region: '',
  postcode: '',
  country: '',
  island: '',
  lat: null,
  lng: null,
  areaOnly: false,
  hours: null,
  features: [],
  access: '',
  phone: '',
  mail: '',
  website: '',
  pictureId: null,
  notes: '',
  capacity: null,
  setUpMinutes: 0,
  parentId: null,
};

/** The hours of a form: seven texts, Monday first, each with its own problem. */
export function formHours(fields: Record<string, string>): { hours: OpeningHours | null; problems: { field: string; message: string }[] } {
  const { hours: read, problems } = readHours(WEEKDAYS.map((_, i) => fields[`hours${i}`] ?? ''));
  return { hours: read, problems: problems.map((p) => ({ field: `hours${p.weekday}`, message: p.message })) };
}
