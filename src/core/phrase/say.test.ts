import { describe, expect, it } from 'vitest';
import { parseIsoDay } from '../day/day';
import { parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { type Limit, type Recurrence, type Rule, rule, type RecurrencePart } from '../recurrence/model';
import { type Style, sayDays, sayDistance, sayTime, sayTimes, sayWhen } from './format';
import { sayRecurrence, sayTotal } from './say';

const style: Style = { date: 'day-month', hours: '24' };
const us: Style = { date: 'month-day', hours: '12' };
const d = (text: string): number => parseIsoDay(text) as number;
const w = (text: string): PlainDateTime => parseIsoDateTime(text) as PlainDateTime;
const of = (start: string, end: number | null, r: Rule | null, limit: Limit = { kind: 'open' }): RecurrencePart => ({
  start: w(start),
  length: end === null ? null : { days: 0, minute: end },
  rule: r,
  limit,
});
const say = (parts: RecurrencePart[], rest: Partial<Recurrence> = {}, s = style): string =>
  sayRecurrence({ zone: 'America/Halifax', parts, exdates: [], breaks: [], ...rest }, s);
const nth = (weekday: number, ...list: number[]) => ({ byDay: list.map((n) => ({ weekday, nth: n })) });
const on = (...list: number[]) => ({ byDay: list.map((weekday) => ({ weekday, nth: 0 })) });

describe('a recurrence said back', () => {
  it('lets an end until six in the morning belong to the evening before it', () => {
    const night = (end: string): string => sayWhen(w('2027-03-20T22:00'), w(end), style, { weekday: 'short', year: false });
    expect(night('2027-03-21T06:00')).toBe('Sat 20 March, 22:00–06:00');
    expect(night('2027-03-21T06:01')).toBe('Sat 20 March, 22:00 – Sun 21 March, 06:01');
  });
  it('reads as people would say it', () => {
    const walk = of('2027-03-07T07:40', 580, rule('monthly', nth(6, 1, 3)), { kind: 'until', day: d('2027-10-31') });
    const august = { breaks: [{ from: d('2027-08-01'), to: d('2027-08-31') }] };
    expect(say([walk], august)).toBe(
      'On the first and third Sunday of every month, 07:40–09:40, from 7 March to 31 October 2027, with a break 1–31 August.',
    );
  });
  const cases: [string, RecurrencePart, string][] = [
    ['weekly', of('2027-03-02T19:00', 1260, rule('weekly', on(1))), 'Every Tuesday, 19:00–21:00, from 2 March 2027.'],
    ['two weekdays', of('2027-03-02T19:00', null, rule('weekly', on(3, 1))), 'Every Tuesday and Thursday, 19:00, from 2 March 2027.'],
    [
      'a day of the month on a weekday',
      of('2027-08-13T19:00', null, { ...rule('monthly', on(4)), byMonthDay: [13] }),
      'On the 13th of every month when it is a Friday, 19:00, from 13 August 2027.',
    ],
    [
      'a day of the month on one of two weekdays',
      of('2027-08-13T19:00', null, { ...rule('monthly', on(4, 6)), byMonthDay: [13] }),
      'On the 13th of every month when it is a Friday or Sunday, 19:00, from 13 August 2027.',
    ],
    [
      'second to last',
      of('2027-03-19T20:00', null, rule('monthly', nth(4, -2))),
      'On the second to last Friday of every month, 20:00, from 19 March 2027.',
    ],
    ['every second day', of('2027-03-20T10:00', null, rule('daily', { interval: 2 })), 'Every second day, 10:00, from 20 March 2027.'],
    [
      'all months are none',
      of('2027-03-02T19:00', null, rule('weekly', { ...on(1), byMonth: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] })),
      'Every Tuesday, 19:00, from 2 March 2027.',
    ],
    ['workdays', of('2027-03-01T08:30', 660, rule('weekly', on(0, 1, 2, 3, 4))), 'Every workday, 08:30–11:00, from 1 March 2027.'],
    [
      'every other week',
      of('2027-03-03T10:00', null, rule('weekly', { interval: 2, ...on(2) })),
      'Every other Wednesday, 10:00, from 3 March 2027.',
    ],
    [
      'every third week on two days',
      of('2027-03-03T10:00', null, rule('weekly', { interval: 3, ...on(2, 4) })),
      'Wednesdays and Fridays of every three weeks, 10:00, from 3 March 2027.',
    ],
    [
      'in some months',
      of('2027-09-07T19:00', null, rule('weekly', { byMonth: [1, 2, 3, 4, 5, 9, 10, 11, 12], ...on(1) })),
      'Every Tuesday in September to May of every year, 19:00, from 7 September 2027.',
    ],
    [
      'in all months but two',
      of('2027-03-01T19:30', null, rule('monthly', { byMonth: [1, 2, 3, 4, 5, 6, 9, 10, 11, 12], ...nth(0, 1) })),
      'On the first Monday of every month, except every July and every August, 19:30, from 1 March 2027.',
    ],
    [
      'the last day',
      of('2027-03-31T09:00', null, rule('monthly', { byMonthDay: [-1] })),
      'On the last day of every month, 09:00, from 31 March 2027.',
    ],
    [
      'two days of the month',
      of('2027-03-05', null, rule('monthly', { byMonthDay: [20, 5] })),
      'On the 5th and 20th of every month, all day, from 5 March 2027.',
    ],
    [
      'the last Friday',
      of('2027-03-26T19:30', null, rule('monthly', nth(4, -1)), { kind: 'count', count: 6 }),
      'On the last Friday of every month, 19:30, from 26 March 2027, 6 times.',
    ],
    ['yearly', of('2027-11-11T17:30', null, rule('yearly')), 'On 11 November, every year, 17:30, from 11 November 2027.'],
    [
      'yearly by weekday',
      of('2027-06-07T13:00', null, rule('yearly', { byMonth: [6], ...nth(0, 1) })),
      'On the first Monday of June, every year, 13:00, from 7 June 2027.',
    ],
    [
      'daily',
      of('2027-03-20T06:30', 510, rule('daily'), { kind: 'count', count: 10 }),
      'Every day, 06:30–08:30, from 20 March 2027, 10 times.',
    ],
    ['every third day', of('2027-03-20T06:30', null, rule('daily', { interval: 3 })), 'Every three days, 06:30, from 20 March 2027.'],
    ['once', of('2027-03-20T16:00', 1080, null), 'Saturday 20 March 2027, 16:00–18:00.'],
  ];
  for (const [name, recurrencePart, sentence] of cases) it(name, () => expect(say([recurrencePart])).toBe(sentence));
  it('joins a rule with extra dates', () => {
    const sentence = say([of('2027-03-02T19:00', null, rule('weekly', on(1))), of('2027-03-06T10:00', null, null)]);
    expect(sentence).toBe('Every Tuesday, 19:00, from 2 March 2027; also on Saturday 6 March 2027, 10:00.');
  });
  it('follows the style of the site', () => {
    expect(say([of('2027-03-02T19:00', 1260, rule('weekly', on(1)))], {}, us)).toBe('Every Tuesday, 7–9 pm, from March 2, 2027.');
    expect(say([of('2027-11-11T17:30', null, rule('yearly'))], {}, us)).toBe(
      'On November 11, every year, 5:30 pm, from November 11, 2027.',
    );
  });
  it('says how many there are, and that an open one goes on', () => {
    const r = (limit: Limit): Recurrence => ({
      zone: 'UTC',
      parts: [of('2027-03-02T19:00', null, rule('weekly'), limit)],
      exdates: [],
      breaks: [],
    });
    expect(sayTotal(r({ kind: 'count', count: 1 }), 1, d('2030-03-31'))).toBe('1 date.');
    expect(sayTotal(r({ kind: 'open' }), 1560, d('2030-03-31'))).toBe('1,560 dates until March 2030, and on.');
  });
});

describe('days and times', () => {
  it('say noon and midnight in the 12-hour style only', () => {
    expect([sayTime(720, us), sayTime(0, us), sayTime(720, style), sayTime(5, us)]).toEqual(['noon', 'midnight', '12:00', '12:05 am']);
    expect(sayTimes(660, 780, us)).toBe('11 am–1 pm');
  });
  it('say spans inclusively', () => {
    expect(sayDays(d('2027-03-05'), d('2027-03-07'), style, { year: true })).toBe('5–7 March 2027');
    expect(sayDays(d('2027-03-30'), d('2027-04-02'), style, { year: true })).toBe('30 March – 2 April 2027');
    expect(sayWhen(w('2027-03-05'), w('2027-03-08'), style, { year: true })).toBe('5–7 March 2027');
  });
  it('keep a night together and tell two days apart', () => {
    expect(sayWhen(w('2027-03-20T20:00'), w('2027-03-21T02:00'), style)).toBe('Saturday 20 March 2027, 20:00–02:00');
    expect(sayWhen(w('2027-03-20T20:00'), w('2027-03-22T12:00'), style)).toContain('Monday 22 March 2027, 12:00');
  });
  it('say how far away a day is', () =>
    expect([0, 1, -1, 4, -3].map((days) => sayDistance(days))).toEqual(['today', 'tomorrow', 'yesterday', 'in 4 days', '3 days ago']));
});
