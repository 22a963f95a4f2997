/** `almanac read`: what a phrase says about when, from an argument or for each JSON line. Opens no database. */
import { isoDay } from '@/core/day/day';
import { compareDateTime, isoDateTime, parseIsoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import { instantToDateTime, isZone } from '@/core/day/zone';
import { readPhrase } from '@/core/phrase/read/read-phrase';
import { endOf, startsBetween } from '@/core/recurrence/expand';
import type { Recurrence, RecurrencePart } from '@/core/recurrence/model';
import { ruleText } from '@/core/recurrence/rule-text';
import { type Answer, answerLines, LineError, textAt } from './lines';
import { CliError } from './problem';

export interface ReadFlags {
  stdin?: boolean | undefined;
  now?: string | undefined;
  zone?: string | undefined;
}

/** So many dates are shown. */
const SHOWN = 10;
/** A rule's first dates are looked for over so many years. */
const YEARS_AHEAD = [2, 12, 60];

export async function read(phrase: string | undefined, flags: ReadFlags): Promise<void> {
  if (flags.stdin) {
    await answerLines((raw) => answer(textAt(raw, 'text') ?? '', textAt(raw, 'now'), textAt(raw, 'zone')));
    return;
  }
  if (phrase === undefined) throw new CliError('Say what to read: almanac read "every Tuesday 7pm until June"');
  process.stdout.write(`${JSON.stringify({ id: null, ...answer(phrase, flags.now, flags.zone) }, null, 2)}\n`);
}

function nowOf(text: string | undefined, zone: string): { day: number; minute: number } {
  if (text === undefined) return instantToDateTime(zone, Date.now());
  const wall = parseIsoDateTime(text.replace(/:\d{2}(?:\.\d+)?$/, (seconds) => (/T\d{2}:\d{2}:/.test(text) ? '' : seconds)));
  if (!wall) throw new LineError('now is written 2027-03-10T10:00');
  return { day: wall.day, minute: wall.minute ?? 0 };
}

function answer(phrase: string, nowText: string | undefined, zoneText: string | undefined): Answer {
  const zone = zoneText ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  if (!isZone(zone)) throw new LineError(`The zone “${zone.slice(0, 60)}” is not known; zones are named like America/Halifax`);
  const now = nowOf(nowText, zone);
  const reading = readPhrase({ phrase, now, zone, weekStart: 0, style: { date: 'day-month', hours: '24' } });
  return {
    ...shown(reading.recurrence),
    unread: reading.unread.map(({ text }) => text),
    problems: reading.problems.map(({ kind, text, offers }) => ({ kind, text, offers: offers.map(({ value }) => value) })),
  };
}

function shown(recurrence: Recurrence | null): Answer {
  const first = recurrence?.parts.reduce((a, b) => (compareDateTime(b.start, a.start) < 0 ? b : a));
  if (!recurrence || !first) return { start: null, end: null, allDay: null, stretches: [], exdates: [], breaks: [], dates: [] };
  return {
    start: isoDateTime(first.start),
    end: lastOf(first),
    allDay: first.start.minute === null,
    stretches: recurrence.parts.map((s) => ({
      start: isoDateTime(s.start),
      end: lastOf(s),
      rrule: ruleText(s, recurrence.zone) ?? null,
      // The standard has no seasons, so a rule's text cannot hold them.
      ...(s.rule?.seasons ? { seasons: s.rule.seasons.map(({ from, to }) => ({ from: monthDay(from), to: monthDay(to) })) } : {}),
    })),
    exdates: recurrence.exdates.map(isoDateTime),
    breaks: recurrence.breaks.map(({ from, to }) => ({ from: isoDay(from), to: isoDay(to) })),
    dates: firstDates(recurrence),
  };
}

/** `05-15` */
const monthDay = (n: number): string => `${String(Math.floor(n / 100)).padStart(2, '0')}-${String(n % 100).padStart(2, '0')}`;

/** The end as people say it: of a whole day, the last day. */
function lastOf({ start, length }: RecurrencePart): string | null {
  const end: PlainDateTime | null = endOf(start, length);
  if (!end) return null;
  return end.minute === null ? isoDay(end.day - 1) : isoDateTime(end);
}

function firstDates(recurrence: Recurrence): string[] {
  const from = Math.min(...recurrence.parts.map((s) => s.start.day));
  let dates: string[] = [];
  for (const years of YEARS_AHEAD) {
    dates = startsBetween(recurrence, from, from + years * 366).map(({ wall }) => isoDateTime(wall));
    if (dates.length >= SHOWN) break;
  }
  return dates.slice(0, SHOWN);
}
