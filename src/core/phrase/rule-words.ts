/** What sayers of every language ask of a rule before they put it into words. */
import type { Rule } from '../recurrence/model';

/** Monday to Friday, each once. */
export const isWorkdays = (days: readonly number[]): boolean => days.length === 5 && days.every((day) => day < 5);

/** Which workdays of each month a rule names: [-1] = the last; undefined where it is not such a rule. */
export function workdayPositions({ freq, byDay, byMonthDay, bySetPos, byHour, byMinute, bySecond, seasons }: Rule): number[] | undefined {
  const other = byMonthDay.length || byHour || byMinute || bySecond || seasons;
  return freq === 'monthly' && !other && isWorkdays(byDay.map((d) => d.weekday)) && byDay.every((d) => !d.nth) ? bySetPos : undefined;
}

/** Months (1-12) in runs, first and last of each, across the turn of the year too; two neighbours are two runs. */
export function monthRuns(months: readonly number[]): [number, number][] {
  const has = new Set(months);
  const firsts = months.filter((m) => !has.has(m === 1 ? 12 : m - 1));
  return [...firsts]
    .sort((a, b) => a - b)
    .flatMap((first): [number, number][] => {
      let last = first;
      while (has.has((last % 12) + 1)) last = (last % 12) + 1;
      const neighbours = (first % 12) + 1 === last;
      return neighbours
        ? [
            [first, first],
            [last, last],
          ]
        : [[first, last]];
    });
}
