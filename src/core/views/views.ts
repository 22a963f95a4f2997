/**
 * The views of the calendar: what the address of each names, and which stand beside each other as tabs. A day is an
 * epoch day; a view of a month is at any day of it. What a view shows is in `src/components/views/`, one folder each.
 */
import { type EpochDay, isoDay, isoMonth, firstDayOfMonth, monthNumberOf, parseIsoDay, parseIsoMonth, ymdOf } from '../day/day';

/** What is declared of a view. */
export interface View {
  /** what its address names: `/month/2027-03`, `/list/2027-03-17` */
  at: 'month' | 'day';
  /** stands among the tabs, and may be what the site begins with */
  tab: boolean;
  /** its address without a day is a page of its own: what is on from today */
  rolls: boolean;
}

/** In the order of the tabs. */
export const VIEWS = {
  month: { at: 'month', tab: true, rolls: false },
  list: { at: 'day', tab: true, rolls: true },
  map: { at: 'day', tab: true, rolls: true },
  day: { at: 'day', tab: false, rolls: false },
} as const satisfies Record<string, View>;

/** The name of a view, as its address begins. */
export type ViewName = keyof typeof VIEWS;
/** A view that stands among the tabs. */
export type TabName = { [Name in ViewName]: (typeof VIEWS)[Name]['tab'] extends true ? Name : never }[ViewName];

/** The names of all views, in the order of the tabs. */
export const VIEW_NAMES = Object.keys(VIEWS) as ViewName[];
/** The names of those that stand among the tabs. */
export const TAB_NAMES = VIEW_NAMES.filter((name): name is TabName => VIEWS[name].tab);

/** Is this the name of a view? */
export const isViewName = (text: string): text is ViewName => Object.hasOwn(VIEWS, text);

/** Views reach over these years; outside there is nothing, and robots would walk for ever. */
export const inReach = (year: number): boolean => year >= 1990 && year <= 2100;

/** The address of a view at a day, without the site's, a language's, or what is chosen. */
export function viewPath(view: ViewName, day: EpochDay): string {
  return `/${view}/${VIEWS[view].at === 'month' ? isoMonth(monthNumberOf(day)) : isoDay(day)}`;
}

/** The day that an address names: today where it names none, the first of a month; undefined where there is no such day or view. */
export function readViewAddress(view: string, at: string | undefined, today: EpochDay): { view: ViewName; day: EpochDay } | undefined {
  if (!isViewName(view)) return undefined;
  if (at === undefined) return { view, day: today };
  const month = VIEWS[view].at === 'month' ? parseIsoMonth(at) : undefined;
  const day = VIEWS[view].at === 'month' ? (month === undefined ? undefined : firstDayOfMonth(month)) : parseIsoDay(at);
  return day === undefined || !inReach(ymdOf(day).year) ? undefined : { view, day };
}

/** Is this what the view shows now: today's day, or the month that today is in? */
export function isCurrent(view: ViewName, day: EpochDay, today: EpochDay): boolean {
  return VIEWS[view].at === 'month' ? monthNumberOf(day) === monthNumberOf(today) : day === today;
}
