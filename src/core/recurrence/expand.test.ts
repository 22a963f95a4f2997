import rrule from 'rrule';
import { RRuleTemporal } from 'rrule-temporal';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { between, generateRule, generatePart, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { slowDays } from '../../../tests/support/slow-expansion';
import { dayOf, isoDay, parseIsoDay } from '../day/day';
import { isoTime, isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { daysOfPart, startFits } from './days';
import { expand, idleChanges, startsBetween } from './expand';
import { type DateChange, type Recurrence, rule, type RecurrencePart } from './model';
import { readRuleText, ruleText } from './rule-text';

const seed = seedOf();
const wall = (text: string): PlainDateTime => parseIsoDateTime(text) as PlainDateTime;
const d = (text: string): number => parseIsoDay(text) as number;
const timed = (
  start: string,
  minute: number,
  r: RecurrencePart['rule'],
  limit: RecurrencePart['limit'] = { kind: 'open' },
): RecurrencePart => ({
  start: wall(start),
  length: { days: 0, minute },
  rule: r,
  limit,
});
const one = (parts: RecurrencePart[], rest: Partial<Recurrence> = {}): Recurrence => ({
  zone: 'America/Halifax',
  parts,
  exdates: [],
  breaks: [],
  ...rest,
});

describe(`expansion of generated rules, seed ${seed}`, () => {
  it(`agrees with the day-by-day oracle, window for window, over ${rounds(6_000)} rules`, () => {
    const r = random(seed);
    const seen = { counted: 0, empty: 0, negative: 0, unfit: 0, varying: 0 };
    for (let i = 0; i < rounds(6_000); i++) {
      const recurrencePart = generatePart(r, generateRule(r));
      const to = recurrencePart.start.day + 1_100;
      const whole = slowDays(recurrencePart, to);
      const from = recurrencePart.start.day + between(r, -20, 900);
      const end = from + between(r, 0, 120);
      const expected = whole.filter((day) => day >= from && day <= Math.min(end, to));
      const actual = daysOfPart(recurrencePart, 'UTC', from, Math.min(end, to));
      const text = `${isoDateTime(recurrencePart.start)} ${ruleText(recurrencePart, 'UTC')} ${isoDay(from)}..${isoDay(end)}`;
      expect(actual.map(isoDay), text).toEqual(expected.map(isoDay));
      if (recurrencePart.limit.kind === 'count') seen.counted++;
      if (!expected.length) seen.empty++;
      if (recurrencePart.rule?.byMonthDay.some((n) => n < 0)) seen.negative++;
      if (recurrencePart.rule?.byMonthDay.some((n) => n > 28)) seen.varying++;
      if (recurrencePart.rule && !startFits(recurrencePart)) seen.unfit++;
    }
    for (const [what, times] of Object.entries(seen)) expect(times, what).toBeGreaterThan(rounds(200));
  });

  it(`agrees with rrule and rrule-temporal over ${rounds(5_000)} rules whose first start fits`, () => {
    const r = random(seed + 1);
    let compared = 0;
    while (compared < rounds(5_000)) {
      const recurrencePart = generatePart(r, generateRule(r));
      if (!recurrencePart.rule || !startFits(recurrencePart)) continue;
      const minute = recurrencePart.start.minute ?? 720;
      const timedPart: RecurrencePart = { ...recurrencePart, start: { day: recurrencePart.start.day, minute } };
      const text = ruleText(timedPart, 'UTC') as string;
      const from = recurrencePart.start.day + between(r, 0, 500);
      const to = from + 60;
      const ours = daysOfPart(timedPart, 'UTC', from, to).map(isoDay);
      const start = `DTSTART:${isoDay(recurrencePart.start.day).replaceAll('-', '')}T${isoTime(minute).replace(':', '')}00Z`;
      const old = rrule.rrulestr(`${start}\nRRULE:${text}`);
      const dates = old.between(new Date(from * 86_400_000), new Date((to + 1) * 86_400_000 - 1), true);
      expect(ours, `rrule: ${start} ${text}`).toEqual(dates.map((date) => date.toISOString().slice(0, 10)));
      // The second library is a hundred times slower, so it sees each fifth rule, and no rule that is long in starting.
      if (compared % 5 === 0) {
        const fresh = new RRuleTemporal({ rruleString: `${start}\nRRULE:${text}` });
        const theirs = fresh.between(new Date(from * 86_400_000), new Date((to + 1) * 86_400_000 - 1), true);
        expect(ours, `rrule-temporal: ${start} ${text}`).toEqual(theirs.map((z) => z.toPlainDate().toString()));
      }
      compared++;
    }
  });

  it('leaves out and does not count wall times that a zone skips', () => {
    const r = random(seed + 2);
    let inGaps = 0;
    for (let i = 0; i < rounds(150); i++) {
      const zone = pick(r, ['America/Halifax', 'Europe/Dublin', 'Australia/Lord_Howe']);
      const minute = zone === 'Europe/Dublin' ? 90 : 135;
      const start = { day: dayOf(2024, 1, 1) + between(r, 0, 200), minute };
      const recurrencePart: RecurrencePart = {
        start,
        length: null,
        rule: rule('daily', { interval: pick(r, [1, 2, 3]) }),
        limit: r() < 0.5 ? { kind: 'count', count: between(r, 200, 900) } : { kind: 'open' },
      };
      const exists = (day: number): boolean => {
        const plain = Temporal.PlainDateTime.from(isoDateTime({ day, minute }));
        return plain.toZonedDateTime(zone).toPlainDateTime().equals(plain);
      };
      const to = start.day + 800;
      const expected = slowDays(recurrencePart, to, exists);
      expect(daysOfPart(recurrencePart, zone, start.day, to).map(isoDay)).toEqual(expected.map(isoDay));
      inGaps += slowDays(recurrencePart, to).length === expected.length ? 0 : 1;
    }
    expect(inGaps).toBeGreaterThan(rounds(20));
  });

  it('reads back the rule text it writes', () => {
    const r = random(seed + 3);
    for (let i = 0; i < rounds(2_000); i++) {
      const recurrencePart = generatePart(r, generateRule(r));
      const text = ruleText(recurrencePart, 'America/Halifax') as string;
      expect(
        readRuleText(text, 'America/Halifax', recurrencePart.start.minute === null ? null : recurrencePart.start.minute * 60),
        text,
      ).toEqual({
        rule: recurrencePart.rule,
        limit: recurrencePart.limit,
      });
    }
  });
});

describe('what differs for one date', () => {
  it('is known of that date alone: that it was changed, and where it is', () => {
    const weekly: Recurrence = {
      zone: 'America/Halifax',
      parts: [timed('2027-03-02T19:00', 1260, rule('weekly'), { kind: 'count', count: 3 })],
      exdates: [],
      breaks: [],
    };
    const original = { day: d('2027-03-09'), minute: 1140 };
    const change = { original, movedTo: null, length: null, eventStatus: null, note: '' };
    const of = (changes: DateChange[]) => expand(weekly, changes, d('2027-03-01'), d('2027-03-31')).map((o) => [o.changed, o.venueId]);
    expect(of([])).toEqual([
      [false, null],
      [false, null],
      [false, null],
    ]);
    expect(of([{ ...change, venueId: 'loft' }])).toEqual([
      [false, null],
      [true, 'loft'],
      [false, null],
    ]);
    expect(of([change])).toEqual([
      [false, null],
      [true, null],
      [false, null],
    ]);
  });
});

describe('a rule that never occurs', () => {
  it('answers with its first start alone, at once', () => {
    const never = timed('2027-02-01T10:00', 660, rule('yearly', { byMonth: [2], byMonthDay: [30] }), { kind: 'count', count: 9 });
    expect(daysOfPart(never, 'America/Halifax', d('2027-01-01'), d('2060-01-01'))).toEqual([d('2027-02-01')]);
  });
  it('finds the 29th of February across a century that leaves it out', () => {
    const leap = timed('2096-02-29T10:00', 660, rule('yearly'), { kind: 'count', count: 2 });
    expect(daysOfPart(leap, 'UTC', d('2096-01-01'), d('2110-01-01')).map(isoDay)).toEqual(['2096-02-29', '2104-02-29']);
  });
});

describe('a recurrence', () => {
  const choir = timed('2027-03-02T19:00', 21 * 60, rule('weekly', { byDay: [{ weekday: 1, nth: 0 }] }));
  const market = timed('2027-03-06T10:00', 13 * 60, rule('weekly'));
  it('joins its stretches in order', () => {
    const starts = startsBetween(one([choir, market]), d('2027-03-01'), d('2027-03-14')).map((s) => isoDateTime(s.wall));
    expect(starts).toEqual(['2027-03-02T19:00', '2027-03-06T10:00', '2027-03-09T19:00', '2027-03-13T10:00']);
  });
  it('gives a start that two stretches share once', () => {
    expect(startsBetween(one([choir, choir]), d('2027-03-01'), d('2027-03-14'))).toHaveLength(2);
  });
  it('leaves out what is left out and what falls in a break', () => {
    const recurrence = one([choir], {
      exdates: [wall('2027-03-09T19:00')],
      breaks: [{ from: d('2027-03-16'), to: d('2027-03-23') }],
    });
    const starts = startsBetween(recurrence, d('2027-03-01'), d('2027-04-01')).map((s) => isoDateTime(s.wall));
    expect(starts).toEqual(['2027-03-02T19:00', '2027-03-30T19:00']);
  });
  it('moves one date and keeps its duration and its name', () => {
    const change = {
      original: wall('2027-03-09T19:00'),
      movedTo: wall('2027-03-10T18:15'),
      length: null,
      eventStatus: null,
      note: 'hall booked',
    };
    const dates = expand(one([choir]), [change], d('2027-03-08'), d('2027-03-17'));
    expect(dates.map((o) => [isoDateTime(o.original), isoDateTime(o.start), o.end && isoDateTime(o.end), o.note])).toEqual([
      ['2027-03-09T19:00', '2027-03-10T18:15', '2027-03-10T20:15', 'hall booked'],
      ['2027-03-16T19:00', '2027-03-16T19:00', '2027-03-16T21:00', ''],
    ]);
  });
  it('names the changes that no longer have a date', () => {
    const idle = { original: wall('2027-03-10T19:00'), movedTo: null, length: null, eventStatus: 'cancelled' as const, note: '' };
    expect(idleChanges(one([choir]), [idle], (c) => c.original, d('2027-12-31'))).toEqual([idle]);
  });
});

describe('rule text that cannot be kept', () => {
  for (const text of [
    'FREQ=WEEKLY;INTERVAL=0',
    'FREQ=MONTHLY;BYMONTH=13',
    'FREQ=WEEKLY;COUNT=3;UNTIL=20270401',
    'FREQ=WEEKLY;BYDAY=XX',
    'FREQ=WEEKLY;FREQ=DAILY',
    'FREQ=SOMETIMES',
    'INTERVAL=2',
    'FREQ=WEEKLY;BYDAY=2MO',
    'FREQ=DAILY;BYSETPOS=1',
    'FREQ=MONTHLY;BYDAY=8MO',
    'FREQ=YEARLY;BYMONTH=3;BYDAY=-6FR',
    'FREQ=YEARLY;BYDAY=54MO',
    'FREQ=MONTHLY;BYMONTHDAY=0',
    'FREQ=DAILY;UNTIL=20270230',
    '',
  ]) {
    it(`refuses ${text || 'nothing'}`, () => expect(() => readRuleText(text, 'UTC', 36_000)).toThrowError());
  }
});
