/** Rules as schema.org Schedule: as much of a recurrence as that vocabulary has words for. */
import { isoDay } from '../day/day';
import { isoTime } from '../day/plain-date-time';
import { WEEKDAYS } from '../phrase/format';
import type { ByDay, Frequency, Recurrence, RecurrencePart, Rule } from '../recurrence/model';
import { WEEKDAY_CODES } from '../recurrence/rule-text';

/** The unit of each period in an ISO 8601 duration. */
const UNITS: Partial<Record<Frequency, string>> = { daily: 'D', weekly: 'W', monthly: 'M', yearly: 'Y' };

/** "every Tuesday" is a day of the week, "the second Tuesday" iCalendar's text, which schema.org takes too. */
const dayJsonLd = ({ weekday, nth }: ByDay): string =>
  nth === 0 ? `https://schema.org/${WEEKDAYS[weekday]}` : `${nth}${WEEKDAY_CODES[weekday]}`;

/** May the rule be said without saying something else? Schedule has no seasons, hours, positions or weeks of the year. */
const isSayable = (rule: Rule): boolean =>
  UNITS[rule.freq] !== undefined &&
  // Nor has it a first day of the week, which tells every second week where the first one began.
  (rule.freq !== 'weekly' || rule.interval === 1 || rule.weekStart === 0) &&
  ![rule.byYearDay, rule.byWeekNo, rule.byHour, rule.byMinute, rule.bySecond, rule.bySetPos, rule.seasons].some((list) => list?.length);

function scheduleOf(
  { start, length, rule, limit, sun }: RecurrencePart,
  zone: string,
  except: readonly string[],
): Record<string, unknown>[] {
  // Nor has it a sun: each date's own time is said with the date.
  if (!rule || sun || !isSayable(rule)) return [];
  return [
    {
      '@type': 'Schedule',
      startDate: isoDay(start.day),
      repeatFrequency: `P${rule.interval}${UNITS[rule.freq]}`,
      ...(rule.byDay.length ? { byDay: rule.byDay.map(dayJsonLd) } : {}),
      ...(rule.byMonth.length ? { byMonth: rule.byMonth } : {}),
      ...(rule.byMonthDay.length ? { byMonthDay: rule.byMonthDay } : {}),
      ...(limit.kind === 'until' ? { endDate: isoDay(limit.day) } : {}),
      ...(limit.kind === 'count' ? { repeatCount: limit.count } : {}),
      ...(start.minute === null ? {} : { startTime: isoTime(start.minute) }),
      ...(length === null || length.minute === null ? {} : { endTime: isoTime(length.minute) }),
      scheduleTimezone: zone,
      ...(except.length ? { exceptDate: except } : {}),
    },
  ];
}

/** So many days that are left out are said; a machine that needs more reads the calendar file. */
const MOST_EXCEPT = 100;

/** The schedules of a recurrence's rules; single dates, and rules that the vocabulary cannot say, have none. */
export function schedulesOf({ zone, parts, exdates, breaks }: Recurrence): Record<string, unknown>[] {
  // A break has no word there: its days would have to be said one by one, and a schedule without them would claim dates that are none.
  if (breaks.length) return [];
  if (exdates.length > MOST_EXCEPT) return [];
  return parts.flatMap((part) => {
    const own = exdates.filter(({ minute }) => minute === part.start.minute);
    return scheduleOf(
      part,
      zone,
      own.map(({ day }) => isoDay(day)),
    );
  });
}
