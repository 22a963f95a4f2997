/**
 * A recurrence set as files and programs write it (RFC 5545 3.8.5): a first start, rules, further and left-out dates, and
 * breaks. Starts are local seconds (see times.ts); texts are `2024-01-02T19:00:00`, or `2024-01-02` for whole days.
 */
import { type EpochDay, isoDay, parseIsoDay } from '../day/day';
import { isZone, dateTimeToInstant } from '../day/zone';
import { daysOfPart } from './days';
import type { Break, Limit, Rule } from './model';
import { readRuleText } from './rule-text';
import { Budget } from './budget';
import { hasTimes, type LocalSecond, SECONDS_OF_DAY, startsOfRule } from './sub-daily';

/** More dates than this in one window are refused: it would be a rule of seconds over days. */
export const MOST_IN_WINDOW = 1_000_000;
/** The operator's command may look longer than a page may: its process does nothing else. */
const MOST_LOOKS = 100_000_000;

/** What is wrong with a set, in a sentence that names the part. */
export class SetError extends Error {
  override name = 'SetError';
}

/** A set as it is written; zone null = floating. */
export interface WrittenSet {
  zone: string | null;
  start: string;
  rules: readonly string[];
  rdates: readonly string[];
  exdates: readonly string[];
  breaks: readonly { from: string; to: string }[];
}

interface RecurrenceSet {
  zone: string;
  allDay: boolean;
  start: LocalSecond;
  rules: { rule: Rule; limit: Limit }[];
  rdates: LocalSecond[];
  exdates: Set<LocalSecond>;
  breaks: Break[];
}

/** Reads a written start. Throws {@link SetError}, naming `what`. */
export function readStart(text: string, what: string): { second: LocalSecond; allDay: boolean } {
  const match = /^(\d{4}-\d{2}-\d{2})(?:T(\d{2}):(\d{2})(?::(\d{2}))?)?$/.exec(text);
  const form = 'are written 2024-01-02T19:00:00, or 2024-01-02 for a whole day';
  if (!match) throw new SetError(`${what}: “${text.slice(0, 40)}” cannot be read; dates ${form}, without a zone`);
  const day = parseIsoDay(match[1] ?? '');
  if (day === undefined) throw new SetError(`${what}: there is no ${match[1]}`);
  if (match[2] === undefined) return { second: day * SECONDS_OF_DAY, allDay: true };
  const [hour, minute, second] = [Number(match[2]), Number(match[3]), Number(match[4] ?? 0)];
  if (hour > 23 || minute > 59 || second > 59) throw new SetError(`${what}: there is no time ${text.slice(11)}`);
  return { second: day * SECONDS_OF_DAY + hour * 3600 + minute * 60 + second, allDay: false };
}

/** Reads a written day. Throws {@link SetError}, naming `what`. */
export function readDay(text: string, what: string): EpochDay {
  const day = parseIsoDay(text);
  if (day === undefined) throw new SetError(`${what}: “${text.slice(0, 40)}” is no day; days are written 2024-01-02`);
  return day;
}

function readSet(written: WrittenSet): RecurrenceSet {
  const { zone } = written;
  if (zone !== null && !isZone(zone))
    throw new SetError(`The zone “${zone.slice(0, 60)}” is not known; zones are named like America/Halifax`);
  const { second: start, allDay } = readStart(written.start, 'The start');
  const set: RecurrenceSet = { zone: zone ?? 'UTC', allDay, start, rules: [], rdates: [], exdates: new Set(), breaks: [] };
  const same = (text: string, what: string): LocalSecond => {
    const read = readStart(text, what);
    if (read.allDay !== allDay) throw new SetError(`${what}: “${text}” must be a ${allDay ? 'day' : 'day with a time'}, like the start`);
    return read.second;
  };
  const startSecond = allDay ? null : start - Math.floor(start / SECONDS_OF_DAY) * SECONDS_OF_DAY;
  for (const text of written.rules) set.rules.push(readRuleText(text.replace(/^RRULE:/i, ''), set.zone, startSecond));
  for (const text of written.rdates) set.rdates.push(shifted(same(text, 'A further date'), set));
  for (const text of written.exdates) {
    const second = same(text, 'A left-out date');
    set.exdates.add(second).add(shifted(second, set));
  }
  for (const b of written.breaks) {
    const [from, to] = [readDay(b.from, 'A break'), readDay(b.to, 'A break')];
    if (to < from) throw new SetError(`A break: ${b.to} lies before ${b.from}`);
    set.breaks.push({ from, to });
  }
  return set;
}

/** A start given by itself whose wall time the zone skips is read with the offset before the gap (RFC 5545 3.3.5). */
function shifted(second: LocalSecond, { zone, allDay }: RecurrenceSet): LocalSecond {
  if (allDay || zone === 'UTC') return second;
  const day = Math.floor(second / SECONDS_OF_DAY);
  const instant = dateTimeToInstant(zone, { day, minute: (second - day * SECONDS_OF_DAY) / 60 });
  return instant.kind === 'gap' ? second + instant.minutes * 60 : second;
}

/**
 * The starts of a set on the days from `from` to `to`, both included, ascending, each once. The first start counts as a
 * date; a left-out date takes away one that a rule names or that was added; COUNT counts before anything is left out.
 * Throws {@link SetError} or RuleTextError, and when there are more than {@link MOST_IN_WINDOW}.
 */
export function datesOfSet(written: WrittenSet, from: EpochDay, to: EpochDay): string[] {
  if (to < from) throw new SetError('The window ends before it begins');
  const set = readSet(written);
  const found = new Set<LocalSecond>();
  const inWindow = (second: LocalSecond): boolean => second >= from * SECONDS_OF_DAY && second < (to + 1) * SECONDS_OF_DAY;
  for (const one of set.rules) for (const second of startsOf(one, set, from, to)) found.add(second);
  // Without a rule, and where the window's edge lies between a start in a gap and its shifted time, the first start is added here.
  const first = shifted(set.start, set);
  const counts =
    !set.rules.length ||
    set.rules.some(({ limit }) => limit.kind !== 'until' || limit.day * SECONDS_OF_DAY + (limit.second ?? SECONDS_OF_DAY) >= set.start);
  if (first !== set.start) found.delete(set.start);
  if (counts && inWindow(first)) found.add(first);
  for (const second of set.rdates) if (inWindow(second)) found.add(second);
  const kept = [...found].filter((second) => {
    const day = Math.floor(second / SECONDS_OF_DAY);
    return !set.exdates.has(second) && !set.breaks.some((b) => day >= b.from && day <= b.to);
  });
  if (kept.length > MOST_IN_WINDOW) throw tooMany();
  return kept.sort((a, b) => a - b).map((second) => isoStart(second, set.allDay));
}

const tooMany = (): SetError =>
  new SetError(`There are more than ${MOST_IN_WINDOW.toLocaleString('en')} dates in this window; ask a shorter one`);

function startsOf({ rule, limit }: { rule: Rule; limit: Limit }, set: RecurrenceSet, from: EpochDay, to: EpochDay): LocalSecond[] {
  const { start, zone, allDay } = set;
  const day = Math.floor(start / SECONDS_OF_DAY);
  const at = start - day * SECONDS_OF_DAY;
  if (hasTimes(rule)) {
    const { seconds, cut } = startsOfRule({ rule, limit, start, zone }, from, to, MOST_IN_WINDOW, new Budget(MOST_LOOKS));
    if (cut) throw tooMany();
    return seconds;
  }
  const recurrencePart = { start: { day, minute: allDay ? null : at / 60 }, length: null, rule, limit };
  const days = daysOfPart(recurrencePart, zone, from, to);
  if (days.length > MOST_IN_WINDOW) throw tooMany();
  return days.map((d) => d * SECONDS_OF_DAY + at);
}

const two = (n: number): string => (n < 10 ? `0${n}` : `${n}`);

/** `2024-01-02T19:00:00`, or the day alone. */
export function isoStart(second: LocalSecond, allDay: boolean): string {
  const day = Math.floor(second / SECONDS_OF_DAY);
  if (allDay) return isoDay(day);
  const at = second - day * SECONDS_OF_DAY;
  return `${isoDay(day)}T${two(Math.floor(at / 3600))}:${two(Math.floor((at % 3600) / 60))}:${two(at % 60)}`;
}
