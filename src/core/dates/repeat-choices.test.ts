import { describe, expect, it } from 'vitest';
import { dayOf } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { rule } from '@/core/recurrence/model';
import type { StoredRecurrencePart } from '@/core/recurrence/stored';
import { differences, mergeContents } from '../listing/merge';
import { nextBreak, REPEATS, repeatOf, retime, ruleFor, withRule } from './repeat-choices';
import { changeDate, toggleDate } from './single-dates';

const TODAY = dayOf(2027, 3, 17);
const recurrencePart = (part: Partial<StoredRecurrencePart> = {}): StoredRecurrencePart => ({
  start: '2027-03-23T19:00',
  length: { days: 0, minute: 1260 },
  rule: rule('weekly', { byDay: [{ weekday: 1, nth: 0 }] }),
  limit: { kind: 'count', count: 5 },
  ...part,
});
const listing = (part: Partial<ListingContent> = {}): ListingContent => ({
  ...emptyContent(),
  title: 'Harbour Choir',
  recurrence: { format: 3, zone: 'America/Halifax', parts: [recurrencePart()], exdates: [], breaks: [] },
  ...part,
});

describe('repeats as the form offers them', () => {
  it('each kind makes a rule that is known again as that kind', () => {
    for (const repeat of REPEATS) if (repeat !== 'other') expect(repeatOf(ruleFor(repeat, TODAY, null)), repeat).toBe(repeat);
  });
  it('a fifth weekday means the last', () => {
    expect(ruleFor('month-weekday', dayOf(2027, 3, 31), null)?.byDay).toEqual([{ weekday: 2, nth: -1 }]);
  });
  it('a rule that the form cannot show stays as it is', () => {
    const rare = rule('weekly', { byHour: [9, 17], byDay: [{ weekday: 1, nth: 0 }] });
    expect(repeatOf(rare)).toBe('other');
    expect(ruleFor('other', TODAY, rare)).toBe(rare);
  });
});

describe('a rule of some months', () => {
  it('stays one when its kind changes, as long as that has months', () => {
    const seasonal = rule('weekly', { byMonth: [1, 2], byDay: [{ weekday: 1, nth: 0 }] });
    expect(repeatOf(seasonal)).toBe('weekly');
    expect(ruleFor('month-day', TODAY, seasonal)?.byMonth).toEqual([1, 2]);
    expect(ruleFor('yearly', TODAY, seasonal)?.byMonth).toEqual([]);
  });
});

describe('other weekdays for a rule', () => {
  const before = recurrencePart({ start: '2027-03-23T19:00', rule: rule('weekly', { byDay: [{ weekday: 1, nth: 0 }] }) });
  const thursdays = rule('weekly', { byDay: [{ weekday: 3, nth: 0 }] });
  it('move a first day that nobody set, and leave one that somebody did', () => {
    expect(withRule(before, thursdays, true).start).toBe('2027-03-25T19:00');
    expect(withRule(before, thursdays, false).start).toBe('2027-03-23T19:00');
    expect(withRule(before, rule('weekly', { byDay: [1, 3].map((weekday) => ({ weekday, nth: 0 })) }), true).start).toBe(
      '2027-03-23T19:00',
    );
  });
});

describe('the first start', () => {
  it('takes its rule, its end, its left-out dates and its changes along', () => {
    const before = listing({
      changes: [{ original: '2027-03-30T19:00', movedTo: null, length: null, eventStatus: 'cancelled', note: '' }],
    });
    if (before.recurrence) before.recurrence.exdates = ['2027-04-06T19:00'];
    const later = retime(before, 0, '2027-03-23T20:30');
    expect(later.recurrence?.exdates).toEqual(['2027-04-06T20:30']);
    expect(later.changes[0]?.original).toBe('2027-03-30T20:30');
    expect(later.recurrence?.parts[0]?.length).toEqual({ days: 0, minute: 1350 });
    const thursday = retime(before, 0, '2027-03-25T19:00');
    expect(thursday.recurrence?.parts[0]?.rule?.byDay).toEqual([{ weekday: 3, nth: 0 }]);
  });
  it('moved past midnight, the end is the next day’s; made all day, it covers its days', () => {
    expect(retime(listing(), 0, '2027-03-23T23:00').recurrence?.parts[0]?.length).toEqual({ days: 1, minute: 60 });
    const whole = retime(listing(), 0, '2027-03-23');
    expect(whole.recurrence?.parts[0]?.length).toEqual({ days: 1, minute: null });
    expect(retime(whole, 0, '2027-03-23T19:00').recurrence?.parts[0]?.length).toEqual({ days: 0, minute: 1260 });
  });
  it('a rule with several weekdays is not bent', () => {
    const two = recurrencePart({
      rule: rule('weekly', {
        byDay: [
          { weekday: 1, nth: 0 },
          { weekday: 5, nth: 0 },
        ],
      }),
    });
    const content = listing();
    if (content.recurrence) content.recurrence.parts = [two];
    expect(retime(content, 0, '2027-03-24T19:00').recurrence?.parts[0]?.rule).toEqual(two.rule);
  });
});

describe('single dates', () => {
  it('leaving out and putting back is as before', () => {
    const { recurrence } = listing();
    if (!recurrence) throw new Error('no recurrence');
    expect(toggleDate(toggleDate(recurrence, '2027-03-30T19:00'), '2027-03-30T19:00')).toEqual(recurrence);
  });
  it('a change that says nothing any more is dropped', () => {
    const changed = changeDate([], '2027-03-30T19:00', { eventStatus: 'cancelled' });
    expect(changed).toHaveLength(1);
    expect(changeDate(changed, '2027-03-30T19:00', { eventStatus: null })).toEqual([]);
  });
});

describe('two who edited', () => {
  const base = listing();
  it('what only one changed stays from both; what both changed collides', () => {
    const mine = { ...base, summary: 'Mine', title: 'My title' };
    const theirs = { ...base, access: 'Theirs', title: 'Their title' };
    const { merged, collisions } = mergeContents(base, mine, theirs);
    expect([merged.summary, merged.access, merged.title, collisions]).toEqual(['Mine', 'Theirs', 'My title', ['title']]);
  });
  it('the same change by both is no collision', () => {
    const same = { ...base, title: 'Both' };
    expect(mergeContents(base, same, { ...same }).collisions).toEqual([]);
    expect(differences(base, same)).toEqual(['title']);
  });
});

describe('a break to begin with', () => {
  const tuesdays = Array.from({ length: 12 }, (_, i) => dayOf(2027, 3, 23) + 7 * i);
  it('begins at the next date, and the next one after it', () => {
    const one = nextBreak([], tuesdays, TODAY);
    expect(one).toEqual({ from: '2027-03-23', to: '2027-04-05' });
    const two = nextBreak([one], tuesdays, TODAY);
    expect(two).toEqual({ from: '2027-04-06', to: '2027-04-19' });
    expect(nextBreak([one, two], tuesdays, TODAY).from).toBe('2027-04-20');
  });
  it('begins today where there are no dates, and never lies in another', () => {
    expect(nextBreak([], [], TODAY).from).toBe('2027-03-17');
    expect(nextBreak([{ from: '2028-01-01', to: '2028-02-01' }], tuesdays, TODAY).from).toBe('2028-02-02');
  });
});
