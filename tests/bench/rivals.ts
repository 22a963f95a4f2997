/** The libraries that the expansion is measured against: rule text in, local starts of one month out. */
import ICAL from 'ical.js';
import rrule from 'rrule';
import { DateTime, RRuleSet, type Time } from 'rrule-rust';
import { RRuleTemporal } from 'rrule-temporal';
import { dayOf, isoDay } from '@/core/day/day';
import { daysOfStretch } from '@/core/recurrence/days';
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

/** Each answers the days (`2027-03-02`) on which the rule has a date in the month. */
export type Rival = (q: Question) => string[];

const pad = (n: number): string => String(n).padStart(2, '0');

export const ours: Rival = ({ start, rule, year, month }) => {
  const day = dayOf(Number(start.slice(0, 4)), Number(start.slice(4, 6)), Number(start.slice(6, 8)));
  const { rule: parsed, limit } = readRuleText(rule, 'UTC', MINUTE);
  const stretch = { start: { day, minute: MINUTE }, length: null, rule: parsed, limit };
  const from = dayOf(year, month, 1);
  return daysOfStretch(stretch, 'UTC', from, dayOf(year + (month === 12 ? 1 : 0), (month % 12) + 1, 1) - 1).map(isoDay);
};

const bounds = ({ year, month }: Question): [Date, Date] => [
  new Date(Date.UTC(year, month - 1, 1)),
  new Date(Date.UTC(year, month, 1) - 1),
];

const stamp = (d: Date) =>
  DateTime.create(d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate(), d.getUTCHours(), d.getUTCMinutes(), d.getUTCSeconds(), true);

export const rivals: Record<string, Rival> = {
  rrule: (q) => {
    const [from, to] = bounds(q);
    return rrule
      .rrulestr(`DTSTART:${q.start}Z\nRRULE:${q.rule}`, { cache: false })
      .between(from, to, true)
      .map((d) => d.toISOString().slice(0, 10));
  },
  'rrule-temporal': (q) => {
    const [from, to] = bounds(q);
    const set = new RRuleTemporal({ rruleString: `DTSTART:${q.start}Z\nRRULE:${q.rule}` });
    return set.between(from, to, true).map((z) => `${z.year}-${pad(z.month)}-${pad(z.day)}`);
  },
  'rrule-rust': (q) => {
    const set = RRuleSet.fromString<DateTime<Time>>(`DTSTART:${q.start}Z\nRRULE:${q.rule}`);
    const [from, to] = bounds(q);
    return set.between(stamp(from), stamp(to), true).map((d) => `${d.year}-${pad(d.month)}-${pad(d.day)}`);
  },
  'ical.js': (q) => {
    const recur = ICAL.Recur.fromString(q.rule);
    const t = q.start;
    const start = new ICAL.Time(
      {
        year: Number(t.slice(0, 4)),
        month: Number(t.slice(4, 6)),
        day: Number(t.slice(6, 8)),
        hour: 19,
        minute: 0,
        second: 0,
        isDate: false,
      },
      ICAL.Timezone.utcTimezone,
    );
    const iterator = recur.iterator(start);
    const found: string[] = [];
    for (let next = iterator.next(); next; next = iterator.next()) {
      if (next.year > q.year || (next.year === q.year && next.month > q.month)) break;
      if (next.year === q.year && next.month === q.month) found.push(`${next.year}-${pad(next.month)}-${pad(next.day)}`);
    }
    return found;
  },
};

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
