import { describe, expect, it } from 'vitest';
import { dayOf, weekdayOf } from '../day/day';
import { daysIn } from '../phrase/days-in';
import { readPhrase } from '../phrase/read/read-phrase';
import { rule } from '../recurrence/model';
import { type StoredRecurrence, type StoredRecurrencePart, toStored } from '../recurrence/stored';
import { compareWords } from '../text/compare';
import { applied, staged } from './bulk-actions';
import type { ListingContent } from './content';
import { copyOf } from './copy';
import { emptyContent, FIELD_NAMES } from './fields';
import { sayField } from './say-field';
import { filledFrom } from './merge';

const recurrence = (...parts: Partial<StoredRecurrencePart>[]): StoredRecurrence => ({
  format: 3,
  zone: 'America/Halifax',
  parts: parts.map((s) => ({
    start: '2027-03-23T19:00',
    length: { days: 0, minute: 1260 },
    rule: null,
    limit: { kind: 'open' },
    ...s,
  })),
  exdates: ['2027-03-30T19:00'],
  breaks: [{ from: '2027-04-01', to: '2027-04-08' }],
});
const content = (part: Partial<ListingContent> = {}): ListingContent => ({
  ...emptyContent(),
  title: 'Copy of Seed Swap',
  eventStatus: 'cancelled',
  eventStatusNote: 'Gale',
  onTopUntil: '2027-04-01',
  changes: [{ original: '2027-03-23T19:00', movedTo: null, length: null, eventStatus: 'cancelled', note: 'Gale' }],
  recurrence: recurrence({}),
  ...part,
});
const starts = (c: ListingContent): string[] => c.recurrence?.parts.map((s) => s.start) ?? [];
const APRIL_3 = dayOf(2027, 4, 3);

describe('a copy', () => {
  it('leaves behind what belonged to the one time', () => {
    expect(copyOf(content(), { title: 'Copy of Seed Swap', days: [] })).toMatchObject({
      title: 'Seed Swap',
      changes: [],
      eventStatus: 'going-ahead',
      eventStatusNote: '',
      onTopUntil: null,
      recurrence: { exdates: [], breaks: [], parts: [{ start: '2027-03-23T19:00' }] },
    });
  });
  it('of a single date is at the same hour on each of the days', () => {
    const made = copyOf(content(), { title: 'Swap', days: [APRIL_3 + 7, APRIL_3, APRIL_3] });
    expect(starts(made)).toEqual(['2027-04-03T19:00', '2027-04-10T19:00']);
    expect(made.recurrence?.parts.every((s) => s.length?.minute === 1260)).toBe(true);
  });
  it('of a weekly listing begins on the day and falls on its weekday', () => {
    const weekly = content({
      recurrence: recurrence({ rule: rule('weekly', { byDay: [{ weekday: 1, nth: 0 }] }), limit: { kind: 'count', count: 6 } }),
    });
    const made = copyOf(weekly, { title: 'x', days: [APRIL_3] });
    expect([starts(made), made.recurrence?.parts[0]?.rule?.byDay, made.recurrence?.parts[0]?.limit]).toEqual([
      ['2027-04-03T19:00'],
      [{ weekday: weekdayOf(APRIL_3), nth: 0 }],
      { kind: 'count', count: 6 },
    ]);
  });
  it('of a rule that cannot be moved begins anew there', () => {
    const twice = content({ recurrence: recurrence({ start: '2027-04-01T19:00', rule: rule('monthly', { byMonthDay: [1, 15] }) }) });
    expect(starts(copyOf(twice, { title: 'x', days: [APRIL_3] }))).toEqual(['2027-04-03T19:00']);
    expect(copyOf(content({ recurrence: null }), { title: 'x', days: [APRIL_3] }).recurrence).toBeNull();
  });
});

describe('a copy with dates of its own', () => {
  const read = (phrase: string) => {
    const now = { day: dayOf(2027, 3, 17), minute: 540 };
    const { recurrence: found } = readPhrase({
      phrase,
      now,
      zone: 'America/Halifax',
      weekStart: 0,
      style: { date: 'day-month', hours: '24' },
    });
    return found && toStored(found);
  };
  const original = content({ recurrence: recurrence({ start: '2027-03-23T19:00', length: { days: 0, minute: 1260 } }) });
  it('keeps their rule and their end, and takes the hour and the length that they do not say', () => {
    const made = copyOf(original, {
      title: 'x',
      days: [],
      recurrence: read('every Tuesday from 2 January 2029 to 30 June 2029, not 6 March 2029'),
    });
    expect(made.recurrence?.parts[0]).toMatchObject({
      start: '2029-01-02T19:00',
      length: { days: 0, minute: 1260 },
      limit: { kind: 'until', day: '2029-06-30' },
    });
    expect(made.recurrence?.exdates).toEqual(['2029-03-06T19:00']);
    const other = copyOf(original, { title: 'x', days: [], recurrence: read('3 April 23:00') });
    expect(other.recurrence?.parts[0]).toMatchObject({ start: '2027-04-03T23:00', length: { days: 1, minute: 60 } });
  });
  it('keeps what they say themselves', () => {
    const made = copyOf(original, { title: 'x', days: [], recurrence: read('3 to 5 April') });
    expect(made.recurrence?.parts[0]).toMatchObject({ start: '2027-04-03', length: { days: 3 } });
  });
});

describe('days that somebody names', () => {
  const setting = {
    today: dayOf(2027, 3, 17),
    minute: 540,
    zone: 'America/Halifax',
    firstWeekday: 0,
    style: { date: 'day-month', hours: '24' } as const,
  };
  it('are one or several; a rule, or words that are none, are refused', () => {
    expect(daysIn('3 April', setting)).toEqual([APRIL_3]);
    expect(daysIn('3 and 10 April', setting)).toEqual([APRIL_3, APRIL_3 + 7]);
    expect(daysIn('', setting)).toEqual([]);
    expect(
      [
        daysIn('every Tuesday', setting),
        daysIn('3 April 7pm', setting),
        daysIn('3 to 5 April', setting),
        daysIn('soonish', setting),
        daysIn('3 April perhaps', setting),
        daysIn('x'.repeat(3000), setting),
      ].every((days) => days === undefined),
    ).toBe(true);
  });
});

describe('texts side by side', () => {
  it('are made of the same pieces, wherever they differ', () => {
    const pairs: [string, string][] = [
      ['', ''],
      ['', 'new'],
      ['old', ''],
      ['We sing on Tuesdays.', 'We sing on Fridays, at 19:00.'],
      ['a\nb', 'a\nc'],
      ['x'.repeat(15_000), `${'x'.repeat(7000)}y${'x'.repeat(7000)}`],
    ];
    for (const [a, b] of pairs) {
      const pieces = compareWords(a, b);
      expect(
        pieces
          .filter((p) => p.kind !== 'after')
          .map((p) => p.text)
          .join(''),
      ).toBe(a);
      expect(
        pieces
          .filter((p) => p.kind !== 'before')
          .map((p) => p.text)
          .join(''),
      ).toBe(b);
    }
    expect(compareWords('on Tuesdays', 'on Fridays').find((p) => p.kind === 'same')?.text).toBe('on ');
  });
});

describe('what is done with many, to one content', () => {
  const one = content({ categoryIds: ['a', 'b'], venueIds: ['v'], tagIds: ['t'] });
  it('changes it, or says why not', () => {
    expect(applied(one, { kind: 'category', id: 'b', instead: false })).toMatchObject({ categoryIds: ['b', 'a'] });
    expect(applied(one, { kind: 'category', id: 'c', instead: true })).toMatchObject({ categoryIds: ['c'] });
    expect(applied(one, { kind: 'tag', ids: ['t', 'u'], off: false })).toMatchObject({ tagIds: ['t', 'u'] });
    expect(applied(one, { kind: 'tag', ids: ['t'], off: true })).toMatchObject({ tagIds: [] });
    expect(applied(one, { kind: 'venue', id: 'v' })).toBe('it is so already');
    expect(applied({ ...one, attendance: 'online' }, { kind: 'venue', id: 'w' })).toContain('online');
    expect(applied({ ...one, recurrence: null }, { kind: 'shift', days: 1 })).toBe('it has no date');
    expect([staged('draft', false, 'withdraw'), staged('published', true, 'publish'), staged('draft', false, 'venue')]).toEqual([
      { reason: 'readers do not see it' },
      { to: 'published' },
      undefined,
    ]);
  });
});

describe('fields in words', () => {
  it('are all named and said', () => {
    const style = { date: 'day-month', hours: '24' } as const;
    const said = FIELD_NAMES.map((field) =>
      sayField(field, content({ venueIds: ['v', 'gone'] }), (id) => (id === 'v' ? 'Net Loft' : undefined), style),
    );
    expect(said.every((text) => typeof text === 'string')).toBe(true);
    expect(said).toContain('Net Loft, removed');
    expect(
      // Translations are there only where there are some.
      [...Object.keys(emptyContent()), 'translations'].filter((field) => field !== 'format').sort(),
    ).toEqual([...FIELD_NAMES].sort());
  });
});

describe('one filled from another', () => {
  it('takes what it lacks and keeps its own', () => {
    const mine = content({ summary: 'Mine', cost: { kind: 'unsaid' }, contact: { name: '', phone: '', mail: '' } });
    const other = content({
      summary: 'Theirs',
      cost: { kind: 'free' },
      contact: { name: 'Hester', phone: '', mail: '' },
      website: 'https://x.example',
    });
    expect(filledFrom(mine, other)).toMatchObject({
      summary: 'Mine',
      cost: { kind: 'free' },
      contact: { name: 'Hester' },
      website: 'https://x.example',
      title: mine.title,
    });
  });
});
