import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { isoDay, parseIsoDay, weekdayOf } from '../day/day';
import { clip, daysOf } from './days';
import type { NAMED_DAYS } from './filters';

const at = (iso: string): number => parseIsoDay(iso) as number;
const named = (name: (typeof NAMED_DAYS)[number], today: string, firstWeekday = 0): string => {
  const { from, to } = daysOf({ named: name }, at(today), firstWeekday);
  return `${from === undefined ? '' : isoDay(from)} ${to === undefined ? '' : isoDay(to)}`;
};

describe('days that a reader chose', () => {
  // 17 March 2027 is a Wednesday.
  it.each([
    ['today', '2027-03-17', 0, '2027-03-17 2027-03-17'],
    ['tomorrow', '2027-12-31', 0, '2028-01-01 2028-01-01'],
    ['weekend', '2027-03-17', 0, '2027-03-20 2027-03-21'],
    ['weekend', '2027-03-20', 0, '2027-03-20 2027-03-21'],
    ['weekend', '2027-03-21', 0, '2027-03-21 2027-03-21'],
    ['next-week', '2027-03-17', 0, '2027-03-22 2027-03-28'],
    ['next-week', '2027-03-17', 6, '2027-03-21 2027-03-27'],
    ['next-week', '2027-03-21', 0, '2027-03-22 2027-03-28'],
    ['next-week', '2027-03-21', 6, '2027-03-28 2027-04-03'],
  ] as const)('%s on %s, weeks from %s: %s', (name, today, firstWeekday, expected) => {
    expect(named(name, today, firstWeekday)).toBe(expected);
  });

  it('of a weekend are never over, and next week is the seven days after this one', () => {
    for (let today = at('2027-01-01'); today < at('2028-03-01'); today++) {
      const weekend = daysOf({ named: 'weekend' }, today, 0);
      for (let day = weekend.from as number; day <= (weekend.to as number); day++) expect([5, 6]).toContain(weekdayOf(day));
      expect(weekend.from).toBeGreaterThanOrEqual(today);
      expect((weekend.from as number) - today).toBeLessThan(6);
      for (const first of [0, 5, 6]) {
        const { from, to } = daysOf({ named: 'next-week' }, today, first);
        expect([weekdayOf(from as number), (to as number) - (from as number)]).toEqual([first, 6]);
        expect((from as number) - today).toBeGreaterThan(0);
        expect((from as number) - today).toBeLessThanOrEqual(7);
      }
    }
  });

  it('leave of a span what is in both', () => {
    const r = random(seedOf());
    for (let i = 0; i < rounds(400); i++) {
      const span = { from: between(r, 0, 20), to: between(r, 0, 20) };
      if (span.to < span.from) continue;
      const open = { from: pick(r, [undefined, between(r, -5, 25)]), to: pick(r, [undefined, between(r, -5, 25)]) };
      const both = Array.from({ length: 40 }, (_, n) => n - 10).filter(
        (day) => day >= span.from && day <= span.to && day >= (open.from ?? day) && day <= (open.to ?? day),
      );
      const left = clip(span, open);
      expect(left && [left.from, left.to], JSON.stringify({ span, open })).toEqual(both.length ? [both[0], both.at(-1)] : undefined);
    }
    expect(clip({ from: 3 }, { from: undefined, to: undefined })).toEqual({ from: 3 });
    expect(clip({ from: 3 }, { from: undefined, to: 5 })).toEqual({ from: 3, to: 5 });
    expect(clip({ from: 3 }, { from: undefined, to: 2 })).toBeUndefined();
  });
});
