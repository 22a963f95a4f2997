import { describe, expect, it } from 'vitest';
import { dayOf } from '@/core/day/day';
import { canonicalOf } from './canonical-url';
import type { ViewName } from '@/core/views/views';
import { readFilters } from '@/core/filters/filters';

const today = dayOf(2027, 3, 17);
const at = (view: ViewName, day: number, query = '', firstView: ViewName = 'month'): string =>
  canonicalOf({ view, day, today, filters: readFilters(new URLSearchParams(query)) }, { firstView, firstWeekday: 0 });

describe('the one address of a view', () => {
  it('is the site’s own for what its first page shows, whichever that is', () => {
    expect([at('month', today), at('month', dayOf(2027, 3, 1)), at('list', today, '', 'list'), at('map', today, '', 'map')]).toEqual([
      '/',
      '/',
      '/',
      '/',
    ]);
    expect([at('month', today, '', 'list'), at('list', today), at('map', today)]).toEqual(['/month/2027-03', '/list', '/map']);
    expect([at('week', today), at('year', today), at('week', today, '', 'week')]).toEqual(['/week/2027-W11', '/year/2027', '/']);
  });
  it('keeps one kind, and leaves what only narrows', () => {
    expect(at('list', today, 'kind=music')).toBe('/list?kind=music');
    expect(at('month', dayOf(2027, 5, 2), 'kind=music')).toBe('/month/2027-05?kind=music');
    for (const query of ['kind=music,walks', 'kind=music&free=1', 'place=Gannet+Bay', 'words=choir', 'tag=kids', 'kind=music&words=x'])
      expect(at('list', today + 1, query), query).toBe('/list/2027-03-18');
  });
});
