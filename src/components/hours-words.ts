/** The words and the clock in which a reader has a venue's hours. */
import { sayTimes, type Style } from '@/core/phrase/format';
import type { HoursWords } from '@/core/venue/hours';
import type { ReadersWords } from '@/words/readers';

export const hoursWords = ({ place: w }: ReadersWords, style: Style): HoursWords => ({
  closed: w.closed(),
  allDay: w.allDay(),
  to: (from, last) => w.daysTo({ from, to: last }),
  and: (from, last) => w.daysAnd({ from, to: last }),
  times: (from, to) => sayTimes(from, to, style),
});
