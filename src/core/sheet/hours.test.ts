import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { dayOf } from '../day/day';
import { type Block, downTo, type HourDate, type HourOptions, isBand, isOnDay, layHours } from './hours';

const monday = dayOf(2027, 3, 15);
const WEEK = [0, 1, 2, 3, 4, 5, 6].map((n) => monday + n);
const OPTIONS: HourOptions = { days: WEEK, mostLanes: 3, mostBands: 3, least: 30, usual: { from: 8, to: 21 } };

let made = 0;
const timed = (day: number, from: number, to: number | null, headline = false): HourDate => ({
  from: day,
  to: day + (to !== null && to > 1440 ? 1 : 0),
  minute: from,
  headline,
  key: made++,
  end: to === null ? null : { day: day + Math.floor(to / 1440), minute: to % 1440 },
});
const whole = (from: number, to = from): HourDate => ({ from, to, minute: null, headline: false, key: made++, end: null });

function generate(r: () => number, perDay: number): HourDate[] {
  return Array.from({ length: perDay * 9 }, () => {
    const day = between(r, monday - 1, monday + 7);
    if (r() < 0.06) return whole(day, day + between(r, 0, 4));
    const from = between(r, 0, 95) * 15;
    const dice = r();
    if (dice < 0.1) return timed(day, from, null, r() < 0.05);
    return timed(day, from, from + pick(r, [15, 30, 60, 90, 120, 300, 1439, 2900]), r() < 0.05);
  });
}

const touches = (date: HourDate, day: number): boolean => {
  if (isBand(date)) return date.from <= day && Math.max(date.to, date.end ? date.end.day - (date.end.minute ? 0 : 1) : 0) >= day;
  return date.from === day || (date.end !== null && date.end.day === day && date.end.minute > 0);
};
const overlap = (a: Block<HourDate>, b: Block<HourDate>): boolean => {
  const foot = ({ from, to }: Block<HourDate>): number => Math.max(to, from + OPTIONS.least);
  const hours = a.from < foot(b) && b.from < foot(a);
  // Sides as parts of the width that each stands in.
  const [left, right] = [a, b].map(({ lane, span, lanes }) => [lane / lanes, (lane + span) / lanes] as const) as [
    readonly [number, number],
    readonly [number, number],
  ];
  return hours && left[0] < right[1] - 1e-9 && right[0] < left[1] - 1e-9;
};

describe('a ledger of hours', () => {
  it.each([1, 6, 40, 400])('at %i dates a day nothing lies over another and nothing is lost', (perDay) => {
    for (let round = 0; round < rounds(perDay > 100 ? 6 : 60); round++) {
      const r = random(seedOf() + round);
      const dates = generate(r, perDay).map((date) => ({ ...date, to: Math.max(date.to, date.end?.day ?? 0) }));
      const sheet = layHours(dates, OPTIONS);
      expect(layHours([...dates].reverse(), OPTIONS)).toEqual(sheet);
      sheet.days.forEach(({ day, blocks, folded, count }, column) => {
        for (const [i, one] of blocks.entries())
          for (const other of blocks.slice(i + 1)) expect(overlap(one, other), `${JSON.stringify([one, other])}`).toBe(false);
        const banded = sheet.bands.filter((band) => band.fromColumn <= column && band.toColumn >= column);
        const shown = [...blocks.map(({ date }) => date.key), ...folded.map(({ key }) => key), ...banded.map(({ date }) => date.key)];
        const expected = dates.filter((date) => (isBand(date) ? date.from <= day && date.to >= day : touches(date, day)));
        expect(shown.sort()).toEqual(expected.map(({ key }) => key).sort());
        expect(count).toBe(expected.length);
        expect(
          dates
            .filter((date) => isOnDay(date, day))
            .map(({ key }) => key)
            .sort(),
        ).toEqual(expected.map(({ key }) => key).sort());
        expect(folded.some((date) => date.headline && !isBand(date))).toBe(false);
        for (const { from, to, lane, span, lanes } of blocks) {
          expect(from >= 0 && to >= from && to <= 1440 && lane + span <= lanes).toBe(true);
          // No block stands in hours that are folded.
          for (const { from: start, to: end, folded: away } of sheet.hours)
            if (away) expect(from >= end * 60 || Math.max(to, from + 1) <= start * 60).toBe(true);
        }
      });
      for (const [i, band] of sheet.bands.entries())
        for (const other of sheet.bands.slice(i + 1))
          expect(band.lane === other.lane && band.fromColumn <= other.toColumn && other.fromColumn <= band.toColumn).toBe(false);
      expect(sheet.hours.map(({ from }) => from)).toEqual([0, ...sheet.hours.slice(0, -1).map(({ to }) => to)]);
      expect(sheet.hours.at(-1)?.to).toBe(24);
      for (let minute = 1; minute <= 1440; minute++)
        expect(downTo(minute, sheet.hours)).toBeGreaterThanOrEqual(downTo(minute - 1, sheet.hours));
    }
  });

  it('three at once stand beside each other, a fourth folds, a headline never does', () => {
    const at = [0, 1, 2, 3].map((n) => timed(monday, 600 + n, 720));
    const [day] = layHours(at, OPTIONS).days;
    expect(day?.blocks.map(({ lane, lanes }) => [lane, lanes])).toEqual([
      [0, 3],
      [1, 3],
      [2, 3],
    ]);
    expect(day?.folded.map(({ key }) => key)).toEqual([at[3]?.key]);
    const late = timed(monday, 700, 720, true);
    const [full] = layHours([...at, late], OPTIONS).days;
    expect(full?.blocks.some(({ date }) => date === late)).toBe(true);
    expect(full?.folded).toHaveLength(2);
    expect(
      layHours(
        [...Array(8)].map(() => timed(monday, 600, 720)),
        { ...OPTIONS, mostLanes: 8 },
      ).days[0]?.blocks,
    ).toHaveLength(8);
  });

  it('a date alone has the whole width, and one with room beside it takes that', () => {
    const [day] = layHours(
      [timed(monday, 540, 780), timed(monday, 600, 660), timed(monday, 700, 760), timed(monday, 600, 640)],
      OPTIONS,
    ).days;
    expect(day?.blocks.map(({ from, lane, span, lanes }) => [from, lane, span, lanes])).toEqual([
      [540, 0, 1, 3],
      [600, 1, 1, 3],
      [600, 2, 1, 3],
      [700, 1, 2, 3],
    ]);
  });

  it('goes on past midnight, and is several days when it lasts past the next noon', () => {
    const night = timed(monday, 22 * 60, 26 * 60);
    const { days, hours } = layHours([night], OPTIONS);
    expect(days[0]?.blocks.map(({ from, to, opensAfter }) => [from, to, opensAfter])).toEqual([[1320, 1440, true]]);
    expect(days[1]?.blocks.map(({ from, to, opensBefore }) => [from, to, opensBefore])).toEqual([[0, 120, true]]);
    expect(hours).toEqual([
      { from: 0, to: 2, folded: false },
      { from: 2, to: 8, folded: true },
      { from: 8, to: 24, folded: false },
    ]);
    expect([isBand(timed(monday, 600, 1440 + 720)), isBand(timed(monday, 600, 1440 + 721)), isBand(whole(monday))]).toEqual([
      false,
      true,
      true,
    ]);
    // An end at midnight is the day's end, not the next day's beginning.
    expect(layHours([timed(monday, 1380, 1440)], OPTIONS).days.map(({ count }) => count)).toEqual([1, 0, 0, 0, 0, 0, 0]);
  });

  it('folds empty nights, and shows an hour that something is in', () => {
    expect(layHours([], OPTIONS).hours).toEqual([
      { from: 0, to: 8, folded: true },
      { from: 8, to: 21, folded: false },
      { from: 21, to: 24, folded: true },
    ]);
    const { hours } = layHours([timed(monday + 2, 390, null), timed(monday, 1260, 1320)], OPTIONS);
    expect(hours).toEqual([
      { from: 0, to: 6, folded: true },
      { from: 6, to: 22, folded: false },
      { from: 22, to: 24, folded: true },
    ]);
  });

  it('workdays alone are side by side, and a band over the weekend is not broken', () => {
    const friday = monday + 4;
    const days = [...WEEK.slice(0, 5)];
    const { bands } = layHours([whole(friday, friday + 3), whole(monday - 2, monday)], { ...OPTIONS, days });
    expect(bands.map(({ fromColumn, toColumn, opensBefore, opensAfter }) => [fromColumn, toColumn, opensBefore, opensAfter])).toEqual([
      [0, 0, true, false],
      [4, 4, false, true],
    ]);
  });
});
