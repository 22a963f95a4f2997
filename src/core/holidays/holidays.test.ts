import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { dayOf, isoDay, parseIsoDay, weekdayOf, ymdOf } from '../day/day';
import { isoTime } from '../day/plain-date-time';
import { sunOn } from '../sky/sky';
import { type DayMarks, isRedDay, marksInCell, namesOn, redNames } from './day-marks';
import { lineOfDays, readHolidayLine, readHolidayLines, sayHolidayLine, sayHolidayLines } from './holiday-lines';
import { easter } from './easter';
import { addOwnMarks, type HolidayRule } from './holidays';

const PLACE = { lat: 44.65, lng: -63.58, zone: 'America/Halifax' };
const STYLE = { date: 'day-month', hours: '24', language: 'en' } as const;
const day = (iso: string): number => parseIsoDay(iso) as number;

function marksOf(rules: readonly HolidayRule[], from: string, to: string): DayMarks {
  const marks: DayMarks = new Map();
  addOwnMarks(marks, rules, { from: day(from), to: day(to) }, { place: PLACE });
  return marks;
}
const daysOf = (line: string, from = '2026-01-01', to = '2028-12-31'): string[] => {
  const rule = readHolidayLine(line);
  if (!rule) throw new Error(`not understood: ${line}`);
  return [...marksOf([rule], from, to).keys()].sort((a, b) => a - b).map(isoDay);
};

describe('a line of the year', () => {
  it.each([
    ['25 December Christmas Day', ['2026-12-25', '2027-12-25', '2028-12-25']],
    ['Dec 25: Christmas Day', ['2026-12-25', '2027-12-25', '2028-12-25']],
    ['25th of Dec. Christmas Day', ['2026-12-25', '2027-12-25', '2028-12-25']],
    ['6 June 2027 Bridge opening', ['2027-06-06']],
    ['June 6th, 2027 – Bridge opening', ['2027-06-06']],
    ['17 March Harbour Day from 2027', ['2027-03-17', '2028-03-17']],
    ['17 March Harbour Day (until 2026)', ['2026-03-17']],
    ['17 March Harbour Day from 2027 to 2027', ['2027-03-17']],
    ['29 February Leap Day', ['2028-02-29']],
    ['Easter Easter Sunday', ['2026-04-05', '2027-03-28', '2028-04-16']],
    ['easter - 2 Good Friday', ['2026-04-03', '2027-03-26', '2028-04-14']],
    ['Good Friday', ['2026-04-03', '2027-03-26', '2028-04-14']],
    ['easter monday until 2027', ['2026-04-06', '2027-03-29']],
    ['first Monday in June Village Day', ['2026-06-01', '2027-06-07', '2028-06-05']],
    ['The 2nd Sunday of May Mothers’ Day', ['2026-05-10', '2027-05-09', '2028-05-14']],
    ['last Mon in May Spring Day', ['2026-05-25', '2027-05-31', '2028-05-29']],
    [
      '30 December to 2 January School holidays until 2026',
      ['2026-01-01', '2026-01-02', '2026-12-30', '2026-12-31', '2027-01-01', '2027-01-02'],
    ],
    ['30 December 2026 to 2 January 2027 School holidays', ['2026-12-30', '2026-12-31', '2027-01-01', '2027-01-02']],
    ['from 1 July to 3 July Regatta until 2026', ['2026-07-01', '2026-07-02', '2026-07-03']],
  ])('“%s” is found in the years in which it holds', (line, days) => expect(daysOf(line)).toEqual(days));

  it.each([
    ['32 December Christmas Day'],
    ['31 April Nothing'],
    ['25 December'],
    ['17 March 2027'],
    ['25 Smarch Nothing'],
    ['Christmas Day'],
    ['first Blurday in June Village Day'],
    ['1 July 2026 to 3 July 2027 Regatta'],
    ['18 minutes before sunset on Blurdays Candles'],
    [''],
  ])('“%s” is not understood', (line) => expect(readHolidayLine(line)).toBeUndefined());

  it('names the first line that is not understood, empty lines counted', () => {
    expect(readHolidayLines('\n25 December Christmas Day\n\n32 Smarch Nothing\n33 Smarch')).toEqual({
      rules: [{ name: 'Christmas Day', kind: 'fixed', month: 12, day: 25 }],
      wrong: { number: 4, line: '32 Smarch Nothing', problem: 'not-understood' },
    });
    // A name is kept whole, or its line is not taken.
    const long = `1 May ${'x'.repeat(61)}`;
    expect(readHolidayLines(long).wrong).toEqual({ number: 1, line: long, problem: 'long-name' });
    expect(readHolidayLines(`1 May ${'x'.repeat(60)}`).wrong).toBeUndefined();
  });

  it('says a day of Easter by its name where that says it', () => {
    for (const line of ['Good Friday', 'Easter Monday until 2030', 'Easter +1 Egg Day', 'Easter -2 Easter Monday'])
      expect(sayHolidayLine(readHolidayLine(line) as HolidayRule)).toBe(line);
    expect(sayHolidayLine({ name: 'Easter Sunday', kind: 'easter', offset: 0 })).toBe('Easter Sunday');
  });

  it('says times of the sun for the weekdays that it names', () => {
    const rule = readHolidayLine('18 minutes before sunset on Fridays Candle lighting') as HolidayRule;
    const marks = marksOf([rule], '2027-03-15', '2027-03-28');
    expect([...marks.keys()].map(isoDay)).toEqual(['2027-03-19', '2027-03-26']);
    const sun = sunOn(day('2027-03-19'), PLACE);
    expect(sun.kind === 'rises' && namesOn(marks, day('2027-03-19'), STYLE)).toEqual([
      `Candle lighting ${isoTime((sun as { set: number }).set - 18)}`,
    ]);
    expect(isRedDay(marks, day('2027-03-19'))).toBe(false);
    expect(daysOf('at sunrise every day Gun', '2027-01-01', '2027-01-03')).toHaveLength(3);
    // Where the sun does not set, nothing hangs on it.
    const north: DayMarks = new Map();
    addOwnMarks(
      north,
      [rule],
      { from: day('2027-06-01'), to: day('2027-06-30') },
      {
        place: { lat: 78.2, lng: 15.6, zone: 'Arctic/Longyearbyen' },
      },
    );
    expect(north.size).toBe(0);
  });

  it('is said as it is read, whatever it is', () => {
    const next = random(seedOf());
    const month = (): { month: number; day: number } => ({ month: between(next, 1, 12), day: between(next, 1, 28) });
    for (let i = 0; i < rounds(400); i++) {
      const year = between(next, 1990, 2060);
      const years = pick(next, [{}, { from: year }, { until: year }, { from: year, until: year + 3 }, { from: year, until: year }]);
      const name = pick(next, ['Regatta', 'St Bride’s Day', 'May Day', '2nd of the month', 'Easter Fair', 'to the sea']);
      const rule = pick<() => HolidayRule>(next, [
        () => ({ name, ...years, kind: 'fixed', ...month() }),
        () => ({ name, ...years, kind: 'easter', offset: between(next, -60, 60) }),
        () => ({
          name,
          ...years,
          kind: 'weekday',
          month: between(next, 1, 12),
          weekday: between(next, 0, 6),
          nth: pick(next, [1, 2, 3, 4, -1]),
        }),
        () => ({ name, ...years, kind: 'span', first: month(), last: month() }),
        () => ({
          name,
          ...years,
          kind: 'sun',
          event: pick(next, ['sunrise', 'sunset']),
          minutes: between(next, -90, 90),
          weekdays: [0, 1, 2, 3, 4, 5, 6]
            .filter(() => next() < 0.5)
            .concat(6)
            .filter((one, at, all) => all.indexOf(one) === at),
        }),
      ])();
      const said = sayHolidayLine(rule);
      expect(readHolidayLine(said), said).toEqual(rule);
      expect(readHolidayLines(sayHolidayLines([rule, rule])).rules).toHaveLength(2);
    }
  });
});

describe('a site’s lines of the year', () => {
  it('are found on the days that a look at every day finds', () => {
    const next = random(seedOf() + 1);
    const holds = (rule: HolidayRule, at: number): boolean => {
      const { year, month, day: d } = ymdOf(at);
      const within = (y: number): boolean => (rule.from === undefined || y >= rule.from) && (rule.until === undefined || y <= rule.until);
      if (rule.kind === 'fixed') return within(year) && month === rule.month && d === rule.day;
      if (rule.kind === 'easter') return [year - 1, year, year + 1].some((y) => within(y) && easter(y) + rule.offset === at);
      if (rule.kind === 'weekday') {
        if (!within(year) || month !== rule.month || weekdayOf(at) !== rule.weekday) return false;
        return rule.nth > 0 ? Math.ceil(d / 7) === rule.nth : ymdOf(at + 7).month !== month;
      }
      if (rule.kind !== 'span') return false;
      return [year - 1, year].some((y) => {
        const first = dayOf(y, rule.first.month, rule.first.day);
        let last = dayOf(y, rule.last.month, rule.last.day);
        if (last < first) last = dayOf(y + 1, rule.last.month, rule.last.day);
        return within(y) && first <= at && at <= last;
      });
    };
    for (let i = 0; i < rounds(40); i++) {
      const month = (): { month: number; day: number } => ({ month: between(next, 1, 12), day: between(next, 1, 28) });
      const years = pick(next, [{}, { from: 2027 }, { until: 2027 }]);
      const rule = pick<() => HolidayRule>(next, [
        () => ({ name: 'x', ...years, kind: 'fixed', ...month() }),
        () => ({ name: 'x', ...years, kind: 'easter', offset: between(next, -120, 300) }),
        () => ({
          name: 'x',
          ...years,
          kind: 'weekday',
          month: between(next, 1, 12),
          weekday: between(next, 0, 6),
          nth: pick(next, [1, 2, 3, 4, 5, -1]),
        }),
        () => ({ name: 'x', ...years, kind: 'span', first: month(), last: month() }),
      ])();
      const [from, to] = [dayOf(2026, between(next, 1, 12), 1), dayOf(2028, between(next, 1, 12), 28)];
      const marks: DayMarks = new Map();
      addOwnMarks(marks, [rule], { from, to }, { place: PLACE });
      for (let at = from; at <= to; at++) expect(marks.has(at), `${JSON.stringify(rule)} on ${isoDay(at)}`).toBe(holds(rule, at));
    }
  });

  it('are red where they are days, said where spans begin and where a row begins, and once', () => {
    const { rules } = readHolidayLines('17 March Harbour Day\n17 March Harbour Day\n15 March to 25 March School holidays');
    const marks = marksOf(rules, '2027-03-01', '2027-03-31');
    expect(namesOn(marks, day('2027-03-17'), STYLE)).toEqual(['Harbour Day', 'School holidays']);
    expect([isRedDay(marks, day('2027-03-17')), isRedDay(marks, day('2027-03-18')), isRedDay(marks, day('2027-03-21'))]).toEqual([
      true,
      false,
      true,
    ]);
    const inCell = (iso: string): string[] => marksInCell(marks, day(iso), 0).map(({ name }) => name);
    expect([inCell('2027-03-15'), inCell('2027-03-18'), inCell('2027-03-22')]).toEqual([['School holidays'], [], ['School holidays']]);
    expect([...redNames(marks)].map(([at, names]) => [isoDay(at), names])).toEqual([['2027-03-17', ['Harbour Day']]]);
  });

  it('come from days that a calendar’s file names', () => {
    const span = lineOfDays('Spring break', { from: day('2026-12-30'), to: day('2027-01-02') });
    expect(sayHolidayLine(span)).toBe('30 December 2026 to 2 January 2027 Spring break');
    expect([...marksOf([span], '2026-01-01', '2030-01-01').keys()]).toHaveLength(4);
    expect(sayHolidayLine(lineOfDays(' Bridge opening ', { from: day('2027-06-06'), to: day('2027-06-06') }))).toBe(
      '6 June 2027 Bridge opening',
    );
  });
});
