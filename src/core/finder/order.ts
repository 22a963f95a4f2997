/** The order of dates: by start, a whole day before its hours; then headlines first, then by title. */
import type { Columns } from './columns';
import type { FoundListing } from './found';

/** The order of two listings whose dates start at the same time: headlines first, then by title. */
export function compareListings(a: FoundListing, b: FoundListing): number {
  if (a.headline !== b.headline) return a.headline ? -1 : 1;
  return compareText(a.title, b.title) || compareText(a.listingId, b.listingId);
}

/** By code points, as a database's "C" collation has it. */
function compareText(a: string, b: string): number {
  const length = Math.min(a.length, b.length);
  for (let i = 0; i < length; i++) {
    const x = a.charCodeAt(i);
    const y = b.charCodeAt(i);
    if (x === y) continue;
    // Half of a surrogate pair stands for a code point beyond all others.
    const far = (x & 0xf800) === 0xd800;
    return far === ((y & 0xf800) === 0xd800) ? x - y : far ? 1 : -1;
  }
  return a.length - b.length;
}

/**
 * The rows in their order: by start, then as their listings stand in `parts`. Two passes of counting, by minute and then by day, each of which
 * leaves in place what is alike: so it costs a few looks at each row, and every step is short.
 */
export function* orderOf(columns: Columns, parts: readonly { first: number; end: number }[]): Generator<void, Int32Array, void> {
  const order = new Int32Array(columns.slot.length);
  let at = 0;
  for (const { first, end } of parts) for (let row = first; row < end; row++) order[at++] = row;
  yield;
  const byMinute = countingSort(order, columns.startMinute);
  yield;
  return countingSort(byMinute, columns.startDay);
}

/** Rows by a column, those that are alike as they stood. */
function countingSort(rows: Int32Array, column: Int32Array | Int16Array): Int32Array {
  let [least, most] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < column.length; i++) {
    const value = column[i] as number;
    if (value < least) least = value;
    if (value > most) most = value;
  }
  if (!rows.length) return rows;
  // Where the next row with a value goes: after all that have less.
  const next = new Int32Array(most - least + 2);
  for (let i = 0; i < column.length; i++) next[(column[i] as number) - least + 1] = (next[(column[i] as number) - least + 1] as number) + 1;
  for (let value = 1; value < next.length; value++) next[value] = (next[value] as number) + (next[value - 1] as number);
  const sorted = new Int32Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i] as number;
    const value = (column[row] as number) - least;
    const place = next[value] as number;
    sorted[place] = row;
    next[value] = place + 1;
  }
  return sorted;
}
