import { describe, expect, it } from 'vitest';
import { sayTime } from '../format';
import { readClock } from './clock-times';

describe('a time field', () => {
  const cases: [string, number][] = [
    ['9', 540],
    ['9am', 540],
    ['9 a.m.', 540],
    ['9pm', 1260],
    ['09.00', 540],
    ['0900', 540],
    ['1930', 1170],
    ['19:30', 1170],
    ['7.30 pm', 1170],
    ['noon', 720],
    ['midnight', 0],
    ['21h', 1260],
    ['19h30', 1170],
    ['half past seven', 450],
    ['quarter to 8', 465],
    ['seven in the evening', 1140],
    ["7 o'clock", 420],
    ['at 18', 1080],
    ['12', 720],
    ['0', 0],
    ['12am', 0],
    ['12:15 am', 15],
  ];
  it.each(cases)('reads %s', (text, minute) => expect(readClock(text)).toBe(minute));
  it.each(['', 'x', '25', '9:60', '7pm to 9', 'tomorrow', '19:30 Tuesday', '99', 'x'.repeat(100)])('does not read %s', (text) =>
    expect(readClock(text)).toBeUndefined(),
  );
  it('takes an hour alone for the later one where that alone comes after the start', () => {
    expect([readClock('9', 1140), readClock('9', 480), readClock('9am', 1140), readClock('2', 1140), readClock('09', 1140)]).toEqual([
      1260, 540, 540, 120, 540,
    ]);
  });
  it('reads back every minute as either clock says it', () => {
    for (let minute = 0; minute < 1440; minute++) {
      for (const hours of ['24', '12'] as const)
        expect(readClock(sayTime(minute, { date: 'day-month', hours })), `${minute} ${hours}`).toBe(minute);
    }
  });
});
