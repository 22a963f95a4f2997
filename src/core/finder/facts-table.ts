/**
 * The facts that filters ask of dates, each combination once. A combination is a number for each fact, and each value of a fact stands here
 * once: a condition is tried on a few hundred values, and then it is a look into an array for each of ten thousand combinations.
 */
import { type DateFacts, FACT_NAMES, type FactCondition, holds } from '../filters/condition';

/** The facts that a condition looks at. */
const LOOKS_AT: Record<Exclude<FactCondition['asks'], 'any'>, readonly [keyof DateFacts, (keyof DateFacts)?]> = {
  category: ['categoryId'],
  venue: ['venueIds'],
  organizer: ['organizerIds'],
  tag: ['tagIds'],
  online: ['attendance'],
  'in-person': ['attendance'],
  free: ['free'],
  'up-to': ['free', 'price'],
  part: ['parts'],
  'going-ahead': ['off'],
};

/** The values of one fact, each once, and which of them each combination has. */
class Column<F extends keyof DateFacts> {
  readonly values: DateFacts[F][] = [];
  readonly #numbers = new Map<string, number>();
  /** of each combination */
  readonly number: number[] = [];

  numberOf(value: DateFacts[F]): number {
    const key = String(value);
    const known = this.#numbers.get(key);
    if (known !== undefined) return known;
    const number = this.values.push(value) - 1;
    this.#numbers.set(key, number);
    return number;
  }
}

/** How many dates have a value of a fact. */
export interface Counted<F extends keyof DateFacts> {
  value: DateFacts[F];
  n: number;
}

/** Combinations of facts, by number. */
export class FactsTable {
  readonly #columns = Object.fromEntries(FACT_NAMES.map((name) => [name, new Column()])) as unknown as {
    [F in keyof DateFacts]: Column<F>;
  };
  readonly #numberOf = new Map<string, number>();

  /** How many combinations there are. */
  get size(): number {
    return this.#columns.categoryId.number.length;
  }

  #valueAt<F extends keyof DateFacts>(fact: F, number: number): DateFacts[F] {
    const column = this.#columns[fact];
    return column.values[column.number[number] as number] as DateFacts[F];
  }

  /** The number of a combination, which it keeps. */
  numberOf(facts: DateFacts): number {
    const numbers = FACT_NAMES.map((name) => (this.#columns[name] as Column<typeof name>).numberOf(facts[name]));
    const key = numbers.join(' ');
    const known = this.#numberOf.get(key);
    if (known !== undefined) return known;
    const number = this.size;
    this.#numberOf.set(key, number);
    for (const [i, name] of FACT_NAMES.entries()) this.#columns[name].number[number] = numbers[i] as number;
    return number;
  }

  /** 1 at the number of each combination for which a condition holds (`holds` says the same of one). */
  marks(condition: FactCondition): Uint8Array {
    const marks = new Uint8Array(this.size);
    if (condition.asks === 'any') {
      for (const one of condition.of) addMarks(marks, this.marks(one));
      return marks;
    }
    const [fact, other] = LOOKS_AT[condition.asks];
    if (other) {
      for (let i = 0; i < marks.length; i++) {
        const both = { [fact]: this.#valueAt(fact, i), [other]: this.#valueAt(other, i) };
        marks[i] = holds(condition, both as unknown as DateFacts) ? 1 : 0;
      }
      return marks;
    }
    const { values, number } = this.#columns[fact];
    const fits = Uint8Array.from(values as readonly unknown[], (value) =>
      holds(condition, { [fact]: value } as unknown as DateFacts) ? 1 : 0,
    );
    for (let i = 0; i < marks.length; i++) marks[i] = fits[number[i] as number] as number;
    return marks;
  }

  /** How many dates have each value of a fact; those that none has are left out. @param counts dates of each combination, added up */
  count<F extends keyof DateFacts>(fact: F, ...counts: readonly Uint32Array[]): Counted<F>[] {
    const { values, number } = this.#columns[fact];
    const sums = new Uint32Array(values.length);
    for (const of of counts)
      for (let i = 0; i < of.length; i++) {
        const n = of[i] as number;
        if (n) sums[number[i] as number] = (sums[number[i] as number] as number) + n;
      }
    const counted: Counted<F>[] = [];
    for (let i = 0; i < sums.length; i++) if (sums[i]) counted.push({ value: values[i] as DateFacts[F], n: sums[i] as number });
    return counted;
  }
}

/** Marks what others mark too. */
export function addMarks(marks: Uint8Array, others: Uint8Array): void {
  for (let i = 0; i < marks.length; i++) marks[i] = (marks[i] as number) | (others[i] as number);
}
