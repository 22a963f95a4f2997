/** A first start that its rule does not name counts as the first date (RFC 5545 3.8.5.3). Words have no such date. */
import { firstFittingDay, startFits } from './days';
import type { Recurrence, RecurrencePart } from './model';
import { hasTimes } from './sub-daily';

/** The same dates, with such first starts as single dates of their own. Rules with times of their own stay as they are. */
export function withOwnFirstDates(recurrence: Recurrence): Recurrence {
  return { ...recurrence, parts: recurrence.parts.flatMap(parted) };
}

function parted(recurrencePart: RecurrencePart): RecurrencePart[] {
  const { rule, start, limit } = recurrencePart;
  if (!rule || startFits(recurrencePart) || (start.minute !== null && hasTimes(rule))) return [recurrencePart];
  const single: RecurrencePart = { ...recurrencePart, rule: null, limit: { kind: 'open' } };
  const day = firstFittingDay(recurrencePart);
  const over = day === undefined || (limit.kind === 'until' && limit.day < day) || (limit.kind === 'count' && limit.count < 2);
  if (over) return [single];
  const rest: RecurrencePart = {
    ...recurrencePart,
    start: { ...start, day },
    limit: limit.kind === 'count' ? { kind: 'count', count: limit.count - 1 } : limit,
  };
  return [rest, single];
}
