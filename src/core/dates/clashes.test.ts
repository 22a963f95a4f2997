import { describe, expect, it } from 'vitest';
import { random } from '../../../tests/support/generate';
import type { Occurrence } from '../recurrence/model';
import { type Booking, clashesOf, mayMeet, nearTimes, spansOf } from './clashes';

const r = random(414);
const upTo = (n: number): number => Math.floor(r() * n);

/** An hour or two, a night, a whole day, several days, or an end that is not said. */
function someTime(): Pick<Booking, 'start' | 'end'> {
  const day = 20_900 + upTo(60);
  const minute = upTo(96) * 15;
  const end = minute + 15 + upTo(10) * 15;
  switch (upTo(6)) {
    case 0:
      return { start: { day, minute: null }, end: upTo(2) ? { day: day + 1 + upTo(4), minute: null } : null };
    case 1:
      return { start: { day, minute }, end: { day: day + 1 + upTo(80), minute: upTo(1440) } };
    case 2:
      return { start: { day, minute }, end: null };
    default:
      return { start: { day, minute }, end: { day: day + Math.floor(end / 1440), minute: end % 1440 } };
  }
}
const dateOf = (): Occurrence => {
  const { start, end } = someTime();
  return { original: start, start, end } as Occurrence;
};

describe('what is near some dates', () => {
  it('holds all that clashes with them, and leaves most of a full hall out', () => {
    const bookings = Array.from({ length: 600 }, (_, i): Booking => ({ ...someTime(), title: `${i}`, listingId: `${i}`, venueId: 'v' }));
    let left = 0;
    for (let round = 0; round < 120; round++) {
      const dates = Array.from({ length: 1 + upTo(5) }, dateOf);
      const margin = upTo(3) * 30;
      const near = nearTimes(spansOf(dates, margin));
      const some = bookings.filter((booking) => mayMeet(booking, near));
      const said = (list: readonly Booking[]): string[] =>
        [...clashesOf(dates, list, margin)].flatMap(([key, found]) => found.map((b) => `${key} ${b.title}`)).sort();
      expect(said(some)).toEqual(said(bookings));
      left += some.length / bookings.length;
    }
    expect(left / 120).toBeLessThan(0.6);
  });
});
