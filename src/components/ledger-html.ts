/** Dates as an almanac's ledger, HTML text: a day is a ruled line, its dates are rows. */
import { type Day, isoDay, weekdayOf, ymdOf } from '@/core/day/day';
import { sayCost } from '@/core/listing/content';
import { MONTHS, sayCount, sayDay, sayTime, sayTimes, type Style, WEEKDAYS } from '@/core/phrase/format';
import { parseIsoWall } from '@/core/day/wall';
import { escapeHtml, shorten } from '@/core/text/text';
import { SUMMARY_SHOWN } from '@/core/listing/content';
import type { PublicDate } from '@/server/public/dates';
import type { PictureRow } from '@/server/pictures/read';
import type { Lookup } from '@/server/public/lookup';
import { markHtml } from './marks';
import { dateHref } from './month-html';
import { pictureHtml } from './picture-html';

export interface LedgerInput {
  dates: readonly PublicDate[];
  /** dates that began before stand under this day */
  from: Day;
  today: Day;
  style: Style;
  found: Lookup;
  pictures: Map<string, PictureRow>;
  redLetters: Map<Day, string[]>;
  dayNote?: (day: Day) => string;
  /** kept on top, before all days; they stand in their days too */
  onTop?: readonly PublicDate[];
}

export function ledgerHtml(input: LedgerInput): string {
  const days = new Map<Day, PublicDate[]>();
  for (const date of input.dates) {
    const day = Math.max(date.start_day, input.from);
    days.set(day, [...(days.get(day) ?? []), date]);
  }
  const top = input.onTop?.length ? topHtml(input.onTop, input) : '';
  let month = -1;
  const bodies = [...days].map(([day, dates]) => {
    const { year, month: m } = ymdOf(day);
    const fresh = year * 12 + m !== month;
    month = year * 12 + m;
    return `<tbody>${dayLine(day, dates.length, fresh, input)}${dates.map((d) => rowHtml(d, day, input)).join('')}</tbody>`;
  });
  return `<table class="days"><colgroup><col class="when"><col><col class="where"><col class="cost"></colgroup><thead><tr><th scope="col">When</th><th scope="col">What</th><th scope="col">Where</th><th scope="col">Cost</th></tr></thead>${top}${bodies.join('')}</table>`;
}

/** Kept on top: each with its day, since none stands over it. */
function topHtml(dates: readonly PublicDate[], input: LedgerInput): string {
  const rows = dates.map((date) => {
    const day = Math.max(date.start_day, input.from);
    return rowHtml(date, day, input, sayDay(day, input.style, { weekday: 'short', month: 'short' }));
  });
  return `<tbody class="on-top"><tr class="dayline"><th colspan="4" scope="rowgroup"><h2>Kept on top</h2></th></tr>${rows.join('')}</tbody>`;
}

function dayLine(day: Day, count: number, fresh: boolean, input: LedgerInput): string {
  const { year, month, day: d } = ymdOf(day);
  const names = input.redLetters.get(day) ?? [];
  const notes = [
    day === input.today ? 'today' : '',
    fresh ? `${MONTHS[month - 1]} ${year}` : '',
    ...names,
    input.dayNote?.(day) ?? '',
    count > 2 ? sayCount(count, 'event') : '',
  ].filter(Boolean);
  const red = weekdayOf(day) === 6 || names.length > 0;
  return `<tr class="dayline${red ? ' red' : ''}${day === input.today ? ' today' : ''}"><th colspan="4" scope="rowgroup" id="d${isoDay(day)}"><h2>${d} ${WEEKDAYS[weekdayOf(day)]}</h2>${escapeHtml(notes.join(' · '))}</th></tr>`;
}

/** The time of a date as it stands under a day. */
export function clockWords(date: PublicDate, day: Day, style: Style): string {
  if (date.last_day > date.start_day) {
    if (day > date.start_day) return `until ${sayDay(date.last_day, style, { month: 'short' })}`;
    const time = date.start_minute === null ? '' : `${sayTime(date.start_minute, style)}, `;
    return `${time}to ${sayDay(date.last_day, style, { month: 'short' })}`;
  }
  if (date.start_minute === null) return 'all day';
  return sayTimes(date.start_minute, date.end_minute, style);
}

/** What a reader must know of a date that does not go as planned; nothing otherwise. */
export function standingWords(date: PublicDate): string {
  const note = date.note ? `: ${date.note}` : '';
  if (date.standing === 'cancelled') return `Cancelled${note || '.'}`;
  if (date.standing === 'postponed') return `Postponed${note || '.'}`;
  if (date.standing === 'moved-online') return `Moved online${note || '.'}`;
  if (date.standing === 'rescheduled') return `Rescheduled${note || '.'}`;
  return date.note;
}

function movedFrom(date: PublicDate, style: Style): string {
  const was = date.moved ? parseIsoWall(date.original) : undefined;
  if (!was) return '';
  const words =
    was.day === date.start_day && was.minute !== null
      ? sayTime(was.minute, style)
      : sayDay(was.day, style, { weekday: 'short', month: 'short' });
  return `<span class="was">moved from ${words}</span>`;
}

/** A date's picture: its listing's, else its category's. */
export function shownPicture(date: PublicDate, found: Lookup): string | null {
  return date.picture_id ?? found.category.get(date.category_id)?.pictureId ?? null;
}

function rowHtml(date: PublicDate, day: Day, input: LedgerInput, dayWords = ''): string {
  const { style, found, pictures } = input;
  const venue = date.venue_id ? found.venue.get(date.venue_id) : undefined;
  const off = date.standing === 'cancelled' || date.standing === 'postponed';
  const said = standingWords(date);
  const summary = shorten(date.summary, SUMMARY_SHOWN.list);
  const picture = date.headline ? pictures.get(shownPicture(date, found) ?? '') : undefined;
  const clock = clockWords(date, day, style);
  const what = `<div class="what">${markHtml(found.category.get(date.category_id), true)}<a href="${dateHref(date)}">${escapeHtml(date.title)}</a></div>${said ? `<div class="sum${date.standing === 'going-ahead' ? '' : ' red'}">${escapeHtml(said)}</div>` : ''}${summary ? `<div class="sum">${escapeHtml(summary)}</div>` : ''}`;
  const cell = picture
    ? `<td><div class="with-picture"><div>${what}</div>${pictureHtml(picture, 'wide', { sizes: '236px' })}</div></td>`
    : `<td>${what}</td>`;
  const place = venue
    ? `<a href="/at/${venue.address}" style="text-decoration:none">${escapeHtml(venue.name)}</a>${venue.town && !venue.name.includes(venue.town) ? `, ${escapeHtml(venue.town)}` : ''}`
    : '';
  const elsewhere = date.elsewhere && place ? '<span class="was">elsewhere this time</span>' : '';
  const online = date.attendance === 'online' ? 'Online' : date.attendance === 'both' ? '<span class="was">and online</span>' : '';
  return `<tr class="${off ? 'off' : ''}${date.headline ? ' head' : ''}"><td>${dayWords ? `<span class="top-day">${dayWords}</span>` : ''}<span class="clock nowrap${date.moved ? ' red' : ''}">${clock}</span>${movedFrom(date, style)}</td>${cell}<td>${place}${elsewhere}${online}</td><td class="quiet">${escapeHtml(sayCost(date.cost))}</td></tr>`;
}
