/** Dates as an almanac's ledger, HTML text: a day is a ruled line, its dates are rows. */
import { type MarkPictures, markPictureHtml } from './marks-of-day';
import { type SecondCalendar, sayInCalendar } from '@/core/phrase/second-calendar';
import { type DayMarks, isRedDay, namesOn } from '@/core/holidays/day-marks';
import { html, type Html, NOTHING, type Piece, safe } from './html';
import { addTo } from '@/core/collections/add-to';
import { type EpochDay, isoDay, weekdayOf, ymdOf } from '@/core/day/day';
import { sayCost } from '@/core/listing/content';
import { monthName, sayDay, sayTime, sayTimes, type Style, weekdayName } from '@/core/phrase/format';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { distanceKm, type Point } from '@/core/geo/geo';
import type { Language } from '@/core/phrase/language';
import { markWords } from '@/core/text/found-words';
import { shorten, startOfSentence } from '@/core/text/text';
import { SUMMARY_SHOWN } from '@/core/listing/content';
import { dateIn, type EffectiveDate } from '@/core/dates/effective-date';
import type { EventStatus } from '@/core/recurrence/model';
import type { ReadersWords } from '@/words/readers';
import type { Result } from '@/server/public/results';
import type { PictureRow } from '@/server/pictures/read';
import type { ReferenceData } from '@/server/reference/read';
import { markHtml } from './marks';
import type { Reader } from './reader';
import { dateHref } from './month-html';
import { pictureHtml } from './picture-html';
import { zoneWords } from './zone-words';

export interface LedgerInput {
  dates: readonly EffectiveDate[];
  reader: Reader;
  /** dates that began before stand under this day */
  from: EpochDay;
  today: EpochDay;
  style: Style;
  /** the site's zone: times of another say so */
  zone: string;
  reference: ReferenceData;
  pictures: Map<string, PictureRow>;
  dayMarks: DayMarks;
  markPictures?: MarkPictures | undefined;
  /** another calendar, whose day stands in each heading */
  secondCalendar?: SecondCalendar | '' | undefined;
  /** every line has its picture, a small one at its end; else headlines alone have one */
  smallPictures?: boolean | undefined;
  dayNote?: (day: EpochDay) => string;
  /** typed words, folded: where they stand they are marked */
  found?: readonly string[];
  /** what is asked to be near to: lines say how far away they are */
  near?: Point | undefined;
  /** kept on top, before all days; they stand in their days too */
  onTop?: readonly EffectiveDate[];
}

export function ledgerHtml(asked: LedgerInput): Html {
  const { language } = asked.reader;
  const input = { ...asked, dates: asked.dates.map((d) => dateIn(d, language)), onTop: asked.onTop?.map((d) => dateIn(d, language)) };
  const days = new Map<EpochDay, EffectiveDate[]>();
  for (const date of input.dates) {
    const day = Math.max(date.startDay, input.from);
    addTo(days, day, date);
  }
  const top = input.onTop?.length ? topHtml(input.onTop, input) : '';
  let month = -1;
  const bodies = [...days].map(([day, dates]) => {
    const { year, month: m } = ymdOf(day);
    const fresh = year * 12 + m !== month;
    month = year * 12 + m;
    return html`<tbody>${dayLine(day, dates.length, fresh, input)}${dates.map((d) => rowHtml(d, day, input))}</tbody>`;
  });
  return html`<table class="days" data-part="ledger">${headHtml(input.reader)}${top}${bodies}</table>`;
}

function headHtml({ words: { list: w } }: Reader): Html {
  const heads = [w.when(), w.what(), w.where(), w.cost()].map((name) => html`<th scope="col">${name}</th>`);
  return html`<colgroup><col class="when"><col><col class="where"><col class="cost"></colgroup><thead><tr>${heads}</tr></thead>`;
}

/** Kept on top: each with its day, since none stands over it. */
function topHtml(dates: readonly EffectiveDate[], input: LedgerInput): Html {
  const rows = dates.map((date) => {
    const day = Math.max(date.startDay, input.from);
    return rowHtml(date, day, input, sayDay(day, input.style, { weekday: 'short', month: 'short' }));
  });
  return html`<tbody class="on-top"><tr class="dayline"><th colspan="4" scope="rowgroup"><h2>${input.reader.words.list.onTop()}</h2></th></tr>${rows}</tbody>`;
}

/** What a search found: each listing once, with its next date, and the days of those that follow. */
export function resultsHtml(results: readonly Result[], input: Omit<LedgerInput, 'dates' | 'dayMarks'>): Html {
  const whole: LedgerInput = { ...input, dates: results, dayMarks: new Map() };
  const rows = results.map((found) => {
    const result = dateIn(found, input.reader.language);
    const day = Math.max(result.startDay, input.from);
    const words = sayDay(day, input.style, { weekday: 'short', month: 'short', year: ymdOf(day).year !== ymdOf(input.today).year });
    return rowHtml(result, day, whole, words, followingHtml(result, input.style, input.reader));
  });
  return html`<table class="days" data-part="ledger">${headHtml(input.reader)}<tbody>${rows}</tbody></table>`;
}

/** "also 30 Mar, 6 Apr, 13 Apr and 190 more until 5 Dec 2027". */
function followingHtml({ dates, days, until, listing }: Result, style: Style, { words: { list: w }, to }: Reader): Html {
  if (dates < 2) return NOTHING;
  const named = days.slice(1, 4).map((day) => sayDay(day, style, { month: 'short' }));
  const rest = dates - 1 - named.length;
  const words = named.join(', ');
  const link = html`<a href="${to(`/what/${listing}`)}">${w.nMore({ n: rest })}</a>`;
  const said =
    rest > 0
      ? w.alsoMore({ days: words, more: link.text, until: sayDay(until, style, { month: 'short', year: true }) })
      : w.also({ days: words });
  return html`<div class="sum">${safe(said)}</div>`;
}

function dayLine(day: EpochDay, count: number, fresh: boolean, input: LedgerInput): Html {
  const { year, month, day: d } = ymdOf(day);
  const names = namesOn(input.dayMarks, day, input.style);
  const { words: w } = input.reader;
  const notes = [
    day === input.today ? w.list.today() : '',
    fresh ? `${monthName(month, input.style)} ${year}` : '',
    ...names,
    input.secondCalendar ? sayInCalendar(day, input.secondCalendar, input.style) : '',
    input.dayNote?.(day) ?? '',
    count > 2 ? w.count.events({ n: count }) : '',
  ].filter(Boolean);
  const heading = w.list.dayHeading({ n: d, weekday: weekdayName(weekdayOf(day), input.style) });
  const red = isRedDay(input.dayMarks, day);
  const shown = (input.dayMarks.get(day) ?? []).map((mark) =>
    markPictureHtml(mark, input.markPictures, 'inline-block align-middle size-5.5 mr-1.5'),
  );
  const small = html`${shown}`;
  return html`<tr class="dayline${red ? ' red' : ''}${day === input.today ? ' today' : ''}"><th colspan="4" scope="rowgroup" id="d${isoDay(day)}"><h2>${startOfSentence(heading)}</h2>${small}${notes.join(' · ')}</th></tr>`;
}

/** The time of a date as it stands under a day. */
export function clockWords(date: EffectiveDate, day: EpochDay, style: Style, { words: { list: w } }: Reader): string {
  if (date.lastDay > date.startDay) {
    const last = sayDay(date.lastDay, style, { month: 'short' });
    if (day > date.startDay) return w.until({ day: last });
    return date.startMinute === null ? w.to({ day: last }) : w.timeTo({ time: sayTime(date.startMinute, style), day: last });
  }
  if (date.startMinute === null) return w.allDay();
  return sayTimes(date.startMinute, date.endMinute, style);
}

/** What a reader must know of a date that does not go as planned; nothing otherwise. */
export function eventStatusWords(date: EffectiveDate, { words }: Reader): string {
  if (date.eventStatus === 'going-ahead') return date.note;
  return date.note ? `${statusStart(date.eventStatus, words)}: ${date.note}` : `${statusStart(date.eventStatus, words)}.`;
}

const STATUS_WORDS = {
  cancelled: ['cancelled', 'cancelledStart'],
  postponed: ['postponed', 'postponedStart'],
  'moved-online': ['movedOnline', 'movedOnlineStart'],
  rescheduled: ['rescheduled', 'rescheduledStart'],
} as const;

/** An event's status inside a sentence, `cancelled`; empty while it goes ahead. */
export function statusWords(eventStatus: EventStatus, { state }: ReadersWords): string {
  return eventStatus === 'going-ahead' ? '' : state[STATUS_WORDS[eventStatus][0]]();
}

/** The same at the beginning of one, `Cancelled`. */
export function statusStart(eventStatus: EventStatus, { state }: ReadersWords): string {
  return eventStatus === 'going-ahead' ? '' : state[STATUS_WORDS[eventStatus][1]]();
}

function movedFrom(date: EffectiveDate, style: Style, { words }: Reader): Html {
  const was = date.moved ? parseIsoDateTime(date.original) : undefined;
  if (!was) return NOTHING;
  const when =
    was.day === date.startDay && was.minute !== null
      ? sayTime(was.minute, style)
      : sayDay(was.day, style, { weekday: 'short', month: 'short' });
  return html`<span class="was">${words.list.movedFrom({ when })}</span>`;
}

/** A date's picture: its listing's, else its category's. */
export function shownPicture(date: EffectiveDate, reference: ReferenceData): string | null {
  return date.pictureId ?? reference.category.get(date.categoryId)?.pictureId ?? null;
}

/** A text with typed words marked. */
const markedHtml = (text: string, found: readonly string[] = []): Piece =>
  found.length ? markWords(text, found).map((piece) => (piece.found ? html`<mark>${piece.text}</mark>` : html`${piece.text}`)) : text;

/** Where a date is: each of its venues, a link where the venue has a page, and how far away it is where that is asked. */
function placesHtml(date: EffectiveDate, { reference, reader: { to, words, language }, near, found }: LedgerInput): Html[] {
  const venues = date.venueIds.flatMap((id) => reference.venue.get(id) ?? []);
  return venues.map((venue) => {
    const name = venue.binnedAt ? venue.name : html`<a href="${to(`/at/${venue.slug}`)}">${markedHtml(venue.name, found)}</a>`;
    const { lat, lng } = venue;
    const km = near && lat !== null && lng !== null ? distanceKm(near, { lat, lng }) : undefined;
    const away = km === undefined ? '' : html`<span class="was">${words.filters.kmAway({ km: saidKm(km, language) })}</span>`;
    const town = venue.town && !venue.name.includes(venue.town) ? `, ${venue.town}` : '';
    return html`<span class="block">${name}${town}${away}</span>`;
  });
}

/** Kilometres as a sign by a road says them: a tenth below ten. */
const saidKm = (km: number, language: Language): string =>
  new Intl.NumberFormat(language, { maximumFractionDigits: km < 10 ? 1 : 0 }).format(km);

/** A headline's picture is wide; any other line has a small one at its end, which says nothing that the title does not. */
function withPicture(what: Piece, picture: PictureRow, headline: boolean): Html {
  if (headline) return html`<div class="with-picture"><div>${what}</div>${pictureHtml(picture, 'wide', { sizes: '236px' })}</div>`;
  return html`<div class="flex justify-between gap-3"><div>${what}</div><span class="block h-[46px] w-[64px] flex-none overflow-hidden [&_img]:h-full [&_img]:w-full [&_img]:object-cover">${pictureHtml(picture, 'square', { sizes: '64px', alt: '' })}</span></div>`;
}

function rowHtml(date: EffectiveDate, day: EpochDay, input: LedgerInput, dayWords = '', following = NOTHING): Html {
  const { style, reference, pictures, reader } = input;
  const { list: w } = reader.words;
  const off = date.eventStatus === 'cancelled' || date.eventStatus === 'postponed';
  const said = eventStatusWords(date, reader);
  const summary = shorten(date.summary, SUMMARY_SHOWN.list);
  const picture = date.headline || input.smallPictures ? pictures.get(shownPicture(date, reference) ?? '') : undefined;
  const clock = clockWords(date, day, style, reader) + zoneWords(date, input.zone);
  const what = html`<div class="what">${markHtml(reference.category.get(date.categoryId), true)}<a href="${dateHref(date, reader)}">${markedHtml(date.title, input.found)}</a></div>${said ? html`<div class="sum${date.eventStatus === 'going-ahead' ? '' : ' red'}">${said}</div>` : ''}${summary ? html`<div class="sum">${markedHtml(summary, input.found)}</div>` : ''}${following}`;
  const cell = picture ? html`<td>${withPicture(what, picture, date.headline)}</td>` : html`<td>${what}</td>`;
  const place = placesHtml(date, input);
  const elsewhere = date.elsewhere && place.length ? html`<span class="was">${w.elsewhere()}</span>` : '';
  const online =
    date.attendance === 'online'
      ? reader.words.event.online()
      : date.attendance === 'both'
        ? html`<span class="was">${w.andOnline()}</span>`
        : '';
  return html`<tr class="${off ? 'off' : ''}${date.headline ? ' head' : ''}"><td>${dayWords ? html`<span class="top-day">${dayWords}</span>` : ''}<span class="clock nowrap${date.moved ? ' red' : ''}">${clock}</span>${movedFrom(date, style, reader)}</td>${cell}<td>${place}${elsewhere}${online}</td><td class="quiet">${sayCost(date.cost, reader.language)}</td></tr>`;
}
