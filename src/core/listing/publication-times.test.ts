import { describe, expect, it } from 'vitest';
import { dayOf } from '../day/day';
import { dateTimeToInstant } from '../day/zone';
import { NO_TIMES, partsOf, readTimes, type Times } from './publication-times';

const zone = 'America/Halifax';
const now = { ms: dateTimeToInstant(zone, { day: dayOf(2027, 3, 13), minute: 540 }).ms };
const read = (part: Partial<Times>, isPublic = false) => readTimes({ ...NO_TIMES, ...part }, { now, zone, isPublic });
const wrong = (part: Partial<Times>, isPublic = false) => {
  const said = read(part, isPublic);
  return 'problems' in said ? said.problems.map((p) => `${p.field}: ${p.message}`) : [];
};

describe('times by which a listing goes out and comes down', () => {
  it('are the site’s walls', () => {
    expect(read({ publishAt: '2027-04-01T09:00', withdrawAt: '2027-04-02T09:00' })).toEqual({
      instants: { publishAt: Date.UTC(2027, 3, 1, 12), withdrawAt: Date.UTC(2027, 3, 2, 12) },
    });
    expect(read({})).toEqual({ instants: { publishAt: null, withdrawAt: null } });
    // Twice on the day the clocks go back: the first of the two.
    expect(read({ publishAt: '2027-11-07T01:30' })).toMatchObject({ instants: { publishAt: Date.UTC(2027, 10, 7, 4, 30) } });
  });
  it('say what is wrong with them', () => {
    expect(wrong({ publishAt: '2027-03-13T09:00' })[0]).toContain('is past');
    expect(wrong({ publishAt: '2027-03-13T09:01' })).toEqual([]);
    expect(wrong({ publishAt: '2027-03-14T02:30' })[0]).toContain('02:30 does not exist on that day');
    expect(wrong({ publishAt: '2027-04-01' })[0]).toContain('A day and a time of day');
    expect(wrong({ publishAt: '2027-02-30T09:00' })[0]).toContain('A day and a time of day');
    expect(wrong({ publishAt: '2040-02-20T09:00' })[0]).toContain('five years');
    expect(wrong({ publishAt: '2027-04-01T09:00', withdrawAt: '2027-04-01T09:00' })).toEqual([
      'withdrawAt: It would come down before it goes out; choose a later time.',
    ]);
    expect(wrong({ withdrawAt: '2027-04-01T09:00' })[0]).toContain('It is not out');
    expect(wrong({ withdrawAt: '2027-04-01T09:00' }, true)).toEqual([]);
    expect(wrong({ publishAt: 'x', withdrawAt: 'y' })).toHaveLength(2);
  });
  it('are parted for the form', () => {
    expect([partsOf('2027-04-01T09:05'), partsOf(null)]).toEqual([
      { day: '2027-04-01', minute: 545 },
      { day: '', minute: null },
    ]);
  });
});
