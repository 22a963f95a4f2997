/** A reader's choices as conditions, by what there is now, and conditions as SQL over the date index (`o`) and published copies (`p`). */
import { type SQL, sql } from 'drizzle-orm';
import type { Condition, FilterGroups } from '@/core/filters/condition';
import { type Filters, likePattern, ONLINE, searchWords } from '@/core/filters/filters';
import { fold } from '@/core/text/text';
import { type ReferenceData, withChildren } from '../reference/read';

/** What a reader's choices ask. Kinds have their children's dates in them; a word may also be the name or town of where a date is. */
export function describeFilters(filters: Filters, reference: ReferenceData): FilterGroups {
  const { kinds, places, free, tags } = filters;
  const towns = new Set(places.filter((place) => place !== ONLINE));
  const either: Condition[] = [
    ...(towns.size ? [{ asks: 'venue' as const, ids: idsOf(reference, (venue) => towns.has(venue.town)) }] : []),
    ...(places.includes(ONLINE) ? [{ asks: 'online' as const }] : []),
  ];
  return {
    kinds: kinds.length
      ? { asks: 'category', ids: new Set(kinds.flatMap((slug) => withChildren(reference, slug)).map((category) => category.id)) }
      : undefined,
    places: either.length ? { asks: 'any', of: either } : undefined,
    free: free ? { asks: 'free' } : undefined,
    words: [
      ...tags.map((slug): Condition => ({ asks: 'tag', slug })),
      ...searchWords(filters).map((word): Condition => {
        const named = idsOf(reference, (venue) => fold(`${venue.name} ${venue.town}`).includes(word));
        const inTexts: Condition = { asks: 'word', word };
        return named.size ? { asks: 'any', of: [inTexts, { asks: 'venue', ids: named }] } : inTexts;
      }),
    ],
  };
}

function idsOf(reference: ReferenceData, which: (venue: { name: string; town: string }) => boolean): Set<string> {
  return new Set([...reference.venue.values()].filter(which).map((venue) => venue.id));
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
      return sql`exists (select 1 from listing_link k join tag t on t.id = k.tag_id where k.listing_id = p.listing_id and k.copy = 'published' and t.slug = ${condition.slug})`;
    case 'word':
      return sql`p.search like ${likePattern(condition.word)}`;
    case 'any':
      return condition.of.length ? sql`(${sql.join(condition.of.map(conditionSql), sql` or `)})` : sql`false`;
  }
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
