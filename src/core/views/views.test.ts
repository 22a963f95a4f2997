import { describe, expect, it } from 'vitest';
import { dayOf } from '../day/day';
import { isCurrent, readViewAddress, TAB_NAMES, VIEW_NAMES, viewPath } from './views';

const today = dayOf(2027, 3, 17);

describe('addresses of views', () => {
  it.each(VIEW_NAMES)('%s is at a day, and its address leads back to it', (view) => {
    for (const day of [today, dayOf(1990, 1, 1), dayOf(2100, 12, 31), dayOf(2028, 2, 29)]) {
      const [, name, at] = viewPath(view, day).split('/');
      const read = readViewAddress(name ?? '', at, today);
      expect(read?.view).toBe(view);
      expect(isCurrent(view, read?.day ?? 0, day)).toBe(true);
    }
  });
  it('is at today where it names no day', () => {
    for (const view of VIEW_NAMES) expect(readViewAddress(view, undefined, today)).toEqual({ view, day: today });
  });
  it.each([
    ['spiral', '2027-03-17'],
    ['month', '2027-03-17'],
    ['month', '2027-13'],
    ['list', '2027-03'],
    ['list', '2027-02-29'],
    ['day', '1989-12-31'],
    ['month', '2101-01'],
    ['constructor', undefined],
    ['__proto__', undefined],
    ['list', ''],
  ])('/%s/%s is no view', (view, at) => {
    expect(readViewAddress(view, at, today)).toBeUndefined();
  });
  it('says which shows today', () => {
    expect(isCurrent('month', dayOf(2027, 3, 1), today)).toBe(true);
    expect(isCurrent('list', dayOf(2027, 3, 1), today)).toBe(false);
    expect(isCurrent('day', today, today)).toBe(true);
  });
  it('has the tabs that a site may begin with', () => {
    expect(TAB_NAMES).toEqual(['month', 'list', 'map']);
  });
});
