/** How a month fits on one sheet of paper: A4 across, with margins of 9 mm. */
import type { MonthSheet, SheetDate } from './month';

/** What the sheet leaves for the weeks, below the masthead, the month's name and the weekdays, in CSS pixels. */
const ROOM = 610;
/** What a week takes beside its lines: the numerals and its edges. */
const WEEK = 27;
/** A band that runs through a week. */
const LANE = 16;
const READABLE = 8.5;
const COMFORTABLE = 11;

/**
 * The height of a line in CSS pixels with which all weeks share one sheet, at most that of a comfortable line. A month that is fuller than can be
 * read keeps the least that can be, and goes on on a second sheet.
 *
 * @param folded whether the dates that the screen folds away are printed
 */
export function paperLine<D extends SheetDate>({ weeks }: Pick<MonthSheet<D>, 'weeks'>, folded: boolean): number {
  let lines = 0;
  let rest = ROOM;
  for (const { days } of weeks) {
    lines += Math.max(...days.map((day) => day.lines.length + (folded ? day.folded.length : 0)));
    rest -= WEEK + LANE * Math.max(...days.map((day) => day.lanes));
  }
  // Between two lines there is one pixel.
  const line = rest / Math.max(1, lines) - 1;
  return Math.round(Math.min(COMFORTABLE, Math.max(READABLE, line)) * 10) / 10;
}
