/** Which of a listing's coming dates is next: the first that happens. What fell through before it is said beside it, not in its place. */

/** What is asked of a date to know whether it is the next: its days, and whether it goes ahead. */
export interface ComingDate {
  /** the last day it touches, included */
  lastDay: number;
  /** of this date alone; null = as the listing */
  eventStatus: string | null;
}

const OFF = new Set(['cancelled', 'postponed']);

/** Does a date with this status not happen: cancelled or postponed? */
export const isOff = (eventStatus: string | null): boolean => OFF.has(eventStatus ?? '');

/** The next date that happens, and those before it that were called off. */
export interface Next<T> {
  /** undefined when no date is still to come; one that is off when none of them happens */
  next: T | undefined;
  /** those before it that do not happen, in order */
  off: T[];
}

/** `dates` in order of their start; those that end before `today` are past. */
export function nextDate<T extends ComingDate>(dates: readonly T[], today: number): Next<T> {
  const coming = dates.filter((date) => date.lastDay >= today);
  const at = coming.findIndex((date) => !isOff(date.eventStatus));
  return at < 0 ? { next: coming[0], off: [] } : { next: coming[at], off: coming.slice(0, at) };
}
