/** A year, or part of one, as small sheets: how much is on each day, as the weight of a line, and what goes on for days as bands. */
import { daysInMonth, type EpochDay, firstDayOfMonth, type MonthNumber, type Weekday, weekStart, yearMonthOf } from '../day/day';
import { type Band, layBands, type SheetDate } from './month';

/** A day of a small sheet. */
export interface YearDay {
  day: EpochDay;
  /** how many dates touch it */
  count: number;
  /** 0 = nothing is on, up to {@link HEAVIEST} on the fullest days */
  weight: number;
}

/** A week's row of a small sheet: seven days, those of other months left empty. */
export interface YearWeek<T> {
  days: (YearDay | undefined)[];
  bands: Band<T>[];
}

/** A month as a small sheet. */
export interface YearMonth<T> {
  month: MonthNumber;
  /** how many dates touch it: one that goes on for days counts once */
  total: number;
  weeks: YearWeek<T>[];
}

/** The heaviest line. */
export const HEAVIEST = 4;
/** So many bands stand over a day; what is more is counted all the same. */
const MOST_BANDS = 2;

/** What a year's sheets are made of. */
export interface YearInput<T> {
  /** the first month, and how many */
  month: MonthNumber;
  months: number;
  firstWeekday: Weekday;
  /** how many dates touch each day, from the first day of the first month */
  counts: ArrayLike<number>;
  /** what is in the count of more than one day, in any order */
  touching: readonly Pick<SheetDate, 'from' | 'to'>[];
  /** what stands as a band over its days */
  bands: readonly T[];
}

/**
 * How heavy the line of a day is: by the logarithm of its count against the fullest day, so that a quiet day is told from an empty one and a
 * full one from a quiet one, on a site with three dates a week as on one with three hundred a day.
 */
export function weightOf(count: number, most: number): number {
  if (count <= 0) return 0;
  if (most <= 1) return 1;
  return Math.max(1, Math.ceil((HEAVIEST * Math.log1p(count)) / Math.log1p(Math.max(most, HEAVIEST)) - 1e-9));
}

/** Lays months out as small sheets. */
export function layYear<T extends SheetDate>({ month, months, firstWeekday, counts, touching, bands }: YearInput<T>): YearMonth<T>[] {
  const first = firstDayOfMonth(month);
  let most = 0;
  for (let i = 0; i < counts.length; i++) most = Math.max(most, counts[i] as number);
  const laneOf = new Map<T, number>();
  return Array.from({ length: months }, (_, n): YearMonth<T> => {
    const { year, month: m } = yearMonthOf(month + n);
    const from = firstDayOfMonth(month + n);
    const to = from + daysInMonth(year, m) - 1;
    // A date that goes on for days is in the count of each of them.
    let total = 0;
    for (let day = from; day <= to; day++) total += counts[day - first] ?? 0;
    for (const date of touching) total -= Math.max(0, Math.min(date.to, to) - Math.max(date.from, from));
    const weeks: YearWeek<T>[] = [];
    for (let start = weekStart(from, firstWeekday); start <= to; start += 7) {
      const inMonth = [0, 1, 2, 3, 4, 5, 6].map((column) => start + column).filter((day) => day >= from && day <= to);
      const offset = (inMonth[0] ?? start) - start;
      const laid = layBands(inMonth, bands, MOST_BANDS, laneOf).bands;
      weeks.push({
        days: [0, 1, 2, 3, 4, 5, 6].map((column) => {
          const day = start + column;
          const count = counts[day - first] ?? 0;
          return day < from || day > to ? undefined : { day, count, weight: weightOf(count, most) };
        }),
        bands: laid.map((band) => ({ ...band, fromColumn: band.fromColumn + offset, toColumn: band.toColumn + offset })),
      });
    }
    return { month: month + n, total, weeks };
  });
}
