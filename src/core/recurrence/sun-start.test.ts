import nodeIcal from 'node-ical';
import { describe, expect, it } from 'vitest';
import { between, generatePart, generateRule, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { moveAll } from '../dates/moves';
import { retime } from '../dates/repeat-choices';
import { settleIdle, splitAt } from '../dates/rule-changes';
import { addDate } from '../dates/single-dates';
import { dayOf } from '../day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { dateTimeToInstant, isoInstant } from '../day/zone';
import { writeIcal } from '../exchange/ical';
import { schedulesOf } from '../exchange/jsonld-schedule';
import { copyOf } from '../listing/copy';
import type { ListingContent } from '../listing/content';
import { emptyContent } from '../listing/fields';
import { readPhrase } from '../phrase/read/read-phrase';
import { sayRecurrence } from '../phrase/say';
import { sunOn } from '../sky/sky';
import { expand, startsBetween } from './expand';
import type { Length, Limit, Recurrence, RecurrencePart } from './model';
import { rule } from './model';
import { problemsOf } from './problems';
import { atSun, atSunOfItsDay, fromStored, type StoredRecurrence, toStored } from './stored';
import { MOST_SUN_MINUTES, type SunStart, sunMinute } from './sun-start';

const ZONE = 'America/Halifax';
const HERE = { lat: 43.2, lng: -57.5 };
const FAR_NORTH = { lat: 78.2, lng: 15.6 };
const STYLE = { date: 'day-month', hours: '24' } as const;
const sunset = (minutes = 0, more: Partial<SunStart> = {}): SunStart => ({ event: 'sunset', minutes, ...HERE, ends: 'length', ...more });
const part = (sun: SunStart, more: Partial<RecurrencePart> = {}): RecurrencePart =>
  atSun(
    {
      ...{ start: { day: dayOf(2027, 4, 2), minute: 1080 }, length: null, limit: { kind: 'count', count: 4 } },
      ...{ rule: rule('weekly'), ...more },
    },
    sun,
    ZONE,
  );
const of = (...parts: RecurrencePart[]): Recurrence => ({ zone: ZONE, parts, exdates: [], breaks: [] });
const datesOf = (recurrence: Recurrence): string[] =>
  expand(recurrence, [], dayOf(2024, 1, 1), dayOf(2030, 12, 31)).map(
    ({ start, end }) => isoDateTime(start) + (end ? `/${isoDateTime(end)}` : ''),
  );
const content = (recurrence: StoredRecurrence): ListingContent => ({ ...emptyContent(), title: 'Lamp Walk', recurrence });

describe('dates that begin by the sun', () => {
  it('are on the days of their rule, each at its own time, as long as the others', () => {
    const length: Length = { days: 0, minute: 1080 + 120 };
    const recurrence = of(part(sunset(-18), { length }));
    expect(datesOf(recurrence)).toEqual([
      '2027-04-02T18:59/2027-04-02T20:59',
      '2027-04-09T19:08/2027-04-09T21:08',
      '2027-04-16T19:16/2027-04-16T21:16',
      '2027-04-23T19:24/2027-04-23T21:24',
    ]);
  });
  it('end at one time of the clock where that is said', () => {
    const recurrence = of(part(sunset(0, { ends: 'clock' }), { length: { days: 0, minute: 1320 } }));
    expect(datesOf(recurrence).map((date) => date.slice(11))).toEqual([
      '19:17/2027-04-02T22:00',
      '19:26/2027-04-09T22:00',
      '19:34/2027-04-16T22:00',
      '19:42/2027-04-23T22:00',
    ]);
  });
  it('fall on the same days as by the clock, at what the sun does on each', () => {
    const r = random(seedOf());
    let met = 0;
    for (let i = 0; i < rounds(600); i++) {
      const made = generatePart(r, generateRule(r));
      if (made.start.minute === null) continue;
      const minutes = between(r, -120, 120);
      const event = pick(r, ['sunrise', 'sunset'] as const);
      const one = atSun(made, { event, minutes, ...HERE, ends: 'length' }, ZONE);
      const [from, to] = [one.start.day - 10, one.start.day + 800];
      // By the clock at noon, which no zone skips, the same rule names the same days.
      const noon = { ...made, start: { ...made.start, minute: 720 } };
      const days = startsBetween(of(noon), from, to).map(({ wall }) => wall.day);
      const found = startsBetween(of(one), from, to).map(({ wall }) => wall);
      expect(
        found.map(({ day }) => day),
        `seed ${seedOf()}, round ${i}`,
      ).toEqual(days);
      for (const { day, minute } of found) {
        const sun = sunOn(day, { ...HERE, zone: ZONE });
        const said = sun.kind === 'rises' ? (event === 'sunset' ? sun.set : sun.rise) + minutes : Number.NaN;
        // An hour that the clocks skip or have twice between the sun and the start is none of the sun's.
        expect(Math.abs((minute ?? 0) - said) % 60, `seed ${seedOf()}, round ${i}`).toBeLessThanOrEqual(1);
        met++;
      }
    }
    expect(met).toBeGreaterThan(rounds(600) * 10);
  });
  it('are none where the sun stays up or down, or where the time would be on another day; and that is said', () => {
    const north = sunset(0, FAR_NORTH);
    const daily = part(north, { rule: rule('daily'), limit: { kind: 'until', day: dayOf(2027, 5, 10) } });
    const last = startsBetween({ ...of(daily), zone: 'Arctic/Longyearbyen' }, dayOf(2027, 4, 1), dayOf(2027, 6, 1)).at(-1);
    expect(last && isoDateTime(last.wall).slice(0, 8)).toBe('2027-04-');
    const problems = problemsOf({ ...of(daily), zone: 'Arctic/Longyearbyen' }, dayOf(2027, 6, 1));
    expect(problems.map(({ kind }) => kind)).toContain('no-sun');
    expect(sunMinute(sunset(360), dayOf(2027, 6, 21), ZONE)).toBeUndefined();
  });
  it('that begin when they should be over have no end, and stop Proof', () => {
    const recurrence = of(part(sunset(0, { ends: 'clock' }), { length: { days: 0, minute: 1170 } }));
    expect(datesOf(recurrence)).toEqual([
      '2027-04-02T19:17/2027-04-02T19:30',
      '2027-04-09T19:26/2027-04-09T19:30',
      '2027-04-16T19:34',
      '2027-04-23T19:42',
    ]);
    const problem = problemsOf(recurrence, dayOf(2028, 1, 1)).find(({ kind }) => kind === 'sun-after-end');
    expect(problem).toMatchObject({ days: [dayOf(2027, 4, 16), dayOf(2027, 4, 23)] });
  });
  it('take no longer than a question may', () => {
    const everyDay = part(sunset(), { start: { day: dayOf(1500, 1, 1), minute: 1080 }, rule: rule('daily'), limit: { kind: 'open' } });
    expect(problemsOf(of(everyDay), dayOf(2030, 1, 1))).toEqual([{ kind: 'too-much' }]);
  });
});

describe('what is kept of a start by the sun', () => {
  it('is read as it was, at the minute of its own day whatever came with it', () => {
    const recurrence = of(part(sunset(-18), { length: { days: 0, minute: 1200 } }));
    const stored = toStored(recurrence);
    expect(fromStored(JSON.parse(JSON.stringify(stored)))).toEqual(recurrence);
    const other = {
      ...stored,
      parts: stored.parts.map((one) => ({ ...one, start: '2027-04-02T12:00', length: { days: 0, minute: 840 } })),
    };
    expect(atSunOfItsDay(other)).toEqual(stored);
  });
  it('follows when all dates move, the rule is parted, a date is added or the listing copied', () => {
    const begun = content(toStored(of(part(sunset(-18), { length: { days: 0, minute: 1200 } }))));
    const keys = (after: ListingContent | undefined): string[] => (after?.recurrence ? datesOf(fromStored(after.recurrence)) : ['none']);
    expect(keys(moveAll(begun, '2027-04-09T19:08', 1))[1]).toBe('2027-04-10T19:09/2027-04-10T21:09');
    const parted = splitAt(begun, '2027-04-16T19:16');
    expect(keys(parted?.content)).toEqual(keys(begun));
    expect(parted?.content.recurrence?.parts[1]).toMatchObject({ start: '2027-04-16T19:16', sun: { minutes: -18 } });
    expect(keys(addDate(begun, dayOf(2027, 6, 21)))).toContain('2027-06-21T20:15/2027-06-21T22:15');
    const copied = copyOf(begun, { title: 'Lamp Walk again', days: [dayOf(2028, 1, 7)] });
    expect(keys(copied)[0]).toBe('2028-01-07T16:13/2028-01-07T18:13');
    expect(copied.recurrence?.parts[0]?.start).toBe('2028-01-07T16:13');
  });
  it('lasts as long as before when a numbered weekday moves, whose first date lies where it first fits', () => {
    const monthly = rule('monthly', { byDay: [{ weekday: 4, nth: 1 }] });
    const made = part(sunset(), { rule: monthly, length: { days: 0, minute: 1080 + 90 } });
    const minutes = (date: string): number => {
      const [from, to] = date.split('/').map((at) => parseIsoDateTime(at) as PlainDateTime);
      return ((to?.day ?? 0) - (from?.day ?? 0)) * 1440 + (to?.minute ?? 0) - (from?.minute ?? 0);
    };
    const moved = moveAll(content(toStored(of(made))), datesOf(of(made))[1]?.slice(0, 16) ?? '', 1);
    const dates = moved?.recurrence ? datesOf(fromStored(moved.recurrence)) : [];
    expect([dates.length, new Set(dates.map(minutes))]).toEqual([4, new Set([90])]);
  });
  it('lasts as long in a date of its own that a change without a date becomes, and in one that words move', () => {
    const made = content(toStored(of(part(sunset(), { length: { days: 0, minute: 1080 + 90 } }))));
    const change = { original: '2027-08-06T20:00', movedTo: null, length: null, eventStatus: null, note: 'By lamplight' };
    const own = settleIdle({ ...made, changes: [change] }, change.original, 'own');
    expect(own.recurrence && datesOf(fromStored(own.recurrence))).toContain('2027-08-06T20:00/2027-08-06T21:30');
    const setting = { now: { day: dayOf(2027, 3, 10), minute: 600 }, zone: ZONE, weekStart: 0, style: STYLE, sunAt: HERE };
    const phrase = 'Fridays at sunset for 90 minutes from 2 April 2027, 4 times; 23 April moved to 24 April';
    const { recurrence, problems } = readPhrase({ ...setting, phrase });
    expect([problems, recurrence && datesOf(recurrence)]).toEqual([[], expect.arrayContaining(['2027-04-24T19:42/2027-04-24T21:12'])]);
  });
  it('takes changes of single dates along when it begins by the sun, otherwise by the sun, and by the clock again', () => {
    const clock = content(toStored(of({ ...part(sunset()), sun: undefined, start: { day: dayOf(2027, 4, 2), minute: 1080 } } as never)));
    const change = { original: '2027-04-16T18:00', movedTo: null, length: null, eventStatus: 'cancelled' as const, note: '' };
    const out = { ...clock, changes: [change], recurrence: clock.recurrence && { ...clock.recurrence, exdates: ['2027-04-09T18:00'] } };
    const keysOf = ({ recurrence, changes }: ListingContent): unknown => [recurrence?.exdates, changes.map(({ original }) => original)];
    const bySun = retime(out, 0, '2027-04-02T18:00', sunset());
    expect(keysOf(bySun)).toEqual([['2027-04-09T19:26'], ['2027-04-16T19:34']]);
    const earlier = retime(bySun, 0, '2027-04-02T19:17', sunset(-18));
    expect(keysOf(earlier)).toEqual([['2027-04-09T19:08'], ['2027-04-16T19:16']]);
    const again = retime(earlier, 0, '2027-04-02T18:00', null);
    expect([keysOf(again), again.recurrence?.parts[0]?.sun]).toEqual([[['2027-04-09T18:00'], ['2027-04-16T18:00']], undefined]);
    const allDay = retime(earlier, 0, '2027-04-02');
    expect([keysOf(allDay), allDay.recurrence?.parts[0]?.sun]).toEqual([[['2027-04-09'], ['2027-04-16']], undefined]);
  });
});

describe('words for a start by the sun', () => {
  const read = (phrase: string, sunAt: { lat: number; lng: number } | undefined = HERE) =>
    readPhrase({ phrase, now: { day: dayOf(2027, 3, 10), minute: 600 }, zone: ZONE, weekStart: 0, style: STYLE, sunAt });
  it.each([
    ['Fridays 18 minutes before sunset from 2 April 2027, 2 times', ['2027-04-02T18:59', '2027-04-09T19:08']],
    ['every Friday at sunset from 2 April 2027, 2 times', ['2027-04-02T19:17', '2027-04-09T19:26']],
    ['Fridays an hour before sunset for 2 hours, from 2 April 2027, 1 time', ['2027-04-02T18:17/2027-04-02T20:17']],
    [
      'Fridays from sunset to 22:00, from 2 April 2027, 2 times',
      ['2027-04-02T19:17/2027-04-02T22:00', '2027-04-09T19:26/2027-04-09T22:00'],
    ],
    ['Fridays half an hour after sunrise until 9am, from 2 April 2027, 1 time', ['2027-04-02T07:01/2027-04-02T09:00']],
    ['2 April 2027 at sunrise', ['2027-04-02T06:31']],
    ['sunset, 2 April 2027', ['2027-04-02T19:17']],
    ['2 and 9 April 2027, 15 min before sunset', ['2027-04-02T19:02', '2027-04-09T19:11']],
    ['Fridays at sunset from 2 April 2027, 3 times, except 9 April', ['2027-04-02T19:17', '2027-04-16T19:34']],
    ['2 April 2027 at sunset, 9 April 2027 at 20:00', ['2027-04-02T19:17', '2027-04-09T20:00']],
  ])('%s', (phrase, dates) => {
    const { recurrence, problems, unread } = read(phrase);
    expect([problems, unread]).toEqual([[], []]);
    expect(recurrence && datesOf(recurrence)).toEqual(dates);
  });
  it('are asked about where nobody has said where the site is, and not understood with more hours than a start may be away', () => {
    expect(read('Fridays at sunset', null as never).problems.map(({ kind }) => kind)).toEqual(['no-sun']);
    expect(read('Fridays 9 hours before sunset').problems.length).toBeGreaterThan(0);
    expect(read('Fridays before sunset').recurrence).toBeNull();
  });
  it('say what was read, and are read again as the same dates', () => {
    const r = random(seedOf() + 1);
    for (let i = 0; i < rounds(300); i++) {
      const minutes = pick(r, [0, -18, 5, -90, 120, -MOST_SUN_MINUTES + 60]);
      const ends = pick(r, ['clock', 'length', 'none'] as const);
      const event = pick(r, ['sunrise', 'sunset'] as const);
      const sun: SunStart = { event, minutes, ...HERE, ends: ends === 'none' ? 'length' : ends };
      const start = { day: dayOf(2027, 4, 2) + between(r, 0, 300), minute: 0 };
      const limit: Limit = pick<Limit>(r, [{ kind: 'open' }, { kind: 'count', count: 3 }, { kind: 'until', day: start.day + 100 }]);
      const begun = atSun({ start, length: null, rule: r() < 0.2 ? null : rule('weekly'), limit }, sun, ZONE);
      const late = event === 'sunset' ? 1410 : 1200;
      const lasting = (begun.start.minute ?? 0) + pick(r, [30, 60, 90, 125]);
      const length: Length | null =
        ends === 'none'
          ? null
          : ends === 'clock'
            ? { days: 0, minute: late }
            : { days: Math.floor(lasting / 1440), minute: lasting % 1440 };
      const made = of(begun.rule ? { ...begun, length } : { ...begun, length, limit: { kind: 'open' } });
      const words = sayRecurrence(made, STYLE, { whole: true });
      const again = read(words);
      expect(
        again.recurrence && datesOf(again.recurrence),
        `${words} (seed ${seedOf()}, round ${i}) ${JSON.stringify(again.problems)}`,
      ).toEqual(datesOf(made));
      expect(again.recurrence?.parts[0]?.sun, words).toEqual(sun);
    }
  });
  it('read well in both languages', () => {
    const lasting = part(sunset(-18), { length: { days: 0, minute: 1170 } });
    const until = part(sunset(0, { ends: 'clock', event: 'sunrise' }), { length: { days: 0, minute: 720 } });
    expect([lasting, until].map((one) => sayRecurrence(of(one), STYLE))).toEqual([
      'Every Friday, 18 minutes before sunset for 1 hour 30 minutes, from 2 April 2027, 4 times.',
      'Every Friday, at sunrise until 12:00, from 2 April 2027, 4 times.',
    ]);
    expect([lasting, until].map((one) => sayRecurrence(of(one), { ...STYLE, language: 'fr' }))).toEqual([
      'Tous les vendredis, 18 minutes avant le coucher du soleil, pendant 1 heure 30 minutes, à partir du 2 avril 2027, 4 fois.',
      'Tous les vendredis, au lever du soleil, jusqu’à midi, à partir du 2 avril 2027, 4 fois.',
    ]);
    // A single date has a time that everybody can read.
    expect(sayRecurrence(of({ ...lasting, rule: null }), STYLE)).toBe('Friday 2 April 2027, 18:59–20:29.');
  });
});

describe('a start by the sun in open formats', () => {
  it('is a date each in a calendar file, at its own instant, with what was changed', () => {
    const recurrence = {
      ...of(part(sunset(-18), { length: { days: 0, minute: 1170 } })),
      exdates: [parseIsoDateTime('2027-04-09T19:08') as PlainDateTime],
    };
    const off = {
      original: parseIsoDateTime('2027-04-16T19:16') as PlainDateTime,
      movedTo: null,
      length: null,
      eventStatus: 'cancelled' as const,
      note: '',
    };
    const text = writeIcal({
      ...{ name: 'Almanac', url: 'https://almanac.example', horizon: dayOf(2029, 1, 1) },
      listings: [
        {
          ...{ uid: '0190@almanac.example', sequence: 0, created: 0, changed: 0, title: 'Walk', description: '', url: '', location: '' },
          ...{ categories: [], eventStatus: 'going-ahead', recurrence, changes: [off] },
        },
      ],
    });
    const read = Object.values(nodeIcal.sync.parseICS(text)).flatMap((event) => (event?.type === 'VEVENT' ? [event] : []));
    expect(read.map(({ start, status }) => `${start.toISOString()} ${status}`).sort()).toEqual(
      [
        ['2027-04-02T18:59', 'CONFIRMED'],
        ['2027-04-16T19:16', 'CANCELLED'],
        ['2027-04-23T19:24', 'CONFIRMED'],
      ].map(
        ([at, status]) =>
          `${isoInstant(dateTimeToInstant(ZONE, parseIsoDateTime(at ?? '') as PlainDateTime).ms).replace('Z', '.000Z')} ${status}`,
      ),
    );
    expect(text).not.toContain('RRULE');
  });
  it('claims no schedule, which would say one time for all', () => expect(schedulesOf(of(part(sunset())))).toEqual([]));
});
