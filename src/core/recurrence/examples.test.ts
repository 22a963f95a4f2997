/** The examples of RFC 5545 3.8.5.3, as the standard lists them (with the corrections of its errata), all in New York. */
import { describe, expect, it } from 'vitest';
import { isoDay, parseIsoDay } from '../day/day';
import { datesOfSet } from './set';

const ZONE = 'America/New_York';
const NINE = 'T09:00:00';

/** `1997-09: 2-4 9; 1998-01: 1` as days. */
function days(text: string): string[] {
  return text.split(';').flatMap((part) => {
    const [month = '', list = ''] = part.trim().split(':');
    return list
      .trim()
      .split(/\s+/)
      .flatMap((item) => {
        const [low, high] = item.split('-').map(Number) as [number, number | undefined];
        return Array.from({ length: (high ?? low) - low + 1 }, (_, i) => `${month}-${String(low + i).padStart(2, '0')}`);
      });
  });
}

const each = (from: string, to: string, step: number): string[] => {
  const [a, b] = [parseIsoDay(from) as number, parseIsoDay(to) as number];
  return Array.from({ length: Math.floor((b - a) / step) + 1 }, (_, i) => isoDay(a + i * step));
};

const SEPT_2 = `1997-09-02${NINE}`;
/** what it is, DTSTART, rule, expected days from the first; an open rule is compared as far as they go */
const EXAMPLES: [string, string, string, string[]][] = [
  ['daily for 10 occurrences', SEPT_2, 'FREQ=DAILY;COUNT=10', days('1997-09: 2-11')],
  ['daily until Christmas', SEPT_2, 'FREQ=DAILY;UNTIL=19971224T000000Z', each('1997-09-02', '1997-12-23', 1)],
  ['every other day, forever', SEPT_2, 'FREQ=DAILY;INTERVAL=2', each('1997-09-02', '1997-12-03', 2)],
  ['every 10 days, 5 occurrences', SEPT_2, 'FREQ=DAILY;INTERVAL=10;COUNT=5', days('1997-09: 2 12 22; 1997-10: 2 12')],
  [
    'every day in January, for 3 years',
    `1998-01-01${NINE}`,
    'FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA',
    days('1998-01: 1-31; 1999-01: 1-31; 2000-01: 1-31'),
  ],
  [
    'the same, daily',
    `1998-01-01${NINE}`,
    'FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1',
    days('1998-01: 1-31; 1999-01: 1-31; 2000-01: 1-31'),
  ],
  ['weekly for 10 occurrences', SEPT_2, 'FREQ=WEEKLY;COUNT=10', each('1997-09-02', '1997-11-04', 7)],
  ['weekly until Christmas', SEPT_2, 'FREQ=WEEKLY;UNTIL=19971224T000000Z', each('1997-09-02', '1997-12-23', 7)],
  ['every other week, forever', SEPT_2, 'FREQ=WEEKLY;INTERVAL=2;WKST=SU', each('1997-09-02', '1998-02-17', 14)],
  [
    'weekly on Tuesday and Thursday for five weeks',
    SEPT_2,
    'FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH',
    days('1997-09: 2 4 9 11 16 18 23 25 30; 1997-10: 2'),
  ],
  ['the same, counted', SEPT_2, 'FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH', days('1997-09: 2 4 9 11 16 18 23 25 30; 1997-10: 2')],
  [
    'every other week on Monday, Wednesday and Friday until Christmas',
    `1997-09-01${NINE}`,
    'FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000Z;WKST=SU;BYDAY=MO,WE,FR',
    days('1997-09: 1 3 5 15 17 19 29; 1997-10: 1 3 13 15 17 27 29 31; 1997-11: 10 12 14 24 26 28; 1997-12: 8 10 12 22'),
  ],
  [
    'every other week on Tuesday and Thursday, 8 occurrences',
    SEPT_2,
    'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
    days('1997-09: 2 4 16 18 30; 1997-10: 2 14 16'),
  ],
  [
    'monthly on the first Friday, 10 occurrences',
    `1997-09-05${NINE}`,
    'FREQ=MONTHLY;COUNT=10;BYDAY=1FR',
    days('1997-09: 5; 1997-10: 3; 1997-11: 7; 1997-12: 5; 1998-01: 2; 1998-02: 6; 1998-03: 6; 1998-04: 3; 1998-05: 1; 1998-06: 5'),
  ],
  [
    'monthly on the first Friday until Christmas',
    `1997-09-05${NINE}`,
    'FREQ=MONTHLY;UNTIL=19971224T000000Z;BYDAY=1FR',
    days('1997-09: 5; 1997-10: 3; 1997-11: 7; 1997-12: 5'),
  ],
  [
    'every other month on the first and last Sunday',
    `1997-09-07${NINE}`,
    'FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU',
    days('1997-09: 7 28; 1997-11: 2 30; 1998-01: 4 25; 1998-03: 1 29; 1998-05: 3 31'),
  ],
  [
    'monthly on the second-to-last Monday',
    `1997-09-22${NINE}`,
    'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
    days('1997-09: 22; 1997-10: 20; 1997-11: 17; 1997-12: 22; 1998-01: 19; 1998-02: 16'),
  ],
  [
    'monthly on the third-to-last day, forever',
    `1997-09-28${NINE}`,
    'FREQ=MONTHLY;BYMONTHDAY=-3',
    days('1997-09: 28; 1997-10: 29; 1997-11: 28; 1997-12: 29; 1998-01: 29; 1998-02: 26'),
  ],
  [
    'monthly on the 2nd and 15th',
    SEPT_2,
    'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15',
    days('1997-09: 2 15; 1997-10: 2 15; 1997-11: 2 15; 1997-12: 2 15; 1998-01: 2 15'),
  ],
  [
    'monthly on the first and last day',
    `1997-09-30${NINE}`,
    'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1',
    days('1997-09: 30; 1997-10: 1 31; 1997-11: 1 30; 1997-12: 1 31; 1998-01: 1 31; 1998-02: 1'),
  ],
  [
    'every 18 months on the 10th to the 15th',
    `1997-09-10${NINE}`,
    'FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15',
    days('1997-09: 10-15; 1999-03: 10-13'),
  ],
  [
    'every Tuesday, every other month',
    SEPT_2,
    'FREQ=MONTHLY;INTERVAL=2;BYDAY=TU',
    days('1997-09: 2 9 16 23 30; 1997-11: 4 11 18 25; 1998-01: 6 13 20 27; 1998-03: 3 10 17 24 31'),
  ],
  [
    'yearly in June and July',
    `1997-06-10${NINE}`,
    'FREQ=YEARLY;COUNT=10;BYMONTH=6,7',
    [1997, 1998, 1999, 2000, 2001].flatMap((y) => [`${y}-06-10`, `${y}-07-10`]),
  ],
  [
    'every other year in January, February and March',
    `1997-03-10${NINE}`,
    'FREQ=YEARLY;INTERVAL=2;COUNT=10;BYMONTH=1,2,3',
    ['1997-03-10', ...[1999, 2001, 2003].flatMap((y) => [`${y}-01-10`, `${y}-02-10`, `${y}-03-10`])],
  ],
  [
    'every third year on the 1st, 100th and 200th day',
    `1997-01-01${NINE}`,
    'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200',
    days('1997-01: 1; 1997-04: 10; 1997-07: 19; 2000-01: 1; 2000-04: 9; 2000-07: 18; 2003-01: 1; 2003-04: 10; 2003-07: 19; 2006-01: 1'),
  ],
  ['every 20th Monday of the year', `1997-05-19${NINE}`, 'FREQ=YEARLY;BYDAY=20MO', days('1997-05: 19; 1998-05: 18; 1999-05: 17')],
  ['Monday of week 20', `1997-05-12${NINE}`, 'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', days('1997-05: 12; 1998-05: 11; 1999-05: 17')],
  [
    'every Thursday in March',
    `1997-03-13${NINE}`,
    'FREQ=YEARLY;BYMONTH=3;BYDAY=TH',
    days('1997-03: 13 20 27; 1998-03: 5 12 19 26; 1999-03: 4 11 18 25'),
  ],
  [
    'every Thursday in June, July and August',
    `1997-06-05${NINE}`,
    'FREQ=YEARLY;BYDAY=TH;BYMONTH=6,7,8',
    days('1997-06: 5 12 19 26; 1997-07: 3 10 17 24 31; 1997-08: 7 14 21 28; 1998-06: 4 11 18 25; 1998-07: 2 9 16 23 30'),
  ],
  [
    'the first Saturday after the first Sunday',
    `1997-09-13${NINE}`,
    'FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13',
    days('1997-09: 13; 1997-10: 11; 1997-11: 8; 1997-12: 13; 1998-01: 10; 1998-02: 7; 1998-03: 7; 1998-04: 11; 1998-05: 9; 1998-06: 13'),
  ],
  [
    'election day',
    `1996-11-05${NINE}`,
    'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
    days('1996-11: 5; 2000-11: 7; 2004-11: 2'),
  ],
  [
    'the third of Tuesday, Wednesday and Thursday',
    `1997-09-04${NINE}`,
    'FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3',
    days('1997-09: 4; 1997-10: 7; 1997-11: 6'),
  ],
  [
    'the second-to-last workday',
    `1997-09-29${NINE}`,
    'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2',
    days('1997-09: 29; 1997-10: 30; 1997-11: 27; 1997-12: 30; 1998-01: 29; 1998-02: 26; 1998-03: 30'),
  ],
  [
    'an invalid date is ignored',
    `2007-01-15${NINE}`,
    'FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5',
    days('2007-01: 15 30; 2007-02: 15; 2007-03: 15 30'),
  ],
  ['weeks that begin on Monday', '1997-08-05T09:00:00', 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO', days('1997-08: 5 10 19 24')],
  ['weeks that begin on Sunday', '1997-08-05T09:00:00', 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU', days('1997-08: 5 17 19 31')],
];

const window = (expected: string[]): [number, number] => [
  parseIsoDay(expected[0] as string) as number,
  parseIsoDay(expected.at(-1) as string) as number,
];
const run = (start: string, rule: string, exdates: string[], [from, to]: [number, number]): string[] =>
  datesOfSet({ zone: ZONE, start, rules: [rule], rdates: [], exdates, breaks: [] }, from, to);
const open = (rule: string): boolean => !/COUNT|UNTIL/.test(rule);

describe('the examples of the standard', () => {
  it.each(EXAMPLES)('%s', (_, start, rule, expected) => {
    const [from, to] = window(expected);
    // A rule with an end has no date for years after it, either.
    const dates = run(start, rule, [], [from, open(rule) ? to : to + 4000]);
    expect(dates).toEqual(expected.map((day) => day + NINE));
  });

  it('every Friday the 13th, the start left out', () => {
    const expected = days('1998-02: 13; 1998-03: 13; 1998-11: 13; 1999-08: 13; 2000-10: 13');
    const [, to] = window(expected);
    expect(run(SEPT_2, 'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13', [SEPT_2], [0, to])).toEqual(expected.map((day) => day + NINE));
  });

  it('times of day: every 3 hours, 15 minutes, hour and a half, 20 minutes from 9 to 17', () => {
    const day: [number, number] = [parseIsoDay('1997-09-02') as number, parseIsoDay('1997-09-02') as number];
    const times = (rule: string): string =>
      run(SEPT_2, rule, [], day)
        .map((date) => date.slice(11, 16))
        .join(' ');
    // Errata 3883: the end of the first is in UTC, so that 17:00 in New York is 21:00.
    expect(times('FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T210000Z')).toBe('09:00 12:00 15:00');
    expect(times('FREQ=MINUTELY;INTERVAL=15;COUNT=6')).toBe('09:00 09:15 09:30 09:45 10:00 10:15');
    expect(times('FREQ=MINUTELY;INTERVAL=90;COUNT=4')).toBe('09:00 10:30 12:00 13:30');
    const daily = 'FREQ=DAILY;BYHOUR=9,10,11,12,13,14,15,16;BYMINUTE=0,20,40';
    expect(times(daily).split(' ')).toHaveLength(24);
    expect(times(daily)).toMatch(/^09:00 09:20 09:40 10:00 .* 16:00 16:20 16:40$/);
    expect(times('FREQ=MINUTELY;INTERVAL=20;BYHOUR=9,10,11,12,13,14,15,16')).toBe(times(daily));
  });
});
