/** The days of a calendar's file as lines of the year: whole days, single or once a year. */
import type { ReadEvent } from '../exchange/read-event';
import type { Rule } from '../recurrence/model';
import { ymdOf, weekdayOf, type EpochDay } from '../day/day';
import { lineOfDays, readHolidayLines, sayHolidayLine } from './holiday-lines';
import type { HolidayRule } from './holidays';

/** What became of a file's events. */
export interface CalendarLines {
  lines: HolidayRule[];
  /** titles of events that no line can say: those with times, and those that repeat otherwise than once a year, and titles that a line would cut or read otherwise */
  left: string[];
}

/** Takes the days of a file's events. */
export function linesOfCalendar(events: readonly ReadEvent[]): CalendarLines {
  const found: CalendarLines = { lines: [], left: [] };
  for (const event of events) {
    const lines = event.changes.length || event.recurrence.exdates.length ? undefined : linesOf(event);
    if (lines) found.lines.push(...lines);
    else found.left.push(event.title);
  }
  return found;
}

function linesOf({ title, recurrence }: ReadEvent): HolidayRule[] | undefined {
  const name = title.trim().replace(/\s+/g, ' ');
  if (!name) return undefined;
  const lines: HolidayRule[] = [];
  for (const { start, length, rule, limit } of recurrence.parts) {
    const days = length?.days ?? 1;
    if (start.minute !== null || days > 366 || limit.kind === 'count') return undefined;
    const { year } = ymdOf(start.day);
    const until = limit.kind === 'until' ? { until: ymdOf(limit.day).year } : {};
    const line = rule ? yearly(name, start.day, { days, rule }) : lineOfDays(name, { from: start.day, to: start.day + days - 1 });
    if (!line) return undefined;
    lines.push(rule ? { ...line, from: year, ...until } : line);
  }
  return lines.every(isSaid) ? lines : undefined;
}

/** Does the line, written down, say what it is? A title may be too long, or end as years do. */
function isSaid(line: HolidayRule): boolean {
  const said = sayHolidayLine(line);
  const { rules, wrong } = readHolidayLines(said);
  return !wrong && rules.length === 1 && sayHolidayLine(rules[0] as HolidayRule) === said && rules[0]?.name === line.name;
}

/** Once a year on the same day, or on the same weekday of a month. */
function yearly(name: string, day: EpochDay, { days, rule }: { days: number; rule: Rule }): HolidayRule | undefined {
  const { freq, interval, byMonth, byMonthDay, byDay, byYearDay, byWeekNo, bySetPos } = rule;
  const rare = [byYearDay, byWeekNo, bySetPos].some((list) => list?.length);
  if (freq !== 'yearly' || interval !== 1 || rare || byMonth.length > 1 || byMonthDay.length > 1 || byDay.length > 1) return undefined;
  const { month, day: d } = ymdOf(day);
  if ((byMonth[0] ?? month) !== month || (byMonthDay[0] ?? d) !== d) return undefined;
  const [by] = byDay;
  if (!by) {
    const line = lineOfDays(name, { from: day, to: day + days - 1 });
    return { ...line, from: undefined, until: undefined };
  }
  if (days !== 1 || byMonthDay.length || !byMonth.length || by.nth === 0 || by.nth > 4 || by.nth < -1 || by.weekday !== weekdayOf(day))
    return undefined;
  return { name, kind: 'weekday', month, weekday: by.weekday, nth: by.nth };
}
