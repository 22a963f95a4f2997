/** How many dates each choice of a filter would leave, with all other choices as they are: all of it in one pass over what is alike. */
import { type DateFacts, type FilterGroups, type Group, GROUPS } from '../filters/condition';
import type { Counted, FactsTable } from './facts-table';

/** Counts of dates by what filters ask of them. */
export interface Tally {
  /** dates that fit all choices */
  total: number;
  /**
   * How many dates have each value of a fact.
   * @param without a group whose own choices are left out; undefined = all choices hold
   */
  by: <F extends keyof DateFacts>(fact: F, without?: Group) => Counted<F>[];
}

/**
 * Counts dates that no filter can tell apart.
 * @param counts how many dates there are of each combination of the table
 */
export function tally(table: FactsTable, counts: Uint32Array, { groups }: Pick<FilterGroups, 'groups'>): Tally {
  const chosen = GROUPS.filter((group) => groups[group]?.length);
  // For each combination, the groups that it does not fit. One that fails a single group counts there alone.
  const fails = new Uint16Array(counts.length);
  const last = new Uint8Array(counts.length);
  for (const [at, group] of chosen.entries()) {
    const fits = new Uint8Array(counts.length).fill(1);
    for (const condition of groups[group] ?? []) {
      const marks = table.marks(condition);
      for (let i = 0; i < fits.length; i++) fits[i] = (fits[i] as number) & (marks[i] as number);
    }
    for (let i = 0; i < fits.length; i++)
      if (!fits[i]) {
        fails[i] = (fails[i] as number) + 1;
        last[i] = at;
      }
  }
  const all = new Uint32Array(counts.length);
  const only = chosen.map(() => new Uint32Array(counts.length));
  let total = 0;
  for (let i = 0; i < counts.length; i++) {
    const n = counts[i] as number;
    if (!n || (fails[i] as number) > 1) continue;
    if (fails[i]) (only[last[i] as number] as Uint32Array)[i] = n;
    else {
      all[i] = n;
      total += n;
    }
  }
  return {
    total,
    by: (fact, without) => {
      const own = without === undefined ? undefined : only[chosen.indexOf(without)];
      return own ? table.count(fact, all, own) : table.count(fact, all);
    },
  };
}

/** Counts what a query counted: one row for each combination. */
export function tallyOf(rows: readonly { facts: DateFacts; n: number }[], table: FactsTable, groups: Pick<FilterGroups, 'groups'>): Tally {
  const numbers = rows.map(({ facts }) => table.numberOf(facts));
  const counts = new Uint32Array(table.size);
  for (const [i, number] of numbers.entries()) counts[number] = (counts[number] as number) + (rows[i]?.n ?? 0);
  return tally(table, counts, groups);
}
