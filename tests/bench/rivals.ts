/** The libraries that the expansion is measured against: rule text in, local starts of one month out. */
import ICAL from 'ical.js';
import rrule from 'rrule';
import { DateTime, RRuleSet, type Time } from 'rrule-rust';
import { RRuleTemporal } from 'rrule-temporal';
import { dayOf, isoDay } from '@/core/day/day';
import { daysOfPart } from '@/core/recurrence/days';
import { readRuleText } from '@/core/recurrence/rule-text';

export interface Question {
  /** `20240102T190000` */
  start: string;
  rule: string;
  /** `2027-03` */
  year: number;
  month: number;
}

const MINUTE = 19 * 60;

/** Each answers in its own kind of value; `say` turns that into `2027-03-02`, for comparing, outside of what is timed. */
export interface Rival {
  run: (q: Question) => readonly unknown[];
  say: (value: never) => string;
}

const pad = (n: number): string => String(n).padStart(2, '0');
const monthEnd = ({ year, month }: Question): number => dayOf(month === 12 ? year + 1 : year, (month % 12) + 1, 1) - 1;

export const ours: Rival = {
  run: (q) => {
    const { start } = q;
    const day = dayOf(Number(start.slice(0, 4)), Number(start.slice(4, 6)), Number(start.slice(6, 8)));
    const { rule, limit } = readRuleText(q.rule, 'UTC', MINUTE * 60);
    return daysOfPart({ start: { day, minute: MINUTE }, length: null, rule, limit }, 'UTC', dayOf(q.year, q.month, 1), monthEnd(q));
  },
  say: (day: number) => isoDay(day),
};

const bounds = ({ year, month }: Question): [Date, Date] => [
  new Date(Date.UTC(year, month - 1, 1)),
  new Date(Date.UTC(year, month, 1) - 1),
];
const stamp = (d: Date) =>
  DateTime.create(d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate(), d.getUTCHours(), d.getUTCMinutes(), d.getUTCSeconds(), true);

export const rivals: Record<string, Rival> = {
  rrule: {
    run: (q) => rrule.rrulestr(`DTSTART:${q.start}Z\nRRULE:${q.rule}`, { cache: false }).between(...bounds(q), true),
    say: (d: Date) => d.toISOString().slice(0, 10),
  },
  'rrule-temporal': {
    run: (q) => new RRuleTemporal({ rruleString: `DTSTART:${q.start}Z\nRRULE:${q.rule}` }).between(...bounds(q), true),
    say: (z: { year: number; month: number; day: number }) => `${z.year}-${pad(z.month)}-${pad(z.day)}`,
  },
  'rrule-rust': {
    run: (q) => {
      const [from, to] = bounds(q);
      return RRuleSet.fromString<DateTime<Time>>(`DTSTART:${q.start}Z\nRRULE:${q.rule}`).between(stamp(from), stamp(to), true);
    },
    say: (d: { year: number; month: number; day: number }) => `${d.year}-${pad(d.month)}-${pad(d.day)}`,
  },
  'ical.js': {
    run: (q) => {
      const [year, month, day] = [Number(q.start.slice(0, 4)), Number(q.start.slice(4, 6)), Number(q.start.slice(6, 8))];
      const start = new ICAL.Time({ year, month, day, hour: 19, minute: 0, second: 0, isDate: false }, ICAL.Timezone.utcTimezone);
      const iterator = ICAL.Recur.fromString(q.rule).iterator(start);
      const found: ICAL.Time[] = [];
      for (let next = iterator.next(); next; next = iterator.next()) {
        if (next.year > q.year || (next.year === q.year && next.month > q.month)) break;
        if (next.year === q.year && next.month === q.month) found.push(next.clone());
      }
      return found;
    },
    say: (t: ICAL.Time) => `${t.year}-${pad(t.month)}-${pad(t.day)}`,
  },
};

export function answerOf({ run, say }: Rival, q: Question): string {
  return run(q)
    .map((value) => say(value as never))
    .join(' ');
}

export const KINDS: Record<string, string> = {
  daily: 'FREQ=DAILY',
  'every third day': 'FREQ=DAILY;INTERVAL=3',
  workdays: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR',
  weekly: 'FREQ=WEEKLY;BYDAY=TU,SA',
  'every second week': 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU',
  'monthly by day': 'FREQ=MONTHLY;BYMONTHDAY=2,-1',
  'monthly by weekday': 'FREQ=MONTHLY;BYDAY=1TU,3TU',
  yearly: 'FREQ=YEARLY;BYMONTH=3;BYDAY=1TU',
  'weekly, counted': 'FREQ=WEEKLY;BYDAY=TU,SA;COUNT=1000',
  'monthly, until': 'FREQ=MONTHLY;BYDAY=1TU;UNTIL=20300101T000000Z',
};
