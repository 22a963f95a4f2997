/**
 * The month sheet: six or fewer weeks of seven days, several-day dates as bands in lanes, the rest as lines.
 * Days are integers; `from` and `to` of a date are both included. Nothing is lost: what is not shown is counted.
 */
import { type Day, daysInMonth, firstDayOfMonth, isoWeekOf, type MonthNumber, type Weekday, weekStart, yearMonthOf } from '../day/day';

/** What the sheet must know of a date. */
export interface SheetDate {
  from: Day;
  to: Day;
  /** minutes since midnight of the start; null = all day */
  minute: number | null;
  headline: boolean;
  /** the last tie-break, so that the order never depends on the query */
  key: string;
}

export interface Band<T> {
  date: T;
  lane: number;
  /** 0-6, both included */
  fromColumn: number;
  toColumn: number;
  /** it began before this week, or goes on after it */
  opensBefore: boolean;
  opensAfter: boolean;
}

export interface Line<T> {
  date: T;
  /** how many lines of text it may take */
  lines: 1 | 2;
}

export interface SheetDay<T> {
  day: Day;
  inMonth: boolean;
  /** all dates that touch the day, shown or not */
  count: number;
  /** lanes kept free for bands above the lines */
  lanes: number;
  lines: Line<T>[];
  /** dates of the day that are not shown */
  more: number;
}

export interface SheetWeek<T> {
  start: Day;
  isoWeek: number;
  bands: Band<T>[];
  days: SheetDay<T>[];
}

export interface MonthSheet<T> {
  month: MonthNumber;
  /** first and last day on the sheet */
  from: Day;
  to: Day;
  weeks: SheetWeek<T>[];
}

export interface MonthOptions {
  month: MonthNumber;
  firstWeekday: Weekday;
  /** lines of text that fit under a numeral */
  room: number;
  /** lanes at most for bands; further bands are counted */
  maxLanes: number;
}

/** The days that a month's sheet shows, both included. */
export function monthSpan(month: MonthNumber, firstWeekday: Weekday): { from: Day; to: Day } {
  const { year, month: m } = yearMonthOf(month);
  const first = firstDayOfMonth(month);
  return { from: weekStart(first, firstWeekday), to: weekStart(first + daysInMonth(year, m) - 1, firstWeekday) + 6 };
}

export function compareSheetDates(a: SheetDate, b: SheetDate): number {
  return (
    a.from - b.from ||
    (a.minute ?? -1) - (b.minute ?? -1) ||
    Number(b.headline) - Number(a.headline) ||
    (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)
  );
}

/** Lays dates out on a month's sheet. `dates` may be in any order and may lie outside the sheet. */
export function layMonth<T extends SheetDate>(dates: readonly T[], options: MonthOptions): MonthSheet<T> {
  const span = monthSpan(options.month, options.firstWeekday);
  const sorted = [...dates].sort(compareSheetDates);
  const bandsOf = sorted.filter((d) => d.to > d.from);
  const byDay = new Map<Day, T[]>();
  for (const date of sorted) {
    if (date.to > date.from) continue;
    const day = byDay.get(date.from);
    if (day) day.push(date);
    else byDay.set(date.from, [date]);
  }
  const laneOf = new Map<T, number>();
  const weeks: SheetWeek<T>[] = [];
  for (let start = span.from; start <= span.to; start += 7) {
    weeks.push(layWeek(start, bandsOf, byDay, laneOf, options));
  }
  return { month: options.month, ...span, weeks };
}

function layWeek<T extends SheetDate>(
  start: Day,
  dates: T[],
  byDay: Map<Day, T[]>,
  laneOf: Map<T, number>,
  options: MonthOptions,
): SheetWeek<T> {
  const { bands, hidden } = placeBands(start, dates, laneOf, options.maxLanes);
  const first = firstDayOfMonth(options.month);
  const next = firstDayOfMonth(options.month + 1);
  const days: SheetDay<T>[] = [];
  for (let column = 0; column < 7; column++) {
    const day = start + column;
    const here = bands.filter((b) => b.fromColumn <= column && b.toColumn >= column);
    const lanes = here.reduce((most, b) => Math.max(most, b.lane + 1), 0);
    const unseen = hidden.filter((d) => d.from <= day && d.to >= day).length;
    const own = byDay.get(day) ?? [];
    const fitted = fitLines(own, options.room - lanes, unseen);
    days.push({ day, inMonth: day >= first && day < next, count: own.length + here.length + unseen, lanes, ...fitted });
  }
  return { start, isoWeek: isoWeekOf(start + 3), bands, days };
}

/** Lanes are given from the top; a band that came over from the week before keeps its lane when that is free. */
function placeBands<T extends SheetDate>(
  start: Day,
  dates: T[],
  laneOf: Map<T, number>,
  maxLanes: number,
): { bands: Band<T>[]; hidden: T[] } {
  const end = start + 6;
  const inWeek = dates.filter((d) => d.from <= end && d.to >= start);
  const ordered = [...inWeek].sort(
    (a, b) =>
      Number(laneOf.has(b)) - Number(laneOf.has(a)) ||
      Math.max(a.from, start) - Math.max(b.from, start) ||
      b.to - a.to ||
      compareSheetDates(a, b),
  );
  const takenUntil: { from: number; to: number }[][] = [];
  const bands: Band<T>[] = [];
  const hidden: T[] = [];
  for (const date of ordered) {
    const fromColumn = Math.max(date.from, start) - start;
    const toColumn = Math.min(date.to, end) - start;
    const free = (lane: number): boolean => !(takenUntil[lane] ?? []).some((t) => t.from <= toColumn && t.to >= fromColumn);
    let lane = laneOf.get(date);
    if (lane === undefined || !free(lane)) {
      lane = 0;
      while (!free(lane)) lane++;
    }
    if (lane >= maxLanes) {
      hidden.push(date);
      continue;
    }
    laneOf.set(date, lane);
    takenUntil[lane] = [...(takenUntil[lane] ?? []), { from: fromColumn, to: toColumn }];
    bands.push({ date, lane, fromColumn, toColumn, opensBefore: date.from < start, opensAfter: date.to > end });
  }
  bands.sort((a, b) => a.lane - b.lane || a.fromColumn - b.fromColumn);
  return { bands, hidden };
}

function fitLines<T>(dates: T[], room: number, unseen: number): { lines: Line<T>[]; more: number } {
  const all = dates.length <= room - (unseen ? 1 : 0);
  // The line that says "and N more" takes the place of a date.
  const shown = all ? dates.length : Math.max(0, room - 1);
  let spare = all ? room - (unseen ? 1 : 0) - shown : 0;
  const lines = dates.slice(0, shown).map((date): Line<T> => {
    if (spare <= 0) return { date, lines: 1 };
    spare--;
    return { date, lines: 2 };
  });
  return { lines, more: dates.length - shown + unseen };
}
