/** Measurements of what happens while somebody types, and of many listings at once. No database. */
import { dayOf } from '@/core/day/day';
import { readPhrase } from '@/core/phrase/read/read-phrase';
import { sayRecurrence } from '@/core/phrase/say';
import { readIcal } from '@/core/exchange/read-ical';
import { expand, startsBetween } from '@/core/recurrence/expand';
import type { Recurrence } from '@/core/recurrence/model';
import { generateRule, random } from '../support/generate';

const now = (): number => Number(process.hrtime.bigint()) / 1e6;
const TODAY = dayOf(2027, 3, 10);
const STYLE = { date: 'day-month', hours: '24' } as const;
const PHRASES = [
  'every 1st and 3rd Sunday 7:40am for 2 hours, March to October, not in August',
  'Tue and Thu 19.30-21 until end of June',
  'every other Wednesday from 7 Apr, 10 times, except 5 May',
  'weekdays at noon for 3 weeks',
  'every day 10 to 4 until 31 December 2029',
];

/** Milliseconds of reading, expanding over 36 months and saying back, at the 99th percentile of keystrokes. */
export function keystrokeP99(): number {
  const times: number[] = [];
  for (let round = 0; round < 30; round++) {
    for (const phrase of PHRASES) {
      for (let length = 1; length <= phrase.length; length++) {
        const start = now();
        const { recurrence } = readPhrase({
          phrase: phrase.slice(0, length),
          now: { day: TODAY, minute: 600 },
          zone: 'America/Halifax',
          weekStart: 0,
          style: STYLE,
        });
        if (recurrence) {
          expand(recurrence, [], TODAY, TODAY + 1100);
          sayRecurrence(recurrence, STYLE, { whole: true });
        }
        if (round > 1) times.push(now() - start);
      }
    }
  }
  times.sort((a, b) => a - b);
  return times[Math.floor(times.length * 0.99)] ?? 0;
}

function openEnded(count: number): Recurrence[] {
  const r = random(7);
  return Array.from({ length: count }, () => ({
    zone: 'America/Halifax',
    parts: [
      {
        start: { day: TODAY - Math.floor(r() * 900), minute: 8 * 60 + Math.floor(r() * 12) * 60 },
        length: { days: 0, minute: 1380 },
        rule: generateRule(r),
        limit: { kind: 'open' as const },
      },
    ],
    exdates: [],
    breaks: [],
  }));
}

export interface Many {
  /** milliseconds for all, and how many dates came */
  ms: number;
  dates: number;
}

/** So many mixed open-ended listings over 36 months. */
export function expandMany(count: number): Many {
  const listings = openEnded(count);
  for (const one of listings.slice(0, 300)) startsBetween(one, TODAY, TODAY + 1096);
  const start = now();
  let dates = 0;
  for (const one of listings) dates += startsBetween(one, TODAY, TODAY + 1096).length;
  return { ms: now() - start, dates };
}

/** Seconds to read a calendar file of so many events, and how far the heap grew beyond its events, in MB. */
export function readManyEvents(count: number): { seconds: number; events: number } {
  const lines = ['BEGIN:VCALENDAR', 'VERSION:2.0'];
  for (let i = 0; i < count; i++) {
    const day = String((i % 28) + 1).padStart(2, '0');
    lines.push(
      'BEGIN:VEVENT',
      `UID:${i}@harbour.example`,
      `SUMMARY:Slip Day ${i}`,
      `DTSTART;TZID=America/Halifax:202704${day}T090000`,
      `DTEND;TZID=America/Halifax:202704${day}T110000`,
    );
    if (i % 3 === 0) lines.push('RRULE:FREQ=WEEKLY;COUNT=10');
    lines.push('DESCRIPTION:Bring a brush\\, gloves and an hour.', 'LOCATION:Port Amble Slip', 'END:VEVENT');
  }
  lines.push('END:VCALENDAR');
  const text = lines.join('\r\n');
  const start = now();
  const { events } = readIcal(text, { siteZone: 'America/Halifax', chosen: new Map(), candidates: [] });
  return { seconds: (now() - start) / 1000, events: events.length };
}
