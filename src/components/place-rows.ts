/** Which rows there are by place: what each is called, where it leads, which dates stand in it, in which order. */
import { addTo } from '@/core/collections/add-to';
import { fold } from '@/core/text/text';
import type { ReferenceData, VenueView } from '@/server/reference/read';
import type { HourEntry } from './hours-html';
import type { Reader } from './reader';
import type { RowHead } from './rows-html';

/** What rows are made of. */
export const ROW_KINDS = ['venue', 'area', 'kind', 'organizer'] as const;
/** One of {@link ROW_KINDS}. */
export type RowKind = (typeof ROW_KINDS)[number];

/** A row with its dates, in their order. */
export interface PlaceRow {
  key: string;
  head: RowHead;
  dates: HourEntry[];
}

/** Rows of what is nowhere, after all others. */
const ONLINE = 'online';
const NOWHERE = '';

export interface PlaceRowsInput {
  by: RowKind;
  dates: readonly HourEntry[];
  reference: ReferenceData;
  reader: Reader;
  /** who organizes each listing; asked for with rows of organizers only */
  organizers: ReadonlyMap<string, readonly string[]>;
}

/** Rows in their order: places by town, rooms under their hall; kinds as the filters have them; what is nowhere last. */
export function placeRows(input: PlaceRowsInput): PlaceRow[] {
  const byKey = new Map<string, HourEntry[]>();
  for (const date of input.dates) for (const key of keysOf(date, input)) addTo(byKey, key, date);
  return [...byKey]
    .map(([key, dates]) => {
      const head = headOf(key, input);
      return { key, head, dates, order: orderOf(key, head, input) };
    })
    .sort((a, b) => (a.order < b.order ? -1 : a.order > b.order ? 1 : 0));
}

function keysOf({ of }: HourEntry, { by, reference, organizers }: PlaceRowsInput): readonly string[] {
  if (by === 'kind') return [of.categoryId];
  if (by === 'organizer') return organizers.get(of.listingId) ?? [NOWHERE];
  const venues = of.venueIds.flatMap((id) => reference.venue.get(id) ?? []);
  const keys = by === 'venue' ? venues.map(({ id }) => id) : [...new Set(venues.map(areaOf))];
  return keys.length ? keys : [of.attendance === 'in-person' ? NOWHERE : ONLINE];
}

const areaOf = ({ island, town }: VenueView): string => island || town;

function headOf(key: string, { by, reference, reader: { words, to } }: PlaceRowsInput): RowHead {
  const { places: w } = words;
  if (key === ONLINE) return { name: w.online(), under: w.anywhere(), href: undefined };
  if (key === NOWHERE) return { name: by === 'organizer' ? w.noOrganizer() : w.noPlace(), under: '', href: undefined };
  if (by === 'area') return { name: key, under: '', href: undefined };
  if (by === 'kind') return { name: reference.category.get(key)?.name ?? '', under: '', href: undefined };
  // One that is in the bin has no page.
  if (by === 'organizer') {
    const organizer = reference.organizer.get(key);
    return { name: organizer?.name ?? '', under: '', href: organizer && !organizer.binnedAt ? to(`/by/${organizer.slug}`) : undefined };
  }
  const venue = reference.venue.get(key);
  const under = [venue?.hall?.name, venue?.town].filter(Boolean).join(', ');
  return { name: venue?.name ?? '', under, href: venue && !venue.binnedAt ? to(`/at/${venue.slug}`) : undefined };
}

/** What rows are sorted by. */
function orderOf(key: string, { name }: RowHead, { by, reference }: PlaceRowsInput): string {
  if (key === ONLINE || key === NOWHERE) return `\uffff${key}`;
  if (by === 'kind') return String(reference.categories.findIndex(({ id }) => id === key)).padStart(5, '0');
  const venue = by === 'venue' ? reference.venue.get(key) : undefined;
  // Rooms stand under their hall, halls under their town.
  const parts = venue ? [venue.town, venue.hall?.name ?? venue.name, venue.hall ? venue.name : ''] : [name];
  return parts.map(fold).join('\u0001');
}
