import { describe, expect, it } from 'vitest';
import { dayOf, isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { rule } from '@/core/recurrence/model';
import { SETTINGS } from '../../../tests/support/db';
import { indexRows, lastDayOf } from './date-index';

const rows = (part: Partial<ListingContent>) =>
  indexRows({
    listingId: 'l',
    content: { ...emptyContent(), title: 'Talk', ...part },
    isPublic: true,
    settings: SETTINGS,
    horizon: dayOf(2027, 12, 31),
  });
const talk = (zone: string, more: object = {}): ListingContent['recurrence'] => ({
  ...{ format: 3, zone, exdates: [], breaks: [] },
  parts: [{ start: '2027-06-24T09:00', length: { days: 0, minute: 630 }, rule: null, limit: { kind: 'open' }, ...more }],
});
const when = (list: ReturnType<typeof rows>) => list.map((r) => `${isoDay(r.start_day)} ${r.start_minute}–${r.end_minute} ${r.starts_at}`);

describe('the index of dates', () => {
  it('shows an online date by the clock of the site, and one with a place by that of the place; the moment is the same', () => {
    expect(when(rows({ attendance: 'online', recurrence: talk('Asia/Tokyo') }))).toEqual(['2027-06-23 1260–1350 2027-06-24T00:00:00Z']);
    expect(when(rows({ attendance: 'both', venueIds: ['v'], recurrence: talk('Asia/Tokyo') }))).toEqual([
      '2027-06-24 540–630 2027-06-24T00:00:00Z',
    ]);
    expect(when(rows({ venueIds: [], recurrence: talk('Asia/Tokyo') }))[0]).toMatch(/^2027-06-23 1260/);
  });
  it('lets an end until six in the morning belong to the evening before, and one a minute later to its own day', () => {
    const evening = { day: 100, minute: 1320 };
    expect([0, 1, 359, 360, 361, 720].map((minute) => lastDayOf(evening, { day: 101, minute }))).toEqual([100, 100, 100, 100, 101, 101]);
    expect(lastDayOf({ day: 100, minute: 60 }, { day: 100, minute: 300 })).toBe(100);
    expect(lastDayOf({ day: 100, minute: null }, { day: 103, minute: null })).toBe(102);
  });
  it('gives two dates of one day, of two parts or one of them moved away, an address each that says its time', () => {
    const list = rows({
      recurrence: {
        ...{ format: 3, zone: SETTINGS.zone, exdates: [], breaks: [] },
        parts: ['2027-06-24T10:00', '2027-06-24T14:00', '2027-06-25T10:00'].map((start) => ({
          start,
          length: null,
          rule: null,
          limit: { kind: 'open' as const },
        })),
      },
      changes: [{ original: '2027-06-24T14:00', movedTo: '2027-06-26T14:00', length: null, eventStatus: null, note: '' }],
    });
    expect(list.map((r) => r.slug).sort()).toEqual(['2027-06-24T1000', '2027-06-24T1400', '2027-06-25']);
  });
  it('gives each date an address of its own, also where one rule has several times a day', () => {
    const twice = rule('daily', { byHour: [10, 14] });
    const list = rows({
      recurrence: talk(SETTINGS.zone, { start: '2027-06-24T10:00', length: null, rule: twice, limit: { kind: 'count', count: 4 } }),
    });
    expect(list.map((r) => r.slug)).toEqual(['2027-06-24T1000', '2027-06-24T1400', '2027-06-25T1000', '2027-06-25T1400']);
    expect(rows({ recurrence: talk(SETTINGS.zone) }).map((r) => r.slug)).toEqual(['2027-06-24']);
  });
});
