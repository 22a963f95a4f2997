/** Months as small sheets, HTML text: a line under each numeral says how much is on, bands go over days, Sundays and holidays are red. */
import { type DayMarks, isRedDay, namesOn } from '@/core/holidays/day-marks';
import { html, type Html, NOTHING } from './html';
import { type EpochDay, yearMonthOf, ymdOf } from '@/core/day/day';
import { monthName, sayDay, type Style, weekdayName } from '@/core/phrase/format';
import type { YearDay, YearMonth, YearWeek } from '@/core/sheet/year';
import { startOfSentence } from '@/core/text/text';
import type { ReferenceData } from '@/server/reference/read';
import type { HourEntry } from './hours-html';
import { inkClass } from './marks';
import { dateHref, shownTitle, stateWords } from './month-html';
import type { Reader } from './reader';

export interface YearSheetInput {
  months: readonly YearMonth<HourEntry>[];
  reference: ReferenceData;
  reader: Reader;
  style: Style;
  today: EpochDay;
  dayMarks: DayMarks;
  firstWeekday: number;
  dayHref: (day: EpochDay) => string;
  monthHref: (month: number) => string;
}

/** The lines of each weight. */
const LINES = ['', 'h-px', 'h-[2px]', 'h-[3px]', 'h-[5px]'];

export function yearHtml(input: YearSheetInput): Html {
  return html`<div data-part="year-sheet" class="grid gap-4 ${input.months.length > 6 ? 'grid-cols-4' : 'grid-cols-3'} max-[1050px]:grid-cols-3 max-[800px]:grid-cols-2 max-[560px]:grid-cols-1 print:gap-2 print:grid-cols-4">${input.months.map((month) => monthSheet(month, input))}</div>`;
}

function monthSheet({ month, total, weeks }: YearMonth<HourEntry>, input: YearSheetInput): Html {
  const { style, reader, firstWeekday } = input;
  const { year: w } = reader.words;
  const { year, month: m } = yearMonthOf(month);
  const heads = [0, 1, 2, 3, 4, 5, 6].map((i) => {
    const name = weekdayName((firstWeekday + i) % 7, style);
    return html`<th scope="col" class="font-normal text-[12px] text-ink-2 pt-1.5 pb-0.5"><abbr class="no-underline" title="${name}">${name.charAt(0).toUpperCase()}</abbr></th>`;
  });
  return html`<table class="bg-sheet w-full table-fixed border-separate border-spacing-0 px-2.5 pb-2.5 self-start break-inside-avoid print:px-1 print:pb-1"><caption class="bg-sheet px-2.5 pt-2 text-left print:px-1"><span class="flex items-baseline justify-between gap-2 border-b-2 border-b-rule-strong pb-1"><a class="font-serif font-bold text-[18px] no-underline hover:underline print:text-[13px]" href="${input.monthHref(month)}">${startOfSentence(monthName(m, style))}<span class="hidden-words"> ${year}</span></a><span class="text-ink-3 text-[12.5px]">${w.events({ n: total })}</span></span></caption><thead><tr>${heads}</tr></thead><tbody>${weeks.map((week) => weekRow(week, input))}</tbody></table>`;
}

function weekRow({ days, bands }: YearWeek<HourEntry>, input: YearSheetInput): Html {
  const cells = days.map((day, column) => {
    if (!day) return html`<td></td>`;
    const here = bands.filter((band) => band.fromColumn === column);
    return dayCell(
      day,
      here.map((band) => bandHtml(band, input)),
      input,
    );
  });
  return html`<tr>${cells}</tr>`;
}

/** A line over days, in its kind's ink: what it is stands below the sheets, and on the day's page. */
function bandHtml({ date: { of }, lane, fromColumn, toColumn }: YearWeek<HourEntry>['bands'][number], { reference }: YearSheetInput): Html {
  const category = reference.category.get(of.categoryId);
  return html`<i class="absolute left-0 h-[2px] w-[calc(var(--span)*100%)] z-1 ${category ? inkClass(category) : ''} [background:light-dark(var(--ml),var(--md))]" style="--span:${toColumn - fromColumn + 1};top:${lane * 3}px" title="${shownTitle(of)}"></i>`;
}

function dayCell({ day, count, weight }: YearDay, bands: Html[], { style, today, dayMarks, reader, dayHref }: YearSheetInput): Html {
  const { month: w } = reader.words;
  const names = namesOn(dayMarks, day, style);
  const red = isRedDay(dayMarks, day) ? ' text-red font-bold' : '';
  const label = `${(day === today ? w.dayToday : w.day)({ day: sayDay(day, style, { weekday: 'long' }), n: count })}${names.length ? `, ${names.join(', ')}` : ''}`;
  const line = weight
    ? html`<i class="absolute inset-x-1.5 bottom-0 bg-ink ${LINES[weight] ?? ''} print:[print-color-adjust:exact]"></i>`
    : NOTHING;
  const here = day === today ? ' outline-2 -outline-offset-2 outline-red' : '';
  return html`<td class="relative p-0 text-center h-[27px] print:h-[19px]">${bands}<a class="relative block pt-0.5 h-[26px] leading-[20px] text-[13.5px] no-underline hover:bg-tide-wash print:h-[18px] print:pt-0 print:text-[9px] print:leading-[12px]${red}${here}" href="${dayHref(day)}" aria-label="${label}"${day === today ? html` aria-current="date"` : ''}${names.length ? html` title="${names.join(', ')}"` : ''}>${ymdOf(day).day}${line}</a></td>`;
}

/** Titles, month by month: what goes on for days and headlines first where there is no room for all. */
export function titlesHtml(input: YearSheetInput, byMonth: ReadonlyMap<number, readonly HourEntry[]>, most: number): Html {
  const { reader, style } = input;
  const { year: w, month: words } = reader.words;
  const months = input.months.map(({ month }) => {
    const all = byMonth.get(month) ?? [];
    const weightiest = new Set([...all].sort((a, b) => Number(weighs(b)) - Number(weighs(a))).slice(0, most));
    const shown = all.filter((date) => weightiest.has(date));
    const { month: m } = yearMonthOf(month);
    const rows = shown.map(({ of }) => {
      return html`<li class="flex gap-2 m-0 leading-6"><span class="w-14 flex-none text-ink-2 text-right">${sayDay(of.startDay, style, { month: 'short' })}</span><a class="no-underline hover:underline min-w-0 wrap-anywhere${of.headline ? ' font-bold' : ''}" href="${dateHref(of, reader)}">${shownTitle(of)}${stateWords(of, reader)}</a></li>`;
    });
    const more =
      all.length > shown.length
        ? html`<p class="m-0 mt-1"><a href="${input.monthHref(month)}">${words.more({ n: all.length - shown.length })}</a></p>`
        : '';
    return html`<section class="bg-sheet px-3.5 pt-2 pb-3 break-inside-avoid mb-4 inline-block w-full"><h2 class="text-[18px] border-b-2 border-b-rule-strong pb-1 mb-1.5"><a class="no-underline hover:underline" href="${input.monthHref(month)}">${startOfSentence(monthName(m, style))}</a></h2>${rows.length ? html`<ol class="list-none m-0 p-0 text-[13.5px]">${rows}</ol>` : html`<p class="m-0 text-ink-2">${w.nothing()}</p>`}${more}</section>`;
  });
  return html`<div data-part="year-titles" class="[columns:3_290px] gap-4">${months}</div>`;
}

const weighs = ({ headline, from, to }: HourEntry): boolean => headline || to > from;
