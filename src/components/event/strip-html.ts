/** Coming dates as a strip of small months: on in ink, moved in a red frame, cancelled struck. */
import { daysInMonth, firstDayOfMonth, type MonthNumber, weekdayOf, yearMonthOf } from '@/core/day/day';
import { MONTHS, sayDay, type Style, WEEKDAYS } from '@/core/phrase/format';
import { escapeHtml } from '@/core/text/text';
import type { ListingDate } from '@/server/public/listing';

export interface StripInput {
  dates: readonly ListingDate[];
  firstMonth: MonthNumber;
  months: number;
  address: string;
  firstWeekday: number;
  style: Style;
}

export function stripHtml({ dates, firstMonth, months, address, firstWeekday, style }: StripInput): string {
  const byDay = new Map<number, ListingDate>();
  for (const date of dates) {
    for (let day = date.startDay; day <= date.lastDay && day < date.startDay + 62; day++) if (!byDay.has(day)) byDay.set(day, date);
  }
  const heads = [0, 1, 2, 3, 4, 5, 6]
    .map((i) => `<th scope="col">${(WEEKDAYS[(firstWeekday + i) % 7] as string).slice(0, 2)}</th>`)
    .join('');
  const one = (month: MonthNumber): string => {
    const { year, month: m } = yearMonthOf(month);
    const first = firstDayOfMonth(month);
    const cells: string[] = Array.from({ length: (weekdayOf(first) - firstWeekday + 7) % 7 }, () => '<td></td>');
    for (let d = 1; d <= daysInMonth(year, m); d++) cells.push(cell(first + d - 1, d));
    while (cells.length % 7) cells.push('<td></td>');
    const rows: string[] = [];
    for (let i = 0; i < cells.length; i += 7) rows.push(`<tr>${cells.slice(i, i + 7).join('')}</tr>`);
    return `<table><caption>${MONTHS[m - 1]}${m === 1 || month === firstMonth ? ` ${year}` : ''}</caption><thead class="hidden-words"><tr>${heads}</tr></thead><tbody>${rows.join('')}</tbody></table>`;
  };
  const cell = (day: number, d: number): string => {
    const date = byDay.get(day);
    if (!date) return `<td>${d}</td>`;
    const off = date.standing === 'cancelled' || date.standing === 'postponed';
    const words = `${sayDay(day, style, { weekday: 'long' })}${off ? `, ${date.standing}` : date.moved ? ', moved' : ''}`;
    return `<td><a href="/what/${address}/${date.address}"${off ? ' class="off"' : date.moved ? ' class="moved"' : ''} aria-label="${escapeHtml(words)}">${d}</a></td>`;
  };
  const last = dates.at(-1)?.lastDay ?? 0;
  return Array.from({ length: months }, (_, i) => firstMonth + i)
    .filter((month, i) => i === 0 || firstDayOfMonth(month) <= last)
    .map(one)
    .join('');
}
