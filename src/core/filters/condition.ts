/**
 * What a reader's choices ask of a date, as a value: the database's query is made of it, the finder's answer, and the counts beside the boxes.
 */
import type { Attendance, Cost } from '../listing/content';
import { FILTER_GROUPS, type FilterGroup } from './filters';

/** What filters ask of a date. Dates that agree in all of it are not told apart by them. */
export interface DateFacts {
  categoryId: string;
  /** where the date is, not where its listing usually is */
  venueIds: readonly string[];
  organizerIds: readonly string[];
  tagIds: readonly string[];
  attendance: Attendance;
  free: boolean;
  /** what it costs, where that is an amount: `CAD 12.50`; empty = it is free, in words or not said */
  price: string;
  /** the parts of the day that it is in, as bits (`part-of-day.ts`) */
  parts: number;
  /** it does not happen: cancelled or postponed */
  off: boolean;
}

/** The names of all facts. */
export const FACT_NAMES = [
  'categoryId',
  'venueIds',
  'organizerIds',
  'tagIds',
  'attendance',
  'free',
  'price',
  'parts',
  'off',
] as const satisfies readonly (keyof DateFacts)[];

/** What is asked of one of a date's facts. */
export type FactCondition =
  | { asks: 'category'; ids: ReadonlySet<string> }
  /** at one of these venues */
  | { asks: 'venue'; ids: ReadonlySet<string> }
  /** one of these organizes it */
  | { asks: 'organizer'; ids: ReadonlySet<string> }
  /** it has one of these tags */
  | { asks: 'tag'; ids: ReadonlySet<string> }
  /** it can be joined from afar */
  | { asks: 'online' }
  /** one can go there */
  | { asks: 'in-person' }
  | { asks: 'free' }
  /** it costs no more than so much of a currency, or nothing */
  | { asks: 'up-to'; amount: number; currency: string }
  /** it is in one of these parts of the day, as bits */
  | { asks: 'part'; parts: number }
  /** it happens */
  | { asks: 'going-ahead' }
  | { asks: 'any'; of: readonly FactCondition[] };

/** One thing that a reader's choice asks of a date. All of them have to hold. */
export type Condition =
  | FactCondition
  /** a folded word that stands in its listing's texts */
  | { asks: 'word'; word: string }
  /** folded words that stand there one after another */
  | { asks: 'phrase'; phrase: string }
  | { asks: 'any'; of: readonly Condition[] };

/** A cost as filters compare it. */
export const priceOf = (cost: Cost): string => (cost.kind === 'amount' ? `${cost.currency} ${cost.amount}` : '');

const oneOf = (ids: readonly string[], asked: ReadonlySet<string>): boolean => ids.some((id) => asked.has(id));

/** Is a price no more than an amount of a currency? */
function within(price: string, amount: number, currency: string): boolean {
  const [of, n] = price.split(' ');
  return of === currency && Number(n) <= amount;
}

/** Is a date what is asked for? */
export function holds(condition: FactCondition, facts: DateFacts): boolean {
  switch (condition.asks) {
    case 'category':
      return condition.ids.has(facts.categoryId);
    case 'venue':
      return oneOf(facts.venueIds, condition.ids);
    case 'organizer':
      return oneOf(facts.organizerIds, condition.ids);
    case 'tag':
      return oneOf(facts.tagIds, condition.ids);
    case 'online':
      return facts.attendance !== 'in-person';
    case 'in-person':
      return facts.attendance !== 'online';
    case 'free':
      return facts.free;
    case 'up-to':
      return facts.free || within(facts.price, condition.amount, condition.currency);
    case 'part':
      return (facts.parts & condition.parts) !== 0;
    case 'going-ahead':
      return !facts.off;
    case 'any':
      return condition.of.some((one) => holds(one, facts));
  }
}

/** The groups of choices that ask something of a date's facts; days that are chosen are a span instead. */
export type Group = Exclude<FilterGroup, 'days'>;
/** All of them. */
export const GROUPS: readonly Group[] = FILTER_GROUPS.filter((group) => group !== 'days');

/** A reader's choices by group; what stands in a group all has to hold. A count beside a box follows the other groups. */
export interface FilterGroups {
  groups: Partial<Record<Group, readonly FactCondition[]>>;
  /** each must hold: what was typed */
  words: readonly Condition[];
}

/** All that is asked for. */
export function allOf({ groups, words }: FilterGroups): Condition[] {
  return [...words, ...GROUPS.flatMap((group) => groups[group] ?? [])];
}
