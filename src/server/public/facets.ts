/** How many dates each choice of a filter would show, given the other choices. */
import type { Group } from '@/core/filters/condition';
import { ONLINE } from '@/core/filters/filters';
import { PARTS_OF_DAY, partBit } from '@/core/filters/part-of-day';
import type { Tally } from '@/core/finder/tally';
import type { Span } from './public-dates';
import { type ReferenceData, topOf, type VenueView } from '../reference/read';

/** What counts stand beside, by its name in an address. */
export type FacetName = 'kind' | 'place' | 'area' | 'venue' | 'by' | 'tag' | 'part' | 'free' | 'access' | 'how' | 'ahead' | 'on';

/** How many dates each box would leave, with everything else as it is chosen. */
export interface Facets {
  /** the days that they are counted on, before those that a reader chose */
  span: Span;
  total: number;
  /** by the values of one name; what nothing has is not there. Parents have their children's dates in them, halls their rooms'. */
  of: (name: FacetName) => ReadonlyMap<string, number>;
}

type Counts = Map<string, number>;
/** How the values of each name are counted; what is missing counts nothing. */
type Counters = { [N in Exclude<FacetName, 'on'>]: (tally: Tally, reference: ReferenceData) => Counts };

const add = (counts: Counts, key: string | undefined, n: number): void => {
  if (key) counts.set(key, (counts.get(key) ?? 0) + n);
};

/** Counts by what the venues of a date say, each thing once a date. */
function byVenues(
  tally: Tally,
  reference: ReferenceData,
  without: Group | undefined,
  says: (venue: VenueView) => readonly string[],
): Counts {
  const counts: Counts = new Map();
  for (const { value, n } of tally.by('venueIds', without)) {
    const said = value.flatMap((id) => {
      const venue = reference.venue.get(id);
      return venue ? says(venue) : [];
    });
    for (const key of said.length > 1 ? new Set(said) : said) add(counts, key, n);
  }
  return counts;
}

/** Counts by names of which a date may have several. */
function byIds(tally: Tally, fact: 'organizerIds' | 'tagIds', without: Group, of: ReadonlyMap<string, { slug: string }>): Counts {
  const counts: Counts = new Map();
  for (const { value, n } of tally.by(fact, without)) for (const id of value) add(counts, of.get(id)?.slug, n);
  return counts;
}

const COUNTERS: Counters = {
  kind: (tally, reference) => {
    const counts: Counts = new Map();
    for (const { value, n } of tally.by('categoryId', 'kind')) {
      const own = reference.category.get(value);
      const top = topOf(reference, value);
      add(counts, own?.slug, n);
      if (top !== own) add(counts, top?.slug, n);
    }
    return counts;
  },
  place: (tally, reference) => {
    const counts = byVenues(tally, reference, 'place', ({ town }) => [town]);
    for (const { value, n } of tally.by('attendance', 'place')) if (value !== 'in-person') add(counts, ONLINE, n);
    return counts;
  },
  area: (tally, reference) => byVenues(tally, reference, 'area', ({ island }) => [island]),
  venue: (tally, reference) => byVenues(tally, reference, 'venue', ({ slug, hall }) => (hall ? [slug, hall.slug] : [slug])),
  by: (tally, reference) => byIds(tally, 'organizerIds', 'by', reference.organizer),
  tag: (tally, reference) => byIds(tally, 'tagIds', 'tag', reference.tag),
  part: (tally) => {
    const counts: Counts = new Map();
    for (const { value, n } of tally.by('parts', 'part')) for (const part of PARTS_OF_DAY) if (value & partBit(part)) add(counts, part, n);
    return counts;
  },
  free: (tally) => new Map(tally.by('free', 'cost').flatMap(({ value, n }) => (value ? [['1', n]] : []))),
  // All that is chosen of it has to hold, so what is chosen already is not left out.
  access: (tally, reference) => byVenues(tally, reference, undefined, ({ features }) => features),
  how: (tally) => {
    const counts: Counts = new Map();
    for (const { value, n } of tally.by('attendance', 'how'))
      for (const way of value === 'both' ? ['in-person', 'online'] : [value]) add(counts, way, n);
    return counts;
  },
  ahead: (tally) => new Map(tally.by('off', 'ahead').flatMap(({ value, n }) => (value ? [] : [['1', n]]))),
};

/**
 * Counts of dates beside each choice that they would be shown by. What was typed counts already in which dates these are.
 * @param on how many there are on the days that have names
 */
export function countFacets(span: Span, tally: Tally, reference: ReferenceData, on: ReadonlyMap<string, number>): Facets {
  const known = new Map<FacetName, ReadonlyMap<string, number>>();
  return {
    span,
    total: tally.total,
    of: (name) => {
      if (name === 'on') return on;
      const counts = known.get(name) ?? COUNTERS[name](tally, reference);
      known.set(name, counts);
      return counts;
    },
  };
}
