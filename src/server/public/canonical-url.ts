/** The one address of what a view shows: a page that is reached by several has one that search engines keep. */
import type { EpochDay } from '@/core/day/day';
import type { SiteSettings } from '../site/settings';
import { type Filters, filterParts } from '@/core/filters/filters';
import { isCurrent, type ViewName, VIEWS, viewPath } from '@/core/views/views';

/** What a view shows. */
export interface Shown {
  view: ViewName;
  /** the day it begins with, or any day of its month */
  day: EpochDay;
  today: EpochDay;
  filters: Filters;
}

/** The address without the site's own in front. One kind alone is a page of its own; other choices are parts of the whole. */
export function canonicalOf(
  { view, day, today, filters }: Shown,
  { firstView, firstWeekday }: Pick<SiteSettings, 'firstView' | 'firstWeekday'>,
): string {
  const [one, ...others] = filterParts(filters);
  const kind = one?.name === 'kind' && !others.length ? `?kind=${encodeURIComponent(one.value)}` : '';
  const current = isCurrent(view, day, today, firstWeekday);
  if (current && view === firstView) return `/${kind}`;
  return `${current && VIEWS[view].rolls ? `/${view}` : viewPath(view, day, firstWeekday)}${kind}`;
}
