/**
 * The month sheet: six or fewer weeks of seven days, several-day dates as bands in lanes, the rest as lines.
 * Days are integers; `from` and `to` of a date are both included. Nothing is lost: what is not shown is counted.
 */
import { type EpochDay, daysInMonth, firstDayOfMonth, isoWeekOf, type MonthNumber, type Weekday, weekStart, yearMonthOf } from '../day/day';

/** What the sheet must know of a date. */
export interface SheetDate {
  from: EpochDay;
  to: EpochDay;
  /** minutes since midnight of the start; null = all day */
  minute: number | null;
  headline: boolean;
  /** the last tie-break, so that the order never depends on the query; of one kind on a sheet */
  key: string | number;
}

/** A date over several days, as a bar in one week's row: its columns and its lane. */
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

/** A date's line in a day, one or two text lines high. */
export interface Line<T> {
  date: T;
  /** how many lines of text it may take */
  lines: 1 | 2;
}

/** A day of the sheet: its lines, what is folded, and how many lanes bands take of it. */
export interface SheetDay<T> {
  day: EpochDay;
  inMonth: boolean;
  /** all dates that touch the day, shown or not */
  count: number;
  /** lanes kept free for bands above the lines */
  lanes: number;
  lines: Line<T>[];
  /** dates of the day that are not shown, in order: their number stands on the sheet, all of them on paper */
  folded: T[];
}

/** A week's row: its days and the bands over them. */
export interface SheetWeek<T> {
  start: EpochDay;
  isoWeek: number;
  bands: Band<T>[];
  days: SheetDay<T>[];
}

/** A month as rows of weeks. */
export interface MonthSheet<T> {
  month: MonthNumber;
  /** first and last day on the sheet */
  from: EpochDay;
  to: EpochDay;
  weeks: SheetWeek<T>[];
}

/** Which month is laid out, and how much room there is. */
export interface MonthOptions {
  month: MonthNumber;
  firstWeekday: Weekday;
  /** lines of text that fit under a numeral */
  room: number;
  /** a week in which a day is fuller grows to so many before anything folds; the same as `room` when it is left out */
  most?: number;
  /** lanes at most for bands; further bands are folded, but for headlines, which never are */
  maxLanes: number;
}

/** The room that readers' months give: four lines a day, up to eight in a full week; all of it where nothing may fold. */
export const READERS_ROOM = { room: 4, most: 8, maxLanes: 3 } as const;
/** Nothing is folded: for paper and for who asks for all. */
export const WHOLE_ROOM = { room: 4, most: Number.POSITIVE_INFINITY, maxLanes: Number.POSITIVE_INFINITY } as const;

/** The days that a month's sheet shows, both included. */
export function monthSpan(month: MonthNumber, firstWeekday: Weekday): { from: EpochDay; to: EpochDay } {
  const { year, month: m } = yearMonthOf(month);
  const first = firstDayOfMonth(month);
  return { from: weekStart(first, firstWeekday), to: weekStart(first + daysInMonth(year, m) - 1, firstWeekday) + 6 };
}

/** The order of dates on the sheet: by day, whole days first, then by time; headlines before others; then by key. */
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
  const byDay = new Map<EpochDay, T[]>();
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
  start: EpochDay,
  dates: T[],
  byDay: Map<EpochDay, T[]>,
  laneOf: Map<T, number>,
  options: MonthOptions,
): SheetWeek<T> {
  const { bands, hidden } = placeBands(start, dates, laneOf, options.maxLanes);
  const first = firstDayOfMonth(options.month);
  const next = firstDayOfMonth(options.month + 1);
  const columns = [0, 1, 2, 3, 4, 5, 6].map((column) => {
    const day = start + column;
    const here = bands.filter((b) => b.fromColumn <= column && b.toColumn >= column);
    const lanes = here.reduce((most, b) => Math.max(most, b.lane + 1), 0);
    const unseen = hidden.filter((d) => d.from <= day && d.to >= day);
    return { day, here, lanes, unseen, own: byDay.get(day) ?? [] };
  });
  // The fullest day says how tall the week is: other days have the room then too.
  const wanted = Math.max(...columns.map(({ lanes, own, unseen }) => lanes + own.length + (unseen.length ? 1 : 0)));
  const room = Math.max(options.room, Math.min(options.most ?? options.room, wanted));
  const days = columns.map(({ day, here, lanes, unseen, own }): SheetDay<T> => {
    const count = own.length + here.length + unseen.length;
    return { day, inMonth: day >= first && day < next, count, lanes, ...fitLines(own, room - lanes, unseen) };
  });
  return { start, isoWeek: isoWeekOf(start + 3), bands, days };
}

/**
 * Bands over days side by side, which need not follow each other: each stands over those of the days that it touches.
 * @param laneOf the lanes of rows before, which a band that goes on keeps where it is free; added to
 */
export function layBands<T extends SheetDate>(
  days: readonly EpochDay[],
  dates: readonly T[],
  mostLanes: number,
  laneOf: Map<T, number> = new Map(),
): { bands: Band<T>[]; hidden: T[] } {
  const [first = 0] = days;
  const last = days.at(-1) ?? first;
  // By columns, as if these were days on end: a weekend that is left out is not there to be bridged.
  const columnOf = new Map(days.map((day, column) => [day, column]));
  const onDays = dates.flatMap((date) => {
    const touched = days.filter((day) => date.from <= day && date.to >= day);
    return touched.length
      ? [{ date, from: columnOf.get(touched[0] as EpochDay) ?? 0, to: columnOf.get(touched.at(-1) as EpochDay) ?? 0 }]
      : [];
  });
  const wrapped = onDays.map(({ date, from, to }) => ({ ...sheetPart(date), from, to, date }));
  const before = new Map(wrapped.flatMap((part) => (laneOf.has(part.date) ? [[part, laneOf.get(part.date) as number] as const] : [])));
  const { bands, hidden } = placeBands(0, wrapped, before, mostLanes);
  for (const { date, lane } of bands) laneOf.set(date.date, lane);
  return {
    bands: bands.map(({ date: { date }, lane, fromColumn, toColumn }) => ({
      date,
      lane,
      fromColumn,
      toColumn,
      opensBefore: date.from < first,
      opensAfter: date.to > last,
    })),
    hidden: hidden.map(({ date }) => date),
  };
}

const sheetPart = ({ minute, headline, key }: SheetDate): Pick<SheetDate, 'minute' | 'headline' | 'key'> => ({ minute, headline, key });

/** Lanes are given from the top; a band that came over from the week before keeps its lane when that is free. */
function placeBands<T extends SheetDate>(
  start: EpochDay,
  dates: T[],
  laneOf: Map<T, number>,
  maxLanes: number,
): { bands: Band<T>[]; hidden: T[] } {
  const end = start + 6;
  const inWeek = dates.filter((d) => d.from <= end && d.to >= start);
  const ordered = [...inWeek].sort(
    (a, b) =>
      Number(laneOf.has(b)) - Number(laneOf.has(a)) ||
      Number(b.headline) - Number(a.headline) ||
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
    if (lane >= maxLanes && !date.headline) {
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

/** What of a day is shown in so many lines. A full day shows its headlines first, all of them, then the others in order; the rest folds. */
function fitLines<T extends SheetDate>(dates: T[], room: number, unseen: T[]): { lines: Line<T>[]; folded: T[] } {
  const free = room - (unseen.length ? 1 : 0);
  if (dates.length <= free) {
    let spare = free - dates.length;
    // Where a band is folded the day is full all the same.
    const ordered = unseen.length ? [...dates].sort((a, b) => Number(b.headline) - Number(a.headline)) : dates;
    const lines = ordered.map((date): Line<T> => {
      if (spare <= 0) return { date, lines: 1 };
      spare--;
      return { date, lines: 2 };
    });
    return { lines, folded: unseen };
  }
  const headlines = dates.filter((date) => date.headline);
  const others = dates.filter((date) => !date.headline);
  // The line that says "and N more" takes the place of a date.
  const shown = Math.max(headlines.length, room - 1, 0);
  const kept = others.slice(0, shown - headlines.length);
  const lines = [...headlines, ...kept].map((date): Line<T> => ({ date, lines: 1 }));
  const folded = [...unseen, ...others.slice(kept.length)].sort(compareSheetDates);
  return { lines, folded };
}
