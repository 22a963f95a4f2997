/** Coming dates as a strip of small months: on in ink, moved in a red frame, cancelled struck. */
import { html, type Html } from '@/components/html';
import { daysInMonth, firstDayOfMonth, type MonthNumber, monthNumberOf, weekdayOf, yearMonthOf } from '@/core/day/day';
import { monthName, sayDay, type Style, weekdayName } from '@/core/phrase/format';
import { statusWords } from '../ledger-html';
import type { Reader } from '../reader';
import type { ListingDate } from '@/server/public/listing';

export interface StripInput {
  dates: readonly ListingDate[];
  /** the strip begins with the first month from here on that has a date */
  from: MonthNumber;
  /** so many months at most, those without a date left out */
  months: number;
  slug: string;
  reader: Reader;
  firstWeekday: number;
  style: Style;
}

export interface Strip {
  html: readonly Html[];
  /** a month from which the strip shows what comes before, or after; undefined at its ends */
  earlier: MonthNumber | undefined;
  later: MonthNumber | undefined;
}

/** The months that a listing has dates in. */
function monthsOf(dates: readonly ListingDate[]): MonthNumber[] {
  const months = new Set<MonthNumber>();
  for (const date of dates) {
    for (let month = monthNumberOf(date.startDay); month <= monthNumberOf(Math.min(date.lastDay, date.startDay + LONGEST)); month++)
      months.add(month);
  }
  return [...months].sort((a, b) => a - b);
}

/** A date that lasts longer is drawn by its first days. */
const LONGEST = 61;

export function stripHtml({ dates, from, months, slug, reader, firstWeekday, style }: StripInput): Strip {
  const { words: w, to } = reader;
  const byDay = new Map<number, ListingDate>();
  for (const date of dates) {
    for (let day = date.startDay; day <= date.lastDay && day <= date.startDay + LONGEST; day++) if (!byDay.has(day)) byDay.set(day, date);
  }
  const heads = [0, 1, 2, 3, 4, 5, 6]
    .map((i) => weekdayName((firstWeekday + i) % 7, style))
    .map((name) => html`<th scope="col"><abbr title="${name}" class="no-underline">${name.charAt(0).toUpperCase()}</abbr></th>`);
  const one = (month: MonthNumber): Html => {
    const { year, month: m } = yearMonthOf(month);
    const first = firstDayOfMonth(month);
    const cells: Html[] = Array.from({ length: (weekdayOf(first) - firstWeekday + 7) % 7 }, () => html`<td></td>`);
    for (let d = 1; d <= daysInMonth(year, m); d++) cells.push(cell(first + d - 1, d));
    while (cells.length % 7) cells.push(html`<td></td>`);
    const rows: Html[] = [];
    for (let i = 0; i < cells.length; i += 7) rows.push(html`<tr>${cells.slice(i, i + 7)}</tr>`);
    return html`<table><caption>${monthName(m, style)} ${year}</caption><thead class="text-ink-3"><tr>${heads}</tr></thead><tbody>${rows}</tbody></table>`;
  };
  const cell = (day: number, d: number): Html => {
    const date = byDay.get(day);
    if (!date) return html`<td>${d}</td>`;
    const off = date.eventStatus === 'cancelled' || date.eventStatus === 'postponed';
    const words = `${sayDay(day, style, { weekday: 'long' })}${off ? `, ${statusWords(date.eventStatus, w)}` : date.moved ? `, ${w.state.moved()}` : ''}`;
    return html`<td><a href="${to(`/what/${slug}/${date.slug}`)}"${off ? html` class="off"` : date.moved ? html` class="moved"` : ''} aria-label="${words}">${d}</a></td>`;
  };
  const all = monthsOf(dates);
  const first = all.findIndex((month) => month >= from);
  const start = first < 0 ? Math.max(0, all.length - months) : first;
  const shown = all.slice(start, start + months);
  return {
    html: shown.map(one),
    earlier: start > 0 ? all[Math.max(0, start - months)] : undefined,
    later: all[start + months],
  };
}
