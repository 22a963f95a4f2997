import { describe, expect, it } from 'vitest';
import {
  between,
  generateFullRule,
  generateRule,
  generatePart,
  pick,
  random,
  rounds,
  seedOf,
  some,
} from '../../../../tests/support/generate';
import { dayOf, isoDay, parseIsoDay } from '../../day/day';
import { isoDateTime } from '../../day/plain-date-time';
import { startFits } from '../../recurrence/days';
import { endOf, expand, startsBetween } from '../../recurrence/expand';
import type { Recurrence, Rule, RecurrencePart } from '../../recurrence/model';
import { isTooDense } from '../../recurrence/problems';
import { ruleText } from '../../recurrence/rule-text';
import { DATE_STYLES, HOUR_STYLES, type Style } from '../format';
import { sayRecurrence } from '../say';
import { MOST_CHARACTERS, readAmongWords, type Reading, readPhrase } from './read-phrase';

const seed = seedOf();
const ZONE = 'America/Halifax';
const STYLE: Style = { date: 'day-month', hours: '24' };
const NOW = { day: dayOf(2027, 3, 10), minute: 600 };
const read = (phrase: string, style = STYLE): Reading => readPhrase({ phrase, now: NOW, zone: ZONE, weekStart: 0, style });
const among = (phrase: string): Reading => readAmongWords({ phrase, now: NOW, zone: ZONE, weekStart: 0, style: STYLE });
const plain = (text: string): RecurrencePart => ({
  start: { day: parseIsoDay(text) as number, minute: null },
  length: { days: 1, minute: null },
  rule: null,
  limit: { kind: 'open' },
});

const datesOf = (recurrence: Recurrence | null): string[] => {
  if (!recurrence) return ['nothing'];
  const from = Math.min(...recurrence.parts.map((s) => s.start.day));
  return expand(recurrence, [], from, from + 1500).map(({ start, end }) => `${isoDateTime(start)}/${end ? isoDateTime(end) : ''}`);
};

/** A part whose sentence can hold all of it: its first start is one of the rule's, its times are whole minutes. */
function sayablePart(r: () => number, full: boolean): RecurrencePart {
  for (;;) {
    const rule: Rule = full ? generateFullRule(r) : generateRule(r);
    const recurrencePart = generatePart(r, { ...rule, weekStart: 0 });
    if (recurrencePart.rule?.bySecond) continue;
    if (recurrencePart.start.minute === null && full) continue;
    if (recurrencePart.start.minute !== null) {
      const dice = r();
      if (dice < 0.15) recurrencePart.length = null;
      else if (dice < 0.3) recurrencePart.length = { days: 1, minute: between(r, 0, 1439) };
      else if (dice < 0.35) recurrencePart.length = { days: between(r, 2, 5), minute: between(r, 0, 1439) };
    }
    if (!full && r() < 0.15 && recurrencePart.rule)
      recurrencePart.rule.seasons = [
        pick(r, [
          { from: 515, to: 920 },
          { from: 1101, to: 228 },
        ]),
      ];
    if (recurrencePart.limit.kind === 'until' && recurrencePart.limit.day < recurrencePart.start.day) continue;
    // The names of rules that BYSETPOS narrows to nothing, or that fill the whole day, are not said.
    if (full && (recurrencePart.rule?.freq === 'secondly' || recurrencePart.rule?.freq === 'minutely' || isTooDense(recurrencePart)))
      continue;
    if (recurrencePart.rule && startFits(recurrencePart)) return recurrencePart;
  }
}

function generate(r: () => number): Recurrence {
  const parts = Array.from({ length: pick(r, [1, 1, 1, 2, 3]) }, () => sayablePart(r, r() < 0.25));
  const first = parts[0] as RecurrencePart;
  for (let i = 0; r() < 0.3 && i < 4; i++) {
    const start = { day: first.start.day + between(r, 0, 500), minute: pick(r, [null, 600, 1170]) };
    const days = pick(r, [1, 1, 3]);
    parts.push({
      start,
      length: start.minute === null ? { days, minute: null } : pick(r, [null, { days: days - 1, minute: 1380 }]),
      rule: null,
      limit: { kind: 'open' },
    });
  }
  const recurrence: Recurrence = { zone: ZONE, parts, exdates: [], breaks: [] };
  const begins = Math.min(...parts.map((s) => s.start.day));
  if (r() < 0.4) {
    const from = begins + between(r, 0, 700);
    recurrence.breaks.push({ from, to: from + pick(r, [0, 6, 30, 200]) });
  }
  const all = startsBetween(recurrence, begins, begins + 900);
  if (r() < 0.5 && all.length > 4) {
    const days = new Set(some(r, all, Math.min(6, all.length - 1)).map(({ wall }) => wall.day));
    recurrence.exdates = startsBetween({ ...recurrence, breaks: [] }, begins, begins + 900).flatMap(({ wall }) =>
      days.has(wall.day) ? [wall] : [],
    );
  }
  return recurrence;
}

describe(`what is said can be read again, seed ${seed}`, () => {
  it(`as the same dates with the same ends, in all styles, over ${rounds(3_000)} recurrences`, () => {
    const r = random(seed);
    const seen = { broken: 0, exdates: 0, several: 0, written: 0, overnight: 0, seasons: 0, wholeDays: 0 };
    for (let i = 0; i < rounds(3_000); i++) {
      const recurrence = generate(r);
      const style: Style = { date: pick(r, DATE_STYLES), hours: pick(r, HOUR_STYLES) };
      const sentence = sayRecurrence(recurrence, style, { whole: true });
      if (sentence.length > MOST_CHARACTERS) continue;
      const reading = read(sentence, style);
      const context = `${sentence}\n${recurrence.parts.map((s) => `${isoDateTime(s.start)} ${ruleText(s, ZONE)}`).join('\n')}`;
      expect(reading.unread, context).toEqual([]);
      expect(datesOf(reading.recurrence), context).toEqual(datesOf(recurrence));
      if (recurrence.breaks.length) seen.broken++;
      if (recurrence.exdates.length) seen.exdates++;
      if (recurrence.parts.length > 1) seen.several++;
      if (/by the rule/i.test(sentence)) seen.written++;
      if (/later|next day/.test(sentence)) seen.overnight++;
      if (recurrence.parts.some((s) => s.rule?.seasons)) seen.seasons++;
      if (recurrence.parts.some((s) => s.start.minute === null)) seen.wholeDays++;
    }
    for (const [what, times] of Object.entries(seen)) expect(times, what).toBeGreaterThan(rounds(150));
  });

  it('and a phrase that somebody typed means the same once it is said in full', () => {
    for (const [phrase] of PHRASES) {
      const { recurrence } = read(phrase);
      if (!recurrence) continue;
      const sentence = sayRecurrence(recurrence, STYLE, { whole: true });
      expect(datesOf(read(sentence).recurrence), `${phrase}: ${sentence}`).toEqual(datesOf(recurrence));
    }
  });
});

/** phrase, first date, end of the first date (- = none said), how many of all (0 = no end), the next few dates */
const PHRASES: [string, string, string, number, string][] = [
  [
    'every 1st and 3rd Sunday 7:40am for 2 hours, March to October, not in August',
    '2027-03-21T07:40',
    '2027-03-21T09:40',
    0,
    '04-04 04-18 05-02',
  ],
  ['Tue and Thu 19.30-21 until end of June', '2027-03-11T19:30', '2027-03-11T21:00', 32, '03-16 03-18 03-23'],
  ['weekdays at noon for 3 weeks', '2027-03-10T12:00', '-', 15, '03-11 03-12 03-15'],
  ['every second Tuesday of every month 7pm', '2027-04-13T19:00', '-', 0, '05-11 06-08'],
  ['every second Tuesday of each month 7pm', '2027-04-13T19:00', '-', 0, '05-11 06-08'],
  ['every second Tuesday in the month 7pm', '2027-04-13T19:00', '-', 0, '05-11 06-08'],
  ['every second Tuesday of a month 7pm', '2027-04-13T19:00', '-', 0, '05-11 06-08'],
  ['every alternate Tuesday 7pm from 23 March', '2027-03-23T19:00', '-', 0, '04-06 04-20'],
  ['every second day 7pm from 20 March', '2027-03-20T19:00', '-', 0, '03-22 03-24'],
  ['Tuesdays 7pm, plus 3 April 2pm', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03 04-06'],
  ['Tuesdays 7pm, additionally 3 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03'],
  ['Tuesdays 7pm, extra 3 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03'],
  ['Tuesdays 7pm, extra date 3 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03'],
  ['Tuesdays 7pm, extra dates 3 and 5 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03 04-05'],
  ['Tuesdays 7pm, extra session 3 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03'],
  ['Tuesdays 7pm, extra sessions 3 and 5 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03 04-05'],
  ['Tuesdays 7pm, extra day 3 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03'],
  ['Tuesdays 7pm, extra days 3 and 5 April', '2027-03-16T19:00', '-', 0, '03-23 03-30 04-03 04-05'],
  ['3 April 1930', '2027-04-03T19:30', '-', 1, ''],
  ["3 April 19 o'clock", '2027-04-03T19:00', '-', 1, ''],
  ["3 April 8 o'clock in the morning", '2027-04-03T08:00', '-', 1, ''],
  ['3 April at 1000', '2027-04-03T10:00', '-', 1, ''],
  ['3 April at 2359', '2027-04-03T23:59', '-', 1, ''],
  ['3 April 0730', '2027-04-03T07:30', '-', 1, ''],
  ['3 April 0730 hrs', '2027-04-03T07:30', '-', 1, ''],
  ['3 April 7pm for 1½ hours', '2027-04-03T19:00', '2027-04-03T20:30', 1, ''],
  ['3 April 7pm for ½ hour', '2027-04-03T19:00', '2027-04-03T19:30', 1, ''],
  ['3 April 10pm to midnight', '2027-04-03T22:00', '2027-04-04T00:00', 1, ''],
  ['3rd and 5th of April 7pm', '2027-04-03T19:00', '-', 2, '04-05'],
  ['Mondays and 3 April 7pm', '2027-03-15T19:00', '-', 0, '03-22 03-29 04-03 04-05'],
  ['every day 9am from the first Monday in May to the last Friday in September', '2027-05-03T09:00', '-', 145, '05-04 05-05'],
  ['last Friday of the month 8pm', '2027-03-26T20:00', '-', 0, '04-30 05-28 06-25'],
  ['every other Wednesday from 7 Apr, 10 times, except 5 May', '2027-04-07', '2027-04-08', 9, '04-21 05-19 06-02'],
  ['14-16 May', '2027-05-14', '2027-05-17', 1, ''],
  ['3 July, 10 July and 24 July at 2pm', '2027-07-03T14:00', '-', 3, '07-10 07-24'],
  ['3, 10 and 24 July 2028', '2028-07-03', '2028-07-04', 3, '07-10 07-24'],
  ['10 to 4 on Saturday', '2027-03-13T10:00', '2027-03-13T16:00', 1, ''],
  ['3 to 5 July', '2027-07-03', '2027-07-06', 1, ''],
  ['3 to 5 July each day 10am to 4pm', '2027-07-03T10:00', '2027-07-03T16:00', 3, '07-04 07-05'],
  ['3 to 5 July daily', '2027-07-03', '2027-07-04', 3, '07-04 07-05'],
  ['Tuesdays 19:00 and Saturdays 10:00', '2027-03-13T10:00', '-', 0, '03-16 03-20 03-23'],
  ['Tuesdays 19:00 and Saturdays 10:00 until end of March', '2027-03-13T10:00', '-', 6, '03-16 03-20 03-23'],
  ['every day at 6pm until 20 April', '2027-03-10T18:00', '-', 42, '03-11 03-12 03-13'],
  ['every Sunday from April to June 2027, 10am', '2027-04-04T10:00', '-', 13, '04-11 04-18 04-25'],
  ['every year on 4 July', '2027-07-04', '2027-07-05', 0, '07-04 07-04'],
  ['first Sunday of July 2pm', '2027-07-04T14:00', '-', 1, ''],
  ['1st and 15th of each month 18:00-20:00', '2027-03-15T18:00', '2027-03-15T20:00', 0, '04-01 04-15'],
  ['every 2 weeks on Friday 8pm from 2 April', '2027-04-02T20:00', '-', 0, '04-16 04-30'],
  ['daily except Sundays 10-16', '2027-03-11T10:00', '2027-03-11T16:00', 0, '03-12 03-13 03-15'],
  ['tomorrow 3pm for an hour and a half', '2027-03-11T15:00', '2027-03-11T16:30', 1, ''],
  ['every Sunday March to October every year 11am', '2027-03-14T11:00', '-', 0, '03-21'],
  ['every weekend in July and August 2027', '2027-07-03', '2027-07-04', 18, '07-04 07-10'],
  ['14 May 7pm to 16 May 2pm', '2027-05-14T19:00', '2027-05-16T14:00', 1, ''],
  ['28 Dec to 3 Jan', '2027-12-28', '2028-01-04', 1, ''],
  ['monthly on the 10th from April', '2027-04-10', '2027-04-11', 0, '05-10'],
  ['every Wednesday 7pm starting 17 March for 6 weeks', '2027-03-17T19:00', '-', 6, '03-24'],
  ['March 7, 2027 at 2:30 pm', '2027-03-07T14:30', '-', 1, ''],
  ['every Monday, Wednesday and Friday 6.30am-7.15am till 31 May 2027', '2027-03-12T06:30', '2027-03-12T07:15', 35, '03-15 03-17'],
  ['first Monday of the month except August, 19:30', '2027-04-05T19:30', '-', 0, '05-03 06-07 07-05 09-06'],
  ['last working day of each month, 4pm', '2027-03-31T16:00', '-', 0, '04-30 05-31'],
  ['Tuesdays at 7:30pm until Christmas, no session on 13 April and 20 April', '2027-03-16T19:30', '-', 39, '03-23 03-30 04-06 04-27'],
  ['4 July 10am every year', '2027-07-04T10:00', '-', 0, '07-04'],
  ['Fri 8pm to midnight', '2027-03-12T20:00', '2027-03-13T00:00', 1, ''],
  ['Saturdays 21h-2h for six evenings', '2027-03-13T21:00', '2027-03-14T02:00', 6, '03-20'],
  ['FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=2;COUNT=4 at 0900', '2027-04-06T09:00', '-', 4, '05-04'],
  ['daily from 1 to 7 May at 9am', '2027-05-01T09:00', '-', 7, '05-02'],
  ['10pm Saturday until 2am', '2027-03-13T22:00', '2027-03-14T02:00', 1, ''],
  ['8 Thursdays from 1 April, 18:30-20:00', '2027-04-01T18:30', '2027-04-01T20:00', 8, '04-08'],
  ['every morning at 7 until 20 March', '2027-03-11T07:00', '-', 10, '03-12'],
  ['Tuesday evening at 7', '2027-03-16T19:00', '-', 1, ''],
  ['tonight at 8', '2027-03-10T20:00', '-', 1, ''],
  ['this Saturday 3pm', '2027-03-13T15:00', '-', 1, ''],
  ['Mon/Wed/Fri 6pm until 31 March', '2027-03-10T18:00', '-', 10, '03-12 03-15'],
  ['once a week on Tuesday', '2027-03-16', '2027-03-17', 0, '03-23'],
  ['quarterly on the 1st at noon', '2027-04-01T12:00', '-', 0, '07-01'],
  ['every Sunday, 15 May to 20 September of every year, 11:00', '2027-05-16T11:00', '-', 0, '05-23'],
  ['six evenings from Tuesday 6 April 19:00-21:00 weekly', '2027-04-06T19:00', '2027-04-06T21:00', 6, '04-13'],
];

describe('phrases as people type them, on Wednesday 10 March 2027 at ten', () => {
  it.each(PHRASES)('%s', (phrase, first, end, count, next) => {
    const { recurrence, problems } = read(phrase);
    if (!recurrence) throw new Error(JSON.stringify(problems));
    const from = Math.min(...recurrence.parts.map((s) => s.start.day));
    const dates = expand(recurrence, [], from, from + 20_000);
    expect(dates[0] && isoDateTime(dates[0].start)).toBe(first);
    expect(dates[0]?.end ? isoDateTime(dates[0].end) : '-').toBe(end);
    if (count) expect(dates).toHaveLength(count);
    else expect(dates.length).toBeGreaterThan(40);
    expect(dates.length).toBeLessThan(25_001);
    if (next)
      expect(
        dates
          .slice(1)
          .map(({ start }) => isoDay(start.day).slice(5))
          .join(' '),
      ).toMatch(new RegExp(`^${next}`));
    expect(problems).toEqual([]);
  });
});

describe('a span of named days beside a rule', () => {
  const firstAndLast = (phrase: string) => {
    const { recurrence, unread } = read(phrase);
    const dates = datesOf(recurrence);
    return [dates.length, dates[0]?.slice(0, 16), dates.at(-1)?.slice(0, 10), unread.length];
  };
  it('is its first and its last day, in every order', () => {
    for (const phrase of [
      'Wednesdays 20:00, 5 May to 30 June',
      '5 May – 30 June 2027: Wednesdays 20:00',
      'Wed 8pm 5 May through 30 June',
      'every Wednesday from 8pm, 5 May until 30 June 2027',
    ])
      expect(firstAndLast(phrase), phrase).toEqual([9, '2027-05-05T20:00', '2027-06-30', 0]);
    expect(firstAndLast('Mon–Thu 9am, 19–22 July')).toEqual([4, '2027-07-19T09:00', '2027-07-22', 0]);
    expect(firstAndLast('first Sunday of the month 10am, 1 May to 31 August')).toEqual([4, '2027-05-02T10:00', '2027-08-01', 0]);
  });
  it('stays dates where it comes on top, has its own times, or is a weekend', () => {
    expect(firstAndLast('Wednesdays 20:00 and 5 to 7 May')[0]).toBeGreaterThan(100);
    expect(read('Wednesdays 20:00, 5 to 7 May 10:00').recurrence?.parts).toHaveLength(2);
    expect(read('5 to 7 May').recurrence?.parts).toMatchObject([{ rule: null, length: { days: 3 } }]);
  });
});

describe('a rhythm of months and a numbered weekday', () => {
  it('are one rule', () => {
    const days = (phrase: string) => [
      ...datesOf(read(phrase).recurrence)
        .slice(0, 3)
        .map((d) => d.slice(0, 10)),
      read(phrase).unread.length,
    ];
    expect(days('every other month on the last Sunday, 15:00')).toEqual(['2027-03-28', '2027-05-30', '2027-07-25', 0]);
    expect(days('quarterly on the second Monday at 19:00')).toEqual(['2027-04-12', '2027-07-12', '2027-10-11', 0]);
    expect(days('once a month on the fourth Tuesday at noon')).toEqual(['2027-03-23', '2027-04-27', '2027-05-25', 0]);
    expect(days('monthly, first Saturday 10:00, 1 May to 31 July')).toEqual(['2027-05-01', '2027-06-05', '2027-07-03', 0]);
  });
});

describe('a part of the day', () => {
  it('tells the half of an hour, and its plural repeats', () => {
    const first = (phrase: string) => [read(phrase).recurrence?.parts[0]?.rule?.freq, datesOf(read(phrase).recurrence)[0]];
    expect(first('Wednesday evenings 7.15')).toEqual(['weekly', '2027-03-10T19:15/']);
    expect(first('Wednesday evenings 7.15–9')).toEqual(['weekly', '2027-03-10T19:15/2027-03-10T21:00']);
    expect(first('Sunday afternoons at 3')).toEqual(['weekly', '2027-03-14T15:00/']);
    expect(first('Saturday nights at 1.30')).toEqual(['weekly', '2027-03-13T01:30/']);
    expect(datesOf(among('Bread Evening, 28 March 9:00').recurrence)[0]).toBe('2027-03-28T09:00/');
    expect(first('Sunday 28 March in the evening, 6.45')).toEqual([undefined, '2027-03-28T18:45/']);
  });
  it('is asked about without an hour, and where the two differ', () => {
    const problems = (phrase: string) =>
      read(phrase).problems.map(({ kind, text, offers }) => [kind, text, ...offers.map((o) => o.instead)]);
    expect(problems('Sunday evenings')).toEqual([['no-hour', 'evenings', 'evenings at 19:00']]);
    expect(problems('Sunday evenings at 19:00')).toEqual([]);
    expect(problems('Sunday mornings at 19:00')).toEqual([['part-mismatch', 'mornings', 'afternoons', 'evenings']]);
    expect(problems('Saturday nights 11pm to 2am')).toEqual([]);
  });
});

describe('what is not understood', () => {
  const asked = (reading: Reading) => reading.problems.map(({ kind, text, offers }) => [kind, text, ...offers.map((o) => o.instead)]);
  it('puts no date, and is asked as the phrase it is, with what the rest would give', () => {
    const { recurrence, understood, problems, unread } = read('Tuesdays 7pm when the tide is low');
    expect(recurrence).toBeNull();
    expect(datesOf(understood)[0]).toBe('2027-03-16T19:00/');
    expect(unread.map((u) => u.text)).toEqual(['when the tide is low']);
    expect(problems.map((p) => [p.kind, p.text])).toEqual([['not-understood', 'when the tide is low']]);
  });
  it('never falls back to today, and a time alone is asked for its day', () => {
    for (const phrase of ['in some weeks at 7pm', 'Septmber 27 at 2pm', '7pm', 'when the tide is low, 9am'])
      expect(read(phrase).recurrence, phrase).toBeNull();
    expect(asked(read('at 19:00'))).toEqual([['no-day', 'at 19:00', 'today at 19:00', 'tomorrow at 19:00']]);
    expect(datesOf(readPhrase({ phrase: '19:00', now: NOW, zone: ZONE, weekStart: 0, style: STYLE, day: NOW.day + 3 }).recurrence)).toEqual(
      ['2027-03-13T19:00/'],
    );
  });
  it('is asked with the word that may be meant where a slip leads to one; a title beside dates is none', () => {
    expect(asked(read('Tusdays 7pm'))).toEqual([['not-understood', 'Tusdays', 'Tuesdays']]);
    expect(asked(read('20 March at non'))[0]).toContain('noon');
    expect(asked(among('Choir Tusday 13 April 7pm'))).toEqual([['not-understood', 'Tusday', 'Tuesday']]);
    for (const line of ['Marsh walk 13 April 7pm', 'Money talk tue 7pm', 'Friary walk sat 9am'])
      expect(among(line).problems, line).toEqual([]);
  });
  it('is no label, and no sign', () => expect(read('When: Saturday 20 March | 7 pm!').problems).toEqual([]));
});

describe('months beside a rule', () => {
  it('come every year without one, and with one once', () => {
    const years = (phrase: string) => [...new Set(datesOf(read(phrase).recurrence).map((d) => d.slice(0, 7)))];
    expect(years('Sundays 15:00, July')).toEqual(['2027-07', '2028-07', '2029-07', '2030-07', '2031-07']);
    expect(years('Sundays 15:00, July 2027')).toEqual(['2027-07']);
    expect(years('Sundays 15:00 from November to January').slice(0, 4)).toEqual(['2027-11', '2027-12', '2028-01', '2028-11']);
    expect(years('Sundays 15:00, except every March to November').slice(0, 3)).toEqual(['2027-12', '2028-01', '2028-02']);
  });
  it('offer the one year beside, and are a break where the rule ends before they come again', () => {
    expect(read('Sundays 15:00, not in July').asides).toMatchObject([{ text: 'July', offers: [{ instead: 'July 2027' }] }]);
    const { recurrence, asides } = read('Sundays 15:00 until 31 October 2027, not in July');
    expect([recurrence?.breaks.length, asides]).toEqual([1, []]);
    expect(sayRecurrence(read('Sundays 15:00, not in July').recurrence as Recurrence, STYLE)).toContain('except every July');
  });
});

describe('times', () => {
  const all = (phrase: string) =>
    datesOf(read(phrase).recurrence)
      .slice(0, 4)
      .map((d) => d.replaceAll('2027-', ''));
  it('on one day may be several, and their halves settle each other', () => {
    expect(all('Sunday 14 March, 11–12, 2–3 and 5pm')).toEqual(['03-14T11:00/03-14T12:00', '03-14T14:00/03-14T15:00', '03-14T17:00/']);
    expect(all('Sundays 7am and 10:30 on Mondays')).toEqual(['03-14T07:00/', '03-15T10:30/', '03-21T07:00/', '03-22T10:30/']);
    expect(read('Sunday at 2 and 8pm').problems[0]?.kind).toBe('ambiguous-time');
  });
  it('that no clock shows, or of another zone, are asked', () => {
    expect(read('20 March 26:00').problems[0]?.kind).toBe('no-such-time');
    expect(read('20 March 18:00 EST').problems[0]?.offers[0]?.instead).toBe('at 20:00');
    expect(all('2027-03-20T18:00-05:00')).toEqual(['03-20T20:00/']);
    expect(read('20 March 2030').problems[0]?.kind).toBe('year-or-time');
    expect(all('20 March 2027 2030')).toEqual(['03-20T20:30/']);
  });
  it('as a clock of twelve hours shows them are asked where nothing tells the half', () => {
    expect(read('Sunday 7.30').problems[0]?.offers.map((o) => o.value)).toEqual(['07:30', '19:30']);
    expect(read('Sunday 7:30').problems).toEqual([]);
    expect(read('Sunday 7:30', { date: 'day-month', hours: '12' }).problems[0]?.kind).toBe('ambiguous-time');
  });
});

describe('dates that differ from the rule said with them', () => {
  it('are added, moved, put at another hour, or taken out', () => {
    const april = (phrase: string) => datesOf(read(`Mondays 18:00, 5 to 26 April${phrase}`).recurrence).map((d) => d.slice(5, 16));
    expect(april(', plus Tuesday 20 April')).toEqual(['04-05T18:00', '04-12T18:00', '04-19T18:00', '04-20T18:00', '04-26T18:00']);
    expect(april(', 12 April moved to 13 April at 17:00')).toEqual(['04-05T18:00', '04-13T17:00', '04-19T18:00', '04-26T18:00']);
    expect(april(', but 12 April at five instead')).toEqual(['04-05T18:00', '04-12T17:00', '04-19T18:00', '04-26T18:00']);
    expect(april(', 12 April cancelled')).toEqual(['04-05T18:00', '04-19T18:00', '04-26T18:00']);
    expect(read('Mondays 18:00, 5 to 26 April, 13 April moved to 14 April').problems[0]?.kind).toBe('exception-without-date');
  });
});

describe('what is not certain is asked, never guessed away', () => {
  const asked = (phrase: string) => read(phrase).problems.map(({ kind, text, offers }) => [kind, text, ...offers.map((o) => o.value)]);
  it('an hour of which the half of the day is not said, filled with the likelier', () => {
    expect(asked('Thursday at 7')).toEqual([['ambiguous-time', 'at 7', '07:00', '19:00']]);
    expect(asked('Thursday half past seven')).toEqual([['ambiguous-time', 'half past seven', '07:30', '19:30']]);
    expect(asked('Saturday 7 to 9')).toEqual([['ambiguous-time', '7 to 9', '07:00-09:00', '19:00-21:00']]);
    expect(datesOf(read('Saturday 9 to 11').recurrence)[0]).toBe('2027-03-13T09:00/2027-03-13T11:00');
    for (const certain of [
      'Sat 10 to 4',
      'Sat 11-1',
      'Sat 7-9pm',
      'Sat 7pm to 9',
      'Sat 9-17',
      'Sat 12 to 2',
      'Sat at 7 in the evening',
      'Sat 21h',
      'Sat 0900',
      'Sat 7.30-9pm',
    ])
      expect(asked(certain), certain).toEqual([]);
  });
  it('a date in figures that has two readings, and one that does not exist', () => {
    expect(asked('3/4')).toEqual([['ambiguous-date', '3/4', '2027-04-03', '2028-03-04']]);
    expect(read('3/4 at 10:00').recurrence).toBeNull();
    expect(asked('13/4')).toEqual([]);
    expect(asked('4/4/2027')).toEqual([]);
    expect(asked('3.4.2027')).toEqual([]);
    expect(asked('31 February')).toEqual([['no-such-date', '31 February', '2027-02-28', '2027-03-01']]);
    expect(asked('2027-02-30')[0]?.[0]).toBe('no-such-date');
    expect(asked('next Friday')).toEqual([['ambiguous-date', 'next Friday', '2027-03-12', '2027-03-19']]);
    expect(asked('next Tuesday')).toEqual([]);
  });
  it('a weekday that contradicts its date, an end before its start, a rule without a date', () => {
    expect(asked('Tuesday 18 March 2027')).toEqual([['weekday-mismatch', 'Tuesday 18 March 2027', '2027-03-18', '2027-03-16']]);
    expect(asked('5pm to 3pm on 4 May')[0]?.[0]).toBe('end-before-start');
    expect(asked('16 May to 14 May 2027')[0]?.[0]).toBe('end-before-start');
    expect(asked('every Tuesday from 5 May 2027 to 6 May 2027')[0]?.[0]).toBe('no-dates');
    expect(asked('31st of every month in June every year')[0]?.[0]).toBe('no-dates');
    expect(asked('every Tuesday except 5 May 2027')[0]).toEqual(['exception-without-date', '5 May 2027']);
    expect(asked('every third Tuesday')).toEqual([['ambiguous-repeat', 'every third Tuesday', 'monthly-3', 'weeks-3']]);
    expect(asked('FREQ=DAILY;COUNT=0')[0]?.[0]).toBe('bad-rule');
  });
  it('and each offer, put in the place of the text, decides it', () => {
    for (const phrase of [
      'Thursday at 7',
      '3/4 at 10:00',
      'Tuesday 18 March 2027, 19:00',
      'Sat 7 to 9',
      'every third Tuesday 19:00',
      '31 February',
      'next Friday 8pm',
      '5pm to 3pm on 4 May',
    ]) {
      const problem = read(phrase).problems[0];
      if (!problem) throw new Error(`nothing asked of ${phrase}`);
      for (const { instead } of problem.offers) {
        const fixed = phrase.slice(0, problem.from) + instead + phrase.slice(problem.to);
        const again = read(fixed);
        expect([again.problems, again.unread], fixed).toEqual([[], []]);
        expect(again.recurrence, fixed).not.toBeNull();
      }
    }
  });
  it('words that say nothing of when stay aside, with where they stand', () => {
    const { unread, recurrence } = among('Choir practice tue 7pm at Gannet Bay Hall');
    expect(unread).toEqual([
      { from: 0, to: 14, text: 'Choir practice' },
      { from: 26, to: 41, text: 'Gannet Bay Hall' },
    ]);
    expect(datesOf(recurrence)).toEqual(['2027-03-16T19:00/']);
    expect(read('').recurrence).toBeNull();
    expect(read('hello').unread[0]?.text).toBe('hello');
  });
  it('nothing typed makes it fail, or is lost: every token is read, kept aside, or asked about', () => {
    const r = random(seed + 1);
    const words = [
      'every',
      'Tuesday',
      'to',
      '7',
      '-',
      'until',
      'May',
      '3/4',
      '19:00',
      'except',
      'and',
      ',',
      'not',
      'the',
      '1st',
      'of',
      'month',
      'for',
      '2',
      'weeks',
      'from',
      'year',
      'FREQ=DAILY',
      '31',
      'February',
      'ß',
      '"',
      'noon',
      'last',
      'day',
      'each',
      '99999999',
      '0',
      'in',
      ';',
      '2027-02-31',
    ];
    for (let i = 0; i < rounds(4_000); i++) {
      const phrase = Array.from({ length: between(r, 1, 12) }, () => pick(r, words)).join(' ');
      const reading = read(phrase);
      for (const { from, to, text } of reading.unread) expect(phrase.slice(from, to)).toBe(text);
      if (reading.recurrence) expect(reading.recurrence.parts.length).toBeGreaterThan(0);
    }
    expect(() => read('x'.repeat(MOST_CHARACTERS + 1))).toThrowError(/longer than/);
    expect(plain('2027-03-10').start.minute).toBeNull();
    expect(endOf({ day: 1, minute: null }, null)?.day).toBe(2);
  });
});
