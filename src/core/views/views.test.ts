import { describe, expect, it } from 'vitest';
import { dayOf } from '../day/day';
import { isCurrent, readViewAddress, VIEW_NAMES, viewChoices, viewPath, withParts } from './views';

const today = dayOf(2027, 3, 17);
const read = (view: string, at: string | undefined, firstWeekday = 0) => readViewAddress({ view, at, today, firstWeekday });

describe('addresses of views', () => {
  it.each(VIEW_NAMES)('%s is at a day, and its address leads back to it', (view) => {
    for (const firstWeekday of [0, 6])
      for (const day of [today, dayOf(1990, 1, 7), dayOf(2100, 12, 31), dayOf(2028, 2, 29)]) {
        const [, name, at] = viewPath(view, day, firstWeekday).split('/');
        const found = read(name ?? '', at, firstWeekday);
        expect(found?.view).toBe(view);
        expect(isCurrent(view, found?.day ?? 0, day, firstWeekday)).toBe(true);
      }
  });
  it('is at today where it names no day', () => {
    for (const view of VIEW_NAMES) expect(read(view, undefined)).toEqual({ view, day: today });
  });
  it('a day leads to its week, which begins when weeks begin', () => {
    expect(read('week', '2027-03-21')).toEqual(read('week', '2027-W11'));
    expect(read('week', '2027-03-21', 6)).toEqual({ view: 'week', day: dayOf(2027, 3, 21) });
    expect(viewPath('week', dayOf(2027, 3, 21), 6)).toBe('/week/2027-W12');
  });
  it.each([
    ['spiral', '2027-03-17'],
    ['month', '2027-03-17'],
    ['month', '2027-13'],
    ['list', '2027-03'],
    ['list', '2027-02-29'],
    ['day', '1989-12-31'],
    ['month', '2101-01'],
    ['week', '2027-W54'],
    ['week', '2027-02-29'],
    ['year', '99999'],
    ['year', '1989'],
    ['year', '2027-01'],
    ['half-year', '2027'],
    ['constructor', undefined],
    ['__proto__', undefined],
    ['list', ''],
  ])('/%s/%s is no view', (view, at) => {
    expect(read(view, at)).toBeUndefined();
  });
  it('says which shows today', () => {
    expect(isCurrent('month', dayOf(2027, 3, 1), today, 0)).toBe(true);
    expect(isCurrent('list', dayOf(2027, 3, 1), today, 0)).toBe(false);
    expect(isCurrent('day', today, today, 0)).toBe(true);
    expect(isCurrent('week', dayOf(2027, 3, 21), today, 0)).toBe(true);
    expect(isCurrent('week', dayOf(2027, 3, 21), today, 6)).toBe(false);
    expect(isCurrent('year', dayOf(2027, 12, 31), today, 0)).toBe(true);
  });
});

describe('a view’s own choices', () => {
  const choices = (view: Parameters<typeof viewChoices>[0], query: string, changed?: Record<string, string>): string =>
    viewChoices(view, new URLSearchParams(query), changed);

  it('are what it knows, in one order, whatever else an address has', () => {
    expect(choices('places', 'across=week&kind=music,walks&rows=kind&page=2')).toBe('rows=kind&across=week');
    expect(choices('places', 'rows=%3Cscript%3E&across=month&days=work')).toBe('');
    expect(choices('week', 'days=work&rows=kind')).toBe('days=work');
    expect(choices('month', 'rows=kind')).toBe('');
  });

  it('are changed one at a time', () => {
    expect(choices('places', 'rows=kind&across=week', { across: '' })).toBe('rows=kind');
    expect(choices('places', 'rows=kind', { rows: 'area', across: 'week' })).toBe('rows=area&across=week');
  });

  it('stand behind what is chosen', () => {
    expect(withParts('?kind=music,walks', 'rows=kind', '', 'page=2')).toBe('?kind=music,walks&rows=kind&page=2');
    expect([withParts('', 'rows=kind'), withParts('', ''), withParts('?free=1')]).toEqual(['?rows=kind', '', '?free=1']);
  });
});
