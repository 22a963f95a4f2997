/**
 * The facts that filters ask of dates, each combination once. Ids are numbers here: whether one of ten thousand combinations is at one of
 * forty venues is a look into an array, not into a set of strings.
 */
import type { DateFacts, FactCondition } from '../filters/condition';

/** Numbers for ids, in the order in which they came. */
class Ids {
  readonly #numbers = new Map<string, number>();

  of(id: string): number {
    const known = this.#numbers.get(id);
    if (known !== undefined) return known;
    const number = this.#numbers.size;
    this.#numbers.set(id, number);
    return number;
  }

  /** 1 at the number of each of these. */
  marks(ids: ReadonlySet<string>): Uint8Array {
    const marks = new Uint8Array(this.#numbers.size);
    for (const id of ids) {
      const number = this.#numbers.get(id);
      if (number !== undefined) marks[number] = 1;
    }
    return marks;
  }
}

/** Combinations of facts, by number. */
export class FactsTable {
  readonly #facts: DateFacts[] = [];
  readonly #numberOf = new Map<string, number>();
  readonly #categories = new Ids();
  readonly #venues = new Ids();
  readonly #category: number[] = [];
  readonly #venuesOf: number[][] = [];

  /** How many combinations there are. */
  get size(): number {
    return this.#facts.length;
  }

  /** The combination with a number. */
  at(number: number): DateFacts {
    return this.#facts[number] as DateFacts;
  }

  /** The number of a combination, which it keeps. */
  numberOf(facts: DateFacts): number {
    const key = `${facts.categoryId} ${facts.online} ${facts.free} ${facts.venueIds.join(' ')}`;
    const known = this.#numberOf.get(key);
    if (known !== undefined) return known;
    const number = this.#facts.push(facts) - 1;
    this.#numberOf.set(key, number);
    this.#category[number] = this.#categories.of(facts.categoryId);
    this.#venuesOf[number] = facts.venueIds.map((id) => this.#venues.of(id));
    return number;
  }

  /** 1 at the number of each combination for which a condition holds (`holds` says the same of one). */
  marks(condition: FactCondition): Uint8Array {
    const marks = new Uint8Array(this.size);
    switch (condition.asks) {
      case 'any':
        for (const one of condition.of) addMarks(marks, this.marks(one));
        return marks;
      case 'category': {
        const asked = this.#categories.marks(condition.ids);
        for (let i = 0; i < marks.length; i++) marks[i] = asked[this.#category[i] as number] as number;
        return marks;
      }
      case 'venue': {
        const asked = this.#venues.marks(condition.ids);
        for (let i = 0; i < marks.length; i++) for (const venue of this.#venuesOf[i] as number[]) if (asked[venue]) marks[i] = 1;
        return marks;
      }
      default:
        for (let i = 0; i < marks.length; i++) if (this.at(i)[condition.asks]) marks[i] = 1;
        return marks;
    }
  }
}

/** Marks what others mark too. */
export function addMarks(marks: Uint8Array, others: Uint8Array): void {
  for (let i = 0; i < marks.length; i++) marks[i] = (marks[i] as number) | (others[i] as number);
}
