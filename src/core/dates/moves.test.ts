import { describe, expect, it } from 'vitest';
import { between, generateRule, generatePart, random, seedOf } from '../../../tests/support/generate';
import { parseIsoDay } from '@/core/day/day';
import { isoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import { expand, startsBetween } from '@/core/recurrence/expand';
import type { Recurrence, RecurrencePart } from '@/core/recurrence/model';
import { readRuleText } from '@/core/recurrence/rule-text';
import { changesFromStored, fromStored, toStored } from '@/core/recurrence/stored';
import type { ListingContent } from '../listing/content';
import { emptyContent } from '../listing/fields';
import { copyDate, dateOf, lengthenAll, lengthenDate, moveAll, moveLater, onlyDate } from './moves';
import { moveDate } from './single-dates';

const seed = seedOf();
const d = (text: string): number => parseIsoDay(text) as number;
const contentOf = (parts: RecurrencePart[], part: Partial<ListingContent> = {}): ListingContent => ({
  ...emptyContent(),
  // No zone changes its clocks at the times of these tests.
  recurrence: toStored({ zone: 'America/Halifax', parts, exdates: [], breaks: [] }),
  ...part,
});
const ruled = (start: string, text: string, part: Partial<ListingContent> = {}): ListingContent => {
  const [day, time] = start.split('T');
  const minute = time ? Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5)) : null;
  const length = minute === null ? { days: 1, minute: null } : { days: 0, minute: minute + 120 };
  const read = readRuleText(text, 'America/Halifax', minute === null ? null : minute * 60);
  return contentOf([{ start: { day: d(day as string), minute }, length, ...read }], part);
};
const single = (start: string, days = 1): ListingContent =>
  contentOf([{ start: { day: d(start), minute: null }, length: { days, minute: null }, rule: null, limit: { kind: 'open' } }]);
const recurrenceOf = (c: ListingContent): Recurrence => fromStored(c.recurrence as NonNullable<ListingContent['recurrence']>);
const datesOf = (c: ListingContent | undefined, days = 700): string[] => {
  if (!c) return ['undefined'];
  const r = recurrenceOf(c);
  const from = Math.min(...r.parts.map((s) => s.start.day));
  return expand(r, changesFromStored(c.changes), from, from + days).map((o) => isoDateTime(o.start));
};
const spanOf = (c: ListingContent | undefined, key: string): string => {
  const date = c && dateOf(c, key);
  return date ? `${isoDateTime(date.start)}/${date.end ? isoDateTime(date.end) : ''}` : 'none';
};

describe('all dates of a rule', () => {
  it('of weeks move to another weekday with their limit, and take single changes along', () => {
    const before = ruled('2027-03-23T19:00', 'FREQ=WEEKLY;BYDAY=TU;COUNT=5', {
      changes: [{ original: '2027-04-06T19:00', movedTo: '2027-04-05T20:00', length: null, eventStatus: null, note: 'In the net loft' }],
    });
    if (before.recurrence) before.recurrence.exdates = ['2027-04-13T19:00'];
    const after = moveAll(before, '2027-03-30T19:00', 2);
    expect(after?.recurrence?.parts[0]?.rule?.byDay).toEqual([{ weekday: 3, nth: 0 }]);
    expect(after?.recurrence?.exdates).toEqual(['2027-04-15T19:00']);
    expect(after?.changes[0]).toMatchObject({ original: '2027-04-08T19:00', movedTo: '2027-04-07T20:00', note: 'In the net loft' });
    expect(datesOf(after)).toEqual(['2027-03-25T19:00', '2027-04-01T19:00', '2027-04-07T20:00', '2027-04-22T19:00']);
  });
  it('of every other week keep their weeks when a weekday goes over the week’s end', () => {
    const before = ruled('2027-03-23T19:00', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,SA;COUNT=6');
    expect(datesOf(moveAll(before, '2027-03-27T19:00', 2))).toEqual(
      datesOf(before).map((text) => isoDateTime({ day: d(text.slice(0, 10)) + 2, minute: 1140 })),
    );
  });
  it('that count in their month become the next weekday of the same count', () => {
    const after = moveAll(ruled('2027-03-09T19:00', 'FREQ=MONTHLY;BYDAY=2TU;COUNT=4'), '2027-04-13T19:00', 1);
    expect(after?.recurrence?.parts[0]?.rule?.byDay).toEqual([{ weekday: 2, nth: 2 }]);
    expect(datesOf(after).map((x) => x.slice(0, 10))).toEqual(['2027-03-10', '2027-04-14', '2027-05-12', '2027-06-09']);
    const last = moveAll(ruled('2027-03-26T19:00', 'FREQ=MONTHLY;BYDAY=-1FR;COUNT=3'), '2027-03-26T19:00', -1);
    expect(datesOf(last).map((x) => x.slice(0, 10))).toEqual(['2027-03-25', '2027-04-29', '2027-05-27']);
  });
  it('of a day of the month and of a day of the year follow', () => {
    expect(datesOf(moveAll(ruled('2027-03-15T19:00', 'FREQ=MONTHLY;BYMONTHDAY=15;COUNT=3'), '2027-04-15T19:00', 2))).toEqual([
      '2027-03-17T19:00',
      '2027-04-17T19:00',
      '2027-05-17T19:00',
    ]);
    expect(datesOf(moveAll(ruled('2027-03-31', 'FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=31'), '2027-03-31', 1), 400)).toEqual([
      '2027-04-01',
      '2028-04-01',
    ]);
  });
  it('are left as they are where no such rule could say them', () => {
    for (const text of ['FREQ=MONTHLY;BYMONTHDAY=1,15', 'FREQ=MONTHLY;BYDAY=1TU,3TU', 'FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1'])
      expect(moveAll(ruled('2027-06-01T19:00', `${text};COUNT=9`), '2027-06-01T19:00', 1), text).toBeUndefined();
    expect(moveAll(ruled('2027-03-23T19:00', 'FREQ=WEEKLY;COUNT=2'), '2027-03-24T19:00', 1)).toBeUndefined();
  });
  it('without a rule are the date itself', () => {
    expect(datesOf(moveAll(single('2027-05-14', 3), '2027-05-14', 7))).toEqual(['2027-05-21']);
  });
});

describe(`moved by days, seed ${seed}`, () => {
  it('every rule of days, weeks and years is the same dates so many days later; later ones leave the earlier alone', () => {
    const r = random(seed);
    const seen = { all: 0, later: 0, landed: 0 };
    for (let i = 0; i < 1500; i++) {
      const recurrencePart = generatePart(r, { ...generateRule(r), byMonth: [] });
      recurrencePart.start.minute = recurrencePart.start.minute === null ? null : 1140;
      if (recurrencePart.length && recurrencePart.length.minute !== null) recurrencePart.length = { days: 0, minute: 1230 };
      const content = contentOf([recurrencePart]);
      const all = startsBetween(recurrenceOf(content), recurrencePart.start.day, recurrencePart.start.day + 800);
      if (all.length < 3) continue;
      const at = (all[between(r, 1, Math.min(all.length - 1, 12))] as { wall: PlainDateTime }).wall;
      const days = between(r, -9, 9) || 3;
      const [key, target] = [isoDateTime(at), isoDateTime({ ...at, day: at.day + days })];
      const what = `${JSON.stringify(recurrencePart)} ${key} ${days}`;
      const moved = moveAll(content, key, days);
      if (!moved) continue;
      const { rule } = recurrencePart;
      const exact = rule && !rule.byMonthDay.length && !rule.byDay.some((x) => x.nth) && rule.freq !== 'monthly' && rule.freq !== 'yearly';
      const [before, after] = [datesOf(content), datesOf(moved)];
      if (exact) {
        const shifted = before.map((text) => isoDateTime({ day: d(text.slice(0, 10)) + days, minute: recurrencePart.start.minute }));
        expect(after, what).toEqual(shifted);
        seen.all++;
      }
      if (exact || rule?.freq === 'monthly') {
        expect(datesOf(moved, 900), what).toContain(target);
        seen.landed++;
      }
      const later = moveLater(content, key, days);
      if (!later || !exact) continue;
      const earlier = before.filter((text) => text < key);
      const rest = before.filter((text) => text >= key).map((text) => isoDateTime({ day: d(text.slice(0, 10)) + days, minute: at.minute }));
      // Both to the same day: the window of one begins earlier.
      const near = (list: string[]): string[] =>
        [...new Set(list)].filter((text) => d(text.slice(0, 10)) < recurrencePart.start.day + 600).sort();
      expect(near(datesOf(later, 750)), what).toEqual(near([...earlier, ...rest]));
      seen.later++;
    }
    expect(seen.all).toBeGreaterThan(250);
    expect(seen.later).toBeGreaterThan(200);
    expect(seen.landed).toBeGreaterThan(300);
  });
});

describe('one date', () => {
  const weekly = ruled('2027-03-23T19:00', 'FREQ=WEEKLY;BYDAY=TU;COUNT=3');
  it('is copied as it now is, once', () => {
    const moved = {
      ...weekly,
      changes: [
        { original: '2027-03-30T19:00', movedTo: '2027-03-31T20:00', length: { days: 0, minute: 1410 }, eventStatus: null, note: '' },
      ],
    };
    const copied = copyDate(moved, '2027-03-30T19:00', d('2027-05-01'));
    expect(datesOf(copied).at(-1)).toBe('2027-05-01T20:00');
    expect(spanOf(copied, '2027-05-01T20:00')).toBe('2027-05-01T20:00/2027-05-01T23:30');
    expect(copyDate(copied, '2027-03-30T19:00', d('2027-05-01'))).toEqual(copied);
    expect(copyDate(weekly, '2027-03-24T19:00', d('2027-05-01'))).toBe(weekly);
  });
  it('becomes a listing by itself without what belongs to the others', () => {
    const off = moveDate(
      { ...weekly, eventStatus: 'cancelled', eventStatusNote: 'Storm', title: 'Choir' },
      '2027-03-30T19:00',
      d('2027-04-01'),
    );
    const own = onlyDate(off, '2027-03-30T19:00', d('2027-05-02'));
    expect([datesOf(own), own.changes, own.eventStatus, own.title]).toEqual([['2027-05-02T19:00'], [], 'going-ahead', 'Choir']);
  });
  it('is lengthened at either end, by itself or with all', () => {
    const longer = lengthenDate(weekly, '2027-03-30T19:00', 'end', 1);
    expect(spanOf(longer, '2027-03-30T19:00')).toBe('2027-03-30T19:00/2027-03-31T21:00');
    expect(spanOf(longer, '2027-04-06T19:00')).toBe('2027-04-06T19:00/2027-04-06T21:00');
    expect(lengthenDate(longer ?? weekly, '2027-03-30T19:00', 'end', -1)?.changes[0]?.length).toEqual({ days: 0, minute: 1260 });
    expect(spanOf(lengthenAll(weekly, '2027-03-30T19:00', 2), '2027-04-06T19:00')).toBe('2027-04-06T19:00/2027-04-08T21:00');
    expect(spanOf(lengthenDate(weekly, '2027-03-30T19:00', 'start', -1), '2027-03-30T19:00')).toBe('2027-03-29T19:00/2027-03-30T21:00');
    const fair = lengthenDate(single('2027-05-14', 2), '2027-05-14', 'start', 1);
    expect([datesOf(fair), fair?.changes, fair?.recurrence?.parts[0]?.length?.days]).toEqual([['2027-05-15'], [], 1]);
  });
  it('is never left without a day, nor longer than a year', () => {
    expect(lengthenDate(single('2027-05-14', 2), '2027-05-14', 'end', -2)).toBeUndefined();
    expect(lengthenDate(single('2027-05-14', 2), '2027-05-14', 'start', 2)).toBeUndefined();
    expect(lengthenDate(weekly, '2027-03-30T19:00', 'end', -1)).toBeUndefined();
    expect(lengthenDate(single('2027-05-14'), '2027-05-14', 'end', 400)).toBeUndefined();
  });
});
