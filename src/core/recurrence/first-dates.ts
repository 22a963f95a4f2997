/** A first start that its rule does not name counts as the first date (RFC 5545 3.8.5.3). Words have no such date. */
import { firstFittingDay, startFits } from './days';
import type { Recurrence, Stretch } from './model';
import { hasTimes } from './sub-daily';

/** The same dates, with such first starts as single dates of their own. Rules with times of their own stay as they are. */
export function withOwnFirstDates(recurrence: Recurrence): Recurrence {
  return { ...recurrence, stretches: recurrence.stretches.flatMap(parted) };
}

function parted(stretch: Stretch): Stretch[] {
  const { rule, start, limit } = stretch;
  if (!rule || startFits(stretch) || (start.minute !== null && hasTimes(rule))) return [stretch];
  const single: Stretch = { ...stretch, rule: null, limit: { kind: 'open' } };
  const day = firstFittingDay(stretch);
  const over = day === undefined || (limit.kind === 'until' && limit.day < day) || (limit.kind === 'count' && limit.count < 2);
  if (over) return [single];
  const rest: Stretch = {
    ...stretch,
    start: { ...start, day },
    limit: limit.kind === 'count' ? { kind: 'count', count: limit.count - 1 } : limit,
  };
  return [rest, single];
}
