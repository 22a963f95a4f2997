import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { demoListings } from '#demo/listings';
import { between, generateRule, generatePart, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { dayOf, parseIsoDay, ymdOf } from '../day/day';
import { isoTime, isoDateTime, parseIsoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { expand } from '../recurrence/expand';
import { type DateChange, type Recurrence, rule } from '../recurrence/model';
import { startFits } from '../recurrence/days';
import { changesFromStored, fromStored } from '../recurrence/stored';
import { escapeText, fold, type IcalListing, writeIcal } from './ical';

const ZONE = 'America/Halifax';
const TODAY = dayOf(2027, 3, 17);
const HORIZON = TODAY + 400;
const w = (text: string): PlainDateTime => parseIsoDateTime(text) as PlainDateTime;
const listing = (recurrence: Recurrence, changes: DateChange[] = [], part: Partial<IcalListing> = {}): IcalListing => ({
  uid: '0190@almanac.example',
  sequence: 3,
  created: 0,
  changed: Date.UTC(2027, 2, 17),
  title: 'Low-tide Walk',
  description: 'Two hours over sand; bring boots, coats\nand time.',
  url: 'https://almanac.example/what/low-tide-walk',
  location: 'Causeway Slip, Gannet Bay',
  categories: ['Walks'],
  eventStatus: 'going-ahead',
  recurrence,
  changes,
  ...part,
});
const write = (...listings: IcalListing[]): string =>
  writeIcal({ name: 'Kittiwick Isles Almanac', url: 'https://almanac.example/list', listings, horizon: HORIZON });

const stamp = (value: ICAL.Time | ICAL.Period): string => {
  const t = value instanceof ICAL.Period ? value.start : value;
  const day = `${t.year}-${String(t.month).padStart(2, '0')}-${String(t.day).padStart(2, '0')}`;
  return t.isDate ? day : `${day}T${isoTime(t.hour * 60 + t.minute)}`;
};

/** What another program reads: all dates of the file, until the horizon, as start/end and whether they are cancelled. */
function readBack(text: string): string[] {
  const root = new ICAL.Component(ICAL.parse(text));
  const events = root.getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));
  const found: string[] = [];
  for (const event of events.filter((e) => !e.isRecurrenceException())) {
    const exceptions = new Map(
      events.filter((e) => e.isRecurrenceException() && e.uid === event.uid).map((e) => [stamp(e.recurrenceId), e]),
    );
    const iterator = event.iterator();
    for (let time = iterator.next(), n = 0; time && n < 3000; time = iterator.next(), n++) {
      if ((parseIsoDay(stamp(time).slice(0, 10)) ?? 0) > HORIZON) break;
      const item = exceptions.get(stamp(time)) ?? event;
      const start = item === event ? time : item.startDate;
      const off = item.component.getFirstPropertyValue('status') === 'CANCELLED' ? ' off' : '';
      found.push(`${stamp(start)}${off}`);
    }
  }
  return [...new Set(found)].sort();
}

const expected = (recurrence: Recurrence, changes: DateChange[]): string[] =>
  expand(recurrence, changes, Math.min(...recurrence.parts.map((s) => s.start.day)), HORIZON)
    .map((o) => `${isoDateTime(o.start)}${o.eventStatus === 'cancelled' ? ' off' : ''}`)
    .sort();

describe('iCalendar out', () => {
  it('gives another program the same dates for every listing of the demo', () => {
    const all = demoListings(TODAY);
    let dates = 0;
    for (const demo of all) {
      const recurrence = fromStored({
        format: 3,
        zone: ZONE,
        parts: demo.when,
        exdates: demo.exdates ?? [],
        breaks: demo.breaks ?? [],
      });
      const changes = changesFromStored(demo.changes ?? []);
      const want = expected(recurrence, changes);
      expect(readBack(write(listing(recurrence, changes))), demo.title).toEqual(want);
      dates += want.length;
    }
    expect(all.length).toBeGreaterThanOrEqual(60);
    expect(dates).toBeGreaterThan(900);
  });

  it(`gives the same dates for generated rules with left-out dates, breaks and changes, seed ${seedOf()}`, () => {
    const r = random(seedOf() + 5);
    let compared = 0;
    while (compared < 150) {
      const recurrencePart = { ...generatePart(r, generateRule(r)) };
      recurrencePart.start = { day: TODAY + Math.floor(r() * 100), minute: recurrencePart.start.minute };
      if (recurrencePart.limit.kind === 'until') recurrencePart.limit = { kind: 'until', day: recurrencePart.start.day + 200 };
      // ical.js does not know weekday numbers of a whole year, starts outside of the rule, nor BYMONTH with an interval.
      if (recurrencePart.rule && r() < 0.2) recurrencePart.rule.seasons = [{ from: 515, to: 920 }];
      if (!recurrencePart.rule || !startFits(recurrencePart)) continue;
      if (recurrencePart.rule.freq === 'monthly' && recurrencePart.rule.byMonth.length) continue;
      if (recurrencePart.rule.freq === 'yearly' && (recurrencePart.rule.byDay.length || recurrencePart.rule.byMonthDay.length)) continue;
      // It takes the 31st of a month that has none for the first of the next.
      if (recurrencePart.rule.freq === 'yearly' && recurrencePart.rule.byMonth.length && ymdOf(recurrencePart.start.day).day > 28) continue;
      const base: Recurrence = { zone: ZONE, parts: [recurrencePart], exdates: [], breaks: [] };
      const dates = expand(base, [], recurrencePart.start.day, HORIZON);
      const recurrence = {
        ...base,
        exdates: dates.filter(() => r() < 0.1).map((o) => o.original),
        breaks: [{ from: TODAY + 60, to: TODAY + 75 }],
      };
      const kept = expand(recurrence, [], recurrencePart.start.day, HORIZON);
      const changes: DateChange[] = kept
        .filter(() => r() < 0.1)
        .map((o) => ({
          original: o.original,
          movedTo: r() < 0.5 ? { day: o.original.day + 1, minute: o.original.minute } : null,
          length: null,
          eventStatus: r() < 0.5 ? 'cancelled' : null,
          note: 'Gale',
        }));
      const want = [...new Set(expected(recurrence, changes))].sort();
      expect(readBack(write(listing(recurrence, changes))), JSON.stringify(recurrencePart)).toEqual(want);
      compared++;
    }
  });

  it('has lines of 75 octets at most, ended by CR LF, and a zone for each name it uses', () => {
    const text = write(
      listing(
        fromStored({
          format: 3,
          zone: ZONE,
          parts: [{ start: '2027-03-07T07:40', length: { days: 0, minute: 580 }, rule: rule('weekly'), limit: { kind: 'open' } }],
          exdates: [],
          breaks: [],
        }),
        [],
        { title: `Ché ${'潮'.repeat(60)}` },
      ),
    );
    expect(text.endsWith('\r\n')).toBe(true);
    for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    expect(text.replace(/\r\n /g, '')).toContain(`SUMMARY:Ché ${'潮'.repeat(60)}`);
    expect(text).toContain(`BEGIN:VTIMEZONE\r\nTZID:${ZONE}`);
    expect(text).toContain('DTSTART;TZID=America/Halifax:20270307T074000');
    expect(text).not.toMatch(/[^\r]\n/);
  });

  it('describes the zone so that another program computes the same instants', () => {
    const recurrence = fromStored({
      format: 3,
      zone: ZONE,
      parts: [{ start: '2027-03-07T07:40', length: null, rule: rule('weekly'), limit: { kind: 'open' } }],
      exdates: [],
      breaks: [],
    });
    const root = new ICAL.Component(ICAL.parse(write(listing(recurrence))));
    const zone = new ICAL.Timezone(root.getFirstSubcomponent('vtimezone') as ICAL.Component);
    const at = (text: string): number => zone.utcOffset(new ICAL.Time({ ...parts(text), isDate: false }, ICAL.Timezone.utcTimezone));
    expect([at('2027-03-13T12:00'), at('2027-03-15T12:00'), at('2027-11-08T12:00')]).toEqual([-14400, -10800, -14400]);
  });

  it('writes one date alone, moved and noted', () => {
    const recurrence = fromStored({
      format: 3,
      zone: ZONE,
      parts: [{ start: '2027-03-07T07:40', length: { days: 0, minute: 580 }, rule: rule('weekly'), limit: { kind: 'open' } }],
      exdates: [],
      breaks: [],
    });
    const change: DateChange = {
      original: w('2027-03-21T07:40'),
      movedTo: w('2027-03-21T06:55'),
      length: null,
      eventStatus: null,
      note: 'Earlier ebb',
    };
    const text = write(listing(recurrence, [change], { only: w('2027-03-21T07:40') }));
    expect(readBack(text)).toEqual(['2027-03-21T06:55']);
    expect(text).toContain('DTEND;TZID=America/Halifax:20270321T085500');
    expect(text).not.toContain('RRULE');
    expect(text).toContain('Earlier ebb');
  });

  it('escapes text so that nobody can add lines of their own', () => {
    expect(escapeText('a;b,c\\d\r\nBEGIN:VEVENT')).toBe('a\\;b\\,c\\\\d\\nBEGIN:VEVENT');
    const text = write(
      listing(
        fromStored({
          format: 3,
          zone: 'UTC',
          parts: [{ start: '2027-03-07', length: null, rule: null, limit: { kind: 'open' } }],
          exdates: [],
          breaks: [],
        }),
        [],
        { title: 'x\r\nEND:VCALENDAR', organizer: { name: 'A"\r\nX:1', mail: 'a@b.example' } },
      ),
    );
    expect(text.match(/^END:VCALENDAR\r\n/gm)).toHaveLength(1);
    expect(new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent')).toHaveLength(1);
  });

  it('folds as a slow reading of the standard does, whatever the characters', () => {
    const encoder = new TextEncoder();
    const slow = (line: string): string => {
      const parts = [''];
      for (const character of line) {
        const part = `${parts.at(-1)}${character}`;
        if (encoder.encode(part).length > (parts.length > 1 ? 74 : 75)) parts.push(character);
        else parts[parts.length - 1] = part;
      }
      return parts.join('\r\n ');
    };
    const r = random(seedOf());
    for (let i = 0; i < rounds(600); i++) {
      const line = Array.from({ length: between(r, 0, 260) }, () => pick(r, ['a', ' ', ';', 'é', '–', '🐦', 'ﬁ', '\u0301', '\ud800'])).join(
        '',
      );
      expect(fold(line)).toBe(slow(line));
    }
  });

  it('folds without cutting a character', () => {
    for (let n = 60; n < 90; n++)
      expect(fold(`${'a'.repeat(n)}${'é🐦'.repeat(20)}`).replace(/\r\n /g, '')).toBe(`${'a'.repeat(n)}${'é🐦'.repeat(20)}`);
  });
});

function parts(text: string): { year: number; month: number; day: number; hour: number; minute: number } {
  const [day = '', time = ''] = text.split('T');
  const [year = 0, month = 0, d = 0] = day.split('-').map(Number);
  const [hour = 0, minute = 0] = time.split(':').map(Number);
  return { year, month, day: d, hour, minute };
}
