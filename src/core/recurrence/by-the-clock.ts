/** Dates that begin by the sun, as single dates by the clock: for whoever knows no sun. */
import type { EpochDay } from '../day/day';
import { expand } from './expand';
import type { Recurrence, RecurrencePart } from './model';

/** The same dates up to a day, each part that hangs on the sun as dates one by one; other parts stay as they are. */
export function byTheClock(recurrence: Recurrence, horizon: EpochDay): Recurrence {
  const parts = recurrence.parts.flatMap((part): RecurrencePart[] => {
    if (!part.sun) return [part];
    const own: Recurrence = { ...recurrence, parts: [part], exdates: [], breaks: [] };
    return expand(own, [], part.start.day, Math.max(horizon, part.start.day)).map(({ start, end }) => ({
      start,
      length: end && { days: end.day - start.day, minute: end.minute },
      rule: null,
      limit: { kind: 'open' },
    }));
  });
  return { ...recurrence, parts };
}
