/**
 * Dates as columns: one typed array for each thing that is asked of all of them, in order of their start. A date is a row; what it shares
 * with others of its listing is its slot's matter (finder.ts).
 */
import type { EpochDay } from '../day/day';

/** What is no number in a column: no end, no time of day. */
export const NONE = -0x8000_0000;
/** The whole day, or no end, in a column of minutes. */
export const NO_MINUTE = -1;

/** Dates in order of their start, as columns of the same length. Days are epoch days, minutes count from midnight. */
export interface Columns {
  startDay: Int32Array;
  /** {@link NO_MINUTE} = the whole day */
  startMinute: Int16Array;
  /** exclusive; {@link NONE} = no end is given */
  endDay: Int32Array;
  endMinute: Int16Array;
  /** included */
  lastDay: Int32Array;
  originalDay: Int32Array;
  originalMinute: Int16Array;
  /** 1 = it is not at its original start */
  moved: Uint8Array;
  slot: Int32Array;
}

/** One row, as it goes in. */
export interface ColumnRow {
  startDay: EpochDay;
  startMinute: number;
  endDay: number;
  endMinute: number;
  lastDay: EpochDay;
  originalDay: EpochDay;
  originalMinute: number;
  moved: number;
  slot: number;
}

const NAMES = [
  'startDay',
  'startMinute',
  'endDay',
  'endMinute',
  'lastDay',
  'originalDay',
  'originalMinute',
  'moved',
  'slot',
] as const satisfies readonly (keyof Columns)[];

/** Columns of so many rows, all zero. */
export function emptyColumns(length: number): Columns {
  return {
    startDay: new Int32Array(length),
    startMinute: new Int16Array(length),
    endDay: new Int32Array(length),
    endMinute: new Int16Array(length),
    lastDay: new Int32Array(length),
    originalDay: new Int32Array(length),
    originalMinute: new Int16Array(length),
    moved: new Uint8Array(length),
    slot: new Int32Array(length),
  };
}

// Name by name, not in a loop over names: the engine knows each column's type then, and this is done for every row.

/** Copies a row of some columns into a row of others. */
export function copyRow(from: Columns, row: number, to: Columns, at: number): void {
  to.startDay[at] = from.startDay[row] as number;
  to.startMinute[at] = from.startMinute[row] as number;
  to.endDay[at] = from.endDay[row] as number;
  to.endMinute[at] = from.endMinute[row] as number;
  to.lastDay[at] = from.lastDay[row] as number;
  to.originalDay[at] = from.originalDay[row] as number;
  to.originalMinute[at] = from.originalMinute[row] as number;
  to.moved[at] = from.moved[row] as number;
  to.slot[at] = from.slot[row] as number;
}

/** Writes a row. */
export function putRow(columns: Columns, at: number, row: ColumnRow): void {
  columns.startDay[at] = row.startDay;
  columns.startMinute[at] = row.startMinute;
  columns.endDay[at] = row.endDay;
  columns.endMinute[at] = row.endMinute;
  columns.lastDay[at] = row.lastDay;
  columns.originalDay[at] = row.originalDay;
  columns.originalMinute[at] = row.originalMinute;
  columns.moved[at] = row.moved;
  columns.slot[at] = row.slot;
}

/** The order of two starts: by day, a whole day before its hours. */
export const compareStarts = (day: number, minute: number, otherDay: number, otherMinute: number): number =>
  day - otherDay || minute - otherMinute;

/** The first row that starts on a day or after it. */
export function firstFrom({ startDay }: Columns, day: EpochDay): number {
  let low = 0;
  let high = startDay.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((startDay[middle] as number) < day) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The rows that go on after their first day, in order. */
export function longRows({ startDay, lastDay }: Columns): Int32Array {
  const rows: number[] = [];
  for (let row = 0; row < startDay.length; row++) if ((lastDay[row] as number) > (startDay[row] as number)) rows.push(row);
  return Int32Array.from(rows);
}

/** A row that goes in before one that is there (or at the end). */
export interface Insertion {
  before: number;
  row: ColumnRow;
}

/** The rows that go on after their first day, once some rows are out and others in. */
export function longAfter(long: Int32Array, out: readonly number[], into: readonly Insertion[]): Int32Array {
  const rows: number[] = [];
  let i = 0;
  let j = 0;
  const comeBefore = (place: number): void => {
    for (let next = into[j]; next && next.before <= place; next = into[++j]) {
      while (i < out.length && (out[i] as number) < next.before) i++;
      if (next.row.lastDay > next.row.startDay) rows.push(next.before - i + j);
    }
  };
  for (const row of long) {
    comeBefore(row);
    while (i < out.length && (out[i] as number) < row) i++;
    if (out[i] !== row) rows.push(row - i + j);
  }
  comeBefore(Number.POSITIVE_INFINITY);
  return Int32Array.from(rows);
}

/** Columns that grow: the rows that there are, and the room for more. */
export class GrowingColumns {
  #room = emptyColumns(0);
  #rows = emptyColumns(0);

  /** The rows, as views into the room: good until the next change. */
  get rows(): Columns {
    return this.#rows;
  }

  #take(room: Columns, length: number): void {
    const rows = emptyColumns(0);
    for (const name of NAMES) rows[name] = room[name].subarray(0, length) as never;
    this.#room = room;
    this.#rows = rows;
  }

  /** Takes whole columns over. */
  fill(columns: Columns): void {
    this.#take(columns, columns.slot.length);
  }

  /** Makes room for so many rows at least. */
  #reserve(length: number): void {
    if (length <= this.#room.slot.length) return;
    const room = emptyColumns(Math.max(length, Math.ceil(this.#room.slot.length * 1.25), 1024));
    for (const name of NAMES) room[name].set(this.#rows[name] as never);
    this.#take(room, this.#rows.slot.length);
  }

  /** Adds rows at the end. */
  append(rows: readonly ColumnRow[]): void {
    const length = this.#rows.slot.length;
    this.#reserve(length + rows.length);
    for (const [i, row] of rows.entries()) putRow(this.#room, length + i, row);
    this.#take(this.#room, length + rows.length);
  }

  /**
   * Takes rows out and puts others in. What stays is moved in whole stretches, so it costs the columns' bytes and the number of changes, not a
   * look at each row; and nothing is allocated while there is room.
   *
   * @param out rows that go, ascending
   * @param into rows that come, in their order; `before` counts in the rows as they are, ascending
   */
  change(out: readonly number[], into: readonly Insertion[]): void {
    const before = this.#rows.slot.length;
    const left = before - out.length;
    this.#reserve(left + into.length);
    const room = this.#room;
    const move = (to: number, from: number, end: number): void => {
      if (to !== from && end > from) for (const name of NAMES) room[name].copyWithin(to, from, end);
    };
    let to = out[0] ?? before;
    for (const [i, gone] of out.entries()) {
      const end = out[i + 1] ?? before;
      move(to, gone + 1, end);
      to += end - gone - 1;
    }
    // From the end, so that nothing is written over that is still to be moved.
    let end = left;
    let goneBefore = out.length;
    for (let i = into.length - 1; i >= 0; i--) {
      const { before: place, row } = into[i] as Insertion;
      while (goneBefore > 0 && (out[goneBefore - 1] as number) >= place) goneBefore--;
      const at = place - goneBefore;
      move(at + i + 1, at, end);
      putRow(room, at + i, row);
      end = at;
    }
    this.#take(room, left + into.length);
  }
}
