import { describe, expect, it } from 'vitest';
import { between, random, rounds, seedOf } from '../../../tests/support/generate';
import { PARTS_OF_DAY, partBit, partsOf } from './part-of-day';

const said = (start: number | null, end: number | null, days = 0): string[] => {
  const bits = partsOf({ startDay: 100, startMinute: start, endDay: end === null ? null : 100 + days, endMinute: end });
  return PARTS_OF_DAY.filter((part) => bits & partBit(part));
};
const clock = (hours: number, minutes = 0): number => hours * 60 + minutes;

describe('the parts of a day', () => {
  it.each<[string, number | null, number | null, number, string[]]>([
    ['a whole day', null, null, 0, ['morning', 'afternoon', 'evening']],
    ['a breakfast', clock(7), clock(9), 0, ['morning']],
    ['until noon', clock(10), clock(12), 0, ['morning']],
    ['past noon', clock(10), clock(12, 1), 0, ['morning', 'afternoon']],
    ['a fair', clock(10), clock(18), 0, ['morning', 'afternoon', 'evening']],
    ['a concert without an end', clock(19, 30), null, 0, ['evening']],
    ['a night', clock(22), clock(4), 1, ['evening']],
    ['a night that ends in the morning', clock(22), clock(6), 1, ['morning', 'evening']],
    ['before dawn', clock(4), clock(4, 30), 0, ['evening']],
    ['no length', clock(12), clock(12), 0, ['afternoon']],
    ['two days', clock(9), clock(9), 1, ['morning', 'afternoon', 'evening']],
  ])('%s', (_name, start, end, days, expected) => {
    expect(said(start, end, days)).toEqual(expected);
  });

  it('are those that its minutes are in', () => {
    const r = random(seedOf());
    const partOf = (minute: number): string => {
      const hour = Math.floor(minute / 60) % 24;
      return hour < 5 ? 'evening' : hour < 12 ? 'morning' : hour < 17 ? 'afternoon' : 'evening';
    };
    for (let i = 0; i < rounds(500); i++) {
      const start = between(r, 0, 1439);
      const length = between(r, 1, 2000);
      const end = start + length;
      const slow = new Set(Array.from({ length }, (_, n) => partOf(start + n)));
      expect(said(start, end % 1440, Math.floor(end / 1440))).toEqual(PARTS_OF_DAY.filter((part) => slow.has(part)));
    }
  });
});
