/** A reader's choices as conditions, by what there is now, and conditions as SQL over the date index (`o`) and published copies (`p`). */
import { type SQL, sql } from 'drizzle-orm';
import type { Condition, FactCondition, FilterGroups } from '@/core/filters/condition';
import { type Filters, likePattern, ONLINE, searchWords } from '@/core/filters/filters';
import { ALL_PARTS, PARTS_OF_DAY, PART_SPANS, partBit } from '@/core/filters/part-of-day';
import { distanceKm, type Point } from '@/core/geo/geo';
import { slipsAllowed, slipsBetween } from '@/core/match/distance';
import { fold } from '@/core/text/text';
import { type ReferenceData, topOf, withChildren } from '../reference/read';

/** The words of all texts that readers see. */
export interface Vocabulary {
  /** does any text have a word that contains this one? */
  has: (word: string) => boolean;
  /** words of texts that are this one but for a few slips, the nearest first */
  near: (word: string, most: number) => string[];
}

/** So many words are taken for one that nothing has. */
const MOST_GUESSES = 4;

/** What a reader's choices ask, and for which words others were taken. */
export interface Described extends FilterGroups {
  /** words that nothing has, each with those that were taken in its place; empty = there is none like it either */
  guesses: Map<string, string[]>;
}

/** What choices are read against. */
export interface FilterContext {
  reference: ReferenceData;
  /** amounts are in it */
  currency: string;
  /** where what is asked for is near to; undefined = nowhere that is known, or nothing was asked */
  around: Point | undefined;
}

/**
 * What a reader's choices ask. Kinds have their children's dates in them, halls their rooms'. A word may stand in a listing's texts or be the
 * name of its kind, its tags, the people who hold it, or of where a date is. With a vocabulary, a word that nothing has is taken for those that
 * it is a slip of.
 */
export function describeFilters(filters: Filters, { reference, currency, around }: FilterContext, vocabulary?: Vocabulary): Described {
  const guesses = new Map<string, string[]>();
  const asksWord = (word: string): Condition => {
    const named = namedBy(reference, word);
    // What stands in quotation marks is looked for as it stands.
    if (word.includes(' ')) return anyOf([{ asks: 'phrase', phrase: word }, ...named]);
    if (!vocabulary || named.length || vocabulary.has(word)) return anyOf([{ asks: 'word', word }, ...named]);
    const near = nearest(word, vocabulary, reference);
    guesses.set(word, near);
    return anyOf(near.flatMap((other) => [{ asks: 'word' as const, word: other }, ...namedBy(reference, other)]));
  };
  const { kinds, tags, organizers } = filters;
  const named = (slugs: readonly string[], all: ReadonlyMap<string, { id: string; slug: string }>): Set<string> =>
    idsOf(all, ({ slug }) => slugs.includes(slug));
  const ofKinds = (): Set<string> => new Set(kinds.flatMap((slug) => withChildren(reference, slug)).map(({ id }) => id));
  return {
    groups: {
      kind: kinds.length ? [{ asks: 'category', ids: ofKinds() }] : [],
      by: organizers.length ? [{ asks: 'organizer', ids: named(organizers, reference.organizer) }] : [],
      tag: tags.length ? [{ asks: 'tag', ids: named(tags, reference.tag) }] : [],
      ...describePlaces(filters, reference, around),
      part: filters.parts.length ? [{ asks: 'part', parts: filters.parts.reduce((bits, part) => bits | partBit(part), 0) }] : [],
      cost: describeCost(filters, currency),
      how: filters.ways.length ? [{ asks: 'any', of: filters.ways.map((way) => ({ asks: way })) }] : [],
      ahead: filters.goingAhead ? [{ asks: 'going-ahead' }] : [],
    },
    words: searchWords(filters).map(asksWord),
    guesses,
  };
}

/** What free of charge and an amount ask together: what is free costs no more than any amount. */
function describeCost({ free, upTo }: Filters, currency: string): FactCondition[] {
  if (upTo !== undefined) return [{ asks: 'up-to', amount: upTo, currency }];
  return free ? [{ asks: 'free' }] : [];
}

/** What is asked of where a date is: all of it is asked of its venues. */
function describePlaces(
  { places, areas, venues, near, access }: Filters,
  reference: ReferenceData,
  around: Point | undefined,
): FilterGroups['groups'] {
  const at = (which: (venue: ReferenceVenue) => boolean): FactCondition => ({ asks: 'venue', ids: idsOf(reference.venue, which) });
  const towns = new Set(places.filter((place) => place !== ONLINE));
  const either: FactCondition[] = [
    ...(towns.size ? [at(({ town }) => towns.has(town))] : []),
    ...(places.includes(ONLINE) ? [{ asks: 'online' as const }] : []),
  ];
  const isNear = ({ lat, lng }: ReferenceVenue): boolean =>
    around !== undefined && near !== undefined && lat !== null && lng !== null && distanceKm(around, { lat, lng }) <= near.km;
  return {
    place: either.length ? [{ asks: 'any', of: either }] : [],
    area: areas.length ? [at(({ island }) => areas.includes(island))] : [],
    venue: venues.length ? [at(({ slug, hall }) => venues.includes(slug) || (hall !== undefined && venues.includes(hall.slug)))] : [],
    near: near ? [at(isNear)] : [],
    access: access.map((feature) => at(({ features }) => features.includes(feature))),
  };
}

type ReferenceVenue = ReferenceData['venues'][number];

const anyOf = (conditions: Condition[]): Condition =>
  conditions.length === 1 && conditions[0] ? conditions[0] : { asks: 'any', of: conditions };

function idsOf<T extends { id: string }>(all: ReadonlyMap<string, T>, which: (one: T) => boolean): Set<string> {
  return new Set([...all.values()].filter(which).map(({ id }) => id));
}

/** The folded names of what dates are at, of, by and about, with the ids of each. */
interface Names {
  asks: 'venue' | 'category' | 'tag' | 'organizer';
  names: { id: string; name: string }[];
}

/** They are folded once for each state of the content: a search asks for them with every word. */
const folded = new WeakMap<ReferenceData, Names[]>();

function namesOf(reference: ReferenceData): Names[] {
  const known = folded.get(reference);
  if (known) return known;
  const kinds = [...reference.category.values()].map((category) => {
    const top = topOf(reference, category.id);
    return { id: category.id, name: top && top !== category ? `${category.name} ${top.name}` : category.name };
  });
  const venues = [...reference.venue.values()].map(({ id, name, town }) => ({ id, name: `${name} ${town}` }));
  const organizers = [...reference.organizer.values()].filter(({ binnedAt }) => !binnedAt);
  const all: Names[] = [
    { asks: 'venue', names: venues },
    { asks: 'category', names: kinds },
    { asks: 'tag', names: [...reference.tag.values()] },
    { asks: 'organizer', names: organizers },
  ];
  const made = all.map(({ asks, names }) => ({ asks, names: names.map(({ id, name }) => ({ id, name: fold(name) })) }));
  folded.set(reference, made);
  return made;
}

/** What has a word in its name, as conditions. */
function namedBy(reference: ReferenceData, word: string): Condition[] {
  const all = namesOf(reference).map(({ asks, names }) => ({
    asks,
    ids: new Set(names.filter(({ name }) => name.includes(word)).map(({ id }) => id)),
  }));
  return all.filter(({ ids }) => ids.size > 0);
}

/** The words of texts and names that a word is a slip of, the nearest first. */
function nearest(word: string, vocabulary: Vocabulary, reference: ReferenceData): string[] {
  const allowed = slipsAllowed(word.length);
  const words = new Set(namesOf(reference).flatMap(({ names }) => names.flatMap(({ name }) => name.split(' '))));
  const inNames = [...words].filter((other) => allowed > 0 && slipsBetween(word, other, allowed) <= allowed);
  const slips = (other: string): number => slipsBetween(word, other, allowed);
  const all = [...new Set([...vocabulary.near(word, MOST_GUESSES), ...inNames])];
  const least = Math.min(...all.map(slips));
  return all.filter((other) => slips(other) === least).slice(0, MOST_GUESSES);
}

const DAY = 1440;
const END = `greatest(coalesce((o.end_day - o.start_day) * ${DAY} + coalesce(o.end_minute, 0), 0), o.start_minute + 1)`;
const inPart = ({ from, to }: { from: number; to: number }): string =>
  [-DAY, 0, DAY].map((shift) => `(o.start_minute < ${to + shift} and ${END} > ${from + shift})`).join(' or ');

/** `partsOf` in the database: the parts of the day that a date is in. */
export const PARTS = sql.raw(
  `(case when o.start_minute is null or ${END} - o.start_minute >= ${DAY} then ${ALL_PARTS} else ${PARTS_OF_DAY.map(
    (part) => `(case when ${inPart(PART_SPANS[part])} then ${partBit(part)} else 0 end)`,
  ).join(' + ')} end)`,
);

/** `isOff` of `effectiveStatus` in the database. */
export const OFF = sql.raw(
  "(p.event_status in ('cancelled', 'postponed') or (p.event_status = 'going-ahead' and coalesce(o.event_status, '') in ('cancelled', 'postponed')))",
);

/** A condition on rows of `occurrence o` joined with `published p`. */
export function conditionSql(condition: Condition): SQL {
  switch (condition.asks) {
    case 'category':
      return condition.ids.size ? sql`p.category_id in ${[...condition.ids]}` : sql`false`;
    case 'venue':
      return atOneOf([...condition.ids]);
    case 'online':
      return sql`p.attendance <> 'in-person'`;
    case 'in-person':
      return sql`p.attendance <> 'online'`;
    case 'free':
      return sql`p.free`;
    case 'up-to':
      return sql`(p.free or (p.cost->>'kind' = 'amount' and p.cost->>'currency' = ${condition.currency} and (p.cost->>'amount')::numeric <= ${condition.amount}))`;
    case 'part':
      return sql`${PARTS} & ${condition.parts}::int <> 0`;
    case 'going-ahead':
      return sql`not ${OFF}`;
    case 'tag':
      return linked('tag_id', condition.ids);
    case 'organizer':
      return linked('organizer_id', condition.ids);
    case 'word':
      return sql`p.search like ${likePattern(condition.word)}`;
    case 'phrase':
      return sql`p.search like ${likePattern(condition.phrase)}`;
    case 'any':
      return condition.of.length ? sql`(${sql.join(condition.of.map(conditionSql), sql` or `)})` : sql`false`;
  }
}

/** The published copy names one of these. */
function linked(column: 'tag_id' | 'organizer_id', ids: ReadonlySet<string>): SQL {
  if (!ids.size) return sql`false`;
  return sql`exists (select 1 from listing_link k where k.listing_id = p.listing_id and k.copy = 'published' and ${sql.raw(`k.${column}`)} in ${[...ids]})`;
}

/** The date is at one of these venues: its own when it is elsewhere, else any of its listing's. */
export function atOneOf(venueIds: readonly string[]): SQL {
  if (!venueIds.length) return sql`false`;
  return sql`case when o.venue_id is null then p.venue_ids ?| ${textArray(venueIds)} else o.venue_id = any(${textArray(venueIds)}::uuid[]) end`;
}

const textArray = (list: readonly string[]): SQL =>
  sql`array[${sql.join(
    list.map((text) => sql`${text}`),
    sql`, `,
  )}]::text[]`;

/** The addresses of nobody among what is chosen, by the names that they stand under. */
export function unknownChoices(
  { kinds, venues, organizers, tags }: Filters,
  reference: ReferenceData,
): { name: 'kind' | 'venue' | 'by' | 'tag'; slug: string }[] {
  const asked = [
    ['kind', kinds, reference.categories],
    ['venue', venues, [...reference.venue.values()]],
    ['by', organizers, [...reference.organizer.values()]],
    ['tag', tags, reference.tags],
  ] as const;
  return asked.flatMap(([name, slugs, all]) =>
    slugs.filter((slug) => !all.some((one) => one.slug === slug)).map((slug) => ({ name, slug })),
  );
}
