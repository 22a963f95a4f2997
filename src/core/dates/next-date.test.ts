import { describe, expect, it } from 'vitest';
import { nextDate } from './next-date';

const on = (lastDay: number, eventStatus: string | null = null) => ({ lastDay, eventStatus });

describe('the next date', () => {
  it('is the first that happens, with what fell through before it', () => {
    const dates = [on(1), on(5, 'cancelled'), on(6, 'postponed'), on(7, 'moved-online'), on(8)];
    expect(nextDate(dates, 5)).toEqual({ next: dates[3], off: [dates[1], dates[2]] });
  });
  it('is today’s while it lasts', () => expect(nextDate([on(5), on(6)], 5).next?.lastDay).toBe(5));
  it('is one that is off when none happens, so that its page can say so', () => {
    const dates = [on(5, 'cancelled'), on(6, 'cancelled')];
    expect(nextDate(dates, 5)).toEqual({ next: dates[0], off: [] });
  });
  it('is none when all are past', () => expect(nextDate([on(4)], 5)).toEqual({ next: undefined, off: [] }));
});
