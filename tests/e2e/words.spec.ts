import { spawnSync } from 'node:child_process';
import { expect } from '@playwright/test';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const run = (args: string[], input = '') => spawnSync('node', ['dist/cli/words.mjs', ...args], { encoding: 'utf8', input });
const lines = (text: string): Record<string, unknown>[] =>
  text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);

test('almanac dates prints the dates of a rule, from flags and for lines', () => {
  const flags = run([
    'dates',
    '--start',
    '2027-03-07T07:40',
    '--rrule',
    'FREQ=MONTHLY;BYDAY=1SU,3SU',
    '--zone',
    'America/Halifax',
    '--to',
    '2027-09-30',
    '--break',
    '2027-08-01/2027-08-31',
    '--exdate',
    '2027-04-04T07:40',
  ]);
  expect(flags.stdout.trim().split('\n')).toHaveLength(11);
  expect(flags.stdout).toMatch(/^2027-03-07T07:40:00\n2027-03-21T07:40:00\n2027-04-18T07:40:00\n/);
  const window = { from: '2024-01-01', to: '2024-01-31' };
  const answers = lines(
    run(
      ['dates', '--stdin'],
      [
        JSON.stringify({
          id: 'a',
          tzid: null,
          dtstart: '2024-01-02',
          rrule: 'FREQ=WEEKLY;COUNT=3',
          rdates: ['2024-01-05'],
          exdates: ['2024-01-09'],
          window,
        }),
        'no json',
        JSON.stringify({ id: 'b', tzid: 'America/Halifax', dtstart: '2024-01-02T19:00:00', rrule: 'FREQ=DAILY;INTERVAL=0', window }),
        JSON.stringify({ id: 7, tzid: 'Nowhere/Land', dtstart: '2024-01-02T19:00:00', rrule: 'FREQ=DAILY', window }),
        JSON.stringify({ id: 'c', dtstart: '2024-01-02T19:00:00', rrule: 'FREQ=DAILY', window: { from: '2024-02-01', to: '2024-01-01' } }),
        JSON.stringify({ id: 'd', tzid: 3, dtstart: '2024-01-02T19:00:00', window }),
        JSON.stringify({ id: 'e', dtstart: '2024-01-02T19:00:00', rdates: 'x', window }),
        JSON.stringify(['f']),
        JSON.stringify({ id: 'g', tzid: 'Europe/Dublin', dtstart: '2024-01-02T19:00:00', rrule: null, window }),
      ].join('\n'),
    ).stdout,
  );
  expect(answers[0]).toEqual({ id: 'a', dates: ['2024-01-02', '2024-01-05', '2024-01-16'] });
  expect(answers.map(({ id, error }) => [id, typeof error])).toEqual([
    ['a', 'undefined'],
    [null, 'string'],
    ['b', 'string'],
    [7, 'string'],
    ['c', 'string'],
    ['d', 'string'],
    ['e', 'string'],
    [null, 'string'],
    ['g', 'undefined'],
  ]);
  expect(answers[8]).toEqual({ id: 'g', dates: ['2024-01-02T19:00:00'] });
  expect(run(['dates']).status).toBe(1);
  expect(run(['dates', '--start', '2027-02-30']).stderr).toContain('there is no 2027-02-30');
  expect(run(['dates', '--help']).stdout).toContain('almanac read');
});

test('almanac read says what a phrase says, as JSON', () => {
  const now = ['--now', '2027-03-10T10:00', '--zone', 'America/Halifax'];
  const one = JSON.parse(run(['read', 'every other Wednesday from 7 Apr, 10 times, except 5 May', ...now]).stdout) as Record<
    string,
    unknown
  >;
  expect(one).toMatchObject({
    start: '2027-04-07',
    end: '2027-04-07',
    allDay: true,
    stretches: [{ start: '2027-04-07', end: '2027-04-07', rrule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=WE;COUNT=10' }],
    exdates: ['2027-05-05'],
    breaks: [],
    unread: [],
    problems: [],
  });
  expect((one.dates as string[]).length).toBe(9);
  const line = (text: string) => JSON.stringify({ id: text.length, text, now: '2027-03-10T10:00', zone: 'America/Halifax' });
  const answers = lines(
    run(
      ['read', '--stdin'],
      [
        line('3/4'),
        line('Tuesday 18 March 2027'),
        line('choir tue 7pm'),
        JSON.stringify({ id: 1, text: 'noon', zone: 'X/Y' }),
        line('x'.repeat(3000)),
      ].join('\n'),
    ).stdout,
  );
  expect(answers[0]).toMatchObject({
    id: 3,
    start: null,
    problems: [{ kind: 'ambiguous-date', text: '3/4', offers: ['2027-04-03', '2028-03-04'] }],
  });
  expect(answers[1]).toMatchObject({ problems: [{ kind: 'weekday-mismatch', offers: ['2027-03-18', '2027-03-16'] }] });
  // A word that is not understood puts no date.
  expect(answers[2]).toMatchObject({ start: null, unread: ['choir'], problems: [{ kind: 'not-understood', text: 'choir' }] });
  expect(answers[3]).toMatchObject({ id: 1, error: expect.stringContaining('not known') });
  expect(answers[4]).toMatchObject({ error: expect.stringContaining('longer than') });
});
