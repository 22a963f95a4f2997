/** A reader's choices as conditions, by what there is now, and conditions as SQL over the date index (`o`) and published copies (`p`). */
import { type SQL, sql } from 'drizzle-orm';
import type { Condition, FactCondition, FilterGroups } from '@/core/filters/condition';
import { type Filters, likePattern, ONLINE, searchWords } from '@/core/filters/filters';
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

/**
 * What a reader's choices ask. Kinds have their children's dates in them. A word may stand in a listing's texts or be the name of its kind,
 * its tags, the people who hold it, or of where a date is. With a vocabulary, a word that nothing has is taken for those that it is a slip of.
 */
export function describeFilters(filters: Filters, reference: ReferenceData, vocabulary?: Vocabulary): Described {
  const { kinds, places, free, tags } = filters;
  const towns = new Set(places.filter((place) => place !== ONLINE));
  const either: FactCondition[] = [
    ...(towns.size ? [{ asks: 'venue' as const, ids: idsOf(reference.venue, (venue) => towns.has(venue.town)) }] : []),
    ...(places.includes(ONLINE) ? [{ asks: 'online' as const }] : []),
  ];
  const guesses = new Map<string, string[]>();
  const asksWord = (word: string): Condition => {
    const named = namedBy(reference, word);
    if (!vocabulary || named.length || vocabulary.has(word)) return anyOf([{ asks: 'word', word }, ...named]);
    const near = nearest(word, vocabulary, reference);
    guesses.set(word, near);
    return anyOf(near.flatMap((other) => [{ asks: 'word' as const, word: other }, ...namedBy(reference, other)]));
  };
  return {
    kinds: kinds.length
      ? { asks: 'category', ids: new Set(kinds.flatMap((slug) => withChildren(reference, slug)).map((category) => category.id)) }
      : undefined,
    places: either.length ? { asks: 'any', of: either } : undefined,
    free: free ? { asks: 'free' } : undefined,
    words: [
      ...tags.map((slug): Condition => ({ asks: 'tag', ids: idsOf(reference.tag, (tag) => tag.slug === slug) })),
      ...searchWords(filters).map(asksWord),
    ],
    guesses,
  };
}

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

/** A condition on rows of `occurrence o` joined with `published p`. */
export function conditionSql(condition: Condition): SQL {
  switch (condition.asks) {
    case 'category':
      return condition.ids.size ? sql`p.category_id in ${[...condition.ids]}` : sql`false`;
    case 'venue':
      return atOneOf([...condition.ids]);
    case 'online':
      return sql`p.attendance <> 'in-person'`;
    case 'free':
      return sql`p.free`;
    case 'tag':
      return linked('tag_id', condition.ids);
    case 'organizer':
      return linked('organizer_id', condition.ids);
    case 'word':
      return sql`p.search like ${likePattern(condition.word)}`;
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
