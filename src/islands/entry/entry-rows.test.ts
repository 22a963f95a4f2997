import { describe, expect, it } from 'vitest';
import { dayOf } from '@/core/day/day';
import { draftOf } from '@/core/entry/drafts';
import { isoDateTime } from '@/core/day/plain-date-time';
import { step } from '../table/cells';
import { actionOf } from '../table/action';
import { keyOf, rowsOf } from './entry-rows';

const setting = {
  now: { day: dayOf(2027, 3, 17), minute: 540 },
  zone: 'America/Halifax',
  weekStart: 0,
  style: { date: 'day-month', hours: '24' } as const,
  currency: 'CAD',
  venues: [{ id: 'v', name: 'Net Loft' }],
  organizers: [],
  categories: [],
};

describe('rows of an entry', () => {
  it('are read, then corrected, and a correction stays with its line', () => {
    const text = 'Seed Swap 3 April 10:00 at Net Loft\njust a remark';
    const [swap, remark] = rowsOf(text, new Map(), setting);
    expect([swap?.title, swap?.venueId, swap?.make, remark?.make]).toEqual(['Seed Swap', 'v', true, false]);
    const fixes = new Map([
      [keyOf({ line: 'Seed Swap 3 April 10:00 at Net Loft' }, 0), { title: 'Big Seed Swap', when: '4 April 11:00', venueId: null }],
    ]);
    const [fixed] = rowsOf(text, fixes, setting);
    expect([fixed?.title, fixed?.venueId, fixed?.recurrence?.parts[0] && isoDateTime(fixed.recurrence.parts[0].start)]).toEqual([
      'Big Seed Swap',
      null,
      '2027-04-04T11:00',
    ]);
    expect(rowsOf(text.replace('Swap', 'Fair'), fixes, setting)[0]?.title).toBe('Seed Fair');
    const unclear = rowsOf(
      text,
      new Map([[keyOf({ line: 'Seed Swap 3 April 10:00 at Net Loft' }, 0), { when: 'one fine day' }]]),
      setting,
    )[0];
    expect([unclear?.unclear, unclear?.recurrence]).toEqual([true, null]);
  });
  it('make contents of listings', () => {
    const [row] = rowsOf('Seed Swap 3 April 10:00 at Net Loft, $5', new Map(), setting);
    expect(row && draftOf(row)).toMatchObject({
      title: 'Seed Swap',
      venueIds: ['v'],
      categoryIds: [],
      cost: { kind: 'amount', amount: '5' },
      recurrence: { parts: [{ start: '2027-04-03T10:00' }] },
    });
  });
});

describe('a place that is no venue yet', () => {
  it('stays in the words of the draft, unless a venue is chosen', () => {
    const line = 'Choir practice tue 7pm at Old <Barn>, free';
    const [row] = rowsOf(line, new Map(), setting);
    expect(row && [row.title, row.place, draftOf(row).text]).toEqual(['Choir practice', 'Old <Barn>', '<p>Where: Old &lt;Barn&gt;</p>']);
    const [chosen] = rowsOf(line, new Map([[keyOf({ line }, 0), { venueId: 'v' }]]), setting);
    expect(chosen && [draftOf(chosen).venueIds, draftOf(chosen).text]).toEqual([['v'], '']);
  });
});

describe('walking the table', () => {
  it('goes by arrows, Home and End, and stays inside', () => {
    expect([
      step({ row: 0, cell: 0 }, 'ArrowDown', 3, 2),
      step({ row: 2, cell: 1 }, 'ArrowDown', 3, 2),
      step({ row: 1, cell: 1 }, 'ArrowRight', 3, 2),
    ]).toEqual([{ row: 1, cell: 0 }, undefined, undefined]);
    expect([step({ row: 1, cell: 1 }, 'Home', 3, 2), step({ row: 0, cell: 1 }, 'End', 3, 2), step({ row: 0, cell: 0 }, 'x', 3, 2)]).toEqual(
      [{ row: 0, cell: 1 }, { row: 2, cell: 1 }, undefined],
    );
  });
});

describe('an action of the bar', () => {
  it('is complete or none', () => {
    const parts = { target: '', tags: [], instead: false, days: 7, on: true };
    expect([
      actionOf('venue', parts),
      actionOf('venue', { ...parts, target: 'v' }),
      actionOf('shift', { ...parts, days: 0 }),
      actionOf('shift', { ...parts, days: 900 }),
      actionOf('bin', parts),
      actionOf('tag', parts),
      actionOf('tag', { ...parts, tags: ['a', 'b'], instead: true }),
    ]).toEqual([
      ...[undefined, { kind: 'venue', id: 'v' }, undefined, undefined, { kind: 'bin' }],
      ...[undefined, { kind: 'tag', ids: ['a', 'b'], off: true }],
    ]);
  });
});
