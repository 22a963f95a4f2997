import { describe, expect, it } from 'vitest';
import { between, random, seedOf } from '../../../tests/support/generate';
import { firstDayOfMonth, weekdayOf } from '../day/day';
import { layMonth, monthSpan, type SheetDate } from './month';

const MARCH = 2027 * 12 + 2;
const first = firstDayOfMonth(MARCH);
const date = (from: number, to = from, minute: number | null = 600, key = `${from}`): SheetDate => ({
  from,
  to,
  minute,
  headline: false,
  key,
});
const options = { month: MARCH, firstWeekday: 0, room: 5, maxLanes: 3 };

describe('the month sheet', () => {
  it('covers whole weeks from the site’s first weekday', () => {
    for (let firstWeekday = 0; firstWeekday < 7; firstWeekday++) {
      const { from, to } = monthSpan(MARCH, firstWeekday);
      expect([weekdayOf(from), (to - from + 1) % 7]).toEqual([firstWeekday, 0]);
      expect(from <= first && to >= first + 30).toBe(true);
    }
  });

  it(`loses nothing and lays nothing over another, seed ${seedOf()}`, () => {
    const r = random(seedOf());
    const seen = { more: 0, hidden: 0, continued: 0, two: 0, grown: 0, headlines: 0 };
    for (let round = 0; round < 400; round++) {
      const dates = Array.from({ length: between(r, 0, 90) }, (_, i) => {
        const from = first + between(r, -12, 40);
        const to = r() < 0.25 ? from + between(r, 1, 12) : from;
        return { ...date(from, to, r() < 0.2 ? null : between(r, 0, 1439), `k${i}`), headline: r() < 0.1 };
      });
      const most = r() < 0.5 ? options.room : 8;
      const sheet = layMonth(dates, { ...options, most, firstWeekday: between(r, 0, 6) });
      const lanes = new Map<SheetDate, number>();
      for (const week of sheet.weeks) {
        for (const [i, band] of week.bands.entries()) {
          if (!band.date.headline) expect(band.lane).toBeLessThan(options.maxLanes);
          for (const other of week.bands.slice(i + 1)) {
            if (other.lane === band.lane) expect(other.fromColumn > band.toColumn || other.toColumn < band.fromColumn).toBe(true);
          }
          expect(band.opensBefore).toBe(band.date.from < week.start);
          expect(band.opensAfter).toBe(band.date.to > week.start + 6);
          if (lanes.has(band.date)) seen.continued++;
          lanes.set(band.date, band.lane);
        }
        for (const [column, day] of week.days.entries()) {
          const touching = dates.filter((d) => d.from <= day.day && d.to >= day.day);
          const bands = week.bands.filter((b) => b.fromColumn <= column && b.toColumn >= column);
          expect(day.count).toBe(touching.length);
          expect(bands.length + day.lines.length + day.folded.length).toBe(touching.length);
          expect([...day.lines.map((l) => l.date), ...day.folded, ...bands.map((b) => b.date)]).toHaveLength(touching.length);
          const lines = day.lines.reduce((n, l) => n + l.lines, 0) + (day.folded.length ? 1 : 0);
          const heads = day.lines.filter((l) => l.date.headline).length;
          // Headlines never fold, whatever the room; all else keeps within it.
          expect(lines).toBeLessThanOrEqual(Math.max(heads + (day.folded.length ? 1 : 0), most - day.lanes, 1));
          expect(day.folded.some((d) => d.headline)).toBe(false);
          if (day.folded.length && heads) {
            expect(day.lines.slice(0, heads).every((l) => l.date.headline)).toBe(true);
            seen.headlines++;
          }
          // A week is as tall as it must be: nothing folds in it before it has grown to its limit.
          if (lines + day.lanes > options.room && most > options.room) seen.grown++;
          if (day.folded.some((d) => d.from === d.to))
            expect(week.days.some((d) => d.lanes + d.lines.length + d.folded.length >= most)).toBe(true);
          expect(bands.every((b) => b.lane < day.lanes)).toBe(true);
          if (day.folded.length) seen.more++;
          if (touching.filter((d) => d.to > d.from).length > bands.length) seen.hidden++;
          if (day.lines.some((l) => l.lines === 2)) seen.two++;
        }
      }
    }
    for (const [what, times] of Object.entries(seen)) expect(times, what).toBeGreaterThan(50);
  });

  it('keeps a band in its lane over the edge of a week', () => {
    const long = date(first + 2, first + 16, null, 'long');
    const early = date(first + 1, first + 3, null, 'early');
    const sheet = layMonth([long, early], options);
    const lanes = sheet.weeks.flatMap((week) => week.bands.filter((b) => b.date === long).map((b) => b.lane));
    expect(lanes).toEqual([1, 1, 1]);
  });

  it('has a week’s bands by lane, then from left to right, and the next week after the last of this month', () => {
    const week = first - weekdayOf(first) + 7;
    const bands = [
      date(week + 4, week + 5, null, 'c'),
      date(week, week + 5, null, 'a'),
      date(week, week + 1, null, 'b'),
      date(week + 3, week + 3 + 1, null, 'd'),
    ];
    const sheet = layMonth(bands, options);
    const laid = sheet.weeks.find((one) => one.start === week)?.bands ?? [];
    const places = laid.map(({ lane, fromColumn }) => lane * 7 + fromColumn);
    expect(laid.length).toBeGreaterThan(2);
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(sheet.weeks.flatMap((one) => one.days).filter((day) => day.inMonth)).toHaveLength(31);
  });

  it('says how many more there are when a day is full', () => {
    const nine = Array.from({ length: 9 }, (_, i) => date(first + 19, first + 19, 540 + i * 30, `k${i}`));
    const day = layMonth(nine, options)
      .weeks.flatMap((week) => week.days)
      .find((d) => d.day === first + 19);
    expect([day?.count, day?.lines.length, day?.folded.length]).toEqual([9, 4, 5]);
  });

  it('does not depend on the order in which dates come', () => {
    const r = random(7);
    const dates = Array.from({ length: 60 }, (_, i) => date(first + between(r, 0, 30), first + between(r, 0, 34), 600, `k${i}`)).map(
      (d) => ({ ...d, to: Math.max(d.from, d.to) }),
    );
    expect(JSON.stringify(layMonth([...dates].reverse(), options))).toBe(JSON.stringify(layMonth(dates, options)));
  });
});
