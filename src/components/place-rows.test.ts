import { describe, expect, it } from 'vitest';
import type { EffectiveDate } from '@/core/dates/effective-date';
import type { ReferenceData } from '@/server/reference/read';
import type { HourEntry } from './hours-html';
import { placeRows, type RowKind } from './place-rows';
import { readerOf } from './reader';

const venue = (id: string, town: string, more: object = {}) => [
  id,
  { id, name: id, town, island: '', slug: id, binnedAt: null, hall: undefined, ...more },
];
const reference = {
  venue: new Map([
    venue('Net Loft', 'Gannet Bay'),
    venue('Pilots’ House', 'Port Amble'),
    venue('Chart Room', 'Port Amble', { hall: { name: 'Pilots’ House' } }),
    venue('Quay', 'Port Amble', { island: 'Amble', binnedAt: new Date() }),
  ] as never),
  organizer: new Map([
    ['choir', { name: 'Harbour Choir', slug: 'harbour-choir', binnedAt: null }],
    ['gone', { name: 'Rope Club', slug: 'rope-club', binnedAt: new Date() }],
  ] as never),
  category: new Map([
    ['walks', { name: 'Walks' }],
    ['music', { name: 'Music' }],
  ] as never),
  categories: [{ id: 'walks' }, { id: 'music' }],
} as unknown as ReferenceData;

const date = (listingId: string, venueIds: string[], more: Partial<EffectiveDate> = {}): HourEntry =>
  ({ of: { listingId, venueIds, attendance: 'in-person', categoryId: 'music', ...more } }) as HourEntry;
const DATES = [
  date('a', ['Quay']),
  date('b', ['Chart Room', 'Net Loft'], { categoryId: 'walks' }),
  date('c', ['Pilots’ House']),
  date('d', []),
  date('e', [], { attendance: 'online' }),
];
const rows = (by: RowKind) =>
  placeRows({
    by,
    dates: DATES,
    reference,
    reader: readerOf('en'),
    organizers: new Map([
      ['a', ['gone']],
      ['b', ['choir', 'gone']],
    ]),
  }).map(({ head, dates }) => [head.name, dates.map(({ of }) => of.listingId).join(''), head.href]);

describe('rows by place', () => {
  it('are venues by their towns, rooms after their hall, what is nowhere last; one in the bin has no page', () => {
    expect(rows('venue')).toEqual([
      ['Net Loft', 'b', '/at/Net Loft'],
      ['Pilots’ House', 'c', '/at/Pilots’ House'],
      ['Chart Room', 'b', '/at/Chart Room'],
      ['Quay', 'a', undefined],
      ['Place not named', 'd', undefined],
      ['Online', 'e', undefined],
    ]);
  });

  it('are islands, or towns where there is none; kinds in the order of the filters; organizers', () => {
    expect(rows('area').map(([name, ids]) => `${name} ${ids}`)).toEqual([
      'Amble a',
      'Gannet Bay b',
      'Port Amble bc',
      'Place not named d',
      'Online e',
    ]);
    expect(rows('kind').map(([name, ids]) => `${name} ${ids}`)).toEqual(['Walks b', 'Music acde']);
    expect(rows('organizer')).toEqual([
      ['Harbour Choir', 'b', '/by/harbour-choir'],
      ['Rope Club', 'ab', undefined],
      ['Organizer not named', 'cde', undefined],
    ]);
  });
});
