import { describe, expect, it } from 'vitest';
import { between, generateFullRule, pick, random, seedOf } from '../../../tests/support/generate';
import { dayOf, isoDay, parseIsoDay } from '../day/day';
import type { Limit } from './model';
import { ruleText } from './rule-text';
import { datesOfSet, isoStart, type WrittenSet } from './set';
import { SECONDS_OF_DAY } from './sub-daily';

const seed = seedOf();
const d = (text: string): number => parseIsoDay(text) as number;
const set = (part: Partial<WrittenSet>): WrittenSet => ({
  zone: 'America/Halifax',
  start: '2027-03-02T19:00:00',
  rules: [],
  rdates: [],
  exdates: [],
  breaks: [],
  ...part,
});
const dates = (part: Partial<WrittenSet>, from = '2027-01-01', to = '2027-12-31') => datesOfSet(set(part), d(from), d(to));

function generate(r: () => number): WrittenSet {
  const rule = generateFullRule(r);
  if (rule.freq === 'secondly' || rule.freq === 'minutely') rule.freq = 'hourly';

  const day = between(r, dayOf(2025, 1, 1), dayOf(2027, 12, 31));
  const minute = between(r, 0, 1439);
  const dice = r();
  const limit: Limit =
    dice < 0.3
      ? { kind: 'count', count: between(r, 1, 80) }
      : dice < 0.6
        ? { kind: 'until', day: day + 200, second: 50_000 }
        : { kind: 'open' };
  const zone = pick(r, ['America/Halifax', 'Europe/Dublin', 'Australia/Lord_Howe', 'Pacific/Apia', null]);
  const text = ruleText({ start: { day, minute }, length: null, rule, limit }, zone ?? 'UTC') as string;
  return set({ zone, start: isoStart(day * SECONDS_OF_DAY + minute * 60, false), rules: [text] });
}

describe(`recurrence sets, seed ${seed}`, () => {
  it('have in a window what the whole has there, wherever it lies', () => {
    const r = random(seed);
    let many = 0;
    for (let i = 0; i < 400; i++) {
      const one = generate(r);
      const start = d(one.start.slice(0, 10));
      const whole = datesOfSet(one, start - 10, start + 400);
      const from = start + between(r, -5, 380);
      const to = from + between(r, 0, 20);
      const inside = whole.filter((date) => date.slice(0, 10) >= isoDay(from) && date.slice(0, 10) <= isoDay(to));
      expect(datesOfSet(one, from, to), JSON.stringify(one)).toEqual(inside);
      if (whole.length > 20) many++;
    }
    expect(many).toBeGreaterThan(80);
  });

  it('lose exactly one date by each that is left out, and gain one by each that is added', () => {
    const r = random(seed + 1);
    let tried = 0;
    while (tried < 150) {
      const one = generate(r);
      const start = d(one.start.slice(0, 10));
      const whole = datesOfSet(one, start, start + 300);
      if (whole.length < 3 || whole.length > 3000) continue;
      tried++;
      const gone = pick(r, whole);
      expect(datesOfSet({ ...one, exdates: [gone] }, start, start + 300)).toEqual(whole.filter((date) => date !== gone));
      const extra = `${isoDay(start + between(r, 1, 299))}T12:34:56`;
      expect(datesOfSet({ ...one, rdates: [extra, extra] }, start, start + 300)).toEqual([...new Set([...whole, extra])].sort());
      expect(datesOfSet({ ...one, rdates: [extra], exdates: [extra] }, start, start + 300)).toEqual(whole.filter((date) => date !== extra));
    }
  });

  it('count before anything is left out, and have the first start whether a rule names it or not', () => {
    expect(dates({ rules: ['FREQ=WEEKLY;COUNT=3'], exdates: ['2027-03-09T19:00:00'] })).toEqual([
      '2027-03-02T19:00:00',
      '2027-03-16T19:00:00',
    ]);
    expect(dates({ rules: ['FREQ=WEEKLY;BYDAY=WE;COUNT=3'] })).toEqual([
      '2027-03-02T19:00:00',
      '2027-03-03T19:00:00',
      '2027-03-10T19:00:00',
    ]);
    expect(dates({ rules: ['FREQ=DAILY;UNTIL=20270101'] })).toEqual([]);
    expect(dates({})).toEqual(['2027-03-02T19:00:00']);
  });

  it('join several rules and days, and breaks take their span out', () => {
    const both = dates({
      rules: ['FREQ=WEEKLY;COUNT=4', 'FREQ=MONTHLY;BYMONTHDAY=2;COUNT=3'],
      breaks: [{ from: '2027-03-10', to: '2027-03-20' }],
    });
    expect(both.map((date) => date.slice(5, 10))).toEqual(['03-02', '03-09', '03-23', '04-02', '05-02']);
    expect(dates({ zone: null, start: '2027-03-02', rules: ['FREQ=DAILY;COUNT=2;BYHOUR=4'] })).toEqual(['2027-03-02', '2027-03-03']);
  });

  it('leave out a rule’s time that the clocks skip, but read a first or further one later (3.3.10, 3.3.5)', () => {
    const skipped = { start: '2027-03-13T02:30:00', rules: ['FREQ=DAILY;COUNT=3'] };
    expect(dates(skipped).map((date) => date.slice(5, 16))).toEqual(['03-13T02:30', '03-15T02:30', '03-16T02:30']);
    expect(dates({ ...skipped, start: '2027-03-14T02:30:00' }).map((date) => date.slice(5, 16))).toEqual([
      '03-14T03:30',
      '03-15T02:30',
      '03-16T02:30',
    ]);
    expect(dates({ ...skipped, rdates: ['2027-03-14T02:30:00'] })).toContain('2027-03-14T03:30:00');
    expect(dates({ ...skipped, start: '2027-03-14T02:30:00', exdates: ['2027-03-14T02:30:00'] })).toHaveLength(2);
    const twice = dates({ start: '2027-11-06T01:30:00', rules: ['FREQ=DAILY;COUNT=3'] });
    expect(twice.map((date) => date.slice(5, 16))).toEqual(['11-06T01:30', '11-07T01:30', '11-08T01:30']);
  });

  it('read UNTIL in UTC, to the second, also in an hour that comes twice', () => {
    const hourly = (until: string) =>
      dates({ start: '2027-11-07T00:30:00', rules: [`FREQ=HOURLY;UNTIL=${until}`] }).map((date) => date.slice(11, 16));
    expect(hourly('20271107T043000Z')).toEqual(['00:30', '01:30']);
    expect(hourly('20271107T042959Z')).toEqual(['00:30']);
    expect(hourly('20271107T053000Z')).toEqual(['00:30', '01:30']);
    expect(hourly('20271107T063000Z')).toEqual(['00:30', '01:30', '02:30']);
    const daily = (until: string) => dates({ rules: [`FREQ=DAILY;UNTIL=${until}`] }).length;
    expect([daily('20270304T230000Z'), daily('20270304T225959Z'), daily('20270304T190000'), daily('20270304')]).toEqual([3, 2, 3, 3]);
  });
});

describe('what is malformed is refused with a sentence', () => {
  const bad: [Partial<WrittenSet>, RegExp][] = [
    [{ rules: ['FREQ=DAILY;INTERVAL=0'] }, /INTERVAL/],
    [{ rules: ['FREQ=DAILY;BYMONTH=13'] }, /BYMONTH/],
    [{ rules: ['FREQ=DAILY;COUNT=2;UNTIL=20270401'] }, /exclude/],
    [{ rules: ['FREQ=DAILY;COUNT=2;COUNT=2'] }, /twice/],
    [{ rules: ['FREQ=DAILY;BYSETPOS=1'] }, /BYSETPOS needs/],
    [{ rules: ['FREQ=WEEKLY;BYMONTHDAY=3'] }, /BYMONTHDAY does not go/],
    [{ rules: ['FREQ=MONTHLY;BYYEARDAY=3'] }, /BYYEARDAY does not go/],
    [{ rules: ['FREQ=MONTHLY;BYWEEKNO=3'] }, /YEARLY only/],
    [{ rules: ['FREQ=YEARLY;BYWEEKNO=3;BYDAY=2MO'] }, /no number/],
    [{ rules: ['FREQ=DAILY;BYHOUR=24'] }, /BYHOUR/],
    [{ rules: ['FREQ=DAILY;BYSECOND=61'] }, /BYSECOND/],
    [{ rules: ['FREQ=DAILY;COUNT=99999999999999999999'] }, /COUNT/],
    [{ rules: [`FREQ=DAILY;BYHOUR=${Array(2000).fill('1').join(',')}`] }, /longer|more than/],
    [{ rules: [`FREQ=YEARLY;BYYEARDAY=${Array(401).fill('1').join(',')}`] }, /BYYEARDAY has more than 400 values/],
    [{ rules: ['FREQ=DAILY;'] }, /empty/],
    [{ rules: ['FREQ=DAILY;UNTIL=2027'] }, /UNTIL/],
    [{ rules: ['FREQ=DAILY;UNTIL=20270401T10'] }, /UNTIL/],
    [{ rules: ['FREQ=DAILY;COUNT='] }, /COUNT/],
    [{ rules: [`FREQ=DAILY;${'X'.repeat(60)}=1`] }, /^X{40} is no part/],
    [{ rules: ['FREQ=DAILY;RSCALE=CHINESE'] }, /RSCALE/],
    [{ rules: ['FREQ=FORTNIGHTLY'] }, /FREQ/],
    [{ start: '2027-02-30T10:00:00' }, /there is no 2027-02-30/],
    [{ start: '2027-02-20T25:00:00' }, /no time/],
    [{ start: '2027-02-20T10:00:00Z' }, /cannot be read/],
    [{ start: '2027-03-02', rules: ['FREQ=HOURLY'] }, /time of day/],
    [{ rdates: ['2027-03-05'] }, /like the start/],
    [{ start: '2027-03-02', exdates: ['2027-03-05T10:00'] }, /must be a day/],
    [{ zone: 'Atlantis/Port' }, /not known/],
    [{ breaks: [{ from: '2027-04-01', to: '2027-03-01' }] }, /before/],
    [{ rules: ['FREQ=SECONDLY'] }, /more than 1,000,000/],
  ];
  it.each(bad)('%j', (part, sentence) => {
    expect(() => dates(part)).toThrowError(sentence);
  });
  it('a window that ends before it begins', () => {
    expect(() => dates({}, '2027-05-01', '2027-04-01')).toThrowError(/ends before/);
  });
});
