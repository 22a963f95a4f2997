/** What the year says of a day, as it stands beside its numeral in a sheet. */
import type { EpochDay, Weekday } from '@/core/day/day';
import { ymdOf } from '@/core/day/day';
import { type DayMarks, marksInCell, sayMark } from '@/core/holidays/day-marks';
import { type SecondCalendar, sayInCalendar, shortInCalendar } from '@/core/phrase/second-calendar';
import type { Style } from '@/core/phrase/format';
import { type Html, html, NOTHING } from './html';

const IN_CELL = 'text-[12px] min-w-0 max-[700px]:hidden';

/** The names of a day in its cell: red-letter days in red, the rest in grey. */
export function marksHtml(
  marks: DayMarks,
  day: EpochDay,
  { style, rowBegins, oneLine, classes = IN_CELL }: { style: Style; rowBegins: Weekday; oneLine?: boolean; classes?: string },
): Html {
  const named = marksInCell(marks, day, rowBegins);
  return html`${named.map((mark) => html`<span class="${classes}${oneLine ? ' truncate' : ''} ${mark.red ? 'text-red' : 'text-ink-2'}" title="${sayMark(mark, style)}">${sayMark(mark, style)}</span>`)}`;
}

/** The day in the site's second calendar, beside its numeral. */
export function secondHtml(
  day: EpochDay,
  { secondCalendar, style }: { secondCalendar?: SecondCalendar | '' | undefined; style: Style },
): Html {
  if (!secondCalendar) return NOTHING;
  const short = shortInCalendar(day, secondCalendar, style);
  if (short === String(ymdOf(day).day)) return NOTHING;
  return html`<span class="text-ink-3 text-[11.5px] shrink-0 whitespace-nowrap max-[700px]:hidden" title="${sayInCalendar(day, secondCalendar, style)}">${short}</span>`;
}
