/**
 * All dates that readers may see, in memory: as columns in order of their start, with what their listings say beside them. Views ask it
 * for dates and for counts, and need no query for either. It holds what it is given and asks nobody: no database, no clock.
 */
import { type DateGlance, type DaysGlance, type EffectiveDate, effectiveStatus } from '../dates/effective-date';
import { isOff } from '../dates/next-date';
import type { EpochDay } from '../day/day';
import type { Condition, FilterGroups } from '../filters/condition';
import { likest } from '../match/related';
import { titleKey } from '../match/relevance';
import { firstFrom } from './columns';
import { addMarks } from './facts-table';
import type { Around, Asked, FoundChange, FoundDate, FoundListing, FoundRows, FoundSpan, RelatedInput } from './found';
import { FoundTable, FREE } from './found-table';
import { Glance, type Slot } from './glance';
import { type Tally, tally } from './tally';
import type { WordIndex } from './word-index';

/** Takes listings one by one and makes a finder of them. */
export interface FinderBuilder {
  /** a listing that was not handed over before */
  add: (listing: FoundListing, dates: readonly FoundDate[]) => void;
  /** in short steps; its value is the finder */
  finish: () => Generator<void, Finder, void>;
}

/** A listing among many that were found: what a page of them shows is made for that page alone. */
class Found implements FoundRows {
  readonly dates: number;
  readonly until: EpochDay;

  constructor(
    readonly listingId: string,
    readonly titleKey: string,
    counted: { dates: number; until: EpochDay },
    private readonly from: { named: Int32Array; begin: number; row: number; dateAt: (row: number) => EffectiveDate },
  ) {
    this.dates = counted.dates;
    this.until = counted.until;
  }

  days(): EpochDay[] {
    const { named, begin } = this.from;
    return [...named.subarray(begin, begin + Math.min(this.dates, DAYS_NAMED))];
  }

  first(): EffectiveDate {
    return this.from.dateAt(this.from.row);
  }
}

/** Readers' dates in memory. */
export class Finder {
  readonly #table: FoundTable;
  /** which slots fit what was asked already: a page asks the same of its dates, its counts and what is around them */
  #known = new WeakMap<Condition | readonly Condition[], Uint8Array>();
  readonly #isoDays = new Map<EpochDay, string>();
  readonly #titleKeys = new WeakMap<FoundListing, string>();

  private constructor(table: FoundTable) {
    this.#table = table;
  }

  /**
   * A finder of many listings, which are handed over one by one. Each step of `finish` is short, so that the thread that answers can do others'
   * work between them; nobody is to ask the finder before the last.
   */
  static builder(): FinderBuilder {
    const { add, finish } = FoundTable.builder();
    return {
      add,
      *finish() {
        return new Finder(yield* finish());
      },
    };
  }

  /** Puts listings in the place of what they were: all at once, as whoever asks meanwhile never sees half of it. */
  replace(changes: readonly FoundChange[]): void {
    this.#table.replace(changes);
    this.#known = new WeakMap();
  }

  /** How many dates there are. */
  get dates(): number {
    return this.#table.columns.slot.length;
  }

  /** How many listings have them. */
  get listings(): number {
    return this.#table.numberOf.size;
  }

  /** A number that two finders with the same dates share, and that a database can sum up: all first days. */
  get sum(): number {
    let sum = 0;
    for (const day of this.#table.columns.startDay) sum += day;
    return sum;
  }

  /** The words of the texts, as far as filters ask for them. */
  get words(): Pick<WordIndex, 'has' | 'near'> {
    return this.#table.words;
  }

  /** Which slots fit, as 1 at their number; undefined = all. */
  #fitting(conditions: readonly Condition[]): Uint8Array | undefined {
    if (!conditions.length) return undefined;
    const known = this.#known.get(conditions);
    if (known) return known;
    const all = new Uint8Array(this.#table.slots.length).fill(1);
    for (const condition of conditions) {
      const own = this.#marks(condition);
      for (let i = 0; i < all.length; i++) all[i] = (all[i] as number) & (own[i] as number);
    }
    this.#known.set(conditions, all);
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
      const marks = new Uint8Array(this.#table.slots.length);
      for (const one of condition.of) addMarks(marks, this.#marks(one));
      return marks;
    }
    if (condition.asks === 'word') {
      const owners = new Uint8Array(this.#table.listings.length);
      this.#table.words.mark(condition.word, owners);
      return this.#slotsWhere(this.#table.owners, owners);
    }
    if (condition.asks === 'phrase') return this.#slotsWhere(this.#table.owners, this.#havingPhrase(condition.phrase));
    return this.#slotsWhere(this.#table.slotFacts, this.#table.facts.marks(condition));
  }

  /** Who has words one after another: of those who have all of them, whoever has them so. */
  #havingPhrase(phrase: string): Uint8Array {
    const { listings, words } = this.#table;
    const having = new Uint8Array(listings.length).fill(1);
    for (const word of phrase.split(' ')) {
      const own = new Uint8Array(listings.length);
      words.mark(word, own);
      for (let i = 0; i < having.length; i++) having[i] = (having[i] as number) & (own[i] as number);
    }
    for (let i = 0; i < having.length; i++) if (having[i] && !listings[i]?.search.includes(phrase)) having[i] = 0;
    return having;
  }

  /** The slots whose listing, or whose facts, are marked. */
  #slotsWhere(numbers: readonly number[], marked: Uint8Array): Uint8Array {
    const marks = new Uint8Array(this.#table.slots.length);
    const owners = this.#table.owners;
    for (let i = 0; i < marks.length; i++) if (owners[i] !== FREE) marks[i] = marked[numbers[i] as number] as number;
    return marks;
  }

  /** Hands on the rows that touch a span, in order of their start, until it is enough. */
  #each({ from, to, starting }: FoundSpan, fits: Uint8Array | undefined, take: (row: number) => boolean | undefined): void {
    const { slot, lastDay } = this.#table.columns;
    const first = firstFrom(this.#table.columns, from);
    const end = to === undefined ? slot.length : firstFrom(this.#table.columns, to + 1);
    for (const row of this.#table.long) {
      if (row >= first || starting) break;
      if ((lastDay[row] as number) >= from && (!fits || fits[slot[row] as number]) && take(row)) return;
    }
    for (let row = first; row < end; row++) if ((!fits || fits[slot[row] as number]) && take(row)) return;
  }

  #glanceAt(row: number): Glance {
    const slot = this.#table.slots[this.#table.columns.slot[row] as number] as Slot;
    return new Glance(this.#table.listingOf(row), slot, this.#table.columns, row, this.#isoDays);
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
    const { startDay, lastDay } = this.#table.columns;
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

  /** The dates that touch a span and have what was typed, counted by what filters ask of them. */
  tally(span: FoundSpan, { groups, words }: FilterGroups): Tally {
    const { slot, lastDay } = this.#table.columns;
    const ofSlot = new Uint32Array(this.#table.slots.length);
    const first = firstFrom(this.#table.columns, span.from);
    const end = span.to === undefined ? slot.length : firstFrom(this.#table.columns, span.to + 1);
    for (let i = 0; i < this.#table.long.length && (this.#table.long[i] as number) < first; i++) {
      const row = this.#table.long[i] as number;
      const at = slot[row] as number;
      if ((lastDay[row] as number) >= span.from) ofSlot[at] = (ofSlot[at] as number) + 1;
    }
    // From today to the horizon is most of what there is: then it is less work to take away what is outside.
    const most = (end - first) * 2 > slot.length;
    if (most) for (let i = 0; i < ofSlot.length; i++) ofSlot[i] = (ofSlot[i] as number) + (this.#table.totals[i] as number);
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
    const fits = this.#fitting(words);
    const ofFacts = new Uint32Array(this.#table.facts.size);
    for (let i = 0; i < ofSlot.length; i++) {
      const n = ofSlot[i] as number;
      const facts = this.#table.slotFacts[i] as number;
      if (n && (!fits || fits[i])) ofFacts[facts] = (ofFacts[facts] as number) + n;
    }
    return tally(this.#table.facts, ofFacts, { groups });
  }

  /** The first day of the date that is so many before a day; of the earliest where there are fewer; undefined where there are none. */
  dayBefore(from: EpochDay, count: number, conditions: readonly Condition[]): EpochDay | undefined {
    const fits = this.#fitting(conditions);
    const { slot, startDay } = this.#table.columns;
    let found: EpochDay | undefined;
    let n = 0;
    for (let row = firstFrom(this.#table.columns, from) - 1; row >= 0 && n < count; row--) {
      if (fits && !fits[slot[row] as number]) continue;
      found = startDay[row] as number;
      n++;
    }
    return found;
  }

  /** How many dates are over before a day or begin after another, and the nearest first day of each. */
  around(from: EpochDay, to: EpochDay, conditions: readonly Condition[]): Around {
    const fits = this.#fitting(conditions);
    const { slot, startDay, lastDay } = this.#table.columns;
    const around: Around = { earlier: 0, last: undefined, later: 0, next: undefined };
    const first = firstFrom(this.#table.columns, from);
    for (let row = 0; row < first; row++) {
      if ((fits && !fits[slot[row] as number]) || (lastDay[row] as number) >= from) continue;
      around.earlier++;
      around.last = startDay[row] as number;
    }
    for (let row = firstFrom(this.#table.columns, to + 1); row < slot.length; row++) {
      if (fits && !fits[slot[row] as number]) continue;
      around.later++;
      around.next ??= startDay[row] as number;
    }
    return around;
  }

  /** Each listing that has a date in a span, in order of its first there, with what its dates there are. */
  findListings({ span, conditions }: Asked): FoundRows[] {
    const { slot, startDay, lastDay } = this.#table.columns;
    // A word that thousands have would cost as many objects for each of its dates: counts are numbers by the listing's.
    const { length } = this.#table.listings;
    const dates = new Uint32Array(length);
    const until = new Int32Array(length);
    const named = new Int32Array(length * DAYS_NAMED);
    const firsts: { owner: number; row: number }[] = [];
    this.#each(span, this.#fitting(conditions), (row) => {
      const owner = this.#table.owners[slot[row] as number] as number;
      const n = dates[owner] as number;
      if (!n) firsts.push({ owner, row });
      if (n < DAYS_NAMED) named[owner * DAYS_NAMED + n] = startDay[row] as number;
      until[owner] = n ? Math.max(until[owner] as number, lastDay[row] as number) : (lastDay[row] as number);
      dates[owner] = n + 1;
      return false;
    });
    const dateAt = (row: number): EffectiveDate => this.#dateAt(row);
    return firsts.map(({ owner, row }) => {
      const listing = this.#table.listings[owner] as FoundListing;
      const begin = owner * DAYS_NAMED;
      const counted = { dates: dates[owner] as number, until: until[owner] as number };
      return new Found(listing.listingId, this.#titleKeyOf(listing), counted, { named, begin, row, dateAt });
    });
  }

  #titleKeyOf(listing: FoundListing): string {
    const known = this.#titleKeys.get(listing);
    if (known !== undefined) return known;
    const key = titleKey(listing.title);
    this.#titleKeys.set(listing, key);
    return key;
  }

  /** Listings like one that is there, by what they share, each with its next date within so many days; none where readers do not have it. */
  related(listingId: string, { today, within, ...input }: RelatedInput): EffectiveDate[] {
    const number = this.#table.numberOf.get(listingId);
    const one = number === undefined ? undefined : this.#table.listings[number];
    if (!one) return [];
    const byOwner = new Map<number, number>();
    this.#each({ from: today, to: today + within }, undefined, (row) => {
      const at = this.#table.columns.slot[row] as number;
      const owner = this.#table.owners[at] as number;
      // Its next date that goes ahead.
      const status = effectiveStatus(
        (this.#table.listings[owner] as FoundListing).eventStatus,
        (this.#table.slots[at] as Slot).eventStatus,
      );
      if (!byOwner.has(owner) && !isOff(status)) byOwner.set(owner, row);
      return false;
    });
    const candidates = [...byOwner].map(([owner, row]) => ({
      listing: this.#table.listings[owner] as FoundListing,
      next: this.#table.columns.startDay[row] as number,
      of: row,
    }));
    return likest(one, candidates, { today, ...input }).map((row) => this.#dateAt(row));
  }

  /** The next date of each listing that is kept on top of lists on a day, the soonest first. */
  onTop(today: EpochDay, conditions: readonly Condition[]): EffectiveDate[] {
    const top = new Set<number>();
    for (const [number, listing] of this.#table.listings.entries())
      if ((listing?.onTopUntil ?? Number.NEGATIVE_INFINITY) >= today) top.add(number);
    if (!top.size) return [];
    const found: EffectiveDate[] = [];
    this.#each({ from: today }, this.#fitting(conditions), (row) => {
      const owner = this.#table.owners[this.#table.columns.slot[row] as number] as number;
      if (top.delete(owner)) found.push(this.#dateAt(row));
      return !top.size;
    });
    return found;
  }
}

/** So many days of a listing are named. */
const DAYS_NAMED = 5;
