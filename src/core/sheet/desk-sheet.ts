/** What the Desk's sheets begin with and ask for: plain values that the server gives and the island reads. */
import type { DayMark } from '../holidays/day-marks';
import type { EpochDay, MonthNumber } from '../day/day';
import type { Style } from '../phrase/format';
import type { DateTimes, EffectiveDate } from '../dates/effective-date';
import type { Stage } from '../listing/content';
import type { Choice } from '../listing/editor';

/** One date of a listing as editors have it, by the site's clock. */
export interface DeskDate extends DateTimes, Pick<EffectiveDate, 'listingId' | 'title' | 'eventStatus' | 'headline' | 'venueIds'> {
  stage: Stage;
  /** its listing has changes that readers do not see yet */
  edited: boolean;
  /** its listing has more dates than this */
  repeats: boolean;
  categoryId: string | null;
}

/** What is chosen on a sheet; an empty text or list means all. */
export interface DeskFilters {
  stages: Stage[];
  kind: string;
  venue: string;
  words: string;
}

/** The dates of a stretch of days for the Desk's sheets. */
export interface DeskDates {
  dates: DeskDate[];
  /** there are more than are given */
  cut: boolean;
}

/** The Desk's sheets. */
export const SHEET_VIEWS = ['month', 'half-year'] as const;
/** One of {@link SHEET_VIEWS}. */
export type SheetView = (typeof SHEET_VIEWS)[number];
/** Months on the longer sheet. */
export const HALF_YEAR = 6;

/** What a sheet of the Desk begins with. */
export interface DeskSheetStart extends DeskDates {
  view: SheetView;
  month: MonthNumber;
  filters: DeskFilters;
  categories: (Choice & { slug: string; mark: string; ink: string; child: boolean })[];
  venues: (Choice & { slug: string })[];
  dayMarks: [EpochDay, DayMark[]][];
  mayPublish: boolean;
  site: { zone: string; today: EpochDay; style: Style; firstWeekday: number };
}
