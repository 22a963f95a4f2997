/** What the year says of days: their red-letter names, and what else stands beside a numeral. */
import { type EpochDay, weekdayOf, type Weekday } from '../day/day';
import { sayTime, sayTimes, type Style } from '../phrase/format';
import type { Span } from '../venue/hours';

/** One thing that is said of a day. */
export interface DayMark {
  name: string;
  /** a red-letter day; otherwise the numeral stays as it is */
  red: boolean;
  /** it begins on this day: what goes on for days is said at its first one, and where a row of a sheet begins */
  begins: boolean;
  /** the minute of the day at which it happens */
  minute?: number | undefined;
  /** a small picture, by its id */
  picture?: string | undefined;
  /** the publisher's own hours on that day; empty = the name says it all */
  hours?: readonly Span[] | undefined;
}

/** What is said of days, by day. */
export type DayMarks = Map<EpochDay, DayMark[]>;

/** Adds one thing to a day, unless it is said already. */
export function addMark(marks: DayMarks, day: EpochDay, mark: DayMark): void {
  const known = marks.get(day);
  if (!known) marks.set(day, [mark]);
  else if (!known.some((one) => one.name === mark.name && one.minute === mark.minute)) known.push(mark);
}

/** Is it a red-letter day, whatever its weekday? */
export const isHoliday = (marks: ReadonlyMap<EpochDay, readonly DayMark[]>, day: EpochDay): boolean =>
  marks.get(day)?.some((mark) => mark.red) ?? false;

/** Is it a red-letter day, or a Sunday? */
export const isRedDay = (marks: ReadonlyMap<EpochDay, readonly DayMark[]>, day: EpochDay): boolean =>
  weekdayOf(day) === 6 || isHoliday(marks, day);

/** One mark in words, with its time. */
export function sayMark({ name, minute, hours }: DayMark, style: Style): string {
  if (hours?.length) return `${name} ${hours.map(([from, to]) => sayTimes(from, to % 1440, style)).join(', ')}`;
  return minute === undefined ? name : `${name} ${sayTime(minute, style)}`;
}

/** Everything that is said of a day. */
export const namesOn = (marks: ReadonlyMap<EpochDay, readonly DayMark[]>, day: EpochDay, style: Style): string[] =>
  (marks.get(day) ?? []).map((mark) => sayMark(mark, style));

/** What stands in a day's cell of a sheet: what goes on for days is named where it begins, and where a row begins. */
export const marksInCell = (marks: ReadonlyMap<EpochDay, readonly DayMark[]>, day: EpochDay, rowBegins: Weekday): readonly DayMark[] =>
  (marks.get(day) ?? []).filter((mark) => mark.begins || weekdayOf(day) === rowBegins);

/** The names of red-letter days alone. */
export function redNames(marks: ReadonlyMap<EpochDay, readonly DayMark[]>): Map<EpochDay, string[]> {
  const red = [...marks].map(([day, all]) => [day, all.filter((mark) => mark.red).map(({ name }) => name)] as const);
  return new Map(red.filter(([, names]) => names.length > 0).map(([day, names]) => [day, [...names]]));
}
