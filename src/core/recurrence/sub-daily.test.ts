import ICAL from 'ical.js';
import rrule from 'rrule';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { between, generateFullRule, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { slowStarts } from '../../../tests/support/slow-times';
import { dayOf, isoDay } from '../day/day';
import { Budget } from './budget';
import type { Limit, Rule, RecurrencePart } from './model';
import { readRuleText, ruleText } from './rule-text';
import { firstNamed, type RuleStart, SECONDS_OF_DAY, startsOfRule } from './sub-daily';

const seed = seedOf();
const iso = (second: number): string => new Date(second * 1000).toISOString().slice(0, 19);
const textOf = ({ rule, start, limit, zone }: RuleStart): string => {
  const day = Math.floor(start / SECONDS_OF_DAY);
  const recurrencePart: RecurrencePart = { start: { day, minute: Math.floor((start % SECONDS_OF_DAY) / 60) }, length: null, rule, limit };
  return `${iso(start)} ${ruleText(recurrencePart, zone)}`;
};
const short = (rule: Rule): boolean => ['secondly', 'minutely', 'hourly'].includes(rule.freq);

function generate(r: () => number): RuleStart {
  const rule = generateFullRule(r);
  const day = between(r, dayOf(2024, 1, 1), dayOf(2027, 12, 31));
  const start = day * SECONDS_OF_DAY + between(r, 0, 23) * 3600 + between(r, 0, 59) * 60 + (short(rule) ? between(r, 0, 59) : 0);
  const dice = r();
  let limit: Limit = { kind: 'open' };
  if (dice < 0.25) limit = { kind: 'count', count: between(r, 1, 60) };
  else if (dice < 0.5) limit = { kind: 'until', day: day + between(r, 0, 700), second: between(r, 0, 86_399) };
  return { rule, start, limit, zone: 'UTC' };
}

describe(`rules with all BY parts, seed ${seed}`, () => {
  it(`agree with the literal oracle, window for window, over ${rounds(1_500)} rules`, () => {
    const r = random(seed);
    const seen = { setpos: 0, weeks: 0, yearDays: 0, hours: 0, short: 0, empty: 0, counted: 0 };
    for (let i = 0; i < rounds(1_500); i++) {
      const input = generate(r);
      const { rule, start, limit } = input;
      const startDay = Math.floor(start / SECONDS_OF_DAY);
      const from = startDay + between(r, -2, rule.freq === 'secondly' ? 2 : short(rule) ? 20 : 900);
      const to = from + (rule.freq === 'secondly' ? 0 : between(r, 0, short(rule) ? 3 : 150));
      const expected = slowStarts(input, to).filter((second) => second >= from * SECONDS_OF_DAY);
      const { seconds } = startsOfRule(input, from, to, 1_000_000);
      expect(seconds.map(iso), `${textOf(input)} ${isoDay(from)}..${isoDay(to)}`).toEqual(expected.map(iso));
      if (rule.bySetPos) seen.setpos++;
      if (rule.byWeekNo) seen.weeks++;
      if (rule.byYearDay) seen.yearDays++;
      if (rule.byHour) seen.hours++;
      if (short(rule)) seen.short++;
      if (!expected.length) seen.empty++;
      if (limit.kind === 'count') seen.counted++;
    }
    for (const [what, times] of Object.entries(seen)) expect(times, what).toBeGreaterThan(rounds(60));
  });

  it('agree with two libraries where the first start fits and they read the standard alike', () => {
    const r = random(seed + 1);
    const compared = { rrule: 0, ical: 0 };
    for (let i = 0; i < rounds(4_000); i++) {
      const made = generate(r);
      const { rule } = made;
      const startDay = Math.floor(made.start / SECONDS_OF_DAY);
      const first = firstNamed({ ...made, limit: { kind: 'open' } }, startDay, startDay + 5000, new Budget(1e9));
      if (first === undefined || first > made.start + 4e8) continue;
      // BYWEEKNO without weekdays, and second 60, are where they differ.
      if ((rule.byWeekNo && !rule.byDay.length) || rule.bySecond?.includes(60)) continue;
      // It knows the first week of the next year, which begins in this one, by its number from the front only.
      if (rule.byWeekNo?.some((week) => week < -51)) continue;
      // It loses step, or gives up, where hours, minutes or seconds meet parts that leave many of them out.
      if (rule.freq === 'secondly' || rule.freq === 'minutely' || (rule.freq === 'hourly' && rule.interval > 1)) continue;
      // It takes a position beyond the end of a set for one inside it, where a day has several times.
      if (rule.bySetPos && (short(rule) || rule.byHour || rule.byMinute || rule.bySecond)) continue;
      // It counts on from the set's other end where it has fewer than a position from the end says.
      if (rule.bySetPos?.some((position) => position < -1)) continue;
      const input: RuleStart = {
        ...made,
        start: first,
        limit: made.limit.kind === 'until' || rule.bySetPos ? { kind: 'open' } : made.limit,
      };
      const from = Math.floor(first / SECONDS_OF_DAY) + between(r, 0, short(rule) ? 2 : 300);
      const to = from + between(r, 0, 40);
      const ours = startsOfRule(input, from, to, 5_000).seconds.map(iso);
      if (ours.length >= 3_000) continue;
      const text = textOf(input);
      const dtstart = iso(first).replaceAll(/[-:]/g, '');
      const old = rrule.rrulestr(`DTSTART:${dtstart}Z\nRRULE:${text.split(' ')[1]}`);
      const dates = old.between(new Date(from * 86_400_000), new Date((to + 1) * 86_400_000 - 1), true);
      expect(ours, `rrule: ${text}`).toEqual([...new Set(dates.map((date) => date.toISOString().slice(0, 19)))]);
      compared.rrule++;
    }
    for (let i = 0; i < rounds(600); i++) {
      const made = generate(r);
      const { rule } = made;
      if (short(made.rule) || rule.bySetPos || rule.byWeekNo || rule.byYearDay || rule.bySecond) continue;
      // Its months go astray with several times a day, and its years with anything.
      if (rule.freq === 'yearly' || rule.byMonthDay.length) continue;
      if (rule.freq === 'monthly' && (rule.byHour || rule.byMinute || rule.byMonth.length)) continue;
      const startDay = Math.floor(made.start / SECONDS_OF_DAY);
      const first = firstNamed({ ...made, limit: { kind: 'open' } }, startDay, startDay + 5000, new Budget(1e9));
      if (first === undefined) continue;
      const input: RuleStart = { ...made, start: first, limit: { kind: 'open' } };
      const ours = startsOfRule(input, Math.floor(first / SECONDS_OF_DAY), Math.floor(first / SECONDS_OF_DAY) + 400, 20).seconds;
      const iterator = ICAL.Recur.fromString(textOf(input).split(' ')[1] ?? '').iterator(ICAL.Time.fromDateTimeString(iso(first)));
      const theirs: string[] = [];
      for (let n = 0; n < ours.length; n++) theirs.push(iterator.next()?.toString() ?? '');
      expect(ours.map(iso), `ical.js: ${textOf(input)}`).toEqual(theirs);
      compared.ical++;
    }
    expect(compared.rrule).toBeGreaterThan(rounds(1_200));
    expect(compared.ical).toBeGreaterThan(rounds(80));
  });

  it('in a zone leave out wall times that it skips, count none of them, and have an hour that comes twice once', () => {
    const r = random(seed + 2);
    let lost = 0;
    for (let i = 0; i < rounds(150); i++) {
      const zone = pick(r, ['America/Halifax', 'Europe/Dublin', 'Australia/Lord_Howe', 'Africa/Casablanca']);
      const start = dayOf(2027, pick(r, [2, 3, 9, 10]), 1) * SECONDS_OF_DAY + 30 * 60;
      const rule: Rule = { freq: 'hourly', interval: pick(r, [1, 2, 3]), byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 };
      if (r() < 0.5) rule.byMinute = [0, 15, 30];
      const limit: Limit = r() < 0.5 ? { kind: 'count', count: between(r, 500, 3000) } : { kind: 'open' };
      const exists = (second: number): boolean => {
        const plain = Temporal.PlainDateTime.from(iso(second));
        return plain.toZonedDateTime(zone).toPlainDateTime().equals(plain);
      };
      const to = Math.floor(start / SECONDS_OF_DAY) + 62;
      const expected = slowStarts({ rule, start, limit }, to, exists);
      // Without the zone it would be another list: a wall time was skipped, or the count ended elsewhere.
      const plain = slowStarts({ rule, start, limit }, to);
      expect(startsOfRule({ rule, start, limit, zone }, to - 62, to, 100_000).seconds.map(iso)).toEqual(expected.map(iso));
      if (expected.map(iso).join() !== plain.map(iso).join()) lost++;
    }
    expect(lost).toBeGreaterThan(rounds(15));
  });

  it.each([
    ['every fifth hour', { freq: 'hourly' as const, interval: 5 }],
    ['twice a day', { freq: 'daily' as const, interval: 1, byHour: [7, 19] }],
  ])('%s in a season have no date outside of it, and count none', (_name, part) => {
    const rule: Rule = { byMonth: [], byMonthDay: [], byDay: [], weekStart: 0, ...part };
    const seasons = [{ from: 301, to: 531 }];
    const start = dayOf(2027, 3, 1) * SECONDS_OF_DAY + 7 * 3600;
    const to = dayOf(2028, 3, 20);
    const month = (second: number): number => new Date(second * 1000).getUTCMonth() + 1;
    const named = slowStarts({ rule, start, limit: { kind: 'open' } }, to).filter((second) => month(second) >= 3 && month(second) <= 5);
    const dates = (limit: Limit) =>
      startsOfRule({ rule: { ...rule, seasons }, start, limit, zone: 'UTC' }, dayOf(2027, 5, 25), to, 10_000).seconds.map(iso);
    const shown = named.filter((second) => second >= dayOf(2027, 5, 25) * SECONDS_OF_DAY);
    expect(dates({ kind: 'open' })).toEqual(shown.map(iso));
    expect(dates({ kind: 'open' }).some((date) => date.startsWith('2028-03-01'))).toBe(true);
    const count = named.length - 3;
    expect(dates({ kind: 'count', count })).toEqual(shown.slice(0, -3).map(iso));
  });

  it('are written and read again as the same rule', () => {
    const r = random(seed + 3);
    for (let i = 0; i < rounds(2_000); i++) {
      const input = generate(r);
      const start = Math.floor(input.start / 60) * 60;
      const text = textOf({ ...input, start }).split(' ')[1] as string;
      const again = readRuleText(text, 'UTC', start % SECONDS_OF_DAY);
      expect(again.rule, text).toEqual(input.rule);
      const dates = (limit: Limit) =>
        startsOfRule({ ...input, start, limit }, Math.floor(start / SECONDS_OF_DAY), Math.floor(start / SECONDS_OF_DAY) + 30, 500).seconds;
      if (['minutely', 'secondly'].includes(input.rule.freq)) continue;
      expect(dates(again.limit), text).toEqual(dates(input.limit));
    }
  });
});

describe('searches end', () => {
  const at = dayOf(2027, 3, 1) * SECONDS_OF_DAY + 36_000;
  const never = [
    'FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=SECONDLY;INTERVAL=2;BYSECOND=1',
    'FREQ=MINUTELY;INTERVAL=60;BYMINUTE=7',
    'FREQ=HOURLY;INTERVAL=24;BYHOUR=9',
    'FREQ=HOURLY;INTERVAL=168;BYDAY=WE',
    'FREQ=DAILY;INTERVAL=7;BYDAY=WE',
    'FREQ=MONTHLY;BYMONTHDAY=31;BYMONTH=2,4,6',
    'FREQ=YEARLY;BYWEEKNO=20;BYMONTH=1',
    'FREQ=YEARLY;BYYEARDAY=366;BYMONTH=1',
    'FREQ=YEARLY;BYDAY=MO;BYMONTH=3;BYSETPOS=9',
    'FREQ=YEARLY;INTERVAL=2;BYMONTH=2;BYMONTHDAY=29',
    'FREQ=WEEKLY;BYSETPOS=3;BYDAY=MO,TU',
  ];
  it.each(never)('%s never occurs, and says so soon', (text) => {
    const { rule } = readRuleText(text, 'UTC', 36_000);
    const input: RuleStart = { rule, start: at, limit: { kind: 'count', count: 50 }, zone: 'America/Halifax' };
    expect(firstNamed(input, dayOf(2027, 3, 1))).toBeUndefined();
    expect(startsOfRule(input, dayOf(2027, 3, 1), dayOf(2060, 1, 1), 100).seconds).toEqual([at]);
    expect(startsOfRule(input, dayOf(9000, 1, 1), dayOf(9000, 2, 1), 100).seconds).toEqual([]);
  });

  it('a date each second expands inside a window, far away as well as near, and says when it was cut', () => {
    const { rule } = readRuleText('FREQ=SECONDLY', 'UTC', 36_000);
    const input: RuleStart = { rule, start: at, limit: { kind: 'open' }, zone: 'UTC' };
    const day = dayOf(2999, 7, 1);
    expect(startsOfRule(input, day, day, 100_000).seconds).toHaveLength(86_400);
    expect(startsOfRule(input, day, day + 400, 1_000)).toMatchObject({ cut: true, seconds: { length: 1_000 } });
  });
});
