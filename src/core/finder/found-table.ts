/**
 * What the finder holds: listings with what filters ask of them, and their dates as rows in order of their start. A date's row names its slot,
 * which is what some dates of a listing share: where and how they are.
 */
import { effectiveStatus } from '../dates/effective-date';
import { isOff } from '../dates/next-date';
import type { EpochDay } from '../day/day';
import { parseIsoDateTime } from '../day/plain-date-time';
import { type DateFacts, priceOf } from '../filters/condition';
import { partsOf } from '../filters/part-of-day';
import {
  type ColumnRow,
  type Columns,
  compareStarts,
  copyRow,
  emptyColumns,
  firstFrom,
  GrowingColumns,
  type Insertion,
  longAfter,
  longRows,
  NO_MINUTE,
  NONE,
} from './columns';
import { FactsTable } from './facts-table';
import type { FoundChange, FoundDate, FoundListing } from './found';
import type { Slot } from './glance';
import { compareListings, orderOf } from './order';
import { WordIndex } from './word-index';

/** The owner of a slot that nothing is in. */
export const FREE = -1;

/** Takes listings one by one and makes a table of them. */
export interface TableBuilder {
  /** a listing that was not handed over before */
  add: (listing: FoundListing, dates: readonly FoundDate[]) => void;
  /** in short steps; its value is the table */
  finish: () => Generator<void, FoundTable, void>;
}

/** Listings, and their dates as rows in order of their start. */
export class FoundTable {
  readonly numberOf = new Map<string, number>();
  readonly listings: (FoundListing | undefined)[] = [];
  /** the first days of each one's first and last date */
  readonly #spans: { first: EpochDay; last: EpochDay }[] = [];
  readonly #freeNumbers: number[] = [];
  readonly slots: Slot[] = [];
  /** the number of each slot's listing; {@link FREE} = none has it */
  readonly owners: number[] = [];
  /** the number of the facts that filters ask of it */
  readonly slotFacts: number[] = [];
  /** how many dates each slot has in all */
  readonly totals: number[] = [];
  readonly #freeSlots: number[] = [];
  readonly #slotsOf: number[][] = [];
  readonly facts = new FactsTable();
  readonly words = new WordIndex();
  readonly #rows = new GrowingColumns();
  /** the rows of dates that go on after their first day */
  long: Int32Array = new Int32Array();

  /** Dates in order of their start. */
  get columns(): Columns {
    return this.#rows.rows;
  }

  #addListing(listing: FoundListing, dates: readonly FoundDate[]): number {
    const number = this.#freeNumbers.pop() ?? this.listings.length;
    this.listings[number] = listing;
    this.#slotsOf[number] = [];
    let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const { startDay } of dates) {
      first = Math.min(first, startDay);
      last = Math.max(last, startDay);
    }
    this.#spans[number] = { first, last };
    this.numberOf.set(listing.listingId, number);
    this.words.set(number, listing.search);
    return number;
  }

  #removeListing(number: number): void {
    const slots = this.#slotsOf[number] as number[];
    for (const slot of slots) {
      this.owners[slot] = FREE;
      this.totals[slot] = 0;
    }
    this.#freeSlots.push(...slots);
    this.#slotsOf[number] = [];
    this.listings[number] = undefined;
    this.words.delete(number);
    this.#freeNumbers.push(number);
  }

  #slotOf(owner: number, date: FoundDate): number {
    const { venueId, eventStatus, note, timed } = date;
    const parts = partsOf(date);
    const own = this.#slotsOf[owner] as number[];
    for (const number of own) {
      const slot = this.slots[number] as Slot;
      const same = slot.timed === timed && slot.venueId === venueId && slot.eventStatus === eventStatus && slot.note === note;
      if (same && slot.parts === parts) return number;
    }
    const number = this.#freeSlots.pop() ?? this.slots.length;
    this.slots[number] = { venueId, eventStatus, note, timed, parts };
    this.owners[number] = owner;
    this.totals[number] = 0;
    this.slotFacts[number] = this.facts.numberOf(factsOf(this.listings[owner] as FoundListing, { venueId, eventStatus, parts }));
    own.push(number);
    return number;
  }

  #rowOf(owner: number, date: FoundDate): ColumnRow {
    const original = parseIsoDateTime(date.original);
    const slot = this.#slotOf(owner, date);
    this.totals[slot] = (this.totals[slot] as number) + 1;
    return {
      startDay: date.startDay,
      startMinute: date.startMinute ?? NO_MINUTE,
      endDay: date.endDay ?? NONE,
      endMinute: date.endMinute ?? NO_MINUTE,
      lastDay: date.lastDay,
      originalDay: original?.day ?? date.startDay,
      originalMinute: original?.minute ?? NO_MINUTE,
      moved: date.moved ? 1 : 0,
      slot,
    };
  }

  /** The listing of a row. */
  listingOf(row: number): FoundListing {
    return this.listings[this.owners[this.columns.slot[row] as number] as number] as FoundListing;
  }

  /** The order of a row that is there and one that comes in. */
  #compareWith(row: number, coming: ColumnRow, listing: FoundListing): number {
    const { startDay, startMinute, originalDay, originalMinute } = this.columns;
    return (
      compareStarts(startDay[row] as number, startMinute[row] as number, coming.startDay, coming.startMinute) ||
      compareListings(this.listingOf(row), listing) ||
      compareStarts(originalDay[row] as number, originalMinute[row] as number, coming.originalDay, coming.originalMinute)
    );
  }

  /** Where a row goes: before the first that comes after it. */
  #placeOf(coming: ColumnRow, listing: FoundListing): number {
    let low = firstFrom(this.columns, coming.startDay);
    let high = firstFrom(this.columns, coming.startDay + 1);
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.#compareWith(middle, coming, listing) <= 0) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Puts listings in the place of what they were: all at once, as whoever asks meanwhile never sees half of it. */
  replace(changes: readonly FoundChange[]): void {
    const last = new Map(changes.map((change) => [change.listingId, change]));
    // What goes keeps its numbers until its rows are out: what comes is put in order among them.
    const goes = [...last.keys()].flatMap((listingId) => this.numberOf.get(listingId) ?? []);
    const out = this.#rowsOf(goes);
    for (const listingId of last.keys()) this.numberOf.delete(listingId);
    const coming: { row: ColumnRow; listing: FoundListing }[] = [];
    for (const { is } of last.values()) {
      if (!is?.dates.length) continue;
      const owner = this.#addListing(is.listing, is.dates);
      for (const date of is.dates) coming.push({ row: this.#rowOf(owner, date), listing: is.listing });
    }
    coming.sort(
      (a, b) =>
        compareStarts(a.row.startDay, a.row.startMinute, b.row.startDay, b.row.startMinute) ||
        compareListings(a.listing, b.listing) ||
        compareStarts(a.row.originalDay, a.row.originalMinute, b.row.originalDay, b.row.originalMinute),
    );
    const into = coming.map(({ row, listing }): Insertion => ({ before: this.#placeOf(row, listing), row }));
    if (out.length || into.length) {
      this.#rows.change(out, into);
      this.long = longAfter(this.long, out, into);
    }
    for (const number of goes) this.#removeListing(number);
  }

  /** The rows of some listings, by their numbers; ascending. */
  #rowsOf(numbers: readonly number[]): number[] {
    const theirs = new Uint8Array(this.slots.length);
    let [from, to] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const number of numbers) {
      for (const slot of this.#slotsOf[number] as number[]) theirs[slot] = 1;
      const { first, last } = this.#spans[number] as { first: EpochDay; last: EpochDay };
      from = Math.min(from, first);
      to = Math.max(to, last);
    }
    const rows: number[] = [];
    if (!numbers.length) return rows;
    const { slot } = this.columns;
    const end = firstFrom(this.columns, to + 1);
    for (let row = firstFrom(this.columns, from); row < end; row++) if (theirs[slot[row] as number]) rows.push(row);
    return rows;
  }

  /**
   * A table of many listings, which are handed over one by one. Each step of `finish` is short, so that the thread that answers can do others'
   * work between them; nobody is to ask it before the last.
   */
  static builder(): TableBuilder {
    const made = new FoundTable();
    const parts: { listing: FoundListing; first: number; end: number }[] = [];
    const rows = made.#rows;
    const add = (listing: FoundListing, dates: readonly FoundDate[]): void => {
      if (!dates.length) return;
      const owner = made.#addListing(listing, dates);
      const first = made.columns.slot.length;
      rows.append(dates.map((date) => made.#rowOf(owner, date)));
      parts.push({ listing, first, end: made.columns.slot.length });
    };
    function* finish(): Generator<void, FoundTable, void> {
      parts.sort((a, b) => compareListings(a.listing, b.listing));
      yield;
      const unordered = rows.rows;
      const order = yield* orderOf(unordered, parts);
      yield;
      const columns = emptyColumns(order.length);
      for (let at = 0; at < order.length; at++) {
        copyRow(unordered, order[at] as number, columns, at);
        if (at % AT_ONCE === AT_ONCE - 1) yield;
      }
      rows.fill(columns);
      yield;
      made.long = longRows(columns);
      return made;
    }
    return { add, finish };
  }
}

/** What filters ask of some dates of a listing. */
function factsOf(listing: FoundListing, { venueId, eventStatus, parts }: Pick<Slot, 'venueId' | 'eventStatus' | 'parts'>): DateFacts {
  const { categoryId, organizerIds, tagIds, attendance, free, cost } = listing;
  return {
    categoryId,
    venueIds: venueId ? [venueId] : listing.venueIds,
    organizerIds,
    tagIds,
    attendance,
    free,
    price: priceOf(cost),
    parts,
    off: isOff(effectiveStatus(listing.eventStatus, eventStatus)),
  };
}

/** So many rows are copied in a step. */
const AT_ONCE = 25_000;
