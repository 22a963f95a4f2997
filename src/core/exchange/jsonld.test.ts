/** Structured data: what it says of a date, a venue and an organizer, and that schema.org's own definitions have all of it. */
import { describe, expect, it } from 'vitest';
import { generatePart, generateRule, random, seedOf } from '../../../tests/support/generate';
import { Vocabulary } from '../../../tests/support/vocabulary';
import { dayOf, isoDay } from '../day/day';
import { parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { ATTENDANCE } from '../listing/content';
import { startsWithin } from '../recurrence/expand';
import { type ByDay, EVENT_STATUSES, type Limit, type Recurrence, type Rule } from '../recurrence/model';
import { FEATURES } from '../venue/features';
import { eventJsonLd, type JsonLdInput, scriptJson } from './jsonld';
import { organizationJsonLd, placeJsonLd } from './jsonld-places';
import { schedulesOf } from './jsonld-schedule';

const ZONE = 'America/Halifax';
const w = (text: string): PlainDateTime => parseIsoDateTime(text) as PlainDateTime;
const vocabulary = new Vocabulary();

const HALL = {
  name: 'Causeway Slip',
  url: 'https://almanac.example/at/x',
  street: 'Slip Lane 4',
  town: 'Gannet Bay',
  region: 'Gannet',
  postcode: 'KI1 4AB',
  country: 'CA',
  lat: 43.1,
  lng: -57.4,
};
const base: JsonLdInput = {
  title: 'Low-tide Walk',
  description: 'Two hours',
  url: 'https://almanac.example/what/x',
  images: ['https://almanac.example/picture/a', 'https://almanac.example/picture/b'],
  zone: ZONE,
  start: w('2027-03-21T06:55'),
  end: w('2027-03-21T08:55'),
  eventStatus: 'going-ahead',
  attendance: 'both',
  onlineAddress: 'https://shore.example',
  venues: [HALL],
  organizers: [{ name: 'Shore Watch', url: 'https://almanac.example/by/shore-watch' }],
  cost: { kind: 'amount', amount: '8', currency: 'CAD' },
  currency: 'CAD',
  language: 'en',
  languageTag: 'en-CA',
};
const weekly: Recurrence = {
  zone: ZONE,
  parts: [
    {
      start: w('2027-03-23T19:00'),
      length: { days: 0, minute: 1260 },
      rule: { freq: 'weekly', interval: 2, byMonth: [], byMonthDay: [], byDay: [{ weekday: 1, nth: 0 }], weekStart: 0 },
      limit: { kind: 'count', count: 10 },
    },
  ],
  exdates: [w('2027-04-06T19:00')],
  breaks: [],
};

describe('a date as a schema.org Event', () => {
  it('says times with their offset, places, cost and status', () => {
    expect(eventJsonLd(base)).toMatchObject({
      startDate: '2027-03-21T06:55:00-03:00',
      endDate: '2027-03-21T08:55:00-03:00',
      eventStatus: 'https://schema.org/EventScheduled',
      eventAttendanceMode: 'https://schema.org/MixedEventAttendanceMode',
      location: [
        {
          '@type': 'Place',
          geo: { latitude: 43.1 },
          address: { '@type': 'PostalAddress', addressLocality: 'Gannet Bay', addressCountry: 'CA' },
        },
        { '@type': 'VirtualLocation' },
      ],
      offers: { price: '8', priceCurrency: 'CAD' },
      isAccessibleForFree: false,
      inLanguage: 'en-CA',
    });
  });
  it('tells that a date was moved, and from when', () => {
    expect(eventJsonLd({ ...base, previousStart: w('2027-03-21T07:40') })).toMatchObject({
      eventStatus: 'https://schema.org/EventRescheduled',
      previousStartDate: '2027-03-21T07:40:00-03:00',
    });
    expect(eventJsonLd({ ...base, eventStatus: 'cancelled' })).toMatchObject({ eventStatus: 'https://schema.org/EventCancelled' });
  });
  it('says all-day dates as days, the last one included', () => {
    expect(eventJsonLd({ ...base, start: w('2027-03-05'), end: w('2027-03-08') })).toMatchObject({
      startDate: '2027-03-05',
      endDate: isoDay(dayOf(2027, 3, 7)),
    });
  });
  it('gives what is free a price of nought, and what costs words none', () => {
    expect(eventJsonLd({ ...base, cost: { kind: 'free' } })).toMatchObject({
      isAccessibleForFree: true,
      offers: { price: '0', priceCurrency: 'CAD' },
    });
    expect(eventJsonLd({ ...base, cost: { kind: 'words', words: 'a tin' } })).not.toHaveProperty('offers');
    expect(eventJsonLd({ ...base, cost: { kind: 'unsaid' } })).not.toHaveProperty('isAccessibleForFree');
  });
  it('is one of its series, whose rules are schedules', () => {
    expect(
      eventJsonLd({ ...base, series: { name: 'Choir', url: 'https://almanac.example/what/choir', recurrence: weekly } }),
    ).toMatchObject({
      superEvent: {
        '@type': 'EventSeries',
        eventSchedule: [
          {
            repeatFrequency: 'P2W',
            byDay: ['https://schema.org/Tuesday'],
            startDate: '2027-03-23',
            startTime: '19:00',
            endTime: '21:00',
            repeatCount: 10,
            scheduleTimezone: ZONE,
            exceptDate: ['2027-04-06'],
          },
        ],
      },
    });
  });
  it('cannot close the script element that holds it', () =>
    expect(scriptJson({ name: '</script><script>alert(1)' })).not.toContain('</script'));
});

/** A schedule as a reader without our rules takes it; weeks begin on Monday (ISO 8601). */
function readSchedule(schedule: Record<string, unknown>): Recurrence {
  const [, interval = '', unit = ''] = /^P(\d+)([DWMY])$/.exec(String(schedule.repeatFrequency)) ?? [];
  const days = (schedule.byDay as string[] | undefined) ?? [];
  const numbers = (name: string): number[] => (schedule[name] as number[] | undefined) ?? [];
  const readDay = (text: string): ByDay => {
    const [, nth, day = ''] = /^(-?\d+)([A-Z]{2})$/.exec(text) ?? [];
    if (nth) return { weekday: ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'].indexOf(day), nth: Number(nth) };
    return { weekday: ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].indexOf(text.split('/').at(-1)?.slice(0, 3) ?? ''), nth: 0 };
  };
  const at = (day: unknown): PlainDateTime => w(schedule.startTime ? `${String(day)}T${String(schedule.startTime)}` : String(day));
  const rule: Rule = {
    freq: ({ D: 'daily', W: 'weekly', M: 'monthly', Y: 'yearly' } as const)[unit as 'D'],
    interval: Number(interval),
    byMonth: numbers('byMonth'),
    byMonthDay: numbers('byMonthDay'),
    byDay: days.map(readDay),
    weekStart: 0,
  };
  const limit: Limit = schedule.endDate
    ? { kind: 'until', day: at(schedule.endDate).day }
    : schedule.repeatCount
      ? { kind: 'count', count: Number(schedule.repeatCount) }
      : { kind: 'open' };
  const exdates = ((schedule.exceptDate as string[] | undefined) ?? []).map(at);
  return {
    zone: String(schedule.scheduleTimezone),
    parts: [{ start: at(schedule.startDate), length: null, rule, limit }],
    exdates,
    breaks: [],
  };
}

describe('a schedule', () => {
  it('read again by its own words alone has the dates of the rule, whichever rule that is', () => {
    const r = random(seedOf());
    let said = 0;
    for (let i = 0; i < 600; i++) {
      const part = generatePart(r, generateRule(r));
      const exdates = r() < 0.3 ? [{ day: part.start.day + 7, minute: part.start.minute }] : [];
      const recurrence: Recurrence = { zone: ZONE, parts: [part], exdates, breaks: [] };
      const [schedule] = schedulesOf(recurrence);
      if (!schedule) {
        expect([part.rule?.freq, part.rule?.weekStart]).toEqual(['weekly', 6]);
        continue;
      }
      said++;
      const days = (of: Recurrence): number[] => startsWithin(of, part.start.day, part.start.day + 1500).starts.map(({ wall }) => wall.day);
      expect(days(readSchedule(schedule)), JSON.stringify(schedule)).toEqual(days(recurrence));
    }
    expect(said).toBeGreaterThan(400);
  });
  it('has no words for breaks, seasons, hours or places in a set', () => {
    const [part] = weekly.parts;
    if (!part?.rule) throw new Error('it has a rule');
    const withRule = (more: object): Recurrence => ({ ...weekly, parts: [{ ...part, rule: { ...part.rule, ...more } as never }] });
    expect(schedulesOf(weekly)).toHaveLength(1);
    for (const more of [
      { seasons: [{ from: 501, to: 930 }] },
      { byHour: [9, 12] },
      { bySetPos: [1] },
      { byWeekNo: [3] },
      { freq: 'hourly' },
    ])
      expect(schedulesOf(withRule(more))).toEqual([]);
    expect(schedulesOf({ ...weekly, breaks: [{ from: dayOf(2027, 4, 1), to: dayOf(2027, 4, 9) }] })).toEqual([]);
  });
});

describe('schema.org’s own definitions', () => {
  it('are there, and refuse what they do not have', () => {
    expect(vocabulary.size).toBeGreaterThan(600);
    expect(vocabulary.wrong({ '@type': 'Event', name: 'x', colour: 'red' })).toEqual(['/colour: Event has no such property']);
    expect(vocabulary.wrong({ '@type': 'Event', location: { '@type': 'Offer', price: '1' } })).not.toEqual([]);
    expect(vocabulary.wrong({ '@type': 'Event', eventStatus: 'https://schema.org/EventForgotten' })).not.toEqual([]);
    expect(vocabulary.wrong({ '@type': 'Evening' })).not.toEqual([]);
    expect(vocabulary.wrong({ '@type': 'Place', maximumAttendeeCapacity: true })).not.toEqual([]);
  });
  it('have all that is said of a date, whatever it is like', () => {
    const series = { name: 'Choir', url: 'https://almanac.example/what/choir', recurrence: weekly };
    for (const eventStatus of EVENT_STATUSES)
      for (const attendance of ATTENDANCE)
        for (const cost of [{ kind: 'free' }, { kind: 'unsaid' }, base.cost] as const) {
          expect(vocabulary.wrong(eventJsonLd({ ...base, eventStatus, attendance, cost, series, previousStart: base.start }))).toEqual([]);
          expect(
            vocabulary.wrong(eventJsonLd({ ...base, eventStatus, attendance, cost, venues: [], organizers: [], images: [], end: null })),
          ).toEqual([]);
        }
    const r = random(seedOf());
    for (let i = 0; i < 100; i++)
      for (const schedule of schedulesOf({ zone: ZONE, parts: [generatePart(r, generateRule(r))], exdates: [], breaks: [] }))
        expect(vocabulary.wrong(schedule)).toEqual([]);
  });
  it('have all that is said of a venue and an organizer, and nothing is said that is not known', () => {
    const hours = { format: 1 as const, week: [[[540, 1020]], [[1200, 1560]], [[0, 1440]], [], [], [], []] as [number, number][][] };
    const place = placeJsonLd({
      ...HALL,
      phone: '+1 902',
      website: 'https://x.example',
      features: FEATURES,
      capacity: 80,
      hours,
      hall: { name: 'Hall', url: undefined },
      image: 'https://x.example/a',
    });
    expect(vocabulary.wrong(place)).toEqual([]);
    expect(place.openingHoursSpecification).toEqual([
      { '@type': 'OpeningHoursSpecification', dayOfWeek: 'https://schema.org/Monday', opens: '09:00', closes: '17:00' },
      { '@type': 'OpeningHoursSpecification', dayOfWeek: 'https://schema.org/Tuesday', opens: '20:00', closes: '02:00' },
      { '@type': 'OpeningHoursSpecification', dayOfWeek: 'https://schema.org/Wednesday', opens: '00:00', closes: '23:59' },
    ]);
    expect(placeJsonLd({ name: 'Somewhere', street: '', town: '', website: '', phone: '', capacity: null, hours: null })).toEqual({
      '@type': 'Place',
      name: 'Somewhere',
    });
    const organizer = organizationJsonLd({
      name: 'Rope Guild',
      text: 'Since 1891',
      phone: '1',
      mail: 'a@x.example',
      logo: 'https://x.example/l',
      elsewhere: ['https://x.example', ''],
    });
    expect(vocabulary.wrong(organizer)).toEqual([]);
    expect(organizer.sameAs).toEqual(['https://x.example']);
    expect(organizationJsonLd({ name: 'Rope Guild' })).toEqual({ '@type': 'Organization', name: 'Rope Guild' });
  });
});
