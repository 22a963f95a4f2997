// @vitest-environment jsdom
import type { DayMark } from '@/core/holidays/day-marks';
import { render, screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { dayOf, monthNumberOf } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { inBrowser } from '../../../tests/support/component';
import type { GridProps } from './grid';
import { MonthGrid } from './MonthGrid';
import { byDay, keyOf } from './state';

inBrowser();
const day = (d: number): number => dayOf(2027, 3, d);
const date = (title: string, d: number, part: Partial<DeskDate> = {}): DeskDate => ({
  listingId: title,
  original: `2027-03-${String(d).padStart(2, '0')}T19:00`,
  title,
  startDay: day(d),
  startMinute: 1140,
  endDay: null,
  endMinute: null,
  lastDay: day(d),
  moved: false,
  eventStatus: 'going-ahead',
  headline: false,
  venueIds: [],
  stage: 'published',
  edited: false,
  repeats: false,
  categoryId: null,
  ...part,
});

function show(dates: DeskDate[], part: Partial<GridProps> = {}): void {
  render(
    <MonthGrid
      month={monthNumberOf(day(1))}
      dates={dates}
      on={byDay(dates, { from: day(1), to: day(31) })}
      looks={new Map()}
      dayMarks={new Map([[day(26), [{ name: 'Good Friday', red: true, begins: true }]]])}
      active={day(17)}
      drawn={null}
      chosen={null}
      lifted={null}
      today={day(17)}
      firstWeekday={6}
      style={{ date: 'day-month', hours: '24' }}
      cellId={(d) => `cell-${d}`}
      label={(d) => `day ${d - day(1) + 1}`}
      {...part}
    />,
  );
}
const cell = (d: number): HTMLElement => screen.getByRole('gridcell', { name: `day ${d}` });

describe('the Desk’s month', () => {
  it('has the week’s first day first, today and red-letter days marked, and one active cell', () => {
    show([]);
    expect(screen.getAllByRole('columnheader').map((h) => h.getAttribute('aria-label'))[0]).toBe('Sunday');
    expect(cell(17).classList.contains('today')).toBe(true);
    expect(cell(16).classList.contains('past')).toBe(true);
    expect(within(cell(26)).getByText('Good Friday')).toBeTruthy();
    expect(screen.getAllByRole('gridcell', { selected: true })).toEqual([cell(17)]);
  });

  it('has what the year says of a day, in red where it is a red-letter day, and where a span begins or a week does', () => {
    const span = (d: number): [number, DayMark[]] => [day(d), [{ name: 'School break', red: false, begins: d === 23 }]];
    show([], {
      dayMarks: new Map([[day(20), [{ name: 'Spring equinox', red: false, begins: true, minute: 1044 }]], ...[23, 24, 28].map(span)]),
    });
    expect(within(cell(20)).getByText('Spring equinox 17:24').className).not.toContain('text-red');
    expect([23, 24, 28].map((d) => within(cell(d)).queryByText('School break') !== null)).toEqual([true, false, true]);
  });

  it('has each date in its day, drafts and changes told apart, and those that fold counted', () => {
    const dates = [
      date('Choir', 9),
      date('Supper', 9, { stage: 'draft' }),
      date('Gale', 10, { eventStatus: 'cancelled' }),
      ...Array.from({ length: 12 }, (_, i) => date(`Full ${i}`, 20)),
    ];
    show(dates, { chosen: keyOf(dates[0] as DeskDate) });
    const line = (title: string): HTMLElement => screen.getByText(title, { exact: false }).closest('[data-key]') as HTMLElement;
    expect(cell(9).contains(line('Choir'))).toBe(true);
    expect(line('Choir').classList.contains('chosen')).toBe(true);
    expect(line('Supper').classList.contains('draft')).toBe(true);
    expect(line('Gale').classList.contains('off')).toBe(true);
    const shown = cell(20).querySelectorAll('[data-key]').length;
    expect(shown).toBeLessThan(12);
    expect(cell(20).textContent).toContain(String(12 - shown));
  });

  it('draws several days as one band in each week, and the days that are drawn', () => {
    show([date('Festival', 11, { lastDay: day(16), endDay: day(16) })], { drawn: { from: day(2), to: day(4) } });
    // From Thursday to Tuesday it lies in two weeks.
    expect(screen.getAllByText('Festival', { exact: false }).filter((e) => e.closest('[data-key]'))).toHaveLength(2);
    expect([1, 2, 4, 5].map((d) => cell(d).classList.contains('drawn'))).toEqual([false, true, true, false]);
  });
});
