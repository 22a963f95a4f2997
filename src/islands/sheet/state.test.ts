import { describe, expect, it } from 'vitest';
import { isoDay, type MonthNumber, parseIsoDay, parseIsoMonth } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { byDay, type Hold, inMonth, monthFor, queryOf, sayDayCell, sayHold, sayMonths, spanOf, walk } from './state';
import { newContent } from './NewListing';

const d = (text: string): number => parseIsoDay(text) as number;
const m = (text: string): MonthNumber => parseIsoMonth(text) as MonthNumber;
const STYLE = { date: 'day-month', hours: '24' } as const;
const date = (part: Partial<DeskDate> = {}): DeskDate => ({
  listingId: 'a',
  original: '2027-04-06T19:00',
  title: 'Choir',
  stage: 'published',
  edited: false,
  startDay: d('2027-04-06'),
  startMinute: 1140,
  endDay: null,
  endMinute: null,
  lastDay: d('2027-04-06'),
  eventStatus: 'going-ahead',
  moved: false,
  headline: false,
  repeats: true,
  categoryId: null,
  venueIds: [],
  ...part,
});

describe('walking by keys', () => {
  it('goes across on the month, down on half a year, and by months at the same day or the last', () => {
    const go = (view: 'month' | 'half-year', keys: string): string =>
      isoDay(keys.split(' ').reduce((day, key) => walk(view, day, key, 0) ?? 0, d('2027-03-31')));
    expect(go('month', 'ArrowRight')).toBe('2027-04-01');
    expect(go('month', 'ArrowUp')).toBe('2027-03-24');
    expect(go('month', 'PageDown')).toBe('2027-04-30');
    expect(go('month', 'Home')).toBe('2027-03-29');
    expect(go('half-year', 'ArrowDown')).toBe('2027-04-01');
    expect(go('half-year', 'ArrowLeft')).toBe('2027-02-28');
    expect(go('half-year', 'ArrowRight ArrowUp Home')).toBe('2027-04-01');
    expect(walk('month', 0, 'x', 0)).toBeUndefined();
    expect(isoDay(inMonth(d('2028-02-29'), 12))).toBe('2029-02-28');
  });
  it('takes the sheet along', () => {
    expect(monthFor('month', m('2027-03'), d('2027-05-01'))).toBe(m('2027-05'));
    expect(monthFor('half-year', m('2027-03'), d('2027-08-31'))).toBe(m('2027-03'));
    expect(monthFor('half-year', m('2027-03'), d('2027-09-01'))).toBe(m('2027-04'));
    expect(monthFor('half-year', m('2027-03'), d('2027-02-01'))).toBe(m('2027-02'));
  });
});

describe('what a sheet says', () => {
  const hold = (kind: Hold['kind'], of: DeskDate | undefined, from: string): Hold => ({ kind, date: of, from: d(from), byPointer: false });
  it('of what is under way', () => {
    expect(sayHold(hold('move', date(), '2027-04-06'), d('2027-04-08'), STYLE)).toBe('“Choir” to Thursday 8 April, was a Tuesday');
    expect(sayHold(hold('move', date(), '2027-04-06'), d('2027-04-13'), STYLE)).toBe('“Choir” to Tuesday 13 April');
    expect(sayHold(hold('end', date(), '2027-04-06'), d('2027-04-07'), STYLE)).toBe('“Choir” ends Wednesday 7 April');
    expect(sayHold(hold('span', undefined, '2027-04-09'), d('2027-04-07'), STYLE)).toContain('Wednesday 7 April – Friday 9 April');
  });
  it('of a day, to those who hear it', () => {
    const many = Array.from({ length: 8 }, (_, i) => date({ title: `T${i}` }));
    const off = date({ stage: 'draft', eventStatus: 'cancelled', moved: true, startMinute: null });
    expect(sayDayCell(d('2027-04-06'), [off], ['Easter'], STYLE)).toBe('Tuesday 6 April; Easter; Choir, draft, cancelled, moved here');
    expect(sayDayCell(d('2027-04-06'), many, [], STYLE)).toContain('19:00 T5; and 2 more');
    expect(sayDayCell(d('2027-04-06'), [], [], STYLE)).toBe('Tuesday 6 April; nothing');
  });
  it('of its months and in its address', () => {
    expect(sayMonths('month', m('2027-03'))).toBe('March 2027');
    expect(sayMonths('half-year', m('2027-09'))).toBe('September 2027 – February 2028');
    expect(queryOf({ stages: ['draft', 'in-review'], kind: 'music', venue: '', words: 'sea shanty' })).toBe(
      '?stage=draft,in-review&kind=music&words=sea+shanty',
    );
    expect(queryOf({ stages: [], kind: '', venue: '', words: '' })).toBe('');
  });
});

describe('days and new listings', () => {
  it('a date of several days is on each of them, within the sheet', () => {
    const on = byDay([date({ lastDay: d('2027-04-09') })], { from: d('2027-04-07'), to: d('2027-04-30') });
    expect([...on.keys()].map(isoDay)).toEqual(['2027-04-07', '2027-04-08', '2027-04-09']);
    expect(spanOf('half-year', m('2027-03'), 0)).toEqual({ from: d('2027-03-01'), to: d('2027-08-31') });
  });
  it('several days are one event or a date each, whole days or by the clock, over midnight too', () => {
    const make = (several: 'one' | 'each', start: number | null, end: number | null) =>
      newContent({ title: ' Fair ', from: d('2027-04-06'), to: d('2027-04-08'), several, start, end }, 'UTC').recurrence?.parts;
    expect(make('one', null, null)).toEqual([
      { start: '2027-04-06', length: { days: 3, minute: null }, rule: null, limit: { kind: 'open' } },
    ]);
    expect(make('each', 1380, 60)?.[0]).toMatchObject({
      start: '2027-04-06T23:00',
      length: { days: 1, minute: 60 },
      limit: { kind: 'count', count: 3 },
    });
    expect(make('one', 600, 960)?.[0]).toMatchObject({ start: '2027-04-06T10:00', length: { days: 2, minute: 960 }, rule: null });
    expect(make('each', null, null)?.[0]).toMatchObject({ length: { days: 1, minute: null } });
    expect(make('one', 600, null)?.[0]?.length).toBeNull();
  });
});
