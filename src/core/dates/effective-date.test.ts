import { describe, expect, it } from 'vitest';
import { EVENT_STATUSES } from '../recurrence/model';
import { effectiveStatus, effectiveSummary, effectiveVenues } from './effective-date';

describe('a date as readers meet it', () => {
  it('has its own status only while its listing goes ahead', () => {
    for (const listing of EVENT_STATUSES)
      for (const date of [null, ...EVENT_STATUSES])
        expect(effectiveStatus(listing, date)).toBe(listing === 'going-ahead' ? (date ?? 'going-ahead') : listing);
  });

  it('is in its own place, else where its listing is, which is nowhere while that is online', () => {
    const at = (attendance: 'in-person' | 'online' | 'both', own: string | null) =>
      effectiveVenues({ attendance, venueIds: ['net-loft', 'lamp-room'] }, own);
    expect(at('in-person', null)).toEqual(['net-loft', 'lamp-room']);
    expect(at('both', null)).toEqual(['net-loft', 'lamp-room']);
    expect(at('online', null)).toEqual([]);
    expect(at('online', 'ropewalk')).toEqual(['ropewalk']);
    expect(at('in-person', 'ropewalk')).toEqual(['ropewalk']);
  });

  it('has the beginning of its text where no summary was written', () => {
    expect(effectiveSummary({ summary: 'Forty voices.', text: '<p>Come.</p>' })).toBe('Forty voices.');
    expect(effectiveSummary({ summary: '', text: '<p>Come.</p><p>Bring a rope.</p>' })).toBe('Come. Bring a rope.');
  });
});
