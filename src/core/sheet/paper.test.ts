import { expect, test } from 'vitest';
import { dayOf, type EpochDay } from '../day/day';
import { layMonth, READERS_ROOM } from './month';
import { paperLine } from './paper';

const month = 2027 * 12 + 2;
const monthOf = (perDay: (day: number) => number) => {
  const dates = Array.from({ length: 31 }, (_, i) => i + 1).flatMap((n) =>
    Array.from({ length: perDay(n) }, (_, k) => {
      const day: EpochDay = dayOf(2027, 3, n);
      return { from: day, to: day, minute: 600 + k, headline: false, key: `${n}-${k}` };
    }),
  );
  return layMonth(dates, { month, firstWeekday: 0, ...READERS_ROOM });
};

test('a quiet month has comfortable lines, a full one smaller, and none that cannot be read', () => {
  expect(
    paperLine(
      monthOf(() => 2),
      true,
    ),
  ).toBe(11);
  const full = paperLine(
    monthOf(() => 9),
    true,
  );
  expect(full).toBeLessThan(11);
  expect(full).toBeGreaterThanOrEqual(8.5);
  expect(
    paperLine(
      monthOf(() => 40),
      true,
    ),
  ).toBe(8.5);
  // What is folded away and not printed takes no room.
  expect(
    paperLine(
      monthOf(() => 40),
      false,
    ),
  ).toBeGreaterThan(8.5);
});

test('one full day takes its room from the others', () => {
  expect(
    paperLine(
      monthOf((n) => (n === 20 ? 25 : 3)),
      true,
    ),
  ).toBe(11);
});
