/** A date that was found: as much of it as a sheet must know, and the rest when that is asked for. */
import { type DateGlance, type EffectiveDate, effectiveStatus } from '../dates/effective-date';
import { type EpochDay, isoDay } from '../day/day';
import { isoTime } from '../day/plain-date-time';
import { type Columns, NO_MINUTE, NONE } from './columns';
import type { FoundDate, FoundListing } from './found';

/** What some dates of a listing share: where and how they are. A date has one of these. */
export type Slot = Pick<FoundDate, 'venueId' | 'eventStatus' | 'note' | 'timed'> & {
  /** the parts of the day that they are in, as bits */
  parts: number;
};
/** `07:40` for each minute of a day. */
const ISO_TIMES = Array.from({ length: 1440 }, (_, minute) => isoTime(minute));

/** A date as it was when it was found, whatever changes meanwhile. */
export class Glance implements DateGlance {
  readonly startDay: EpochDay;
  readonly startMinute: number | null;
  readonly endDay: EpochDay | null;
  readonly endMinute: number | null;
  readonly lastDay: EpochDay;
  readonly headline: boolean;
  readonly categoryId: string;
  readonly #originalDay: EpochDay;
  readonly #originalMinute: number;
  readonly #moved: boolean;

  constructor(
    private readonly listing: FoundListing,
    private readonly slot: Slot,
    columns: Columns,
    row: number,
    /** `2027-03-07` by its day: thousands of dates of a month share a few days, so each is written once */
    private readonly isoDays: Map<EpochDay, string>,
  ) {
    this.startDay = columns.startDay[row] as number;
    this.startMinute = minuteOf(columns.startMinute[row] as number);
    this.lastDay = columns.lastDay[row] as number;
    this.headline = listing.headline;
    this.categoryId = listing.categoryId;
    const end = columns.endDay[row] as number;
    this.endDay = end === NONE ? null : end;
    this.endMinute = minuteOf(columns.endMinute[row] as number);
    this.#originalDay = columns.originalDay[row] as number;
    this.#originalMinute = columns.originalMinute[row] as number;
    this.#moved = columns.moved[row] === 1;
  }

  #isoDay(day: EpochDay): string {
    const known = this.isoDays.get(day);
    if (known !== undefined) return known;
    const text = isoDay(day);
    this.isoDays.set(day, text);
    return text;
  }

  whole(): EffectiveDate {
    const { listing, slot } = this;
    const day = this.#isoDay(this.#originalDay);
    const original = this.#originalMinute === NO_MINUTE ? day : `${day}T${ISO_TIMES[this.#originalMinute]}`;
    return {
      listingId: listing.listingId,
      listing: listing.listing,
      date: slot.timed ? original.replace(':', '') : day,
      original,
      title: listing.title,
      shortTitle: listing.shortTitle,
      summary: listing.summary,
      startDay: this.startDay,
      startMinute: this.startMinute,
      endDay: this.endDay,
      endMinute: this.endMinute,
      lastDay: this.lastDay,
      eventStatus: effectiveStatus(listing.eventStatus, slot.eventStatus),
      note: slot.note,
      moved: this.#moved,
      headline: listing.headline,
      onTopUntil: listing.onTopUntil,
      free: listing.free,
      cost: listing.cost,
      categoryId: listing.categoryId,
      venueIds: slot.venueId ? [slot.venueId] : listing.venueIds,
      elsewhere: slot.venueId !== null,
      zone: listing.zone,
      attendance: listing.attendance,
      pictureId: listing.pictureId,
      translations: listing.translations,
    };
  }
}

const minuteOf = (minute: number): number | null => (minute === NO_MINUTE ? null : minute);
