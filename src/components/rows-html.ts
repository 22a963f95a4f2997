/** Rows of a day or a week as HTML text: places, kinds or organizers down, hours or days across. */
import { type DayMarks, isRedDay } from '@/core/holidays/day-marks';
import { html, type Html, NOTHING } from './html';
import { type EpochDay, weekdayOf, ymdOf } from '@/core/day/day';
import { sayDay, sayTime, shortWeekdayName, type Style } from '@/core/phrase/format';
import type { RowHours, RowItem, SheetRow } from '@/core/sheet/rows';
import type { ReferenceData } from '@/server/reference/read';
import type { HourEntry } from './hours-html';
import { inkClass, markHtml } from './marks';
import { dateHref, entryHtml, GONE, shownTitle, stateWords } from './month-html';
import type { Reader } from './reader';
import { zoneWords } from './zone-words';

/** What a row is called, and where that leads. */
export interface RowHead {
  name: string;
  /** under it, smaller */
  under: string;
  href: string | undefined;
}

export interface RowsHtmlInput {
  heads: ReadonlyMap<string, RowHead>;
  reference: ReferenceData;
  reader: Reader;
  style: Style;
  zone: string;
  today: EpochDay;
}

/** A lane's height in pixels: words above, the rule below. */
const LANE = 45;

const headHtml = (row: RowHead | undefined): Html => {
  const name = html`<span class="font-serif font-semibold text-[15.5px] leading-[19px] wrap-anywhere">${row?.name ?? ''}</span>`;
  const linked = row?.href ? html`<a class="no-underline hover:underline" href="${row.href}">${name}</a>` : name;
  return html`${linked}${row?.under ? html`<span class="block font-sans font-normal text-[12px] text-ink-2 wrap-anywhere">${row.under}</span>` : ''}`;
};

/** One day: hours across. */
export function dayRowsHtml(rows: readonly SheetRow<HourEntry>[], hours: RowHours, input: RowsHtmlInput): Html {
  const { style, reader } = input;
  const width = hours.to - hours.from;
  const share = (minutes: number): string => `${Math.round((minutes / width) * 1e4) / 100}%`;
  const count = width / 60;
  // At the narrowest every second hour has its number.
  const marks = Array.from({ length: count - 1 }, (_, i) => hours.from + (i + 1) * 60).map(
    (minute, i) =>
      html`<span class="absolute -translate-x-1/2 ${i % 2 ? 'max-[1100px]:hidden' : ''}" style="left:${share(minute - hours.from)}">${sayTime(minute, style).replace(':00', '')}</span>`,
  );
  const body = rows.map(
    ({ key, items, lanes }) =>
      html`<tr><th scope="row" class="align-top text-left font-normal px-2.5 pt-2 pb-2 border-b border-b-rule w-50">${headHtml(input.heads.get(key))}</th><td class="p-0 border-b border-b-rule border-l border-l-rule align-top [background-image:linear-gradient(to_right,var(--rule)_1px,transparent_1px)] [background-size:calc(100%/var(--hours))_100%]" style="--hours:${count}"><ol class="relative list-none m-0 p-0" style="height:${lanes * LANE + 8}px">${items.map((item) => itemHtml(item, { hours, share, input }))}</ol></td></tr>`,
  );
  return html`<table data-part="rows" class="bg-sheet w-full table-fixed border-separate border-spacing-0 border-b-2 border-b-rule-strong text-[12.5px]"><thead><tr><th scope="col" class="w-50 border-b border-b-rule-strong"><span class="hidden-words">${reader.words.places.where()}</span></th><th scope="col" class="relative h-7 font-normal text-ink-2 border-b border-b-rule-strong"><span class="hidden-words">${reader.words.places.hours()}</span><span class="absolute inset-0 pt-1.5" aria-hidden="true">${marks}</span></th></tr></thead><tbody>${body}</tbody></table>`;
}

interface ItemContext {
  hours: RowHours;
  share: (minutes: number) => string;
  input: RowsHtmlInput;
}

function itemHtml(
  { date: { of }, from, to, left, right, lane, opensBefore, opensAfter }: RowItem<HourEntry>,
  { hours, share, input }: ItemContext,
): Html {
  const { reference, reader, style, zone } = input;
  const { hours: w } = reader.words;
  const category = reference.category.get(of.categoryId);
  const start = Math.min(left, from);
  const end = Math.max(right, to);
  const inside = (minutes: number): string => `${Math.round((minutes / Math.max(1, end - start)) * 1e4) / 100}%`;
  const time = of.startMinute === null ? w.allDay() : `${sayTime(of.startMinute, style)}${zoneWords(of, zone)}`;
  const off = GONE.has(of.eventStatus) ? ' line-through text-ink-2' : '';
  const posts = `${opensBefore ? '' : ' border-l-2'}${opensAfter || to === from ? '' : ' border-r-2'}`;
  return html`<li class="absolute m-0 h-[45px]" style="left:${share(start - hours.from)};width:${share(end - start)};top:${lane * LANE + 3}px"><a class="absolute inset-y-0 right-0 block no-underline hover:underline overflow-hidden leading-[15px] pl-1.5" style="left:${inside(left - start)}" href="${dateHref(of, reader)}"><span class="block truncate ${of.moved ? 'text-red font-bold' : 'text-ink-2'}">${markHtml(category, true)} ${time}</span><span class="block truncate ${of.headline ? 'font-bold text-[13.5px]' : 'font-semibold'}${off}">${shownTitle(of)}${stateWords(of, reader)}</span></a><i class="absolute bottom-1 h-2 border-b-2${posts} pointer-events-none ${category ? inkClass(category) : ''} [border-color:light-dark(var(--ml),var(--md))]" style="left:${inside(from - start)};width:${inside(to - from)}"></i></li>`;
}

/** A week: days across, each cell a few dates. */
export function weekRowsHtml(
  rows: readonly { key: string; dates: readonly HourEntry[] }[],
  days: readonly EpochDay[],
  { most, dayHref, dayMarks, ...input }: RowsHtmlInput & { most: number; dayHref: (day: EpochDay) => string; dayMarks: DayMarks },
): Html {
  const { style, reader, reference, today, zone } = input;
  const place = { zone };
  const heads = days.map((day) => {
    const red = isRedDay(dayMarks, day) ? ' text-red' : '';
    const edge = day === today ? ' shadow-[inset_0_3px_var(--red)]' : '';
    return html`<th scope="col" class="text-left font-normal border-l border-l-rule border-b border-b-rule-strong px-1.5 py-1${edge}"><a class="no-underline hover:underline${red}" href="${dayHref(day)}" aria-label="${sayDay(day, style, { weekday: 'long' })}"><span class="font-serif lining-nums text-[17px]">${ymdOf(day).day}</span> ${shortWeekdayName(weekdayOf(day), style)}</a></th>`;
  });
  const body = rows.map(({ key, dates }) => {
    const cells = days.map((day) => {
      const here = dates.filter((date) => date.from <= day && date.to >= day);
      const more =
        here.length > most
          ? html`<a class="text-tide leading-[24px]" href="${dayHref(day)}">${reader.words.month.more({ n: here.length - most })}</a>`
          : NOTHING;
      return html`<td class="align-top border-l border-l-rule border-b border-b-rule px-1.5 py-1">${here.slice(0, most).map((date) => entryHtml(date.of, 2, { reference, reader, style, place }))}${more}</td>`;
    });
    return html`<tr><th scope="row" class="align-top text-left font-normal px-2.5 pt-2 pb-2 border-b border-b-rule">${headHtml(input.heads.get(key))}</th>${cells}</tr>`;
  });
  return html`<table data-part="rows" class="bg-sheet w-full table-fixed border-separate border-spacing-0 border-b-2 border-b-rule-strong text-[12.5px]"><thead><tr><th scope="col" class="w-42 border-b border-b-rule-strong"><span class="hidden-words">${reader.words.places.where()}</span></th>${heads}</tr></thead><tbody>${body}</tbody></table>`;
}

/** On a phone: each row's dates under its name. */
export function phoneRowsHtml(rows: readonly { key: string; dates: readonly HourEntry[] }[], input: RowsHtmlInput): Html {
  const { reference, reader, style, zone } = input;
  return html`${rows.map(
    ({ key, dates }) =>
      html`<section class="bg-sheet px-3.5 py-2 border-b border-b-rule-strong"><h2 class="text-[16px] m-0">${headHtml(input.heads.get(key))}</h2><ol class="list-none m-0 mt-1 p-0">${dates.map((date) => html`<li class="m-0">${entryHtml(date.of, 2, { reference, reader, style, place: { zone } })}</li>`)}</ol></section>`,
  )}`;
}
