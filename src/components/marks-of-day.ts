/** What the year says of a day, as it stands beside its numeral in a sheet. */
import type { EpochDay, Weekday } from '@/core/day/day';
import { ymdOf } from '@/core/day/day';
import { type DayMark, type DayMarks, marksInCell, sayMark } from '@/core/holidays/day-marks';
import { type SecondCalendar, sayInCalendar, shortInCalendar } from '@/core/phrase/second-calendar';
import { sayTimes, type Style } from '@/core/phrase/format';
import { type Html, html, NOTHING } from './html';
import { smallPictureHtml } from './picture-html';
import type { PictureRow } from '@/server/pictures/read';

const IN_CELL = 'text-[12px] min-w-0 break-words max-[700px]:hidden';

/** The names of a day in its cell: red-letter days in red, the rest in grey. */
export function marksHtml(
  marks: DayMarks,
  day: EpochDay,
  {
    style,
    rowBegins,
    oneLine,
    classes = IN_CELL,
    pictures,
    hoursApart = false,
  }: { style: Style; rowBegins: Weekday; oneLine?: boolean; classes?: string; pictures?: MarkPictures | undefined; hoursApart?: boolean },
): Html {
  const named = marksInCell(marks, day, rowBegins).filter(({ hours }) => !hours || !hoursApart);
  return html`${named.map((mark) => html`${markPictureHtml(mark, pictures)}<span class="${classes}${oneLine ? ' truncate' : ''} ${mark.red ? 'text-red' : 'text-ink-2'}" title="${sayMark(mark, style)}">${sayMark(mark, style)}</span>`)}`;
}

/** The publisher's own hours in the narrow cell of a month, in a line of their own, as short as they can be said. */
export function hoursInCellHtml(marks: DayMarks, day: EpochDay, style: Style): Html {
  const mark = marks.get(day)?.find(({ hours }) => hours);
  if (!mark) return NOTHING;
  const said = mark.hours?.length ? mark.hours.map(([from, to]) => shortTimes(from, to, style)).join(', ') : mark.name;
  return html`<div class="text-[12px] leading-[17px] text-ink-2 truncate max-[700px]:hidden print:hidden!" title="${sayMark(mark, style)}">${said}</div>`;
}

/** `9–17`, `9:30–17`: whole hours without their minutes on the clock of 24; elsewhere as everywhere. */
function shortTimes(from: number, to: number, style: Style): string {
  if (style.hours !== '24' || style.language === 'fr') return sayTimes(from, to % 1440, style);
  const clock = (minute: number): string =>
    `${Math.floor(minute / 60) % 24}${minute % 60 ? `:${String(minute % 60).padStart(2, '0')}` : ''}`;
  return `${clock(from)}–${to === 1440 ? 24 : clock(to)}`;
}

/** The pictures of days that are shown, by their ids. */
export type MarkPictures = ReadonlyMap<string, PictureRow>;

/** A day's picture, beside what it is of. */
export function markPictureHtml({ picture }: DayMark, pictures: MarkPictures | undefined, size?: string): Html {
  const row = picture === undefined ? undefined : pictures?.get(picture);
  return row ? smallPictureHtml(row, size) : NOTHING;
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
