/** The month sheet as HTML text: one string, since hundreds of small components would cost more than the query. */
import { type DayMarks, isRedDay } from '@/core/holidays/day-marks';
import type { SecondCalendar } from '@/core/phrase/second-calendar';
import { hoursInCellHtml, type MarkPictures, marksHtml, secondHtml } from './marks-of-day';
import { html, type Html, NOTHING } from './html';
import { type EpochDay, weekdayOf, ymdOf } from '@/core/day/day';
import { type DayWords, sayDay, sayTime, shortWeekdayName, type Style, weekdayName } from '@/core/phrase/format';
import type { Band, MonthSheet, SheetDate, SheetDay } from '@/core/sheet/month';
import { paperLine } from '@/core/sheet/paper';
import { type Place, phaseOn, sunOn } from '@/core/sky/sky';
import { type DateGlance, dateIn, type EffectiveDate } from '@/core/dates/effective-date';
import type { Language } from '@/core/phrase/language';
import type { ReferenceData } from '@/server/reference/read';
import { inkClass, markHtml } from './marks';
import type { Reader } from './reader';
import { zoneWords } from './zone-words';

/** A date on the sheet. `of` is asked of those that are shown. */
export interface SheetEntry extends SheetDate {
  readonly of: EffectiveDate;
}

export interface MonthInput {
  sheet: MonthSheet<SheetEntry>;
  reference: ReferenceData;
  reader: Reader;
  style: Style;
  place: Place;
  today: EpochDay;
  chosen: EpochDay;
  dayMarks: DayMarks;
  markPictures?: MarkPictures | undefined;
  /** another calendar that stands beside the numerals */
  secondCalendar?: SecondCalendar | '' | undefined;
  firstWeekday: number;
  /** a day's own page */
  dayHref: (day: EpochDay) => string;
  /** on a phone: the day's dates under the sheet */
  pickHref: (day: EpochDay) => string;
  query: string;
  /** folded dates come along for paper */
  onPaper: boolean;
  /** the dates that touch a day, in order */
  onDay: (day: EpochDay) => Pick<EffectiveDate, 'categoryId'>[];
}

export function toSheetEntry(of: EffectiveDate): SheetEntry {
  return {
    of,
    from: of.startDay,
    to: of.lastDay,
    minute: of.startMinute,
    headline: of.headline,
    key: `${of.title}|${of.listing}|${of.date}`,
  };
}

/** Dates in their order, each looked at whole only where it is shown, in the reader's language. */
export const toSheetEntries = (dates: readonly DateGlance[], language: Language): SheetEntry[] =>
  dates.map((date, key) => new Glimpse(date, key, language));

/** A date of which only its place on a sheet is known until it is shown. */
export class Glimpse implements SheetEntry {
  readonly from: EpochDay;
  readonly to: EpochDay;
  readonly minute: number | null;
  readonly headline: boolean;
  #of: EffectiveDate | undefined;
  constructor(
    private readonly date: DateGlance,
    readonly key: number,
    private readonly language: Language,
  ) {
    this.from = date.startDay;
    this.to = date.lastDay;
    this.minute = date.startMinute;
    this.headline = date.headline;
  }
  get of(): EffectiveDate {
    this.#of ??= dateIn(this.date.whole(), this.language);
    return this.#of;
  }
}

export function dateHref(date: Pick<EffectiveDate, 'listing' | 'date'>, { to }: Reader): string {
  return to(`/what/${date.listing}/${date.date}`);
}

export const GONE: ReadonlySet<string> = new Set(['cancelled', 'postponed']);
export const shownTitle = (of: EffectiveDate): string => of.shortTitle || of.title;
function state(of: EffectiveDate, { words: { state: w } }: Reader): string {
  if (of.eventStatus === 'cancelled') return ` (${w.cancelled()})`;
  if (of.eventStatus === 'postponed') return ` (${w.postponed()})`;
  return of.moved ? ` (${w.moved()})` : '';
}

/** What is said of a date that does not go ahead as it was, for whoever does not see how it is written. */
export function stateWords(of: EffectiveDate, reader: Reader): Html {
  const said = state(of, reader);
  return said ? html`<span class="hidden-words">${said}</span>` : NOTHING;
}

export function monthHtml(input: MonthInput): Html {
  const { sheet, firstWeekday, reader, style } = input;
  const { month: w } = reader.words;
  const heads = [0, 1, 2, 3, 4, 5, 6].map((i) => {
    const weekday = (firstWeekday + i) % 7;
    const name = weekdayName(weekday, style);
    return html`<th scope="col"${weekday === 6 ? html` class="sun"` : ''}><abbr title="${name}" class="no-underline"><span class="full">${shortWeekdayName(weekday, style)}</span><span class="letter" aria-hidden="true">${name.charAt(0).toUpperCase()}</span></abbr></th>`;
  });
  const weeks = sheet.weeks.map((week) => {
    const days = week.days.map((day, column) =>
      dayHtml(
        day,
        week.bands.filter((b) => b.fromColumn === column),
        input,
      ),
    );
    return html`<tr>${gutterHtml(week.start, week.isoWeek, input)}${days}</tr>`;
  });
  return html`<table class="month" data-part="month-sheet" style="--paper-line:${paperLine(sheet, input.onPaper)}px"><caption class="hidden-words">${w.caption({ n: countOf(sheet) })}</caption><colgroup><col class="gutter"><col span="7"></colgroup><thead><tr><th><span class="hidden-words">${w.week()}</span></th>${heads}</tr></thead><tbody>${weeks}</tbody></table>`;
}

/** Its dates, counted by day. */
function countOf(sheet: MonthSheet<SheetEntry>): number {
  return sheet.weeks
    .flatMap((w) => w.days)
    .filter((d) => d.inMonth)
    .reduce((n, d) => n + d.count, 0);
}

const MOONS = {
  new: ['●', 'new'],
  'first-quarter': ['◐', 'firstQuarter'],
  full: ['○', 'full'],
  'last-quarter': ['◑', 'lastQuarter'],
} as const;

function gutterHtml(start: EpochDay, isoWeek: number, { place, style, reader }: MonthInput): Html {
  const { month: w } = reader.words;
  let moon = NOTHING;
  for (let day = start; day < start + 7; day++) {
    const phase = phaseOn(day, place.zone);
    if (phase)
      moon = html`<span class="moon"><span aria-hidden="true">${MOONS[phase][0]}</span> ${ymdOf(day).day} ${w[MOONS[phase][1]]()}</span>`;
  }
  const sun = sunOn(start, place);
  const suns =
    sun.kind === 'rises'
      ? html`<span class="suns" title="${w.suns()}">↑ ${sayTime(sun.rise, style)}<br>↓ ${sayTime(sun.set, style)}</span>`
      : '';
  return html`<th scope="row"><span class="hidden-words">${w.week()} </span>${isoWeek}${moon}${suns}</th>`;
}

function dayHtml(day: SheetDay<SheetEntry>, bands: Band<SheetEntry>[], input: MonthInput): Html {
  const { style, today, chosen, dayMarks, reader } = input;
  const { month: w } = reader.words;
  const classes = [
    day.inMonth ? '' : 'out',
    day.day === today ? 'today forced-colors:border-t-4 forced-colors:border-t-[Highlight]' : '',
    day.day < today ? 'past' : '',
    day.day === chosen ? 'chosen forced-colors:outline-2 forced-colors:-outline-offset-2 forced-colors:outline-[Highlight]' : '',
    isRedDay(dayMarks, day.day) ? 'redday' : '',
  ].filter(Boolean);
  const words: DayWords = { weekday: 'long' };
  const label = (day.day === today ? w.dayToday : w.day)({ day: sayDay(day.day, style, words), n: day.count });
  // A phone's numeral chooses the day in place: its dates stand under the sheet. Elsewhere it opens the day.
  const here = day.day === today ? html` aria-current="date"` : day.day === chosen ? html` aria-current="true"` : '';
  const pick = html`<a class="num hidden max-[700px]:inline-block" href="${input.pickHref(day.day)}" aria-label="${label}"${here}>${ymdOf(day.day).day}</a>`;
  const numeral = html`<a class="num max-[700px]:hidden" href="${input.dayHref(day.day)}" aria-label="${label}"${day.day === today ? html` aria-current="date"` : ''}>${ymdOf(day.day).day}</a>`;
  const rowBegins = weekdayOf(input.sheet.weeks[0]?.start ?? day.day);
  const name = html`${secondHtml(day.day, input)}${marksHtml(dayMarks, day.day, { style, rowBegins, oneLine: day.lanes > 0, pictures: input.markPictures, hoursApart: true })}`;
  const count =
    day.count > 1
      ? html`<span class="ml-auto pr-0.5 text-[11.5px] text-ink-3 max-[700px]:hidden" aria-hidden="true">${day.count}</span>`
      : '';
  const lanes = day.lanes ? html`<span class="lanes" style="--lanes:${day.lanes}"></span>` : '';
  const lines = day.lines.map(({ date, lines: n }) => entryHtml(date.of, n, input));
  const dots = phoneMarks(day, input);
  const dayPage = input.dayHref(day.day);
  const more = day.folded.length
    ? html`<a class="more${input.onPaper ? ' print:hidden' : ''}" href="${dayPage}">${w.more({ n: day.folded.length })}</a>`
    : '';
  const paper =
    input.onPaper && day.folded.length
      ? html`<div class="hidden print:block">${day.folded.map((date) => entryHtml(date.of, 1, input))}</div>`
      : '';
  return html`<td class="${classes.join(' ')}"><div class="flex items-baseline gap-1.25 min-w-0 max-[700px]:block">${numeral}${pick}${name}${count}</div>${lanes}${hoursInCellHtml(dayMarks, day.day, style)}<div class="marks">${bands.map((b) => bandHtml(b, input))}${lines}</div>${dots}${more}${paper}</td>`;
}

/** On a phone a day is its numeral and marks; the numeral is the link, and the dates stand under the sheet. */
const PHONE_MARKS = 4;

function phoneMarks(day: SheetDay<SheetEntry>, { reference, onDay }: MonthInput): Html {
  const dates = onDay(day.day);
  if (!dates.length) return NOTHING;
  const marks = dates.slice(0, PHONE_MARKS).map((of) => markHtml(reference.category.get(of.categoryId)));
  return html`<span class="dots" aria-hidden="true">${marks}${dates.length > PHONE_MARKS ? '+' : ''}</span>`;
}

function bandHtml(
  { date: { of }, lane, fromColumn, toColumn, opensBefore, opensAfter }: Band<SheetEntry>,
  { reference, reader }: MonthInput,
): Html {
  const category = reference.category.get(of.categoryId);
  const classes = [
    'band',
    category ? inkClass(category) : '',
    opensBefore ? 'before' : '',
    opensAfter ? 'after' : '',
    of.headline ? 'head' : '',
    GONE.has(of.eventStatus) ? 'off' : '',
  ];
  return html`<a class="${classes.filter(Boolean).join(' ')}" style="--lane:${lane};--span:${toColumn - fromColumn + 1}" href="${dateHref(of, reader)}">${shownTitle(of)}${stateWords(of, reader)}</a>`;
}

/** A date's line in a day: two lines while the day has room, one when it is full. */
export function entryHtml(
  of: EffectiveDate,
  lines: 1 | 2,
  { reference, reader, style, place }: Pick<MonthInput, 'reference' | 'reader' | 'style'> & { place: Pick<Place, 'zone'> },
): Html {
  const classes = `entry${lines === 2 ? ' two' : ''}${of.headline ? ' head' : ''}${of.moved ? ' moved' : ''}${GONE.has(of.eventStatus) ? ' off' : ''}`;
  const time = of.startMinute === null ? '' : html`<span class="t">${sayTime(of.startMinute, style)}${zoneWords(of, place.zone)}</span>`;
  return html`<a class="${classes}" href="${dateHref(of, reader)}">${markHtml(reference.category.get(of.categoryId), true)}<span class="w">${time}${shownTitle(of)}${stateWords(of, reader)}</span></a>`;
}
