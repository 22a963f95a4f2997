import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { dayOf } from '../day/day';
import type { HourDate } from './hours';
import { layRows } from './rows';

const day = dayOf(2027, 3, 20);
const USUAL = { from: 8 * 60, to: 22 * 60 };
let made = 0;
const at = (from: number, to: number | null, more: Partial<HourDate> = {}): HourDate => ({
  from: day,
  to: day,
  minute: from,
  headline: false,
  key: made++,
  end: to === null ? null : { day: day + Math.floor(to / 1440), minute: to % 1440 },
  ...more,
});

describe('rows of a day', () => {
  it.each([1, 40, 400])('with %i dates keep all of them, within the hours, none over another', (n) => {
    for (let round = 0; round < rounds(60); round++) {
      const r = random(seedOf() + round);
      const keys = ['slip', 'hall', 'quay', ''];
      const rows = keys.map((key) => ({ key, dates: [] as HourDate[] }));
      for (let i = 0; i < n; i++) {
        const from = between(r, 0, 95) * 15;
        const date =
          r() < 0.1
            ? at(0, null, { minute: null, from: day - between(r, 0, 2), to: day + between(r, 0, 2) })
            : at(from, r() < 0.1 ? null : from + pick(r, [15, 60, 120, 600]), r() < 0.1 ? { from: day - 1, end: { day, minute: 90 } } : {});
        pick(r, rows).dates.push(date);
      }
      const wordsOf = (date: HourDate): number => 40 + ((date.key as number) % 7) * 60;
      const laid = layRows({ day, rows, usual: USUAL, wordsOf });
      expect(laid.rows.map((row) => row.items.map(({ date }) => date.key).sort())).toEqual(
        rows.map(({ dates }) => dates.map(({ key }) => key).sort()),
      );
      const { from, to } = laid.hours;
      expect(from % 60 === 0 && to % 60 === 0 && from >= 0 && to <= 1440).toBe(true);
      for (const { items, lanes } of laid.rows)
        for (const [i, one] of items.entries()) {
          const box = (item: typeof one) => [Math.min(item.left, item.from), Math.max(item.right, item.to)] as const;
          expect(box(one)[0] >= from && box(one)[1] <= to && one.from <= one.to && one.lane < lanes).toBe(true);
          for (const other of items.slice(i + 1))
            if (one.lane === other.lane) expect(box(one)[1] <= box(other)[0] || box(other)[1] <= box(one)[0]).toBe(true);
        }
    }
  });

  it('shows the usual hours, and more where something is', () => {
    const hours = (...dates: HourDate[]) => layRows({ day, rows: [{ key: '', dates }], usual: USUAL, wordsOf: () => 60 }).hours;
    expect(hours()).toEqual(USUAL);
    expect(hours(at(395, 1350))).toEqual({ from: 360, to: 1380 });
    expect(hours(at(1380, 1560))).toEqual({ from: 480, to: 1440 });
    // What lasts all day asks for no hours.
    expect(hours(at(0, null, { minute: null }))).toEqual(USUAL);
  });

  it('says what goes on before and after, and lets words run past the rule', () => {
    const night = at(1380, 1560);
    const [row] = layRows({ day, rows: [{ key: '', dates: [night, at(600, 615)] }], usual: USUAL, wordsOf: () => 120 }).rows;
    expect(row?.items.map(({ from, to, left, right, lane, opensAfter }) => [from, to, left, right, lane, opensAfter])).toEqual([
      [600, 615, 600, 1320, 0, false],
      // At the right edge words begin earlier, so that they can be read.
      [1380, 1440, 1320, 1440, 0, true],
    ]);
    const [after] = layRows({ day: day + 1, rows: [{ key: '', dates: [night] }], usual: USUAL, wordsOf: () => 30 }).rows;
    expect(after?.items.map(({ from, to, opensBefore }) => [from, to, opensBefore])).toEqual([[0, 120, true]]);
  });
});
