/**
 * What a reader's choices ask of a date, as a value: the database's query is made of it, the finder's answer, and the counts beside the boxes.
 */

/** What is asked of where, how and what kind a date is. */
export type FactCondition =
  | { asks: 'category'; ids: ReadonlySet<string> }
  /** at one of these venues: where the date is, not where its listing usually is */
  | { asks: 'venue'; ids: ReadonlySet<string> }
  /** it can be joined from afar */
  | { asks: 'online' }
  | { asks: 'free' }
  | { asks: 'any'; of: readonly FactCondition[] };

/** One thing that a reader's choice asks of a date. All of them have to hold. */
export type Condition =
  | FactCondition
  /** its listing has one of these tags */
  | { asks: 'tag'; ids: ReadonlySet<string> }
  /** one of these organizes its listing */
  | { asks: 'organizer'; ids: ReadonlySet<string> }
  /** a folded word that stands in the listing's texts */
  | { asks: 'word'; word: string }
  | { asks: 'any'; of: readonly Condition[] };

/** What filters ask of a date. */
export interface DateFacts {
  categoryId: string;
  venueIds: readonly string[];
  online: boolean;
  free: boolean;
}

/** Is a date what is asked for? */
export function holds(condition: FactCondition, facts: DateFacts): boolean {
  switch (condition.asks) {
    case 'category':
      return condition.ids.has(facts.categoryId);
    case 'venue':
      return facts.venueIds.some((id) => condition.ids.has(id));
    case 'online':
      return facts.online;
    case 'free':
      return facts.free;
    case 'any':
      return condition.of.some((one) => holds(one, facts));
  }
}

/** Does a date fit a group of choices? Nothing chosen is everything. */
export const fitsGroup = (condition: FactCondition | undefined, facts: DateFacts): boolean => !condition || holds(condition, facts);

/** A reader's choices by group; a count beside a box follows the other groups. */
export interface FilterGroups {
  kinds: FactCondition | undefined;
  places: FactCondition | undefined;
  free: FactCondition | undefined;
  /** each must hold: tags and words */
  words: readonly Condition[];
}

/** All that is asked for. */
export function allOf({ kinds, places, free, words }: FilterGroups): Condition[] {
  return [...words, ...[kinds, places, free].filter((one) => one !== undefined)];
}
