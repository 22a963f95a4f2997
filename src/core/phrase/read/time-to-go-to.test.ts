import { describe, expect, it } from 'vitest';
import { dayOf, isoDay } from '../../day/day';
import { readTimeToGoTo, type TimeBearings } from './time-to-go-to';

const bearings: TimeBearings = {
  today: dayOf(2027, 3, 17),
  firstWeekday: 0,
  holidays: new Map([
    [dayOf(2027, 12, 26), ['Boxing Day']],
    [dayOf(2027, 6, 7), ['Isles Day']],
  ]),
  language: 'en',
};
const read = (words: string, more: Partial<TimeBearings> = {}): string | undefined => {
  const day = readTimeToGoTo(words, { ...bearings, ...more });
  return day === undefined ? undefined : isoDay(day);
};

describe('a time to go to', () => {
  it.each([
    ['december', '2027-12-01'],
    ['Dec', '2027-12-01'],
    ['march', '2027-03-01'],
    ['May 2028', '2028-05-01'],
    ['2028', '2028-01-01'],
    ['2027-06', '2027-06-01'],
    ['2027-06-15', '2027-06-15'],
    ['2027-w20', '2027-05-17'],
    ['easter', '2027-03-28'],
    ['christmas', '2027-12-25'],
    ['boxing day', '2027-12-26'],
    ['isles', '2027-06-07'],
    ['today', '2027-03-17'],
    ['tomorrow', '2027-03-18'],
    ['weekend', '2027-03-20'],
    ['this weekend', '2027-03-20'],
    ['next weekend', '2027-03-27'],
    ['Weekend after next', '2027-04-03'],
    ['the week after next', '2027-03-29'],
    ['next week', '2027-03-22'],
    ['last week', '2027-03-08'],
    ['next month', '2027-04-01'],
    ['next year', '2028-01-01'],
    ['24 dec', '2027-12-24'],
    ['24 December 2028', '2028-12-24'],
    ['March 3', '2028-03-03'],
    ['friday', '2027-03-19'],
    ['the first monday in june', '2027-06-07'],
    ['in two weeks', '2027-03-31'],
    ['on 5 April', '2027-04-05'],
  ])('%s is %s', (words, day) => {
    expect(read(words)).toBe(day);
  });

  it('on a weekend, this one is the one that is on', () => {
    for (const day of [20, 21]) expect(read('this weekend', { today: dayOf(2027, 3, day) })).toBe('2027-03-20');
    expect(read('weekend after next', { today: dayOf(2027, 3, 21) })).toBe('2027-04-03');
  });

  it.each([
    ['décembre', '2027-12-01'],
    ['14 juillet', '2027-07-14'],
    ['le 14 juillet 2028', '2028-07-14'],
    ['mars 2028', '2028-03-01'],
    ['Pâques', '2027-03-28'],
    ['noël', '2027-12-25'],
    ['demain', '2027-03-18'],
    ['aujourd’hui', '2027-03-17'],
    ['semaine prochaine', '2027-03-22'],
    ['vendredi', '2027-03-19'],
    ['fin de semaine', '2027-03-20'],
  ])('in French, %s is %s', (words, day) => {
    expect(read(words, { language: 'fr' })).toBe(day);
  });

  it.each(['', ' ', 'whenever', 'every friday', 'december or so', '99999', '31 February', 'x'.repeat(4000), '💡', '%00'])(
    '%s is none',
    (words) => {
      expect(read(words)).toBeUndefined();
    },
  );
});
