/** What goes out is read by two parsers that are no part of the product, and both find the dates that we show. */
import { describe, expect, it } from 'vitest';
import nodeIcal, { type VEvent } from 'node-ical';
import { RRule } from 'rrule';
import { convertIcsCalendar, type IcsEvent } from 'ts-ics';
import { demoListings } from '../../../demo/listings';
import { dayOf } from '../day/day';
import { isoDateTime, type PlainDateTime } from '../day/plain-date-time';
import { isoInstant, MS_PER_UTC_DAY, dateTimeToInstant } from '../day/zone';
import { expand } from '../recurrence/expand';
import type { DateChange, Recurrence } from '../recurrence/model';
import { changesFromStored, fromStored } from '../recurrence/stored';
import { writeIcal } from './ical';

const ZONE = 'America/Halifax';
const TODAY = dayOf(2027, 3, 17);
const [FROM, TO] = [TODAY, TODAY + 366];
/** Rules of readers that look for ever end with the file's horizon. */
const HORIZON = TO + 60;

const write = (recurrence: Recurrence, changes: DateChange[]): string =>
  writeIcal({
    ...{ name: 'Almanac', url: 'https://almanac.example', horizon: HORIZON },
    listings: [
      {
        ...{ uid: '0190@almanac.example', sequence: 0, created: 0, changed: 0, title: 'Walk', description: '', url: '', location: '' },
        ...{ categories: [], eventStatus: 'going-ahead' as const, recurrence, changes },
      },
    ],
  });

/** Dates as we show them, by day or by instant; a date that is called off says so. */
function ours(recurrence: Recurrence, changes: DateChange[]): string[] {
  const instant = (wall: PlainDateTime): string =>
    wall.minute === null ? isoDateTime(wall) : isoInstant(dateTimeToInstant(recurrence.zone, wall).ms);
  return expand(recurrence, changes, FROM - 30, TO)
    .filter(({ start }) => start.day >= FROM)
    .map(({ start, eventStatus }) => `${instant(start)}${eventStatus === 'cancelled' ? ' off' : ''}`)
    .sort();
}

const inYear = (iso: string): boolean => {
  const day = Date.parse(iso.length > 10 ? iso : `${iso}T12:00:00Z`) / MS_PER_UTC_DAY;
  return day >= FROM && day < TO + 1.3;
};
const isoOf = (date: Date, wholeDay: boolean): string =>
  wholeDay
    ? `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`
    : isoInstant(date.getTime());

function byNodeIcal(text: string): string[] {
  const all = Object.values(nodeIcal.sync.parseICS(text)).filter((one): one is VEvent => one?.type === 'VEVENT');
  const window = { from: new Date((FROM - 2) * MS_PER_UTC_DAY), to: new Date((TO + 2) * MS_PER_UTC_DAY) };
  return [
    ...new Set(
      all.flatMap((event) =>
        nodeIcal.expandRecurringEvent(event, window).map((one) => {
          const off = (one.event as VEvent).status === 'CANCELLED' ? ' off' : '';
          return `${isoOf(one.start, one.isFullDay)}${off}`;
        }),
      ),
    ),
  ]
    .filter((one) => inYear(one.replace(' off', '')))
    .sort();
}

/** What the second parser read, expanded by an older library of rules: wall clocks as if they were UTC. */
function byTsIcs(text: string): string[] {
  const { events = [] } = convertIcsCalendar(undefined, text);
  const dateTimeOf = (at: { date: Date; local?: { date: Date } | undefined }): number => (at.local?.date ?? at.date).getTime();
  const said = (wall: number, event: IcsEvent): string => {
    const day = Math.floor(wall / MS_PER_UTC_DAY);
    const minute = event.start.type === 'DATE' ? null : Math.round((wall - day * MS_PER_UTC_DAY) / 60_000);
    const start = minute === null ? isoDateTime({ day, minute }) : isoInstant(dateTimeToInstant(ZONE, { day, minute }).ms);
    return `${start}${event.status === 'CANCELLED' ? ' off' : ''}`;
  };
  const moved = new Set(events.flatMap(({ recurrenceId }) => (recurrenceId ? [dateTimeOf(recurrenceId.value)] : [])));
  const found = events.flatMap((event) => {
    const start = dateTimeOf(event.start);
    if (event.recurrenceId || !event.recurrenceRule) return moved.has(start) && !event.recurrenceId ? [] : [said(start, event)];
    const left = new Set((event.exceptionDates ?? []).map(dateTimeOf));
    return startsOf(text, event.uid, start)
      .filter((wall) => !left.has(wall) && !moved.has(wall))
      .map((wall) => said(wall, event));
  });
  return [...new Set(found)].filter((one) => inYear(one.replace(' off', ''))).sort();
}

/** The starts of the rule that an event is written with; UNTIL is in UTC there, so its wall clock is taken. */
function startsOf(text: string, uid: string, start: number): number[] {
  const event = text.split('BEGIN:VEVENT').find((one) => one.includes(`UID:${uid}`) && one.includes('RRULE:')) ?? '';
  const written = /RRULE:(.*)/.exec(event.replace(/\r\n /g, ''))?.[1]?.trim() ?? '';
  const { until, ...options } = RRule.parseString(written);
  const last =
    until && until.getTime() + (written.includes('T') && written.endsWith('Z') ? -3 * 3_600_000 + 3_600_000 : MS_PER_UTC_DAY - 1);
  const rule = new RRule({ ...options, dtstart: new Date(start), ...(last ? { until: new Date(last) } : {}) });
  return rule.between(new Date((FROM - 2) * MS_PER_UTC_DAY), new Date((TO + 2) * MS_PER_UTC_DAY), true).map((date) => date.getTime());
}

describe('two parsers that are not ours', () => {
  it('find the dates of every listing of the demo, over twelve months', () => {
    let dates = 0;
    for (const demo of demoListings(TODAY)) {
      const recurrence = fromStored({
        ...{ format: 3 as const, zone: ZONE, parts: demo.when, exdates: demo.exdates ?? [], breaks: demo.breaks ?? [] },
      });
      const changes = changesFromStored(demo.changes ?? []);
      const text = write(recurrence, changes);
      const wanted = ours(recurrence, changes).filter((one) => inYear(one.replace(' off', '')));
      expect(byNodeIcal(text), `${demo.title}, first parser\n${text}`).toEqual(wanted);
      expect(byTsIcs(text), `${demo.title}, second parser\n${text}`).toEqual(wanted);
      dates += wanted.length;
    }
    expect(dates).toBeGreaterThan(300);
  });
});
