/** Which days a reader's choice of days is, seen from a day. */
import { type EpochDay, type Weekday, weekdayOf, weekStart } from '../day/day';
import type { DaysChoice, NamedDays } from './filters';

/** Days from one to another, both included; an end that is not there is open. */
export interface OpenSpan {
  from: EpochDay | undefined;
  to: EpochDay | undefined;
}

/** The weekend that a day is in, or the next: Saturday and Sunday, of which only what is left counts. */
function weekendFrom(today: EpochDay): { from: EpochDay; to: EpochDay } {
  const saturday = today + ((5 - weekdayOf(today) + 7) % 7);
  return weekdayOf(today) === 6 ? { from: today, to: today } : { from: saturday, to: saturday + 1 };
}

function daysNamed(named: NamedDays, today: EpochDay, firstWeekday: Weekday): { from: EpochDay; to: EpochDay } {
  switch (named) {
    case 'today':
      return { from: today, to: today };
    case 'tomorrow':
      return { from: today + 1, to: today + 1 };
    case 'weekend':
      return weekendFrom(today);
    case 'next-week': {
      const next = weekStart(today, firstWeekday) + 7;
      return { from: next, to: next + 6 };
    }
  }
}

/** The days of a choice. */
export function daysOf(choice: DaysChoice, today: EpochDay, firstWeekday: Weekday): OpenSpan {
  return choice.named ? daysNamed(choice.named, today, firstWeekday) : { from: choice.from, to: choice.to };
}

/** What of a span lies in a choice of days; undefined = nothing does. */
export function clip<T extends { from: EpochDay; to?: EpochDay }>(span: T, { from, to }: OpenSpan): T | undefined {
  const start = Math.max(span.from, from ?? span.from);
  const end = to === undefined ? span.to : Math.min(span.to ?? to, to);
  if (end !== undefined && end < start) return undefined;
  return end === undefined ? { ...span, from: start } : { ...span, from: start, to: end };
}
