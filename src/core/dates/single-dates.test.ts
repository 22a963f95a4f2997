import { describe, expect, it } from 'vitest';
import { between, generateRule, generatePart, pick, random, seedOf } from '../../../tests/support/generate';
import { dayOf, isoDay, parseIsoDay } from '@/core/day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { expand, startsBetween } from '@/core/recurrence/expand';
import type { Occurrence, Recurrence } from '@/core/recurrence/model';
import { changesFromStored, fromStored, type StoredChange, type StoredRecurrence, toStored } from '@/core/recurrence/stored';
import { type Booking, clashesByVenue, clashesOf } from './clashes';
import { lengthTo, railOf } from './rail';
import { newRecurrence, readRecurrence } from './repeat-choices';
import { settleIdle, splitAt, withRules } from './rule-changes';
import { addBreak, addDate, moveDate, toggleDate } from './single-dates';

const seed = seedOf();
const ZONE = 'America/Halifax';
const TODAY = dayOf(2027, 3, 17);
const d = (text: string): number => parseIsoDay(text) as number;
const w = (text: string): PlainDateTime => parseIsoDateTime(text) as PlainDateTime;
const change = (original: string, part: Partial<StoredChange>): StoredChange => ({
  original,
  movedTo: null,
  length: null,
  eventStatus: null,
  note: '',
  ...part,
});
/** Tuesdays, 19:00-21:00, from 23 March 2027, ten times. */
const weekly = (part: Partial<ListingContent> = {}): ListingContent => ({
  ...emptyContent(),
  recurrence: {
    format: 3,
    zone: ZONE,
    parts: [
      {
        start: '2027-03-23T19:00',
        length: { days: 0, minute: 1260 },
        rule: { freq: 'weekly', interval: 1, byMonth: [], byMonthDay: [], byDay: [{ weekday: 1, nth: 0 }], weekStart: 0 },
        limit: { kind: 'count', count: 10 },
      },
    ],
    exdates: [],
    breaks: [],
  },
  ...part,
});
const stored = (c: ListingContent): StoredRecurrence => c.recurrence as StoredRecurrence;
const datesOf = (c: ListingContent): string[] => {
  const r = fromStored(stored(c));
  const from = Math.min(...r.parts.map((s) => s.start.day));
  return expand(r, changesFromStored(c.changes), from, from + 900).map(
    (o) => `${isoDateTime(o.original)} ${isoDateTime(o.start)} ${o.end ? isoDateTime(o.end) : ''} ${o.eventStatus ?? ''}`,
  );
};

describe('the rail', () => {
  it('has every date by month, left-out ones too, and counts those to come', () => {
    const content = { ...weekly(), recurrence: toggleDate(stored(weekly()), '2027-03-30T19:00') };
    const rail = railOf(content, d('2027-04-10'), TODAY + 400);
    expect(
      rail.months.map(({ month, dates }) => [
        month - 2027 * 12 + 1,
        dates.map((x) => `${x.key.slice(8, 10)}${x.out ? ' out' : ''}`).join(' '),
      ]),
    ).toEqual([
      [3, '23 30 out'],
      [4, '06 13 20 27'],
      [5, '04 11 18 25'],
    ]);
    expect([rail.total, rail.coming]).toEqual([9, 7]);
  });
  it('has a moved date on the day it moved to', () => {
    const rail = railOf(moveDate(weekly(), '2027-04-06T19:00', d('2027-04-08')), TODAY, TODAY + 400);
    expect([rail.byDay.get(d('2027-04-08'))?.[0]?.key, rail.byDay.get(d('2027-04-06'))]).toEqual(['2027-04-06T19:00', undefined]);
  });
  it('is empty, not broken, while a date that does not exist is being typed', () => {
    const broken = newRecurrence('UTC', TODAY);
    broken.parts = [{ ...(broken.parts[0] as StoredRecurrence['parts'][0]), start: '2027-02-31T19:00' }];
    expect(railOf(weekly({ recurrence: broken }), TODAY, TODAY + 9).total).toBe(0);
  });
  it('holds thousands', () => {
    const daily = weekly();
    Object.assign(stored(daily).parts[0] ?? {}, {
      rule: { freq: 'daily', interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 },
      limit: { kind: 'open' },
    });
    expect(railOf(daily, TODAY, TODAY + 5000).total).toBeGreaterThan(4900);
  });
});

describe('single dates', () => {
  it('move to a day at their own time, and forget it when they are back', () => {
    const moved = moveDate(weekly(), '2027-04-06T19:00', d('2027-04-05'));
    expect(moved.changes).toEqual([change('2027-04-06T19:00', { movedTo: '2027-04-05T19:00' })]);
    expect(moveDate(moved, '2027-04-06T19:00', d('2027-04-06')).changes).toEqual([]);
    const late = weekly({ changes: [change('2027-04-06T19:00', { movedTo: '2027-04-06T20:30', note: 'Later' })] });
    expect(moveDate(late, '2027-04-06T19:00', d('2027-04-07')).changes[0]).toMatchObject({ movedTo: '2027-04-07T20:30', note: 'Later' });
  });
  it('are added as long as the others, once, and a left-out one comes back instead', () => {
    const more = addDate(weekly(), d('2027-04-10'));
    expect(datesOf(more)).toContain('2027-04-10T19:00 2027-04-10T19:00 2027-04-10T21:00 ');
    expect(addDate(more, d('2027-04-10')).recurrence).toEqual(more.recurrence);
    const out = { ...weekly(), recurrence: toggleDate(stored(weekly()), '2027-03-30T19:00') };
    expect(datesOf(addDate(out, d('2027-03-30')))).toEqual(datesOf(weekly()));
  });
  it('fall into a break drawn in either direction', () => {
    const broken = addBreak(weekly(), d('2027-04-20'), d('2027-04-06'));
    expect(stored(broken).breaks).toEqual([{ from: '2027-04-06', to: '2027-04-20' }]);
    expect(datesOf(broken)).toHaveLength(7);
  });
  it('end on the next day when their end lies before their start', () => {
    expect([lengthTo(w('2027-04-06T19:00'), 1380), lengthTo(w('2027-04-06T19:00'), 60)]).toEqual([
      { days: 0, minute: 1380 },
      { days: 1, minute: 60 },
    ]);
  });
});

describe(`this and all later dates, seed ${seed}`, () => {
  it('parts a rule without changing a date, over 1,000 rules; then the later part changes alone', () => {
    const r = random(seed);
    let parted = 0;
    let counted = 0;
    for (let i = 0; i < 1_000; i++) {
      const recurrencePart = generatePart(r, generateRule(r));
      const recurrence: Recurrence = { zone: ZONE, parts: [recurrencePart], exdates: [], breaks: [] };
      const content = weekly({ recurrence: toStored(recurrence) });
      const all = startsBetween(recurrence, recurrencePart.start.day, recurrencePart.start.day + 900);
      if (all.length < 3) continue;
      const at = isoDateTime((all[between(r, 1, all.length - 1)] as { wall: PlainDateTime }).wall);
      const split = splitAt(content, at);
      if (!split) continue;
      expect(datesOf(split.content), `${isoDateTime(recurrencePart.start)} ${JSON.stringify(recurrencePart.rule)} ${at}`).toEqual(
        datesOf(content),
      );
      const later = stored(split.content).parts[split.recurrencePart];
      expect(later?.start).toBe(at);
      parted++;
      if (recurrencePart.limit.kind === 'count') counted++;
      if (recurrencePart.start.minute === null) continue;
      const other = structuredClone(split.content);
      const part = stored(other).parts[split.recurrencePart];
      if (part) part.start = `${at.slice(0, 10)}T03:05`;
      const [before, after] = [datesOf(content), datesOf(other)];
      const earlier = before.filter((date) => date < at);
      expect(after.slice(0, earlier.length)).toEqual(earlier);
      expect(after.slice(earlier.length).every((date) => date.includes('T03:05'))).toBe(true);
    }
    expect(parted).toBeGreaterThan(500);
    expect(counted).toBeGreaterThan(80);
  });
  it('has nothing to part at the first date, at a single one, or at none', () => {
    expect(splitAt(weekly(), '2027-03-23T19:00')).toBeUndefined();
    expect(splitAt(weekly(), '2027-03-24T19:00')).toBeUndefined();
    expect(splitAt(addDate(weekly(), d('2027-04-10')), '2027-04-10T19:00')).toBeUndefined();
    expect(splitAt(emptyContent(), '2027-04-10T19:00')).toBeUndefined();
  });
});

describe('changes whose rule is changed', () => {
  const content = weekly({
    changes: [change('2027-04-06T19:00', { eventStatus: 'cancelled' }), change('2027-04-13T19:00', { movedTo: '2027-04-14T19:00' })],
  });
  it('keep to their day when only the time changes', () => {
    const later = structuredClone(stored(content));
    if (later.parts[0]) later.parts[0].start = '2027-03-23T19:30';
    const next = withRules(content, later);
    expect(next.changes.map((c) => c.original)).toEqual(['2027-04-06T19:30', '2027-04-13T19:30']);
    expect(railOf(next, TODAY, TODAY + 400).idle).toEqual([]);
  });
  it('are listed when their date is gone, and forgotten, kept or given to the nearest as somebody decides', () => {
    const thursdays = structuredClone(stored(content));
    if (thursdays.parts[0]?.rule) {
      thursdays.parts[0].start = '2027-03-25T19:00';
      thursdays.parts[0].rule.byDay = [{ weekday: 3, nth: 0 }];
    }
    const next = withRules(content, thursdays);
    expect(railOf(next, TODAY, TODAY + 400).idle).toEqual(content.changes);
    const given = settleIdle(next, '2027-04-06T19:00', 'nearest');
    expect(given.changes[0]).toMatchObject({ original: '2027-04-08T19:00', eventStatus: 'cancelled' });
    const kept = settleIdle(given, '2027-04-13T19:00', 'own');
    expect(railOf(kept, TODAY, TODAY + 400).idle).toEqual([]);
    expect(datesOf(kept)).toContain('2027-04-14T19:00 2027-04-14T19:00 2027-04-14T21:00 ');
    expect(settleIdle(next, '2027-04-06T19:00', 'forget').changes).toEqual([content.changes[1]]);
    const off = settleIdle(next, '2027-04-06T19:00', 'own');
    expect(datesOf(off)).toContain('2027-04-06T19:00 2027-04-06T19:00 2027-04-06T21:00 cancelled');
  });
  it('are never lost, whatever the rule becomes', () => {
    const r = random(seed + 1);
    for (let i = 0; i < 300; i++) {
      const recurrencePart = generatePart(r, generateRule(r));
      const recurrence = toStored({
        zone: ZONE,
        parts: [{ ...recurrencePart, start: { day: TODAY + between(r, 0, 60), minute: pick(r, [null, 1140, 600]) } }],
        exdates: [],
        breaks: [],
      });
      const next = withRules(content, recurrence);
      const rail = railOf(next, TODAY, TODAY + 2000);
      const held = next.changes.filter((c) => !rail.idle.includes(c));
      expect(next.changes).toHaveLength(2);
      const there = readRecurrence(recurrence);
      for (const c of held) expect(startsBetween(there as Recurrence, w(c.original).day, w(c.original).day).length).toBeGreaterThan(0);
    }
  });
});

describe(`clashes, seed ${seed}`, () => {
  it('agree with comparing everything with everything', () => {
    const r = random(seed + 2);
    const some = (): { start: PlainDateTime; end: PlainDateTime | null } => {
      const day = TODAY + between(r, 0, 30);
      const minute = r() < 0.2 ? null : between(r, 0, 23) * 60;
      if (minute === null) return { start: { day, minute }, end: { day: day + between(r, 1, 4), minute: null } };
      return {
        start: { day, minute },
        end: r() < 0.2 ? null : { day: day + (r() < 0.1 ? between(r, 1, 12) : 0), minute: Math.min(1439, minute + between(r, 1, 300)) },
      };
    };
    const minutes = ({ start, end }: { start: PlainDateTime; end: PlainDateTime | null }): [number, number] => {
      const from = start.day * 1440 + (start.minute ?? 0);
      const to = end ? end.day * 1440 + (end.minute ?? 0) : from + (start.minute === null ? 1440 : 1);
      return [from, Math.max(to, from + 1)];
    };
    let clashing = 0;
    for (let i = 0; i < 60; i++) {
      const dates: Occurrence[] = Array.from({ length: 30 }, (_, n) => ({
        ...some(),
        original: { day: n, minute: null },
        eventStatus: r() < 0.1 ? 'cancelled' : null,
        note: '',
        venueId: null,
        changed: false,
        recurrencePart: 0,
      }));
      const bookings: Booking[] = Array.from({ length: 40 }, (_, n) => ({ ...some(), title: `B${n}`, listingId: String(n), venueId: 'v' }));
      const found = clashesOf(dates, bookings);
      for (const date of dates) {
        const [from, to] = minutes(date);
        const expected = date.eventStatus === 'cancelled' ? [] : bookings.filter((b) => minutes(b)[0] < to && minutes(b)[1] > from);
        expect((found.get(isoDay(date.original.day)) ?? []).map((b) => b.title).sort()).toEqual(expected.map((b) => b.title).sort());
        clashing += expected.length;
      }
    }
    expect(clashing).toBeGreaterThan(1000);
  });
  it('are only those of the venue that a date is in: one that goes elsewhere clashes there', () => {
    const at = (day: string, venueId: string | null): Occurrence => ({
      original: w(day),
      start: w(day),
      end: { ...w(day), minute: 1260 },
      eventStatus: null,
      note: '',
      venueId,
      changed: venueId !== null,
      recurrencePart: 0,
    });
    const booking = (day: string, venueId: string): Booking => ({ title: day, listingId: day, start: w(day), end: null, venueId });
    const dates = [at('2027-04-06T19:00', null), at('2027-04-13T19:00', 'loft')];
    const taken = ['hall', 'loft', 'hall2'].flatMap((v) => [booking('2027-04-06T20:00', v), booking('2027-04-13T20:00', v)]);
    const found = clashesByVenue(dates, ['hall', 'hall2'], taken);
    expect([...found].map(([key, list]) => `${key} ${list.map((b) => b.venueId).join()}`)).toEqual([
      '2027-04-06T19:00 hall',
      '2027-04-13T19:00 loft',
    ]);
  });
});
