/** What answers to other programs are made of: names with the addresses of what they name, times, costs. */
import { isoDay } from '@/core/day/day';
import { isoIn } from '@/core/day/zone';
import type { DateTimes } from '@/core/dates/effective-date';
import { type Cost, sayCost } from '@/core/listing/content';
import { type Language, languagePrefix } from '@/core/phrase/language';
import { isWebAddress } from '@/core/validation/links';
import { Problem } from '../problem';
import { unknownChoices } from '../public/filter-conditions';
import type { ReadersDates } from '../public/readers-dates';
import { type ReferenceData, referenceData, type VenueView } from '../reference/read';
import type { Runtime } from '../runtime-type';
import type { OpenQuery } from './query';
import type { Taken } from './shapes';

/** Where this version is. */
export const OPEN_DATA = '/api/open/v1';

/** What answers are made with. */
export interface Telling {
  rt: Runtime;
  reference: ReferenceData;
  language: Language;
  site: string;
  /** a page for readers */
  page: (path: string) => string;
  /** something in this interface */
  self: (path: string) => string;
}

/** What answers in a language are made with. */
export async function tellingOf(rt: Runtime, language: Language): Promise<Telling> {
  const site = rt.siteUrl();
  const prefix = languagePrefix(language);
  const query = language === 'en' ? '' : `?language=${language}`;
  return {
    rt,
    reference: await referenceData(rt),
    language,
    site,
    page: (path) => `${site}${prefix}${path}`,
    self: (path) => `${site}${OPEN_DATA}${path}${query}`,
  };
}

/** Where a venue is told to be. */
export const positionOf = ({ lat, lng }: VenueView) => (lat === null || lng === null ? null : { lat, lng });

/** Something by its name, and where more of it is. */
export const linkTo = ({ id, slug, name }: { id: string; slug: string; name: string }, path: string, { self }: Telling) => ({
  id,
  slug,
  name,
  self: self(`${path}/${slug}`),
});

/** Venues by their ids, in their order; what is there no more is left out. */
export const venuesOf = (ids: readonly string[], telling: Telling) =>
  ids
    .flatMap((id) => telling.reference.venue.get(id) ?? [])
    .map((venue) => ({
      ...linkTo(venue, '/venues', telling),
      town: venue.town,
      position: positionOf(venue),
      areaOnly: venue.areaOnly,
    }));

/** What it costs, in words and where it can be as an amount. */
export const costOf = (cost: Cost, language: Language) => ({
  free: cost.kind === 'free',
  cost: sayCost(cost, language),
  price: cost.kind === 'amount' ? { amount: cost.amount, currency: cost.currency } : null,
});

/** When a date is: instants with their offsets, or days. */
export function timesOf({ startDay, startMinute, endDay, endMinute, lastDay }: DateTimes, zone: string) {
  const start = isoIn(zone, { day: startDay, minute: startMinute });
  if (startMinute === null) return { start, end: isoDay(lastDay), allDay: true };
  return { start, end: endDay === null ? null : isoIn(zone, { day: endDay, minute: endMinute ?? 0 }), allDay: false };
}

/** A web address, or null where none is given or what is given is none. */
export const webAddress = (text: string): string | null => (isWebAddress(text) ? text : null);

/** A page of something, and where the next one begins. */
export interface OpenPage<T, Cursor> {
  data: T[];
  next: Cursor | undefined;
  taken?: Taken[];
}

/** Words that were taken for others, as a page says them. */
export const takenFor = ({ guesses }: Pick<ReadersDates, 'guesses'>): Taken[] =>
  [...guesses].map(([word, others]) => ({ word, others: [...others] }));

/** The addresses of nobody among what is asked. @throws Problem that names them */
export function refuseUnknown({ filters }: OpenQuery, reference: ReferenceData, found: ReadersDates): void {
  const wrong = [
    ...unknownChoices(filters, reference).map(({ name, slug }) => ({ field: name, message: `Nothing has the slug “${slug}”.` })),
    ...(filters.near && !found.near ? [{ field: 'near', message: `No place here is called “${filters.near.place}”.` }] : []),
  ];
  if (wrong.length) throw new Problem('invalid', wrong[0]?.message ?? '', wrong);
}
