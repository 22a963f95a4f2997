/**
 * All dates that readers may see, in memory: as columns in order of their start, with what their listings say beside them. Views ask it
 * for dates and for counts, and need no query for either. It holds what it is given and asks nobody: no database, no clock.
 */
import { type DateGlance, type DaysGlance, type EffectiveDate, effectiveStatus } from '../dates/effective-date';
import { isOff } from '../dates/next-date';
import type { EpochDay } from '../day/day';
import { parseIsoDateTime } from '../day/plain-date-time';
import type { Condition } from '../filters/condition';
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
import { addMarks, FactsTable } from './facts-table';
import { likest } from '../match/related';
import type { Around, Asked, FactsGroup, FoundChange, FoundDate, FoundListing, FoundRows, FoundSpan, RelatedInput } from './found';
import { Glance, type Slot } from './glance';
import { compareListings, orderOf } from './order';
import { WordIndex } from './word-index';

/** A slot that nothing is in. */
const FREE = -1;

/** Takes listings one by one and makes a finder of them. */
export interface FinderBuilder {
  /** a listing that was not handed over before */
  add: (listing: FoundListing, dates: readonly FoundDate[]) => void;
  /** in short steps; its value is the finder */
  finish: () => Generator<void, Finder, void>;
}

/** Readers' dates in memory. */
export class Finder {
  readonly #numberOf = new Map<string, number>();
  readonly #listings: (FoundListing | undefined)[] = [];
  /** the first days of each one's first and last date */
  readonly #spans: { first: EpochDay; last: EpochDay }[] = [];
  readonly #freeNumbers: number[] = [];
  readonly #slots: Slot[] = [];
  /** the number of each slot's listing; {@link FREE} = none has it */
  readonly #owners: number[] = [];
  /** the number of the facts that filters ask of it */
  readonly #slotFacts: number[] = [];
  /** how many dates each slot has in all */
  readonly #totals: number[] = [];
  readonly #freeSlots: number[] = [];
  readonly #slotsOf: number[][] = [];
  readonly #facts = new FactsTable();
  readonly #words = new WordIndex();
  /** the numbers of the listings that have a tag or an organizer */
  readonly #having = { tag: new Map<string, Set<number>>(), organizer: new Map<string, Set<number>>() };
  /** which slots fit what was asked already: a page asks the same of its dates, its counts and what is around them */
  #known = new WeakMap<Condition, Uint8Array>();
  readonly #table = new GrowingColumns();
  #long: Int32Array = new Int32Array();
  readonly #isoDays = new Map<EpochDay, string>();

  get #columns(): Columns {
    return this.#table.rows;
  }

  /** How many dates there are. */
  get dates(): number {
    return this.#columns.slot.length;
  }

  /** How many listings have them. */
  get listings(): number {
    return this.#numberOf.size;
  }

  /** A number that two finders with the same dates share, and that a database can sum up: all first days. */
  get sum(): number {
    let sum = 0;
    for (const day of this.#columns.startDay) sum += day;
    return sum;
  }

  /** The words of the texts, as far as filters ask for them. */
  get words(): Pick<WordIndex, 'has' | 'near'> {
    return this.#words;
  }

  #addListing(listing: FoundListing, dates: readonly FoundDate[]): number {
    const number = this.#freeNumbers.pop() ?? this.#listings.length;
    this.#listings[number] = listing;
    this.#slotsOf[number] = [];
    let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const { startDay } of dates) {
      first = Math.min(first, startDay);
      last = Math.max(last, startDay);
    }
    this.#spans[number] = { first, last };
    this.#numberOf.set(listing.listingId, number);
    this.#words.set(number, listing.search);
    for (const [id, having] of this.#namedBy(listing)) having.set(id, (having.get(id) ?? new Set()).add(number));
    return number;
  }

  /** Each tag and organizer of a listing, and who has them. */
  *#namedBy({ tagIds, organizerIds }: FoundListing): Generator<[string, Map<string, Set<number>>]> {
    for (const id of tagIds) yield [id, this.#having.tag];
    for (const id of organizerIds) yield [id, this.#having.organizer];
  }

  #removeListing(number: number): void {
    const slots = this.#slotsOf[number] as number[];
    for (const slot of slots) {
      this.#owners[slot] = FREE;
      this.#totals[slot] = 0;
    }
    this.#freeSlots.push(...slots);
    this.#slotsOf[number] = [];
    for (const [id, having] of this.#namedBy(this.#listings[number] as FoundListing)) having.get(id)?.delete(number);
    this.#listings[number] = undefined;
    this.#words.delete(number);
    this.#freeNumbers.push(number);
  }

  #slotOf(owner: number, { venueId, eventStatus, note, timed }: FoundDate): number {
    const own = this.#slotsOf[owner] as number[];
    for (const number of own) {
      const slot = this.#slots[number] as Slot;
      if (slot.timed === timed && slot.venueId === venueId && slot.eventStatus === eventStatus && slot.note === note) return number;
    }
    const number = this.#freeSlots.pop() ?? this.#slots.length;
    this.#slots[number] = { venueId, eventStatus, note, timed };
    this.#owners[number] = owner;
    this.#totals[number] = 0;
    const { categoryId, venueIds, attendance, free } = this.#listings[owner] as FoundListing;
    const online = attendance !== 'in-person';
    this.#slotFacts[number] = this.#facts.numberOf({ categoryId, venueIds: venueId ? [venueId] : venueIds, online, free });
    own.push(number);
    return number;
  }

  #rowOf(owner: number, date: FoundDate): ColumnRow {
    const original = parseIsoDateTime(date.original);
    const slot = this.#slotOf(owner, date);
    this.#totals[slot] = (this.#totals[slot] as number) + 1;
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

  #listingOf(row: number): FoundListing {
    return this.#listings[this.#owners[this.#columns.slot[row] as number] as number] as FoundListing;
  }

  /** The order of a row that is there and one that comes in. */
  #compareWith(row: number, coming: ColumnRow, listing: FoundListing): number {
    const { startDay, startMinute, originalDay, originalMinute } = this.#columns;
    return (
      compareStarts(startDay[row] as number, startMinute[row] as number, coming.startDay, coming.startMinute) ||
      compareListings(this.#listingOf(row), listing) ||
      compareStarts(originalDay[row] as number, originalMinute[row] as number, coming.originalDay, coming.originalMinute)
    );
  }

  /** Where a row goes: before the first that comes after it. */
  #placeOf(coming: ColumnRow, listing: FoundListing): number {
    let low = firstFrom(this.#columns, coming.startDay);
    let high = firstFrom(this.#columns, coming.startDay + 1);
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
    const goes = [...last.keys()].flatMap((listingId) => this.#numberOf.get(listingId) ?? []);
    const out = this.#rowsOf(goes);
    for (const listingId of last.keys()) this.#numberOf.delete(listingId);
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
      this.#table.change(out, into);
      this.#long = longAfter(this.#long, out, into);
    }
    for (const number of goes) this.#removeListing(number);
    this.#known = new WeakMap();
  }

  /** The rows of some listings, by their numbers; ascending. */
  #rowsOf(numbers: readonly number[]): number[] {
    const theirs = new Uint8Array(this.#slots.length);
    let [from, to] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const number of numbers) {
      for (const slot of this.#slotsOf[number] as number[]) theirs[slot] = 1;
      const { first, last } = this.#spans[number] as { first: EpochDay; last: EpochDay };
      from = Math.min(from, first);
      to = Math.max(to, last);
    }
    const rows: number[] = [];
    if (!numbers.length) return rows;
    const { slot } = this.#columns;
    const end = firstFrom(this.#columns, to + 1);
    for (let row = firstFrom(this.#columns, from); row < end; row++) if (theirs[slot[row] as number]) rows.push(row);
    return rows;
  }

  /**
   * A finder of many listings, which are handed over one by one. Each step of `finish` is short, so that the thread that answers can do others'
   * work between them; nobody is to ask the finder before the last.
   */
  static builder(): FinderBuilder {
    const finder = new Finder();
    const parts: { listing: FoundListing; first: number; end: number }[] = [];
    const table = finder.#table;
    const add = (listing: FoundListing, dates: readonly FoundDate[]): void => {
      if (!dates.length) return;
      const owner = finder.#addListing(listing, dates);
      const first = finder.dates;
      table.append(dates.map((date) => finder.#rowOf(owner, date)));
      parts.push({ listing, first, end: finder.dates });
    };
    function* finish(): Generator<void, Finder, void> {
      parts.sort((a, b) => compareListings(a.listing, b.listing));
      yield;
      const unordered = table.rows;
      const order = yield* orderOf(unordered, parts);
      yield;
      const columns = emptyColumns(order.length);
      for (let at = 0; at < order.length; at++) {
        copyRow(unordered, order[at] as number, columns, at);
        if (at % AT_ONCE === AT_ONCE - 1) yield;
      }
      table.fill(columns);
      yield;
      finder.#long = longRows(columns);
      return finder;
    }
    return { add, finish };
  }

  /** Which slots fit, as 1 at their number; undefined = all. */
  #fitting(conditions: readonly Condition[]): Uint8Array | undefined {
    if (!conditions.length) return undefined;
    const all = new Uint8Array(this.#slots.length).fill(1);
    for (const condition of conditions) {
      const own = this.#marks(condition);
      for (let i = 0; i < all.length; i++) all[i] = (all[i] as number) & (own[i] as number);
    }
    return all;
  }

  #marks(condition: Condition): Uint8Array {
    const known = this.#known.get(condition);
    if (known) return known;
    const marks = this.#findMarks(condition);
    this.#known.set(condition, marks);
    return marks;
  }

  #findMarks(condition: Condition): Uint8Array {
    if (condition.asks === 'any') {
      const marks = new Uint8Array(this.#slots.length);
      for (const one of condition.of) addMarks(marks, this.#marks(one));
      return marks;
    }
    if (condition.asks === 'word') {
      const owners = new Uint8Array(this.#listings.length);
      this.#words.mark(condition.word, owners);
      return this.#slotsWhere(this.#owners, owners);
    }
    if (condition.asks === 'tag' || condition.asks === 'organizer') {
      const owners = new Uint8Array(this.#listings.length);
      for (const id of condition.ids) for (const owner of this.#having[condition.asks].get(id) ?? []) owners[owner] = 1;
      return this.#slotsWhere(this.#owners, owners);
    }
    return this.#slotsWhere(this.#slotFacts, this.#facts.marks(condition));
  }

  /** The slots whose listing, or whose facts, are marked. */
  #slotsWhere(numbers: readonly number[], marked: Uint8Array): Uint8Array {
    const marks = new Uint8Array(this.#slots.length);
    const owners = this.#owners;
    for (let i = 0; i < marks.length; i++) if (owners[i] !== FREE) marks[i] = marked[numbers[i] as number] as number;
    return marks;
  }

  /** Hands on the rows that touch a span, in order of their start, until it is enough. */
  #each({ from, to }: FoundSpan, fits: Uint8Array | undefined, take: (row: number) => boolean | undefined): void {
    const { slot, lastDay } = this.#columns;
    const first = firstFrom(this.#columns, from);
    const end = to === undefined ? slot.length : firstFrom(this.#columns, to + 1);
    for (const row of this.#long) {
      if (row >= first) break;
      if ((lastDay[row] as number) >= from && (!fits || fits[slot[row] as number]) && take(row)) return;
    }
    for (let row = first; row < end; row++) if ((!fits || fits[slot[row] as number]) && take(row)) return;
  }

  #glanceAt(row: number): Glance {
    const slot = this.#slots[this.#columns.slot[row] as number] as Slot;
    return new Glance(this.#listingOf(row), slot, this.#columns, row, this.#isoDays);
  }

  #dateAt(row: number): EffectiveDate {
    return this.#glanceAt(row).whole();
  }

  /** The dates that touch a span, in order of their start, each as far as a sheet must know it. */
  glance({ span, conditions }: Asked): DateGlance[] {
    const found: DateGlance[] = [];
    this.#each(span, this.#fitting(conditions), (row) => {
      found.push(this.#glanceAt(row));
      return false;
    });
    return found;
  }

  /** The dates that touch a span, in order of their start; at most so many, after so many that are passed over. */
  find({ span, conditions }: Asked, most = Number.POSITIVE_INFINITY, passed = 0): EffectiveDate[] {
    const found: EffectiveDate[] = [];
    let n = 0;
    if (most > 0)
      this.#each(span, this.#fitting(conditions), (row) => {
        if (n++ >= passed) found.push(this.#dateAt(row));
        return found.length >= most;
      });
    return found;
  }

  /** How many dates touch a span. */
  count({ span, conditions }: Asked): number {
    let n = 0;
    this.#each(span, this.#fitting(conditions), () => {
      n++;
      return false;
    });
    return n;
  }

  /** How many dates touch each day of a span with an end, and those that go on after their first day, in order. */
  perDay({ span: { from, to = from }, conditions }: Asked): DaysGlance {
    const { startDay, lastDay } = this.#columns;
    const counts = new Uint32Array(to - from + 1);
    const several: DateGlance[] = [];
    this.#each({ from, to }, this.#fitting(conditions), (row) => {
      const [first, last] = [startDay[row] as number, lastDay[row] as number];
      if (last > first) several.push(this.#glanceAt(row));
      for (let day = Math.max(first, from); day <= Math.min(last, to); day++) counts[day - from] = (counts[day - from] as number) + 1;
      return false;
    });
    return { counts, several };
  }

  /** The dates that touch a span, counted by what filters ask of them: those that no filter can tell apart together. */
  groups({ span, conditions }: Asked): FactsGroup[] {
    const { slot, lastDay } = this.#columns;
    const ofSlot = new Uint32Array(this.#slots.length);
    const first = firstFrom(this.#columns, span.from);
    const end = span.to === undefined ? slot.length : firstFrom(this.#columns, span.to + 1);
    for (let i = 0; i < this.#long.length && (this.#long[i] as number) < first; i++) {
      const row = this.#long[i] as number;
      const at = slot[row] as number;
      if ((lastDay[row] as number) >= span.from) ofSlot[at] = (ofSlot[at] as number) + 1;
    }
    // From today to the horizon is most of what there is: then it is less work to take away what is outside.
    const most = (end - first) * 2 > slot.length;
    if (most) for (let i = 0; i < ofSlot.length; i++) ofSlot[i] = (ofSlot[i] as number) + (this.#totals[i] as number);
    const count = (from: number, to: number, by: 1 | -1): void => {
      for (let row = from; row < to; row++) {
        const at = slot[row] as number;
        ofSlot[at] = (ofSlot[at] as number) + by;
      }
    };
    if (most) {
      count(0, first, -1);
      count(end, slot.length, -1);
    } else count(first, end, 1);
    const fits = this.#fitting(conditions);
    const ofFacts = new Uint32Array(this.#facts.size);
    for (let i = 0; i < ofSlot.length; i++) {
      const n = ofSlot[i] as number;
      const facts = this.#slotFacts[i] as number;
      if (n && (!fits || fits[i])) ofFacts[facts] = (ofFacts[facts] as number) + n;
    }
    const groups: FactsGroup[] = [];
    for (let i = 0; i < ofFacts.length; i++) if (ofFacts[i]) groups.push({ facts: this.#facts.at(i), n: ofFacts[i] as number });
    return groups;
  }

  /** The first day of the date that is so many before a day; of the earliest where there are fewer; undefined where there are none. */
  dayBefore(from: EpochDay, count: number, conditions: readonly Condition[]): EpochDay | undefined {
    const fits = this.#fitting(conditions);
    const { slot, startDay } = this.#columns;
    let found: EpochDay | undefined;
    let n = 0;
    for (let row = firstFrom(this.#columns, from) - 1; row >= 0 && n < count; row--) {
      if (fits && !fits[slot[row] as number]) continue;
      found = startDay[row] as number;
      n++;
    }
    return found;
  }

  /** How many dates are over before a day or begin after another, and the nearest first day of each. */
  around(from: EpochDay, to: EpochDay, conditions: readonly Condition[]): Around {
    const fits = this.#fitting(conditions);
    const { slot, startDay, lastDay } = this.#columns;
    const around: Around = { earlier: 0, last: undefined, later: 0, next: undefined };
    const first = firstFrom(this.#columns, from);
    for (let row = 0; row < first; row++) {
      if ((fits && !fits[slot[row] as number]) || (lastDay[row] as number) >= from) continue;
      around.earlier++;
      around.last = startDay[row] as number;
    }
    for (let row = firstFrom(this.#columns, to + 1); row < slot.length; row++) {
      if (fits && !fits[slot[row] as number]) continue;
      around.later++;
      around.next ??= startDay[row] as number;
    }
    return around;
  }

  /** Each listing that has a date in a span, in order of its first there, with what its dates there are. */
  findListings({ span, conditions }: Asked): FoundRows[] {
    const { slot, startDay, lastDay } = this.#columns;
    const byOwner = new Map<number, FoundRows>();
    this.#each(span, this.#fitting(conditions), (row) => {
      const owner = this.#owners[slot[row] as number] as number;
      const known = byOwner.get(owner);
      if (known) {
        known.dates++;
        known.until = Math.max(known.until, lastDay[row] as number);
        if (known.days.length < DAYS_NAMED) known.days.push(startDay[row] as number);
        return false;
      }
      const days = [startDay[row] as number];
      const { listingId } = this.#listings[owner] as FoundListing;
      byOwner.set(owner, { listingId, dates: 1, days, until: lastDay[row] as number, first: this.#glanceAt(row) });
      return false;
    });
    return [...byOwner.values()];
  }

  /** Listings like one that is there, by what they share, each with its next date within so many days; none where readers do not have it. */
  related(listingId: string, { today, within, ...input }: RelatedInput): EffectiveDate[] {
    const number = this.#numberOf.get(listingId);
    const one = number === undefined ? undefined : this.#listings[number];
    if (!one) return [];
    const byOwner = new Map<number, number>();
    this.#each({ from: today, to: today + within }, undefined, (row) => {
      const at = this.#columns.slot[row] as number;
      const owner = this.#owners[at] as number;
      // Its next date that goes ahead.
      const status = effectiveStatus((this.#listings[owner] as FoundListing).eventStatus, (this.#slots[at] as Slot).eventStatus);
      if (!byOwner.has(owner) && !isOff(status)) byOwner.set(owner, row);
      return false;
    });
    const candidates = [...byOwner].map(([owner, row]) => ({
      listing: this.#listings[owner] as FoundListing,
      next: this.#columns.startDay[row] as number,
      of: row,
    }));
    return likest(one, candidates, { today, ...input }).map((row) => this.#dateAt(row));
  }

  /** The next date of each listing that is kept on top of lists on a day, the soonest first. */
  onTop(today: EpochDay, conditions: readonly Condition[]): EffectiveDate[] {
    const top = new Set<number>();
    for (const [number, listing] of this.#listings.entries())
      if ((listing?.onTopUntil ?? Number.NEGATIVE_INFINITY) >= today) top.add(number);
    if (!top.size) return [];
    const found: EffectiveDate[] = [];
    this.#each({ from: today }, this.#fitting(conditions), (row) => {
      const owner = this.#owners[this.#columns.slot[row] as number] as number;
      if (top.delete(owner)) found.push(this.#dateAt(row));
      return !top.size;
    });
    return found;
  }
}

/** So many days of a listing are named. */
const DAYS_NAMED = 5;
/** So many rows are copied in a step. */
const AT_ONCE = 25_000;
