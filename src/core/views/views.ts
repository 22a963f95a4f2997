/**
 * The views of the calendar: what the address of each names, and which stand beside each other as tabs. A day is an
 * epoch day; a view of a month is at any day of it. What a view shows is in `src/components/views/`, one folder each.
 */
import {
  dayOf,
  type EpochDay,
  firstDayOfMonth,
  isoDay,
  isoMonth,
  monthNumberOf,
  parseIsoDay,
  parseIsoMonth,
  type Weekday,
  weekStart,
  ymdOf,
} from '../day/day';
import { isoWeekName, parseIsoWeek } from '../day/week';

/** What an address names: `/month/2027-03`, `/week/2027-W11`, `/year/2027`, `/list/2027-03-17`. */
export type ViewSpan = 'day' | 'week' | 'month' | 'year';

/** What is declared of a view. */
export interface View {
  at: ViewSpan;
  /** its address without a day is a page of its own: what is on from today */
  rolls: boolean;
  /** what its address may choose beside the filters, and the words for it; without one it is as it is usually */
  choices: Readonly<Record<string, readonly string[]>>;
}

/** In the order in which their tabs stand until a publisher says otherwise. */
export const VIEWS = {
  month: { at: 'month', rolls: false, choices: {} },
  week: { at: 'week', rolls: false, choices: { days: ['work', 'all'] } },
  day: { at: 'day', rolls: false, choices: { as: ['list'] } },
  list: { at: 'day', rolls: true, choices: {} },
  map: { at: 'day', rolls: true, choices: {} },
  places: { at: 'day', rolls: false, choices: { rows: ['area', 'kind', 'organizer'], across: ['week'] } },
  'half-year': { at: 'month', rolls: false, choices: { as: ['titles'] } },
  year: { at: 'year', rolls: false, choices: { as: ['titles'] } },
} as const satisfies Record<string, View>;

/** The name of a view, as its address begins. */
export type ViewName = keyof typeof VIEWS;

/** The names of all views, in that order. */
export const VIEW_NAMES = Object.keys(VIEWS) as ViewName[];

/** Is this the name of a view? */
export const isViewName = (text: string): text is ViewName => Object.hasOwn(VIEWS, text);

/** Views reach over these years; outside there is nothing, and robots would walk for ever. */
export const inReach = (year: number): boolean => year >= 1990 && year <= 2100;

/** How the address of each span is written and read. Days of weeks and longer are the first of theirs. */
const ADDRESSES: Record<
  ViewSpan,
  { write: (day: EpochDay, firstWeekday: Weekday) => string; read: (text: string, firstWeekday: Weekday) => EpochDay | undefined }
> = {
  day: { write: isoDay, read: parseIsoDay },
  week: {
    write: isoWeekName,
    read: (text, firstWeekday) => {
      const day = parseIsoDay(text);
      return day === undefined ? parseIsoWeek(text, firstWeekday) : weekStart(day, firstWeekday);
    },
  },
  month: {
    write: (day) => isoMonth(monthNumberOf(day)),
    read: (text) => {
      const month = parseIsoMonth(text);
      return month === undefined ? undefined : firstDayOfMonth(month);
    },
  },
  year: {
    write: (day) => String(ymdOf(day).year),
    read: (text) => (/^\d{4}$/.test(text) ? dayOf(Number(text), 1, 1) : undefined),
  },
};

/** The address of a view at a day, without the site's, a language's, or what is chosen. */
export function viewPath(view: ViewName, day: EpochDay, firstWeekday: Weekday): string {
  return `/${view}/${ADDRESSES[VIEWS[view].at].write(day, firstWeekday)}`;
}

/** The last day that a view at this day shows; `day` is the first of it. */
export function viewLast(view: ViewName, day: EpochDay, firstWeekday: Weekday): EpochDay {
  if (view === 'half-year') return firstDayOfMonth(monthNumberOf(day) + 6) - 1;
  const at: ViewSpan = VIEWS[view].at;
  if (at === 'week') return weekStart(day, firstWeekday) + 6;
  if (at === 'month') return firstDayOfMonth(monthNumberOf(day) + 1) - 1;
  return at === 'year' ? dayOf(ymdOf(day).year, 12, 31) : day;
}

/** What is asked of an address. */
export interface AddressInput {
  view: string;
  /** what stands after it */
  at: string | undefined;
  today: EpochDay;
  firstWeekday: Weekday;
}

/** The day that an address names: today where it names none, the first of a week, month or year; undefined where there is no such day or view. */
export function readViewAddress({ view, at, today, firstWeekday }: AddressInput): { view: ViewName; day: EpochDay } | undefined {
  if (!isViewName(view)) return undefined;
  if (at === undefined) return { view, day: today };
  const day = ADDRESSES[VIEWS[view].at].read(at, firstWeekday);
  return day === undefined || !inReach(ymdOf(day).year) ? undefined : { view, day };
}

/**
 * A view's own choices as an address has them, in one order and without what it does not know: `rows=kind&across=week`, or nothing.
 * @param changed puts others in their place; an empty one takes it away
 */
export function viewChoices(view: ViewName, query: URLSearchParams, changed: Readonly<Record<string, string>> = {}): string {
  const own = new URLSearchParams();
  for (const [name, words] of Object.entries<readonly string[]>(VIEWS[view].choices)) {
    const value = changed[name] ?? query.get(name) ?? '';
    if (words.includes(value)) own.set(name, value);
  }
  return own.toString();
}

/** More parts behind a query, which may be empty: `?kind=music` and `rows=kind`. */
export const withParts = (query: string, ...parts: string[]): string =>
  parts.filter(Boolean).reduce((all, part) => `${all}${all ? '&' : '?'}${part}`, query);

/** Is this what the view shows now: today's day, or the week, month or year that today is in? */
export function isCurrent(view: ViewName, day: EpochDay, today: EpochDay, firstWeekday: Weekday): boolean {
  const { write } = ADDRESSES[VIEWS[view].at];
  return write(day, firstWeekday) === write(today, firstWeekday);
}
