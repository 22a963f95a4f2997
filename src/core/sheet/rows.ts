/**
 * Rows of a day: what happens beside what, hours across. A date is a rule with end posts under its words; words may run past the rule's end, and
 * what would lie over another goes one lane down, so the row is taller. Minutes count from the day's midnight.
 */
import type { EpochDay } from '../day/day';
import { type HourDate, isBand } from './hours';
import { compareSheetDates } from './month';

/** A date in its row. */
export interface RowItem<T> {
  date: T;
  /** of its rule, within the hours that are shown */
  from: number;
  to: number;
  /** where its words begin and end, which may be outside of its rule */
  left: number;
  right: number;
  lane: number;
  /** it began before what is shown, or goes on after it */
  opensBefore: boolean;
  opensAfter: boolean;
}

/** A row and how many lanes it has. */
export interface SheetRow<T> {
  key: string;
  items: RowItem<T>[];
  lanes: number;
}

/** The hours that are shown, as minutes; both are whole hours. */
export interface RowHours {
  from: number;
  to: number;
}

/** What rows are made of. */
export interface RowsInput<T> {
  day: EpochDay;
  /** a date may stand in several rows, and stands in one at least */
  rows: readonly { key: string; dates: readonly T[] }[];
  /** hours that are shown even when they are empty */
  usual: RowHours;
  /** how many minutes' width a date's words take */
  wordsOf: (date: T) => number;
}

const DAY = 1440;

/** Which part of a day a date takes: all of it for what has no hours. */
function reach(date: HourDate, day: EpochDay): { from: number; to: number; before: boolean; after: boolean } {
  const last = date.end ? date.end.day : date.to;
  if (isBand(date)) return { from: 0, to: DAY, before: date.from < day, after: (date.minute === null ? date.to : last) > day };
  if (date.from < day) return { from: 0, to: date.end?.minute ?? 0, before: true, after: false };
  const goesOn = date.end !== null && date.end.day > day && date.end.minute > 0;
  const to = date.end === null ? (date.minute ?? 0) : date.end.day > day ? DAY : date.end.minute;
  return { from: date.minute ?? 0, to: Math.max(to, date.minute ?? 0), before: false, after: goesOn };
}

/** Lays the rows of a day out. Dates of a row may be in any order. */
export function layRows<T extends HourDate>({ day, rows, usual, wordsOf }: RowsInput<T>): { hours: RowHours; rows: SheetRow<T>[] } {
  const hours = { ...usual };
  for (const { dates } of rows)
    for (const date of dates) {
      if (isBand(date)) continue;
      const { from, to } = reach(date, day);
      hours.from = Math.min(hours.from, Math.floor(from / 60) * 60);
      hours.to = Math.max(hours.to, Math.ceil(Math.max(to, from + 1) / 60) * 60);
    }
  hours.to = Math.min(hours.to, DAY);
  return { hours, rows: rows.map(({ key, dates }) => layRow(key, dates, { day, hours, wordsOf })) };
}

function layRow<T extends HourDate>(
  key: string,
  dates: readonly T[],
  { day, hours, wordsOf }: { day: EpochDay; hours: RowHours; wordsOf: (date: T) => number },
): SheetRow<T> {
  const ends: number[] = [];
  const items = [...dates]
    .sort((a, b) => Number(isBand(b)) - Number(isBand(a)) || compareSheetDates(a, b))
    .map((date): RowItem<T> => {
      const { from, to, before, after } = reach(date, day);
      const [start, end] = [Math.max(from, hours.from), Math.min(to, hours.to)];
      const wide = wordsOf(date);
      // Words that would leave the sheet begin further left, up to its edge; where even that has no room they are cut there.
      const right = Math.min(start + wide, hours.to);
      const left = Math.max(hours.from, Math.min(start, right - wide));
      let lane = 0;
      while ((ends[lane] ?? Number.NEGATIVE_INFINITY) > left) lane++;
      ends[lane] = Math.max(end, right);
      return { date, from: start, to: Math.max(end, start), left, right, lane, opensBefore: before, opensAfter: after };
    });
  // Words have all the room up to what comes next in their lane: a sheet is not always as wide as was reckoned.
  const nextIn: number[] = [];
  for (const item of [...items].sort((a, b) => b.left - a.left)) {
    item.right = nextIn[item.lane] ?? hours.to;
    nextIn[item.lane] = Math.min(item.left, item.from);
  }
  return { key, items, lanes: Math.max(1, ends.length) };
}
