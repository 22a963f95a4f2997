import { describe, expect, it } from 'vitest';
import { type ListingContent, sayCost } from '../listing/content';
import { rule } from '../recurrence/model';
import { good, SITE, when } from '../../../tests/support/good-listing';
import { stopsPublishing } from './note';
import { validate } from './validate';

const kinds = (part: Partial<ListingContent>): string[] =>
  validate({ ...good, ...part }, SITE)
    .filter((n) => n.severity !== 'good')
    .map((n) => n.kind);

describe('Proof', () => {
  it('finds nothing in a good listing', () => expect(kinds({})).toEqual([]));
  const cases: [string, Partial<ListingContent>, Partial<ListingContent>][] = [
    ['title-missing', { title: ' ' }, { title: 'x' }],
    ['title-capitals', { title: 'SEED SWAP' }, { title: 'Seed SWAP' }],
    [
      'short-title-long',
      { title: 'A very long title that will never fit two lines' },
      { title: 'A very long title that will never fit two lines', shortTitle: 'Short' },
    ],
    ['category-missing', { categoryIds: [] }, {}],
    ['summary-missing', { summary: '' }, {}],
    ['summary-long', { summary: 'x'.repeat(156) }, { summary: 'x'.repeat(155) }],
    ['when-missing', { recurrence: null }, {}],
    [
      'end-before-start',
      { recurrence: when({ length: { days: 0, minute: 1080 } }) },
      { recurrence: when({ length: { days: 1, minute: 60 } }) },
    ],
    [
      'never',
      { recurrence: when({ start: '2027-02-01T19:00', length: null, rule: rule('yearly', { byMonth: [2], byMonthDay: [30] }) }) },
      { recurrence: when({ start: '2028-02-29T19:00', length: null, rule: rule('yearly', { byMonth: [2], byMonthDay: [29] }) }) },
    ],
    [
      'limit-before-start',
      { recurrence: when({ rule: rule('weekly'), limit: { kind: 'until', day: '2027-03-22' } }) },
      { recurrence: when({ rule: rule('weekly'), limit: { kind: 'until', day: '2027-03-23' } }) },
    ],
    ['no-dates', { recurrence: when({}, { exdates: ['2027-03-23T19:00'] }) }, { recurrence: when({}, { exdates: ['2027-03-24T19:00'] }) }],
    [
      'break-reversed',
      { recurrence: when({}, { breaks: [{ from: '2027-05-02', to: '2027-05-01' }] }) },
      { recurrence: when({}, { breaks: [{ from: '2027-05-01', to: '2027-05-01' }] }) },
    ],
    [
      'start-not-in-rule',
      { recurrence: when({ rule: rule('weekly', { byDay: [{ weekday: 3, nth: 0 }] }) }) },
      { recurrence: when({ rule: rule('weekly', { byDay: [{ weekday: 1, nth: 0 }] }) }) },
    ],
    [
      'start-in-gap',
      { recurrence: when({ start: '2028-03-12T02:30', length: null }) },
      { recurrence: when({ start: '2028-03-12T03:30', length: null }) },
    ],
    [
      'dates-in-gap',
      { recurrence: when({ start: '2027-11-14T02:30', length: null, rule: rule('weekly') }) },
      { recurrence: when({ start: '2027-11-14T03:30', length: null, rule: rule('weekly') }) },
    ],
    ['no-coming-date', { recurrence: when({ start: '2027-03-16T19:00' }) }, { recurrence: when({ start: '2027-03-17T19:00' }) }],
    ['date-unknown', { recurrence: when({ start: '2027-02-31T19:00' }) }, {}],
    ['online-address-missing', { attendance: 'online' }, { attendance: 'online', onlineAddress: 'https://x.example' }],
    ['venue-missing', { venueIds: [] }, { venueIds: [], attendance: 'online', onlineAddress: 'https://x.example' }],
    ['organizer-missing', { organizerIds: [] }, {}],
    ['cost-missing', { cost: { kind: 'unsaid' } }, {}],
    [
      'cost-unreadable',
      { cost: { kind: 'amount', amount: 'eight', currency: 'CAD' } },
      { cost: { kind: 'amount', amount: '8.50', currency: 'CAD' } },
    ],
    ['website-unsafe', { website: 'javascript:alert(1)' }, { website: 'https://shore.example' }],
    [
      'online-unsafe',
      { attendance: 'both', onlineAddress: 'shore.example' },
      { attendance: 'both', onlineAddress: 'http://shore.example' },
    ],
    [
      'mail-unreadable',
      { contact: { name: '', phone: '', mail: 'ada.shore.example' } },
      { contact: { name: '', phone: '', mail: 'ada@shore.example' } },
    ],
    ['picture-missing', { pictureId: null }, {}],
  ];
  for (const [kind, bad, fine] of cases) {
    it(`${kind}: said when it is so, silent when it nearly is`, () => {
      expect(kinds(bad)).toContain(kind);
      expect(kinds(fine)).not.toContain(kind);
    });
  }
  it('puts what stops first, and tells it apart from what is worth a look', () => {
    const notes = validate({ ...good, title: '', summary: '' }, SITE);
    expect(notes[0]?.severity).toBe('error');
    expect([stopsPublishing(notes), stopsPublishing(validate({ ...good, summary: '' }, SITE))]).toEqual([true, false]);
  });
});

describe('cost in words', () => {
  it('is said as people write it', () => {
    expect(
      [
        { kind: 'free' },
        { kind: 'amount', amount: '8', currency: 'CAD' },
        { kind: 'amount', amount: '12.5', currency: 'CAD' },
        { kind: 'words', words: 'a dish' },
        { kind: 'unsaid' },
      ].map((c) => sayCost(c as ListingContent['cost'])),
    ).toEqual(['free', '$8', '$12.50', 'a dish', '']);
  });
});
