/** Days of hours as HTML text: ruled hours, dates as brackets at the left edge of their time, bands above for what has none. */
import { type DayMarks, isRedDay } from '@/core/holidays/day-marks';
import { type MarkPictures, marksHtml } from './marks-of-day';
import { html, type Html, NOTHING } from './html';
import { clockChangeOn } from '@/core/day/zone';
import { type EpochDay, weekdayOf, ymdOf } from '@/core/day/day';
import { sayDay, sayTime, shortWeekdayName, type Style } from '@/core/phrase/format';
import { type Block, downTo, FOLDED_HEIGHT, type HourDate, type HourDay, type HourSheet } from '@/core/sheet/hours';
import { type Place, sunOn } from '@/core/sky/sky';
import type { DateGlance } from '@/core/dates/effective-date';
import type { Language } from '@/core/phrase/language';
import { type ReferenceData, namesOf } from '@/server/reference/read';
import { inkClass } from './marks';
import { dateHref, entryHtml, Glimpse, GONE, type SheetEntry, shownTitle, stateWords } from './month-html';
import type { Reader } from './reader';
import { zoneWords } from './zone-words';

/** A date on a ledger of hours. `of` is asked of those that are shown. */
export type HourEntry = SheetEntry & HourDate;

class HourGlimpse extends Glimpse implements HourEntry {
  readonly end: HourDate['end'];
  constructor(date: DateGlance, key: number, language: Language) {
    super(date, key, language);
    this.end = date.endDay === null ? null : { day: date.endDay, minute: date.endMinute ?? 0 };
  }
}

/** Dates in their order, each looked at whole only where it is shown, in the reader's language. */
export const toHourEntries = (dates: readonly DateGlance[], language: Language): HourEntry[] =>
  dates.map((date, key) => new HourGlimpse(date, key, language));

export interface HoursInput {
  sheet: HourSheet<HourEntry>;
  reference: ReferenceData;
  reader: Reader;
  style: Style;
  place: Place;
  today: EpochDay;
  dayMarks: DayMarks;
  markPictures?: MarkPictures | undefined;
  /** a day's own page */
  dayHref: (day: EpochDay) => string;
  /** one day alone has no heading of its own: the page has it */
  heads: boolean;
  /** what found no room comes along for paper */
  onPaper: boolean;
}

/** An hour is so many pixels high, a line of text so many: half an hour has one line. */
const HOUR = 34;
const LINE = 15;
/** The height of a first line, as minutes: what `layHours` is told. */
export const LEAST_MINUTES = 30;

const px = (n: number): string => String(Math.round(n * 10) / 10);

export function hoursHtml(input: HoursInput): Html {
  const { sheet } = input;
  const height = downTo(1440, sheet.hours) * HOUR;
  return html`<div data-part="hours" class="bg-sheet border-b-2 border-b-rule-strong grid [grid-template-columns:58px_repeat(var(--days),minmax(0,1fr))] text-[12.5px] print:[zoom:.78]" style="--days:${sheet.days.length}">${
    input.heads ? headsHtml(input) : NOTHING
  }${bandsHtml(input)}<div class="relative border-t border-t-rule-strong" style="height:${px(height)}px" aria-hidden="true">${hourNames(input)}</div>${sheet.days.map(
    (day) => dayHtml(day, height, input),
  )}${footHtml(input)}</div>`;
}

function headsHtml({ sheet, style, today, dayMarks, markPictures, dayHref, reader }: HoursInput): Html {
  const { month: w } = reader.words;
  const heads = sheet.days.map(({ day, count }) => {
    const label = (day === today ? w.dayToday : w.day)({ day: sayDay(day, style, { weekday: 'long' }), n: count });
    const edge = day === today ? ' shadow-[inset_0_3px_var(--red)] forced-colors:border-t-4 forced-colors:border-t-[Highlight]' : '';
    const red = isRedDay(dayMarks, day) ? ' text-red' : '';
    const names = marksHtml(dayMarks, day, {
      style,
      rowBegins: weekdayOf(sheet.days[0]?.day ?? day),
      classes: 'text-[12px] basis-full wrap-anywhere',
      pictures: markPictures,
    });
    return html`<div class="border-l border-l-rule py-1.5 pl-2 pr-1.5 flex flex-wrap items-baseline gap-x-1.5${edge}"><a class="no-underline hover:underline min-h-6${red}" href="${dayHref(day)}" aria-label="${label}"${day === today ? html` aria-current="date"` : ''}><span class="font-serif lining-nums font-medium text-[19px]">${ymdOf(day).day}</span> ${shortWeekdayName(weekdayOf(day), style)}</a>${count > 1 ? html`<span class="ml-auto text-ink-3 text-[11.5px]" aria-hidden="true">${count}</span>` : ''}${names}</div>`;
  });
  return html`<div></div>${heads}`;
}

/** Whole days and several days, each a band over its columns. */
function bandsHtml({ sheet, reference, reader, style }: HoursInput): Html {
  if (!sheet.bands.length) return NOTHING;
  const { hours: w } = reader.words;
  const items = sheet.bands.map(({ date: { of }, lane, fromColumn, toColumn, opensBefore, opensAfter }) => {
    const category = reference.category.get(of.categoryId);
    const edges = `${opensBefore ? '' : ' border-l-[3px]'}${opensAfter ? '' : ' border-r-[3px]'}`;
    const until = of.lastDay > of.startDay ? html` <span class="text-ink-2">${w.until({ day: sayDay(of.lastDay, style, {}) })}</span>` : '';
    const off = GONE.has(of.eventStatus) ? ' line-through text-ink-2' : '';
    return html`<li class="m-0 min-w-0 px-0.5" style="grid-column:${fromColumn + 1}/span ${toColumn - fromColumn + 1};grid-row:${lane + 1}"><a class="block border-y ${category ? inkClass(category) : ''} [border-color:light-dark(var(--ml),var(--md))] [background:color-mix(in_srgb,light-dark(var(--ml),var(--md))_12%,var(--sheet))] px-2 leading-[21px] min-h-6 truncate no-underline hover:underline${edges}${of.headline ? ' font-bold' : ''}${off}" href="${dateHref(of, reader)}">${shownTitle(of)}${stateWords(of, reader)}${until}</a></li>`;
  });
  return html`<div class="text-ink-2 text-[12px] pt-1.5 pr-1.5 text-right border-t border-t-rule-strong">${w.allDay()}</div><ul aria-label="${w.allDayList()}" class="list-none m-0 p-0 py-1 border-t border-t-rule-strong col-[2/-1] grid [grid-template-columns:repeat(var(--days),minmax(0,1fr))] gap-y-0.5">${items}</ul>`;
}

/** The hours down the left side. */
function hourNames({ sheet, style }: HoursInput): Html {
  const names: Html[] = [];
  for (const { from, to, folded } of sheet.hours) {
    if (folded) continue;
    for (let hour = from; hour < to; hour++) {
      const top = downTo(hour * 60, sheet.hours) * HOUR;
      names.push(
        html`<span class="absolute right-1.5 ${top ? '-translate-y-1/2' : ''} text-ink-3" style="top:${px(top)}px">${sayTime(hour * 60, style)}</span>`,
      );
    }
  }
  return html`${names}`;
}

/** Fine lines at the hours, sunrise and sunset dashed, and a word where the clocks change. */
function rules({ day }: HourDay<HourEntry>, { sheet, place, style, reader }: HoursInput): Html {
  const { hours: w } = reader.words;
  const at = (minute: number): string => px(downTo(minute, sheet.hours) * HOUR);
  const lines: Html[] = [];
  for (const { from, to, folded } of sheet.hours) {
    if (folded)
      lines.push(html`<i class="absolute inset-x-0 bg-wash" style="top:${at(from * 60)}px;height:${px(FOLDED_HEIGHT * HOUR)}px"></i>`);
    for (let hour = from; hour <= (folded ? from : to - 1); hour++)
      if (hour) lines.push(html`<i class="absolute inset-x-0 border-t border-t-rule opacity-60" style="top:${at(hour * 60)}px"></i>`);
  }
  const sun = sunOn(day, place);
  if (sun.kind === 'rises')
    for (const minute of [sun.rise, sun.set])
      lines.push(html`<i class="absolute inset-x-0 border-t border-dashed border-t-ink-3" style="top:${at(minute)}px"></i>`);
  const change = clockChangeOn(day, place.zone);
  if (change) {
    const said = change.forward ? w.clocksForward : w.clocksBack;
    const times = { from: sayTime(change.from, style), to: sayTime(change.to, style) };
    lines.push(
      html`<span class="absolute left-1.5 right-1 text-red text-[11px] leading-[13px]" style="top:${at(Math.min(change.from, change.to))}px">${said(times)}</span>`,
    );
  }
  return html`${lines}`;
}

function dayHtml(day: HourDay<HourEntry>, height: number, input: HoursInput): Html {
  const { style, today } = input;
  const past = day.day < today ? ' text-ink-2' : '';
  const blocks = day.blocks.map((block) => html`<li class="m-0">${blockHtml(block, input)}</li>`);
  return html`<section class="relative border-l border-l-rule border-t border-t-rule-strong${past}" style="height:${px(height)}px" aria-label="${sayDay(day.day, style, { weekday: 'long' })}">${rules(day, input)}${blocks.length ? html`<ol class="list-none m-0 p-0">${blocks}</ol>` : ''}</section>`;
}

function blockHtml({ date: { of }, from, to, lane, span, lanes, opensBefore, opensAfter }: Block<HourEntry>, input: HoursInput): Html {
  const { sheet, reference, reader, style, place } = input;
  const top = downTo(from, sheet.hours) * HOUR;
  const tall = Math.max(downTo(Math.max(to, from + 1), sheet.hours) * HOUR - top, (LEAST_MINUTES / 60) * HOUR) - 1;
  const lines = Math.max(1, Math.floor((tall - 1) / LINE));
  const category = reference.category.get(of.categoryId);
  const open = to === from;
  const bracket = `${opensBefore ? '' : 'before:border-t-2'} ${opensAfter || open ? '' : 'before:border-b-2'}`;
  const off = GONE.has(of.eventStatus) ? ' line-through text-ink-2' : '';
  const where = namesOf(of.venueIds, reference.venue);
  const time = opensBefore
    ? ''
    : html`<span class="whitespace-nowrap ${of.moved ? 'text-red font-bold' : 'text-ink-2'}">${sayTime(from, style)}${zoneWords(of, place.zone)}</span> `;
  return html`<a class="absolute block no-underline hover:underline pl-2 ${lanes > 2 && span === 1 ? 'text-[11.5px]' : ''} ${category ? inkClass(category) : ''} before:content-[''] before:absolute before:left-0 before:inset-y-0 before:w-1.5 before:border-l-2 before:[border-color:light-dark(var(--ml),var(--md))] ${bracket}" style="top:${px(top)}px;height:${px(tall)}px;left:calc(${px((100 * lane) / lanes)}% + 4px);width:calc(${px((100 * span) / lanes)}% - 5px)" href="${dateHref(of, reader)}"><span class="line-clamp-(--lines) leading-[15px] wrap-break-word hyphens-auto bg-sheet${off}" style="--lines:${lines}">${time}<strong class="${of.headline ? 'text-[13.5px]' : 'font-semibold'}">${shownTitle(of)}</strong>${stateWords(of, reader)}${where ? html` <span class="text-ink-2">${where}</span>` : ''}</span></a>`;
}

/** What found no room, under its day: the way to all of it, and on paper all of it. */
function footHtml(input: HoursInput): Html {
  const { sheet, reader, dayHref, onPaper } = input;
  if (!sheet.days.some(({ folded }) => folded.length)) return NOTHING;
  const cells = sheet.days.map(({ day, folded }) => {
    if (!folded.length) return html`<div class="border-l border-l-rule border-t border-t-rule"></div>`;
    const paper = onPaper ? html`<div class="hidden print:block">${folded.map((date) => entryHtml(date.of, 1, input))}</div>` : '';
    return html`<div class="border-l border-l-rule border-t border-t-rule px-2 py-1"><a class="text-tide leading-[24px] inline-block min-w-6${onPaper ? ' print:hidden' : ''}" href="${dayHref(day)}">${reader.words.month.more({ n: folded.length })}</a>${paper}</div>`;
  });
  return html`<div class="border-t border-t-rule"></div>${cells}`;
}
