/** The publisher's own opening hours as they stand with a day: open from when to when, or closed. */
import { type EpochDay, weekdayOf } from '../day/day';
import type { OpeningHours } from '../venue/hours';
import { addMark, type DayMarks, isHoliday } from './day-marks';
import type { DaySpan } from './holidays';

/** How hours stand with days. */
export interface OwnHours {
  hours: OpeningHours;
  /** closed on red-letter days, whatever the hours say of their weekday */
  closedOnRedDays: boolean;
  words: { open: string; closed: string; openAllDay: string };
}

/** Adds them to each day of a span; what the year says of the days must be there already. */
export function addOwnHours(marks: DayMarks, { hours: { week }, closedOnRedDays, words }: OwnHours, { from, to }: DaySpan): void {
  for (let day: EpochDay = from; day <= to; day++) {
    const spans = closedOnRedDays && isHoliday(marks, day) ? [] : (week[weekdayOf(day)] ?? []);
    const whole = spans.length === 1 && spans[0]?.[0] === 0 && spans[0][1] === 1440;
    const name = whole ? words.openAllDay : spans.length ? words.open : words.closed;
    addMark(marks, day, { name, red: false, begins: true, hours: whole ? [] : spans });
  }
}
