import { describe, expect, it } from 'vitest';
import { seasonsOf } from './seasons';

describe('the seasons', () => {
  it('begin when the almanacs say, to the minute', () => {
    // Dates and times as astronomers publish them, in UTC.
    const PUBLISHED: Record<number, string[]> = {
      2024: ['2024-03-20T03:06', '2024-06-20T20:51', '2024-09-22T12:44', '2024-12-21T09:21'],
      2025: ['2025-03-20T09:01', '2025-06-21T02:42', '2025-09-22T18:19', '2025-12-21T15:03'],
      2027: ['2027-03-20T20:25', '2027-06-21T14:11', '2027-09-23T06:02', '2027-12-22T02:42'],
    };
    for (const [year, times] of Object.entries(PUBLISHED))
      for (const [i, { ms }] of seasonsOf(Number(year), 43).entries())
        expect(Math.abs(ms - Date.parse(`${times[i]}:30Z`)), `${times[i]}`).toBeLessThan(90_000);
  });

  it('are the other way round in the south', () => {
    expect(seasonsOf(2027, 43).map(({ season }) => season)).toEqual(['spring', 'summer', 'autumn', 'winter']);
    expect(seasonsOf(2027, -33).map(({ season }) => season)).toEqual(['autumn', 'winter', 'spring', 'summer']);
  });
});
